import { copperFactor, nominal_ohmPerM } from '../../core/quantity'
import {
  endKey,
  gaugeOf,
  getOrThrow,
  stopPositions_m,
  terminalEnd,
  UNKNOWN_GAUGE,
  type DeviceId,
  type Link,
} from '../../core/site'
import type { FieldFault } from '../fault'
import type { Real } from './real'

/** A piece of conductor, a leg of a joint, a way to earth, or a coil (`device`) between two points. */
export interface Part {
  readonly a: string
  readonly b: string
  readonly ohm: number
  readonly device: DeviceId | null
  readonly link: Link | null
}
type Stretch = Extract<Link, { readonly kind: 'stretch' }>
type Leg = Extract<Link, { readonly kind: 'leg' }>
export const EARTH = 'earth'

/** Everything that carries current, with what is wrong. Joints of several ends meet in a point of their own. */
export function partsOf(real: Real): Part[] {
  const { wiring, faults } = real
  const parts = wiring.links.flatMap((link): Part[] => {
    if (link.broken) return []
    if (link.kind === 'stretch') return stretchParts(real, link)
    if (link.kind === 'leg') return legParts(real, link)
    return faults.some((f) => f.kind === 'coil-open' && f.device === link.device)
      ? []
      : [{ a: link.a, b: link.b, ohm: 0, device: link.device, link }]
  })
  for (const f of faults)
    if (f.kind === 'doubled')
      parts.push({
        a: wiring.pointOf(terminalEnd(f.controller, f.one)),
        b: wiring.pointOf(terminalEnd(f.controller, f.two)),
        ohm: 0,
        device: null,
        link: null,
      })
  // What the record knows to be wrong is so.
  for (const { a, b, ohm } of wiring.shunts) parts.push({ a, b, ohm, device: null, link: null })
  return inOne(parts)
}

/** Whether a fault lies on this stretch. */
export const onStretch = (
  f: FieldFault,
  kind: 'open' | 'series' | 'leak',
  { cable, core, from }: Stretch,
): f is Extract<FieldFault, { readonly kind: 'open' | 'series' | 'leak' }> =>
  f.kind === kind && f.cable === cable && f.core === core && f.from === from
export const onLeg = (f: FieldFault, { end }: Leg): boolean => 'end' in f && endKey(f.end) === endKey(end)

const middleOf = (link: Link): string => `middle ${link.id}`

/** A stretch, cut in two in the middle where something touches it or leaks there. */
function stretchParts({ site, wiring, faults, drawn, ground_C }: Real, link: Stretch): Part[] {
  if (faults.some((f) => onStretch(f, 'open', link))) return []
  const cable = getOrThrow(site.cables, link.cable)
  const positions = stopPositions_m(cable)
  const gauge = gaugeOf(cable, getOrThrow(cable.cores, link.core)) ?? UNKNOWN_GAUGE[site.settings.market].likely
  const length_m = Math.max(0, positions[link.to]!.value - positions[link.from]!.value) * drawn.lengths.get(link.cable)!
  const more = faults.reduce((sum, f) => sum + (onStretch(f, 'series', link) ? f.ohm : 0), 0)
  const ohm = length_m * nominal_ohmPerM(gauge) * copperFactor(ground_C + cable.warmer_K) + link.more_ohm + more
  const part = (a: string, b: string, of_ohm: number): Part => ({ a, b, ohm: of_ohm, device: null, link })
  const middle = middleOf(link)
  const leaks = faults.flatMap((f) => (onStretch(f, 'leak', link) ? [f] : []))
  const touches = faults.flatMap((f) =>
    f.kind === 'touch' &&
    f.cable === link.cable &&
    f.from === link.from &&
    (f.core === link.core || f.other === link.core)
      ? [f]
      : [],
  )
  if (leaks.length + touches.length === 0) return [part(link.a, link.b, ohm)]
  const other = (f: (typeof touches)[number]) =>
    wiring.links.find((l) => l.kind === 'stretch' && l.cable === f.cable && l.core === f.other && l.from === f.from)!
  return [
    part(link.a, middle, ohm / 2),
    part(middle, link.b, ohm / 2),
    ...leaks.map((f) => part(middle, EARTH, f.ohm)),
    ...touches.filter((f) => f.core === link.core).map((f) => part(middle, middleOf(other(f)), f.ohm)),
  ]
}

function legParts({ faults, drawn }: Real, link: Leg): Part[] {
  const on = faults.filter((f) => onLeg(f, link))
  const part = (b: string, ohm: number): Part => ({ a: link.a, b, ohm, device: null, link })
  return [
    ...(on.some((f) => f.kind === 'joint-open')
      ? []
      : [
          part(
            link.b,
            drawn.joints.get(link.splice)! +
              link.more_ohm +
              on.reduce((sum, f) => sum + (f.kind === 'joint-series' ? f.ohm : 0), 0),
          ),
        ]),
    ...on.flatMap((f) => (f.kind === 'joint-leak' ? [part(EARTH, f.ohm)] : [])),
  ]
}

/** Makes neighbouring stretches of a core that runs through a box one part, where nothing else hangs there. */
function inOne(parts: Part[]): Part[] {
  const at = new Map<string, Part[]>()
  for (const p of parts) for (const end of [p.a, p.b]) at.set(end, [...(at.get(end) ?? []), p])
  for (const [point, both] of at) {
    if (!point.endsWith(' through') || both.length !== 2 || both.some((p) => p.link?.kind !== 'stretch')) continue
    const [first, second] = both as [Part, Part]
    const far = (p: Part) => (p.a === point ? p.b : p.a)
    const made: Part = { a: far(first), b: far(second), ohm: first.ohm + second.ohm, device: null, link: first.link }
    for (const p of both) parts.splice(parts.indexOf(p), 1)
    parts.push(made)
    for (const end of [made.a, made.b])
      at.set(
        end,
        at.get(end)!.map((p) => (p === first || p === second ? made : p)),
      )
  }
  return parts
}
