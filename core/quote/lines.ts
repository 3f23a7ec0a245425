import { apart_m, roundOnFoot, whereIs } from '../map'
import { placesOf, wireCode, type Possible, type RepairPart } from '../repair'
import { partKey, type Part, type QuoteLine } from '../record'
import { entries, getOrThrow, type ControllerId, type PlaceId, type Site } from '../site'

/** The code under which a price list has a part of a repair. */
export const partCode = (part: RepairPart): string => (part === 'sleeve_m' ? 'sleeve' : part)

/** A repair that is to be quoted: what is bad, and what is done about it. */
export interface QuotedRepair {
  readonly where: Part
  readonly option: Possible
}

const WALK_m_per_min = 72
/** Codes under which a price list has what a quote asks for. */
export const WORK_CODE = 'work'
export const CALL_OUT_CODE = 'call_out'

/**
 * Lines for repairs: one call-out, the walk of the whole round, and for each its work and its material with the
 * property's reserve, at the place where it is done.
 * @param further where else somebody goes for the same quote, as for what was seen there
 * @param tuned by how much the usual minutes of a repair are multiplied
 */
export function quoteLines(
  site: Site,
  controller: ControllerId,
  repairs: readonly QuotedRepair[],
  further: readonly PlaceId[] = [],
  tuned: (code: string) => number = () => 1,
): QuoteLine[] {
  if (repairs.length === 0 && further.length === 0) return []
  const { reserve_ratio } = site.settings.material
  const places = repairs.flatMap(({ where, option }) => placesOf(site, where, [option]))
  const walk_min = walkOf(site, controller, [...new Set([...places, ...further])])
  const lines: QuoteLine[] = [
    { key: 'call out', item: null, place: null, code: CALL_OUT_CODE, unit: 'visit', quantity: '1' },
    ...(walk_min > 0
      ? [
          {
            key: 'walk',
            item: null,
            place: null,
            code: WORK_CODE,
            unit: 'min' as const,
            quantity: minutesText(walk_min),
          },
        ]
      : []),
  ]
  repairs.forEach(({ where, option }, i) => {
    const [at] = placesOf(site, where, [option])
    const place = at === undefined ? null : getOrThrow(site.places, at).tag
    const key = (what: string) => `${i + 1} ${option.code} ${what}`
    const item = partKey(where)
    lines.push({
      key: key('work'),
      item,
      place,
      code: WORK_CODE,
      unit: 'min',
      quantity: minutesText(option.minutes * tuned(option.code)),
    })
    for (const [part, count] of Object.entries(option.tried.parts) as [RepairPart, number][]) {
      if (!count) continue
      const isLength = part === 'sleeve_m'
      const isSpare = part === 'connector' || part === 'cap'
      lines.push({
        key: key(part),
        item,
        place,
        code: partCode(part),
        unit: isLength ? 'm' : 'piece',
        quantity: isLength ? tenths(count) : String(isSpare ? Math.ceil(count * (1 + reserve_ratio) - 1e-9) : count),
      })
    }
    const { wire } = option.tried
    if (wire)
      lines.push({
        key: key('wire'),
        item,
        place,
        code: wireCode(wire.gauge),
        unit: 'm',
        quantity: tenths(wire.length_m * (1 + site.settings.material.expansion_ratio)),
      })
  })
  return lines
}

const minutesText = (minutes: number): string => minutes.toFixed(1).replace(/\.0$/, '')
const tenths = (length_m: number): string => (Math.ceil(length_m * 10 - 1e-9) / 10).toFixed(1).replace(/\.0$/, '')

/** Minutes from the cabinet round the places and back; places without a spot on the map are not walked to. */
function walkOf(site: Site, controller: ControllerId, places: readonly PlaceId[]): number {
  const spot = (place: PlaceId) => whereIs(getOrThrow(site.places, place))
  const home = spot(getOrThrow(site.controllers, controller).place)
  const known = entries(site.places).flatMap(([id]) => (places.includes(id) ? (spot(id) ?? []) : []))
  if (!home || known.length === 0) return 0
  const round = [home, ...roundOnFoot(home, known).map((i) => known[i]!), home]
  const walk_m = round.slice(1).reduce((sum, p, i) => sum + apart_m(round[i]!, p), 0)
  return Math.round((walk_m / WALK_m_per_min) * 10) / 10
}
