import { layoutOf, outputsOn, type KnownPath } from '../path'
import { getOrThrow, wiringOf, type DeviceId, type Link, type PlaceId, type Site } from '../site'

type Stretch = Extract<Link, { kind: 'stretch' }>
type JointEnd = Extract<Link, { kind: 'leg' }>

/** Where on the path a fault is: where a length ends in a box, along it, or at a decoder or a coil with its joints. */
export type PathWhere =
  | { readonly kind: 'joint'; readonly place: PlaceId; readonly length: number; readonly toward: PlaceId }
  | { readonly kind: 'length'; readonly length: number; readonly ends: readonly [PlaceId, PlaceId] }
  | { readonly kind: 'device'; readonly device: DeviceId; readonly place: PlaceId }

/** A spot of both legs: at an end of a length’s conductors, or half way along. */
export interface Spot {
  readonly first: Stretch
  readonly second: Stretch
  readonly end: 'a' | 'b' | 'along'
}

/** What may be wrong with a path; one thing at a time. Odds are against `none`, before anything is read. */
export type PathFault = { readonly odds: number; readonly where: PathWhere } & (
  | { readonly kind: 'open'; readonly link: Stretch | JointEnd }
  | { readonly kind: 'short'; readonly at: Spot; readonly ohm: number }
  | { readonly kind: 'leak'; readonly at: Spot; readonly ohm: number }
  | { readonly kind: 'decoder_dead' }
  | { readonly kind: 'decoder_short' }
  /** It answers to a number that is another’s, or nobody’s. */
  | { readonly kind: 'renumbered'; readonly as: number }
  | { readonly kind: 'coil_open' | 'coil_short' }
  /** Its joint lets current to earth, which shows while its own station runs. */
  | { readonly kind: 'coil_leak'; readonly ohm: number }
)

/**
 * How likely each is against the rest, by the thing or by 100 m: joints fail before copper does, devices as seldom as
 * coils. Our own figures, to begin from.
 */
const ODDS = {
  jointOpen: 1,
  lengthOpen: 0.4,
  jointShort: 0.12,
  lengthShort: 0.2,
  jointLeak: 0.6,
  lengthLeak: 0.3,
  decoderDead: 0.8,
  decoderShort: 0.1,
  renumbered: 0.15,
  coilOpen: 0.6,
  coilShort: 0.3,
  coilLeak: 0.6,
} as const
const SHORTS_ohm = [0.2, 0.7, 2, 6, 18]
const LEAKS_ohm = [300, 5_000, 80_000]

/** A length at one of its ends: the joint ends by which its conductors are held there; none where it passes uncut. */
export function jointEnds(site: Site): (stretch: Stretch, end: 'a' | 'b') => readonly JointEnd[] {
  const at = new Map<string, JointEnd[]>()
  for (const link of wiringOf(site).links)
    if (link.kind === 'leg') {
      at.set(link.a, [...(at.get(link.a) ?? []), link])
      at.set(link.b, [...(at.get(link.b) ?? []), link])
    }
  return (stretch, end) => (at.get(stretch[end]) ?? []).filter((l) => l.end.kind === 'core')
}

/** Everything that may be wrong with the path, by the wiring on record. */
export function pathFaults(site: Site, path: KnownPath): PathFault[] {
  const layout = layoutOf(site, path)
  const endsOf = jointEnds(site)
  const placeOf = (spot: number) => layout.spots[spot]!.place
  const lengths = layout.legs.flatMap((leg, length): PathFault[] => {
    const [first, second] = [leg.first[0], leg.second[0]]
    if (!first || !second) return []
    const ends = [placeOf(leg.a), placeOf(leg.b)] as const
    const hundred = leg.length_m / 100
    const where = { kind: 'length', length, ends } as const
    const sides = [
      ['a', leg.a, leg.b],
      ['b', leg.b, leg.a],
    ] as const
    return [
      { kind: 'open', odds: ODDS.lengthOpen * hundred, where, link: first },
      ...sized('short', SHORTS_ohm, ODDS.lengthShort * hundred, where, { first, second, end: 'along' }),
      ...sized('leak', LEAKS_ohm, ODDS.lengthLeak * hundred, where, { first, second, end: 'along' }),
      ...sides.flatMap(([end, here, there]): PathFault[] => {
        const [joint] = endsOf(first, end)
        if (!joint) return []
        const at = { kind: 'joint', place: placeOf(here), length, toward: placeOf(there) } as const
        return [
          { kind: 'open', odds: ODDS.jointOpen, where: at, link: joint },
          ...sized('short', SHORTS_ohm, ODDS.jointShort, at, { first, second, end }),
          ...sized('leak', LEAKS_ohm, ODDS.jointLeak, at, { first, second, end }),
        ]
      }),
    ]
  })
  return [...lengths, ...devicesOf(site, path)]
}

/** A fault of unknown ohms, at each of some sizes. */
const sized = (kind: 'short' | 'leak', sizes: readonly number[], odds: number, where: PathWhere, at: Spot) =>
  sizes.map((ohm): PathFault => ({ kind, odds: odds / sizes.length, where, at, ohm }))

function devicesOf(site: Site, path: KnownPath): PathFault[] {
  const outputs = outputsOn(site, path)
  const numbers = [...new Set(outputs.flatMap((o) => o.address ?? []))]
  const nobodys = Math.max(0, ...numbers) + 1
  const leads = new Map(
    wiringOf(site).links.flatMap((link) =>
      link.kind === 'leg' && link.end.kind === 'port' && link.end.port === 'path_1'
        ? [[link.end.device, link] as const]
        : [],
    ),
  )
  const decoders = path.decoders.flatMap(({ device, legs }): PathFault[] => {
    if (legs === null) return []
    const { place } = getOrThrow(site.devices, device)
    const where = { kind: 'device', device, place } as const
    const own = outputs.filter((o) => o.decoder === device).map((o) => o.address)
    const others = [...numbers.filter((n) => !own.includes(n)), nobodys]
    const lead = leads.get(device)
    return [
      ...(lead ? [{ kind: 'open' as const, odds: ODDS.jointOpen, where, link: lead }] : []),
      { kind: 'decoder_dead', odds: ODDS.decoderDead, where },
      { kind: 'decoder_short', odds: ODDS.decoderShort, where },
      ...others.map((as) => ({ kind: 'renumbered' as const, odds: ODDS.renumbered / others.length, where, as })),
    ]
  })
  const coils = outputs.flatMap((o) =>
    o.coils.flatMap((device): PathFault[] => {
      const where = { kind: 'device', device, place: getOrThrow(site.devices, device).place } as const
      return [
        { kind: 'coil_open', odds: ODDS.coilOpen, where },
        { kind: 'coil_short', odds: ODDS.coilShort, where },
        ...LEAKS_ohm.slice(0, 2).map((ohm) => ({
          kind: 'coil_leak' as const,
          odds: ODDS.coilLeak / 2,
          where,
          ohm,
        })),
      ]
    }),
  )
  return [...decoders, ...coils]
}

/** Places where a fault can be reached; a length is reached from either of its ends. */
export const placesOf = (where: PathWhere): readonly PlaceId[] => (where.kind === 'length' ? where.ends : [where.place])

/**
 * A text that is equal for faults that one spot of work finds: a length with the joints at both its ends, a decoder or
 * a coil with its own.
 */
export const partKey = ({ where }: PathFault): string =>
  where.kind === 'device' ? `device ${where.device}` : `length ${where.length}`
