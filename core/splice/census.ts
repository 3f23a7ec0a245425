import {
  commonOf,
  endKey,
  entries,
  getOrThrow,
  netsOf,
  terminalEnd,
  wiringOf,
  type CableId,
  type CoreId,
  type End,
  type PlaceId,
  type Site,
} from '../site'
import { seenOf } from './conductor'

/** What a core is at a box: at work, the common, kept for later, or nobody knows. */
export type CoreUse = 'in_use' | 'common' | 'spare' | 'unknown'

export interface CensusCore {
  readonly cable: CableId
  readonly core: CoreId
  readonly cableTag: string
  readonly colour: string | null
  readonly use: CoreUse
  /** The terminal it is joined to, as on the door. */
  readonly terminal: string | null
  /** Here it goes through uncut, is cut and goes on, or ends. */
  readonly here: 'through' | 'cut' | 'ends'
  /** Ends of it in this box that nothing holds. */
  readonly loose: readonly End[]
}

/** Every core of every cable at a box, cable by cable in the order of their colours. */
export function censusOf(site: Site, place: PlaceId): CensusCore[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const serves = new Map<string, { terminal: string; common: boolean }>()
  for (const [controller, c] of entries(site.controllers)) {
    const common = commonOf(site, controller)
    for (const [terminal, t] of entries(c.terminals)) {
      const net = nets.of(wiring.pointOf(terminalEnd(controller, terminal)))
      if (!serves.has(net) || terminal === common)
        serves.set(net, { terminal: `${c.tag}:${t.tag}`, common: terminal === common })
    }
  }
  const devicesOn = new Set<string>()
  const [held, capped] = [new Set<string>(), new Set<string>()] as const
  for (const { connector, ends } of Object.values(site.splices))
    for (const e of ends) {
      held.add(endKey(e))
      if (connector === 'cap') capped.add(endKey(e))
      if (e.kind === 'port') devicesOn.add(nets.of(wiring.pointOf(e)))
    }
  return entries(site.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .flatMap(([id, cable]) => {
      const index = cable.stops.findIndex((s) => s.place === place)
      if (index < 0) return []
      const stop = cable.stops[index]!
      const last = cable.stops.length - 1
      return entries(cable.cores)
        .sort(([, a], [, b]) => a.order - b.order)
        .map(([core, record]): CensusCore => {
          const inner = index > 0 && index < last
          const cut = inner && record.cutAt.includes(stop.id)
          const sides = inner
            ? cut
              ? (['arrives', 'leaves'] as const)
              : []
            : index === 0
              ? (['leaves'] as const)
              : (['arrives'] as const)
          const ends = sides.map((side) => ({ kind: 'core', cable: id, core, stop: stop.id, side }) as End)
          // What it serves is told by the piece that comes from the controller; uncut, by the one that runs through.
          const piece = pieceAt(site, id, core, sides[0] === 'leaves' ? 1 : index)
          const net = nets.of(wiring.pointOf(piece[0]))
          const found = serves.get(net)
          const used = found
            ? found.common
              ? 'common'
              : 'in_use'
            : !devicesOn.has(net) && piece.every((e) => capped.has(endKey(e)))
              ? 'spare'
              : 'unknown'
          const seen = ends[0]
            ? seenOf(site, ends[0]).colour
            : (record.colourAt[stop.id] ?? record.colour?.value ?? null)
          return {
            cable: id,
            core,
            cableTag: cable.tag ?? (cable.name || id),
            colour: seen,
            use: used,
            terminal: found?.terminal ?? null,
            here: inner ? (cut ? 'cut' : 'through') : 'ends',
            loose: ends.filter((e) => !held.has(endKey(e))),
          }
        })
    })
}

/** Both ends of the piece that comes to a stop from the controller's side. It is a spare where both are capped. */
function pieceAt(site: Site, cable: CableId, core: CoreId, index: number): [End, End] {
  const { stops, cores } = getOrThrow(site.cables, cable)
  const cuts = new Set<string>(getOrThrow(cores, core).cutAt)
  let [from, to] = [index - 1, index]
  while (from > 0 && !cuts.has(stops[from]!.id)) from--
  while (to < stops.length - 1 && !cuts.has(stops[to]!.id)) to++
  return [
    { kind: 'core', cable, core, stop: stops[from]!.id, side: 'leaves' } as End,
    { kind: 'core', cable, core, stop: stops[to]!.id, side: 'arrives' } as End,
  ]
}

/** Cores of a box by use. */
export function censusCounts(census: readonly CensusCore[]): Record<CoreUse, number> {
  const counts = { in_use: 0, common: 0, spare: 0, unknown: 0 }
  for (const { use } of census) counts[use]++
  return counts
}
