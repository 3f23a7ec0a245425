import { coil_ohm, UNKNOWN_COIL_ohm, wire_ohmPerM, type Element } from '../circuit'
import { copperFactor, maximum_ohmPerM } from '../quantity'
import type { Meter, OhmsTest } from '../record'
import {
  lengthBetween_m,
  netsOf,
  stopPositions_m,
  UNKNOWN_GAUGE,
  UNKNOWN_RUN_m,
  type CableId,
  type CoreId,
  type DeviceId,
  type End,
  type Link,
  type Site,
  type SpliceId,
  stationAt,
} from '../site'
import { nodeAt, type Scene } from './scene'

/** One line of the sum that makes up a reading. `share` is the part of the meter's current that passes here. */
export type Term =
  | {
      readonly kind: 'wire'
      readonly side: 'lead' | 'return' | 'other'
      readonly cable: CableId
      readonly core: CoreId
      readonly length_m: number
      readonly share: number
      readonly ohm: number
    }
  | { readonly kind: 'joints'; readonly count: number; readonly ohm: number }
  | { readonly kind: 'coil'; readonly device: DeviceId; readonly share: number; readonly ohm: number }
  /** What the record knows to be wrong and left: ohms in series, conductors that touch. */
  | { readonly kind: 'known'; readonly ohm: number }
  /** Parts that carry hardly any of the current, together: other ways round that are there but do not matter. */
  | { readonly kind: 'aside'; readonly ohm: number }

/**
 * How far each source may take a reading off the sum, below and above, in ohms. `unknown` is what the record leaves
 * open.
 */
export interface Deviations {
  readonly coil: Span
  readonly wire: Span
  readonly joints: Span
  readonly meter: Span
  readonly unknown: Span
}
export interface Span {
  readonly below: number
  readonly above: number
}

/** What the record says a meter should show. */
export type Expectation =
  | {
      readonly kind: 'ohms'
      readonly expected_ohm: number
      readonly low_ohm: number
      readonly high_ohm: number
      readonly terms: readonly Term[]
      readonly deviations: Deviations
    }
  /** The record is incomplete: anything between these may be sound. */
  | { readonly kind: 'bounds'; readonly low_ohm: number; readonly high_ohm: number }
  /** By the record no current can pass. */
  | { readonly kind: 'open' }
  | { readonly kind: 'not_readable'; readonly by: readonly DeviceId[] }
  /** From a conductor to earth: judged by the insulation's limits, but for a leak that is known, null where none is. */
  | { readonly kind: 'insulation'; readonly leak_ohm: number | null }

/** Current below this share of the meter's is rounding, not a way for current: sums are exact to about 1e-12. */
const NO_SHARE = 1e-9
/** Shares nearer than this are told as one, and smaller ones together: 0.5 % of a thread's wire is under 0.1 Ω. */
const SMALL_SHARE = 0.005
/** What is known to be wrong keeps its ohms to within so much of them. */
const KNOWN_ratio = 0.1

/**
 * Predicts an ohms reading from the network. The terms are the power each part takes per square of the meter's current,
 * i²·r, which sum exactly to the reading for any mesh (Tellegen's theorem), and are also its sensitivity to each part.
 */
export function predict(scene: Scene, test: OhmsTest, meter: Meter): Expectation {
  if (test.from.kind === 'earth' || test.to.kind === 'earth')
    return { kind: 'insulation', leak_ohm: leakOf(scene, test) }
  const by = switchedBy(scene, test)
  if (by.length > 0) return { kind: 'not_readable', by }
  const [from, to] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
  if (from === null || to === null || !scene.solver.connected(from, to))
    return incomplete(scene, test) ? boundsFor(scene, test, meter) : { kind: 'open' }
  const { shares, ohm: expected_ohm } = carriers(scene, from, to)
  const deviations = deviationsOf(scene, shares, expected_ohm, meter)
  const sides = Object.values(deviations) as Span[]
  const apart = (side: keyof Span) =>
    Math.hypot(...[deviations.coil, deviations.wire, deviations.joints, deviations.meter].map((s) => s[side])) +
    deviations.unknown[side]
  if (sides.some((s) => Number.isNaN(s.above))) throw new Error('predict: a deviation is not a number')
  return {
    kind: 'ohms',
    expected_ohm,
    low_ohm: Math.max(0, expected_ohm - apart('below')),
    high_ohm: expected_ohm + apart('above'),
    terms: termsOf(scene, test, shares),
    deviations,
  }
}

