import { gaugeText } from '../quantity'
import { getOrThrow, type Site } from '../site'
import { cableLengths, conductorCounts, connectorCounts, deviceCounts, spoolPlans } from '../takeoff'
import { writeCsv } from './csv'

/** A sheet of the material list: its name, and rows of plain cells with the column names first. */
interface Sheet {
  readonly name: string
  readonly rows: readonly (readonly (string | number)[])[]
}

const metres = (m: number) => Math.round(m * 10) / 10

/** The material of a property as sheets, for CSV and spreadsheets alike; lengths in metres. */
export function materialSheets(site: Site): Sheet[] {
  const tag = (place: string) => getOrThrow(site.places, place).tag
  const size = (gauge: Parameters<typeof gaugeText>[0] | null) => (gauge ? gaugeText(gauge) : '')
  const name = (id: string) => {
    const c = getOrThrow(site.cables, id)
    return c.tag ?? c.name
  }
  return [
    {
      name: 'cables',
      rows: [
        ['cable', 'from', 'to', 'kind', 'cores', 'size', 'colour', 'route_m', 'expansion_m', 'slack_m', 'order_m'],
        ...cableLengths(site).map((c) => [
          name(c.cable),
          tag(c.from),
          tag(c.to),
          c.ware.kind,
          c.ware.cores,
          size(c.ware.gauge),
          c.ware.colour ?? '',
          metres(c.route_m),
          metres(c.expansion_m),
          metres(c.slack_m),
          metres(c.order_m),
        ]),
      ],
    },
    {
      name: 'spools',
      rows: [
        ['kind', 'cores', 'size', 'colour', 'spool_m', 'cable', 'from', 'to', 'pull_m', 'left_m'],
        ...spoolPlans(site).flatMap((p) =>
          p.spools.flatMap((s) =>
            s.pulls.map((pull) => [
              p.ware.kind,
              p.ware.cores,
              size(p.ware.gauge),
              p.ware.colour ?? '',
              s.length_m,
              name(pull.cable),
              tag(pull.from),
              tag(pull.to),
              metres(pull.length_m),
              metres(s.left_m),
            ]),
          ),
        ),
      ],
    },
    {
      name: 'connectors',
      rows: [
        ['connector', 'conductors', 'count', 'with_reserve'],
        ...connectorCounts(site).map((c) => [c.connector, c.conductors, c.count, c.withReserve]),
      ],
    },
    {
      name: 'conductors',
      rows: [['size', 'length_m'], ...conductorCounts(site).map((c) => [size(c.gauge), metres(c.length_m)])],
    },
    { name: 'devices', rows: [['kind', 'coil', 'count'], ...deviceCounts(site).map((d) => [d.kind, d.name, d.count])] },
  ]
}

/** All sheets as one CSV: each with its name on a line of its own before it, an empty line after it. */
export const writeMaterialCsv = (site: Site): string =>
  materialSheets(site)
    .map(({ name, rows }) => `${name}\n${writeCsv(rows)}`)
    .join('\n')
