import type { End } from './end'
import { endKey } from './end-key'
import { entries } from './look-up'
import type { CableId, CoreId, DefectId, DeviceId, PlaceId, SpliceId, TerminalId } from './ids'
import type { Site } from './site'

/** A point of the wiring: equal keys, no resistance between. */
export type WirePoint = string

/** What lies between two points. `broken` parts are on record as open. */
export type Link =
  | {
      readonly kind: 'stretch'
      readonly id: string
      readonly a: WirePoint
      readonly b: WirePoint
      readonly broken: boolean
      readonly cable: CableId
      readonly core: CoreId
      readonly from: number
      readonly to: number
      /** What is known to be in series with its copper, Ω. */
      readonly more_ohm: number
    }
  | {
      readonly kind: 'leg'
      readonly id: string
      readonly a: WirePoint
      readonly b: WirePoint
      readonly broken: boolean
      readonly splice: SpliceId
      readonly end: End
      /** What is known to be in series with a sound grip, Ω. */
      readonly more_ohm: number
    }
  | {
      readonly kind: 'coil'
      readonly id: string
      readonly a: WirePoint
      readonly b: WirePoint
      readonly broken: boolean
      readonly device: DeviceId
    }

/** A way between conductors, or to earth, that is known and should not be there. */
export interface Shunt {
  readonly defect: DefectId
  readonly a: WirePoint
  readonly b: WirePoint
  readonly ohm: number
}

/** The wiring as a graph, read from stretches, joints and devices alone: what was intended plays no part. */
export interface Wiring {
  readonly links: readonly Link[]
  /** No thread is followed through these. */
  readonly shunts: readonly Shunt[]
  readonly pointOf: (end: End) => WirePoint
  /** Place of every point; a joint's is the joint's own. */
  readonly placeOf: ReadonlyMap<WirePoint, PlaceId>
}

export const terminalEnd = (controller: string, terminal: string): End =>
  ({ kind: 'terminal', controller, terminal: terminal as TerminalId }) as End

/**
 * Every stretch of core between neighbouring stops, every leg of a joint (from its middle to one end) and every coil.
 * A landing is one point. Order of records does not matter to the result beyond its own order.
 */
export function wiringOf(site: Site): Wiring {
  const made = wiringsMade.get(site)
  if (made) return made
  const wiring = readWiring(site)
  wiringsMade.set(site, wiring)
  return wiring
}

/** A site is never changed in place, so its wiring is read once. */
const wiringsMade = new WeakMap<Site, Wiring>()

function readWiring(site: Site): Wiring {
  const landings = new Map<string, WirePoint>()
  for (const [id, splice] of entries(site.splices))
    if (splice.connector === 'terminal') for (const end of splice.ends) landings.set(endKey(end), `landing ${id}`)

  const pointOf = (end: End): WirePoint => {
    const key = endKey(end)
    if (end.kind === 'earth') return 'earth'
    return landings.get(key) ?? key
  }
  const { series, grips } = inSeries(site)
  const placeOf = new Map<WirePoint, PlaceId>()
  const links: Link[] = []
  for (const [cableId, cable] of entries(site.cables)) {
    for (const [coreId, core] of entries(cable.cores)) {
      const last = cable.stops.length - 1
      const cut = new Set<string>(core.cutAt)
      const at = (i: number, side: 'arrives' | 'leaves'): WirePoint => {
        const stop = cable.stops[i]!
        const point =
          i > 0 && i < last && !cut.has(stop.id)
            ? `core ${cableId} ${coreId} ${stop.id} through`
            : pointOf({ kind: 'core', cable: cableId, core: coreId, stop: stop.id, side })
        placeOf.set(point, stop.place)
        return point
      }
      for (let i = 0; i < last; i++) {
        const from = cable.stops[i]!
        const broken = [cable.condition, core.condition, core.conditions[from.id]].some((c) => c?.state === 'open')
        links.push({
          kind: 'stretch',
          id: stretchId(cableId, coreId, from.id),
          a: at(i, 'leaves'),
          b: at(i + 1, 'arrives'),
          broken,
          cable: cableId,
          core: coreId,
          from: i,
          to: i + 1,
          more_ohm: series.get(stretchId(cableId, coreId, from.id)) ?? 0,
        })
      }
    }
  }
  for (const [id, splice] of entries(site.splices)) {
    const middle: WirePoint = splice.connector === 'terminal' ? `landing ${id}` : `joint ${id}`
    placeOf.set(middle, splice.place)
    for (const end of splice.ends) {
      placeOf.set(pointOf(end), splice.place)
      if (splice.connector !== 'terminal')
        links.push({
          kind: 'leg',
          id: `${id}|${endKey(end)}`,
          a: middle,
          b: pointOf(end),
          broken: splice.condition.state === 'open' || grips.get(endKey(end)) === null,
          splice: id,
          end,
          more_ohm: grips.get(endKey(end)) ?? 0,
        })
    }
  }
  for (const [id, device] of entries(site.devices)) {
    if (device.kind !== 'coil' && device.kind !== 'relay') continue
    const port = (name: string) => pointOf({ kind: 'port', device: id, port: name })
    for (const name of ['a', 'b']) placeOf.set(port(name), device.place)
    links.push({
      kind: 'coil',
      id: `coil ${id}`,
      a: port('a'),
      b: port('b'),
      broken: device.condition.state === 'open',
      device: id,
    })
  }
  const wiring = { links, pointOf, placeOf }
  return { ...wiring, shunts: shuntsIn(site, wiring) }
}

const stretchId = (cable: string, core: string, from: string) => `${cable}/${core}@${from}`

/** What is known to be in series: by stretch, and by end; null where an end is open in its joint. */
function inSeries(site: Site) {
  const series = new Map<string, number>()
  const grips = new Map<string, number | null>()
  for (const [, d] of entries(site.defects)) {
    if (d.kind === 'series') {
      const id = stretchId(d.cable, d.core, d.from)
      series.set(id, (series.get(id) ?? 0) + d.ohm)
    }
    if (d.kind === 'grip') grips.set(endKey(d.end), d.ohm)
  }
  return { series, grips }
}

/** What is known to touch or to leak; what lies on nothing that is on record is left out. */
function shuntsIn(site: Site, { links, pointOf, placeOf }: Omit<Wiring, 'shunts'>): Shunt[] {
  const found = entries(site.defects)
  if (found.length === 0) return []
  const begins = new Map(links.flatMap((l) => (l.kind === 'stretch' ? [[l.id, l.a] as const] : [])))
  return found.flatMap(([defect, d]): Shunt[] => {
    if (d.kind === 'leak') {
      const a = pointOf(d.end)
      return placeOf.has(a) ? [{ defect, a, b: 'earth', ohm: d.ohm }] : []
    }
    if (d.kind !== 'touch') return []
    const [a, b] = [d.core, d.other].map((core) => begins.get(stretchId(d.cable, core, d.from)))
    return a && b ? [{ defect, a, b, ohm: d.ohm }] : []
  })
}