/** Ohms to earth through leaks that are on record. */
function leakOf(scene: Scene, test: OhmsTest): number | null {
  const [from, to] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
  return from !== null && to !== null && scene.solver.connected(from, to)
    ? scene.solver.potentials(from, to)[from]!
    : null
}

interface Share {
  readonly element: Element
  readonly share: number
}

/** The elements that carry the meter's current between two connected nodes, each with its part of it, and the ohms. */
function carriers(scene: Scene, from: number, to: number): { shares: Share[]; ohm: number } {
  const volts = scene.solver.potentials(from, to)
  const shares = scene.network.elements.flatMap((element) => {
    const share = (volts[element.a]! - volts[element.b]!) / element.ohm
    return Math.abs(share) > NO_SHARE ? told(element).map((e) => ({ element: e, share: Math.abs(share) })) : []
  })
  return { shares, ohm: volts[from]! }
}

/** An element as its own ohms, and those that are known to be wrong with it. */
function told(element: Element): Element[] {
  const { link, ohm } = element
  const more = link?.kind === 'leg' || link?.kind === 'stretch' ? Math.min(link.more_ohm, ohm) : 0
  return more > 0
    ? [
        { ...element, ohm: ohm - more },
        { ...element, ohm: more, link: null, known: true },
      ]
    : [element]
}

/** The parts of the site whose state an ohms reading depends on; none where no current can pass. */
export function partsRead(scene: Scene, test: OhmsTest): Link[] {
  const [from, to] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
  if (from === null || to === null || !scene.solver.connected(from, to)) return []
  return carriers(scene, from, to).shares.flatMap(({ element, share }) =>
    element.link && share >= SMALL_SHARE ? [element.link] : [],
  )
}

function switchedBy(scene: Scene, test: OhmsTest): DeviceId[] {
  return [test.from, test.to].flatMap((probe) =>
    probe.kind === 'terminal' ? [...(scene.hanging(probe.controller).get(probe.terminal)?.switchedBy ?? [])] : [],
  )
}

/**
 * Whether the record shows no way, but something of unknown partner hangs on either probe or nothing at all is on
 * record for it.
 */
function incomplete(scene: Scene, test: OhmsTest): boolean {
  const [from, to] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
  if (from !== null && to !== null && scene.recorded.connected(from, to)) return false
  return [test.from, test.to].some((probe) => {
    if (probe.kind !== 'terminal') return false
    if (isBare(scene.site, probe)) return false
    const at = scene.hanging(probe.controller).get(probe.terminal)
    return at === undefined || !at.landed || at.loose.length > 0
  })
}

/** A screw that is known to hold nothing. */
const isBare = (site: Site, { controller, terminal }: Extract<End, { kind: 'terminal' }>): boolean =>
  Object.values(site.defects).some((d) => d.kind === 'bare' && d.controller === controller && d.terminal === terminal)

