import { getOrThrow, type DeviceId, type PathAt, type PlaceId, type Site, type System } from '../site'
import { outputsOn } from './running'

/** Decoders of so many outputs each, the most first. */
export type Kinds = readonly number[]
/** What the valves of one box hang on, and what would serve them best. */
export interface BoxKinds {
  readonly place: PlaceId
  /** Outputs that are wanted in this box: its valves, two on one output counted once. */
  readonly outputs: number
  readonly now: Kinds
  readonly best: Kinds
}
/** A path by the kinds of its decoders. */
export interface KindsPlan {
  readonly boxes: readonly BoxKinds[]
  readonly now: KindsCount
  readonly best: KindsCount
  /**
   * Whether what is best was chosen by price; by the fewest decoders, and so the fewest joints, where there is none.
   */
  readonly byPrice: boolean
}
export interface KindsCount {
  readonly decoders: number
  /** Joints of the path that decoders are in, both legs. */
  readonly cuts: number
  /** Null where a price is wanted for a kind that has none. */
  readonly cents: number | null
}

/** What a decoder of so many outputs costs, in whole cents. */
export type DecoderPrices = ReadonlyMap<number, number>
/** The property’s own list. */
export const decoderPrices = (site: Site): DecoderPrices =>
  new Map(site.settings.material.decoders.map((d) => [d.outputs, d.cents]))

/**
 * The decoders for so many outputs in one box: the cheapest by the price list, fewer before more where they cost the
 * same; the fewest, with no more outputs than wanted, where there is no list.
 * @param most outputs of the largest decoder the system has
 */
export function decodersFor(outputs: number, most: number, prices: DecoderPrices): Kinds {
  if (outputs <= 0) return []
  const kinds = prices.size > 0 ? [...prices.keys()].filter((k) => k <= most) : []
  if (kinds.length === 0) {
    const rest = outputs % most
    return [...Array.from({ length: Math.floor(outputs / most) }, () => most), ...(rest > 0 ? [rest] : [])]
  }
  const best: { cents: number; kinds: Kinds }[] = [{ cents: 0, kinds: [] }]
  for (let n = 1; n <= outputs; n++) {
    const ways = kinds.map((k) => {
      const before = best[Math.max(0, n - k)]!
      return { cents: before.cents + prices.get(k)!, kinds: [...before.kinds, k] }
    })
    best.push(ways.reduce((m, w) => ((w.cents - m.cents || w.kinds.length - m.kinds.length) < 0 ? w : m)))
  }
  return [...best[outputs]!.kinds].sort((a, b) => b - a)
}

const LEGS = 2

/** Which decoders hang on a path, and which would do for the same valves. */
export function kindsOf(site: Site, path: PathAt & { readonly system: System }): KindsPlan {
  const prices = decoderPrices(site)
  const most = path.system.outputs ?? Math.max(1, ...path.decoders.map((d) => outputsOf(site, d.device)))
  const wanted = new Map<PlaceId, number>()
  const now = new Map<PlaceId, number[]>()
  const used = outputsOn(site, path)
  for (const { device } of path.decoders) {
    const { place } = getOrThrow(site.devices, device)
    const own = used.filter((o) => o.decoder === device && o.coils.length > 0).length
    wanted.set(place, (wanted.get(place) ?? 0) + own)
    now.set(place, [...(now.get(place) ?? []), outputsOf(site, device)])
  }
  const boxes = [...now].map(([place, kinds]): BoxKinds => {
    const outputs = wanted.get(place) ?? 0
    return { place, outputs, now: kinds.sort((a, b) => b - a), best: decodersFor(outputs, most, prices) }
  })
  return {
    boxes,
    now: countOf(
      boxes.map((b) => b.now),
      prices,
    ),
    best: countOf(
      boxes.map((b) => b.best),
      prices,
    ),
    byPrice: prices.size > 0,
  }
}

function outputsOf(site: Site, id: DeviceId): number {
  const device = getOrThrow(site.devices, id)
  return device.kind === 'decoder' ? device.outputs : 1
}

function countOf(boxes: readonly Kinds[], prices: DecoderPrices): KindsCount {
  const all = boxes.flat()
  const cents = all.reduce<number | null>((sum, k) => {
    const price = prices.get(k)
    return sum === null || price === undefined ? null : sum + price
  }, 0)
  // Decoders of one box share its joint of each leg.
  const cuts = LEGS * boxes.filter((kinds) => kinds.length > 0).length
  return { decoders: all.length, cuts, cents: prices.size > 0 ? cents : null }
}
