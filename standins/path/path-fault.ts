import {
  getOrThrow,
  outputsOf,
  wiringOf,
  type DeviceId,
  type Link,
  type PathAt,
  type PlaceId,
  type Site,
} from '../../core/site'
import { chance } from '../chance'

type Stretch = Extract<Link, { kind: 'stretch' }>
type JointEnd = Extract<Link, { kind: 'leg' }>

/**
 * What is really wrong with a path, drawn by a chance of this room’s own; places where a spade or a hand gets at it.
 */
export type RealPathFault = { readonly places: readonly PlaceId[] } & (
  | { readonly kind: 'cut'; readonly stretch: Stretch }
  | { readonly kind: 'loose'; readonly joint: JointEnd }
  | {
      readonly kind: 'touch'
      readonly one: Stretch
      readonly other: Stretch
      readonly along: number
      readonly ohm: number
    }
  | { readonly kind: 'earth'; readonly stretch: Stretch; readonly along: number; readonly ohm: number }
  | { readonly kind: 'dead' | 'shorted'; readonly device: DeviceId }
  | { readonly kind: 'number'; readonly device: DeviceId; readonly as: number }
  | { readonly kind: 'coil_open' | 'coil_shorted'; readonly device: DeviceId }
  | { readonly kind: 'coil_earth'; readonly device: DeviceId; readonly ohm: number }
)

/** Conductors, joints, decoders and coils of a path, by the wiring on record. */
export function thingsOf(site: Site, path: PathAt) {
  const wiring = wiringOf(site)
  const decoders = new Set(path.decoders.map((d) => d.device))
  // Everything that hangs together with the path’s screws without passing a decoder.
  const near = new Map<string, string[]>()
  for (const l of wiring.links) {
    if (l.kind === 'coil') continue
    near.set(l.a, [...(near.get(l.a) ?? []), l.b])
    near.set(l.b, [...(near.get(l.b) ?? []), l.a])
  }
  const legAt = new Map<string, 0 | 1>()
  for (const leg of [0, 1] as const) {
    const next = path.pairs.map((p) =>
      wiring.pointOf({ kind: 'terminal', controller: path.controller, terminal: p[leg] }),
    )
    for (let at = next.pop(); at !== undefined; at = next.pop()) {
      if (legAt.has(at)) continue
      legAt.set(at, leg)
      next.push(...(near.get(at) ?? []))
    }
  }
  const stretches = wiring.links.filter((l): l is Stretch => l.kind === 'stretch' && legAt.has(l.a))
  const joints = wiring.links.filter((l): l is JointEnd => l.kind === 'leg' && legAt.has(l.a))
  const outputs = outputsOf(site).filter((o) => decoders.has(o.decoder))
  return { wiring, legAt, stretches, joints, outputs }
}

/** Draws one fault of a path. */
export function drawPathFault(site: Site, path: PathAt, seed: number): RealPathFault {
  const random = chance(seed)
  const { wiring, legAt, stretches, joints, outputs } = thingsOf(site, path)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const between = (low: number, high: number) => low * (high / low) ** random()
  const at = (point: string) => wiring.placeOf.get(point)!
  const coils = outputs.flatMap((o) => o.coils)
  const placeOf = (device: DeviceId) => getOrThrow(site.devices, device).place
  const stretch = pick(stretches)
  // Half of what goes wrong with a conductor does so close to one of its joints.
  const along = random() < 0.5 ? random() : random() < 0.5 ? 0.02 : 0.98
  const reached = along < 0.05 ? [at(stretch.a)] : along > 0.95 ? [at(stretch.b)] : [at(stretch.a), at(stretch.b)]
  const device = pick(path.decoders).device
  const coil = pick(coils)
  const others = stretches.filter(
    (s) => s.cable === stretch.cable && s.from === stretch.from && legAt.get(s.a) !== legAt.get(stretch.a),
  )
  const kinds = ['cut', 'loose', 'loose', 'touch', 'earth', 'earth', 'dead', 'shorted', 'number', 'coil', 'wet'].filter(
    (kind) => (kind !== 'touch' || others.length > 0) && ((kind !== 'coil' && kind !== 'wet') || coils.length > 0),
  )
  switch (pick(kinds)) {
    case 'cut':
      return { kind: 'cut', stretch, places: [at(stretch.a), at(stretch.b)] }
    case 'loose': {
      const joint = pick(joints)
      return { kind: 'loose', joint, places: [at(joint.b)] }
    }
    case 'touch':
      return { kind: 'touch', one: stretch, other: pick(others), along, ohm: between(0.1, 20), places: reached }
    case 'earth':
      return { kind: 'earth', stretch, along, ohm: between(100, 100_000), places: reached }
    case 'dead':
      return { kind: 'dead', device, places: [placeOf(device)] }
    case 'shorted':
      return { kind: 'shorted', device, places: [placeOf(device)] }
    case 'number': {
      const taken = outputs.filter((o) => o.decoder !== device).flatMap((o) => o.address ?? [])
      return { kind: 'number', device, as: pick([...taken, 9000]), places: [placeOf(device)] }
    }
    case 'coil':
      return { kind: random() < 0.65 ? 'coil_open' : 'coil_shorted', device: coil, places: [placeOf(coil)] }
    default:
      return { kind: 'coil_earth', device: coil, ohm: between(100, 10_000), places: [placeOf(coil)] }
  }
}
