import { entries, getOrThrow, type CableId, type DeviceId, type PlaceId, type Site } from '../site'
import type { Find } from './along'
import type { FindKind } from './finds'
import type { Way } from './way'

/** What the record has along a way that a wand ought to meet: a decoder, a T of the path, the last box. */
export interface Expected {
  readonly kind: FindKind
  readonly place: PlaceId
  readonly along_m: number
  /** The decoders there, for a local rise. */
  readonly decoders: readonly DeviceId[]
}
/** What is expected with what was met there, or neither of one. */
export interface Beside {
  readonly expected: Expected | null
  /** The number of the find, from 0. */
  readonly find: number | null
}

/** How far from where it is drawn something may be met and still be that, m: drawings are no better. */
const NEAR_m = 5

/** What the record expects along a traced cable, in the order of the way; nothing where no cable is traced. */
export function expectedAlong(site: Site, cable: CableId | null, way: Way | null): Expected[] {
  if (cable === null || way === null) return []
  const joined = branchesAt(site, cable)
  const last = getOrThrow(site.cables, cable).stops.at(-1)!.id
  return way.stops.slice(1).flatMap(({ stop, place, along_m }): Expected[] => {
    const decoders = entries(site.devices).flatMap(([id, d]) =>
      d.kind === 'decoder' && d.place === place && joined.devices.has(id) ? [id] : [],
    )
    const at = { place, along_m, decoders: [] }
    return [
      ...(decoders.length > 0 ? [{ ...at, kind: 'local' as const, decoders }] : []),
      ...(joined.cables.has(place) ? [{ ...at, kind: 'step' as const }] : []),
      ...(stop === last ? [{ ...at, kind: 'spread_end' as const }] : []),
    ]
  })
}

/** Devices that are joined to a cable’s cores, and places where another cable branches off them. */
function branchesAt(site: Site, cable: CableId) {
  const devices = new Set<DeviceId>()
  const cables = new Set<PlaceId>()
  for (const { ends, place } of Object.values(site.splices)) {
    if (!ends.some((e) => e.kind === 'core' && e.cable === cable)) continue
    for (const end of ends) {
      if (end.kind === 'port') devices.add(end.device)
      // What comes in and goes on in another cable is no branch unless this one goes on too.
      const goesOn = ends.filter((e) => e.kind === 'core' && e.cable === cable).length > 1
      if (end.kind === 'core' && end.cable !== cable && goesOn) cables.add(place)
    }
  }
  return { devices, cables }
}

const isEnd = (kind: FindKind) => kind === 'end' || kind === 'spread_end'

/**
 * Finds beside what was expected, in the order of the way: each with the nearest of its kind within a few metres or the
 * find’s own spread, the closest pairs first. Ends of either sort are one kind here: which, is what a trace is to tell.
 */
export function foundBeside(expected: readonly Expected[], finds: readonly Find[]): Beside[] {
  const pairs = expected
    .flatMap((e, i) =>
      finds.flatMap((f, k) => {
        const off_m = Math.abs(f.along_m.mid - e.along_m)
        const near_m = Math.max(NEAR_m, (f.along_m.high - f.along_m.low) / 2)
        const isKind = f.kind === e.kind || (isEnd(f.kind) && isEnd(e.kind))
        return isKind && off_m <= near_m ? [{ i, k, off_m }] : []
      }),
    )
    .sort((a, b) => a.off_m - b.off_m)
  const [ofExpected, ofFind] = [new Map<number, number>(), new Map<number, number>()]
  for (const { i, k } of pairs)
    if (!ofExpected.has(i) && !ofFind.has(k)) {
      ofExpected.set(i, k)
      ofFind.set(k, i)
    }
  return [
    ...expected.map((e, i) => ({ at_m: e.along_m, expected: e, find: ofExpected.get(i) ?? null })),
    ...finds.flatMap((f, k) => (ofFind.has(k) ? [] : [{ at_m: f.along_m.mid, expected: null, find: k }])),
  ]
    .sort((a, b) => a.at_m - b.at_m)
    .map(({ expected: e, find }) => ({ expected: e, find }))
}