/** A sound coil at the end of some wire: from the least coil with none to the largest at the end of a long thin run. */
function boundsFor(scene: Scene, test: OhmsTest, meter: Meter): Expectation {
  const { site, climate } = scene
  const meant = [test.from, test.to].flatMap((probe) => (probe.kind === 'terminal' ? intendedCoils(scene, probe) : []))
  const coils = meant.length > 0 ? meant : [UNKNOWN_COIL_ohm]
  const factor = copperFactor(climate.coil_C)
  const tolerance = site.settings.coilTolerance_ratio
  const parallel = (side: 'low' | 'high') => 1 / coils.reduce((sum, c) => sum + 1 / c[side], 0)
  const thin_ohmPerM = maximum_ohmPerM(UNKNOWN_GAUGE[site.settings.market].thin)
  const farthest_ohm = 2 * UNKNOWN_RUN_m.high * thin_ohmPerM * copperFactor(climate.ground_C)
  const off = (ohm: number) => meter.accuracy_ratio * ohm + meter.offset_ohm
  const low = parallel('low') * factor * (1 - tolerance)
  const high = Math.max(...coils.map((c) => c.high)) * factor * (1 + tolerance) + farthest_ohm
  return { kind: 'bounds', low_ohm: Math.max(0, low - off(low)), high_ohm: high + off(high) }
}

function intendedCoils(scene: Scene, probe: Extract<End, { kind: 'terminal' }>): { low: number; high: number }[] {
  const { site } = scene
  return (stationAt(site, probe)?.[1].valves ?? []).map((device) => {
    const link = { kind: 'coil', device } as Extract<Link, { kind: 'coil' }>
    return { low: coil_ohm(site, link, 'low'), high: coil_ohm(site, link, 'high') }
  })
}

function termsOf(scene: Scene, test: OhmsTest, shares: readonly Share[]): Term[] {
  const nets = netsOf(scene.network.wiring)
  const [leadNet, returnNet] = [test.from, test.to].map((probe) => nets.of(scene.network.wiring.pointOf(probe)))
  const terms: Term[] = []
  const main = shares.filter((s) => s.share >= SMALL_SHARE)
  for (const run of wireRunsOf(scene, main)) {
    const net = nets.of(run.link.a)
    terms.push({
      kind: 'wire',
      side: net === leadNet ? 'lead' : net === returnNet ? 'return' : 'other',
      cable: run.link.cable,
      core: run.link.core,
      length_m: run.length.value * run.whole,
      share: run.share,
      ohm: run.ohm,
    })
  }
  const legs = main.filter(({ element }) => element.link?.kind === 'leg')
  const joints = new Set(legs.map(({ element }) => (element.link as Extract<Link, { kind: 'leg' }>).splice))
  if (joints.size > 0) terms.push({ kind: 'joints', count: joints.size, ohm: sum(legs.map(power)) })
  for (const s of main)
    if (s.element.link?.kind === 'coil')
      terms.push({ kind: 'coil', device: s.element.link.device, share: s.share, ohm: power(s) })
  const known = sum(main.filter((s) => s.element.known).map(power))
  if (known > 0) terms.push({ kind: 'known', ohm: known })
  const aside = sum(
    shares.filter((s) => s.share < SMALL_SHARE || (s.element.link === null && !s.element.known)).map(power),
  )
  if (aside > 0) terms.push({ kind: 'aside', ohm: aside })
  const order = { lead: 0, joints: 1, coil: 2, other: 3, return: 4, known: 5, aside: 6 }
  return terms.sort((a, b) => order[a.kind === 'wire' ? a.side : a.kind] - order[b.kind === 'wire' ? b.side : b.kind])
}

const power = ({ element, share }: Share) => share * share * element.ohm
const sum = (values: readonly number[]) => values.reduce((total, v) => total + v, 0)

interface WireRun {
  readonly link: Extract<Link, { kind: 'stretch' }>
  readonly to: number
  readonly share: number
  readonly ohm: number
  readonly length: { value: number; low: number; high: number }
  readonly whole: number
}

/** Neighbouring stretches of one core that carry the same current, as one: the stop between cancels from the length. */
function wireRunsOf(scene: Scene, shares: readonly Share[]): WireRun[] {
  const runs: WireRun[] = []
  const stretches = shares.flatMap((s) => (s.element.link?.kind === 'stretch' ? [{ ...s, link: s.element.link }] : []))
  stretches.sort(
    (a, b) =>
      (a.link.cable === b.link.cable ? 0 : a.link.cable < b.link.cable ? -1 : 1) ||
      (a.link.core === b.link.core ? 0 : a.link.core < b.link.core ? -1 : 1) ||
      a.link.from - b.link.from,
  )
  for (const s of stretches) {
    const positions = stopPositions_m(scene.site.cables[s.link.cable]!)
    const whole_ohm =
      lengthBetween_m(positions, s.link.from, s.link.to).value * wire_ohmPerM(scene.site, s.link, scene.climate).value
    // part of a stretch, where a cross splits it
    const whole = s.element.ohm < whole_ohm * 0.999999 ? s.element.ohm / whole_ohm : 1
    const last = runs.at(-1)
    const goesOn =
      last &&
      last.whole === 1 &&
      whole === 1 &&
      last.link.cable === s.link.cable &&
      last.link.core === s.link.core &&
      last.to === s.link.from &&
      Math.abs(last.share - s.share) < SMALL_SHARE
    const first = goesOn ? last.link : s.link
    if (goesOn) runs.pop()
    runs.push({
      link: first,
      to: s.link.to,
      share: s.share,
      ohm: (goesOn ? last.ohm : 0) + power(s),
      length: lengthBetween_m(positions, first.from, s.link.to),
      whole,
    })
  }
  return runs
}

function deviationsOf(scene: Scene, shares: readonly Share[], expected_ohm: number, meter: Meter): Deviations {
  const { settings, devices } = scene.site
  const [coils, joints, unknowns] = [[] as number[], new Map<SpliceId, number>(), [] as Span[]]
  for (const s of shares) {
    if (s.element.link?.kind === 'coil') {
      const ohm = power(s)
      if (devices[s.element.link.device]!.coilKind !== null) coils.push(ohm * settings.coilTolerance_ratio)
      else
        unknowns.push({
          below: ohm * (1 - UNKNOWN_COIL_ohm.low / UNKNOWN_COIL_ohm.value),
          above: ohm * (UNKNOWN_COIL_ohm.high / UNKNOWN_COIL_ohm.value - 1),
        })
    } else if (s.element.link?.kind === 'leg') {
      const { splice } = s.element.link
      joints.set(splice, (joints.get(splice) ?? 0) + s.share ** 2 * (settings.soundSpliceSpread_ohm / 2))
    }
  }
  const known = sum(shares.filter((s) => s.element.known).map(power))
  let [wireBelow, wireAbove] = [0, 0]
  for (const run of wireRunsOf(scene, shares)) {
    const perM = wire_ohmPerM(scene.site, run.link, scene.climate)
    const known = perM.gauge !== null
    const maximum = known ? perM.high / perM.value : 1
    wireBelow += run.ohm * settings.lengthTolerance_ratio
    wireAbove += run.ohm * (maximum * (1 + settings.lengthTolerance_ratio) - 1)
    const { value, low, high } = run.length
    if (known && low === high) continue
    const scale = run.whole * run.share ** 2
    unknowns.push({
      below: (value * perM.value - low * (known ? perM.value : perM.low)) * scale,
      above: (high * (known ? perM.value : perM.high) - value * perM.value) * scale,
    })
  }
  const even = (ohm: number): Span => ({ below: ohm, above: ohm })
  return {
    coil: even(Math.hypot(...coils)),
    wire: { below: wireBelow, above: wireAbove },
    joints: even(Math.hypot(...joints.values(), KNOWN_ratio * known)),
    meter: even(meter.accuracy_ratio * expected_ohm + meter.offset_ohm),
    unknown: { below: sum(unknowns.map((u) => u.below)), above: sum(unknowns.map((u) => u.above)) },
  }
}
