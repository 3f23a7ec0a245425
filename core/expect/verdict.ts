import { withFaults, solverOf, type Fault } from '../circuit'
import type { Meter, OhmsTest, OhmsValue } from '../record'
import { routeTo, walkFrom, type DeviceId, type Run } from '../site'
import { predict, type Expectation } from './predict'
import { predictOnce } from './predict-once'
import { nodeAt, sceneWith, type Scene } from './scene'

/** What a reading says by itself. */
export type Verdict =
  | { readonly code: 'fits' }
  /** Inside the bounds of an incomplete record; more cannot be said. */
  | { readonly code: 'fits_bounds' }
  | { readonly code: 'high'; readonly excess_ohm: number }
  | { readonly code: 'low'; readonly missing_ohm: number }
  | { readonly code: 'open'; readonly onRecord: boolean; readonly over_ohm: number }
  /**
   * Lead and common joined `distance_m` along the thread at the most; `atCoil` when all of the wire is in the
   * reading.
   */
  | { readonly code: 'short'; readonly distance_m: number; readonly atCoil: boolean }
  | { readonly code: 'two_coils'; readonly expected_ohm: number }
  /** Inside the record band, but not what this thread read before. */
  | { readonly code: 'drifted'; readonly by_ohm: number; readonly before_ohm: number }
  /** Outside the record band, but what this thread read before: the record is off, or the coil is. */
  | { readonly code: 'as_before'; readonly before_ohm: number }
  /**
   * To earth, by the limits of the insulation. `over`: more than the meter can show, which proves no more than that.
   */
  | { readonly code: 'earth_known'; readonly leak_ohm: number }
  | { readonly code: 'earth_new' | 'earth_fine' | 'earth_watch' | 'earth_leak' | 'earth_fault' | 'earth_over' }
  /** A figure where by the record no current can pass. */
  | { readonly code: 'unexpected' }
  | { readonly code: 'not_readable' }
  | { readonly code: 'not_measured' }

export type VerdictCode = Verdict['code']

/** Fits, doubtful, fault or not measured: the four states that the interface draws. */
export type State = 'fits' | 'doubtful' | 'fault' | 'none'

export function stateOf(code: VerdictCode): State {
  switch (code) {
    case 'fits':
    case 'fits_bounds':
    case 'earth_new':
    case 'earth_fine':
    case 'earth_known':
      return 'fits'
    case 'unexpected':
    case 'drifted':
    case 'as_before':
    case 'earth_watch':
    case 'earth_over':
      return 'doubtful'
    case 'not_readable':
    case 'not_measured':
      return 'none'
    default:
      return 'fault'
  }
}

/** The ohms of the thread: the meter's figure less its own leads, not below zero. */
export const corrected_ohm = (ohm: number, meter: Meter): number => Math.max(0, ohm - meter.leadZero_ohm)

/** What the figure 20–60 Ω alone would say, and whether it would have passed a fault. */
export interface RuleOfThumb {
  readonly passes: boolean
  readonly passesFault: boolean
}

/** What a thread read before, brought to the temperature of now, with the errors of both meters. */
export interface Baseline {
  readonly corrected_ohm: number
  readonly low_ohm: number
  readonly high_ohm: number
  readonly reading: string
  readonly at: string
}

export interface Judged {
  readonly expectation: Expectation
  readonly verdict: Verdict
  readonly rule: RuleOfThumb
  readonly baseline: Baseline | null
}

/**
 * Judges one reading against the record and, where there is one, against the thread's baseline: inside both it fits,
 * inside one it is doubtful.
 */
export function judge(
  scene: Scene,
  test: OhmsTest,
  value: OhmsValue,
  meter: Meter,
  baseline: Baseline | null = null,
): Judged {
  const expectation = predictOnce(scene, test, meter)
  const verdict = reconcileWithBaseline(
    verdictOn(scene, test, expectation, value, meter),
    expectation,
    value,
    meter,
    baseline,
  )
  const { low, high } = scene.site.settings.ruleOfThumb_ohm
  const ohm = value.kind === 'ohm' ? corrected_ohm(value.ohm, meter) : Infinity
  const passes = ohm >= low && ohm <= high
  return { expectation, verdict, baseline, rule: { passes, passesFault: passes && stateOf(verdict.code) === 'fault' } }
}

function reconcileWithBaseline(
  verdict: Verdict,
  e: Expectation,
  value: OhmsValue,
  meter: Meter,
  baseline: Baseline | null,
): Verdict {
  if (baseline === null || value.kind === 'open' || e.kind !== 'ohms') return verdict
  const ohm = corrected_ohm(value.ohm, meter)
  const [inRecord, inBaseline] = [within(e, ohm), ohm >= baseline.low_ohm && ohm <= baseline.high_ohm]
  if (inRecord === inBaseline) return verdict
  return inRecord
    ? { code: 'drifted', by_ohm: ohm - baseline.corrected_ohm, before_ohm: baseline.corrected_ohm }
    : { code: 'as_before', before_ohm: baseline.corrected_ohm }
}

/**
 * Limits of insulation to earth, Ω: as new, fine, to be watched and repeated when wet, a leak to find; below the last
 * a fault.
 */
const EARTH_ohm = { fresh: 20e6, fine: 1e6, watch: 100e3, leak: 10e3 } as const

/** A leak that is known may read up to so many times less on a wet day. */
const WETTER = 2

function earthVerdict(value: OhmsValue, leak_ohm: number | null, meter: Meter): Verdict {
  if (value.kind === 'open')
    return {
      code:
        meter.highest_ohm >= EARTH_ohm.fresh
          ? 'earth_new'
          : meter.highest_ohm >= EARTH_ohm.fine
            ? 'earth_fine'
            : 'earth_over',
    }
  if (value.ohm >= EARTH_ohm.fresh) return { code: 'earth_new' }
  if (value.ohm >= EARTH_ohm.fine) return { code: 'earth_fine' }
  if (leak_ohm !== null && value.ohm * WETTER >= leak_ohm) return { code: 'earth_known', leak_ohm }
  return {
    code: value.ohm >= EARTH_ohm.watch ? 'earth_watch' : value.ohm >= EARTH_ohm.leak ? 'earth_leak' : 'earth_fault',
  }
}

function verdictOn(scene: Scene, test: OhmsTest, expectation: Expectation, value: OhmsValue, meter: Meter): Verdict {
  if (expectation.kind === 'not_readable') return { code: 'not_readable' }
  if (expectation.kind === 'insulation') return earthVerdict(value, expectation.leak_ohm, meter)
  if (value.kind === 'open') return { code: 'open', onRecord: expectation.kind === 'open', over_ohm: meter.highest_ohm }
  if (expectation.kind === 'open') return { code: 'unexpected' }
  const ohm = corrected_ohm(value.ohm, meter)
  const inside = within(expectation, ohm)
  if (inside) return { code: expectation.kind === 'ohms' ? 'fits' : 'fits_bounds' }
  const middle =
    expectation.kind === 'ohms'
      ? expectation.expected_ohm
      : ohm < expectation.low_ohm
        ? expectation.low_ohm
        : expectation.high_ohm
  if (ohm > middle) return { code: 'high', excess_ohm: ohm - middle }
  const low: Verdict = { code: 'low', missing_ohm: middle - ohm }
  if (expectation.kind !== 'ohms') return low
  const short = shortOn(scene, test, ohm, meter)
  if (short) return { code: 'short', distance_m: short.distance_m, atCoil: short.atCoil }
  return twoCoilsOn(scene, test, ohm, meter) ?? low
}

/** Whether a figure lies in the band or bounds, edges included. */
export const within = (e: Expectation, ohm: number): boolean =>
  (e.kind === 'ohms' || e.kind === 'bounds') && ohm >= e.low_ohm && ohm <= e.high_ohm

/** The elements of the coils on the thread of a test from a terminal to its common; null for any other test. */
function coilElements(scene: Scene, test: OhmsTest): { index: number; device: DeviceId }[] {
  if (test.from.kind !== 'terminal' || test.to.kind !== 'terminal') return []
  const coils = scene.hanging(test.from.controller).get(test.from.terminal)?.coils ?? []
  return scene.network.elements.flatMap((e, index) =>
    e.link?.kind === 'coil' && coils.includes(e.link.device) ? [{ index, device: e.link.device }] : [],
  )
}

/** A second coil like the first, side by side with it. */
export function secondCoil(scene: Scene, test: OhmsTest): Fault | null {
  const coil = coilElements(scene, test)[0]
  if (!coil) return null
  const { a, b, ohm } = scene.network.elements[coil.index]!
  return { kind: 'bridge', a, b, ohm }
}

function twoCoilsOn(scene: Scene, test: OhmsTest, ohm: number, meter: Meter): Verdict | null {
  const fault = secondCoil(scene, test)
  const e = fault && predict(sceneWith(scene, [fault]), test, meter)
  return e?.kind === 'ohms' && within(e, ohm) ? { code: 'two_coils', expected_ohm: e.expected_ohm } : null
}

/** Lead and common joined at a distance along the thread, and the network's edit that does it. */
export interface Short {
  readonly distance_m: number
  readonly atCoil: boolean
  readonly fault: Fault
  readonly at: Run
}

/**
 * A short reads the wire to it and back: the distance at which lead and common, joined, give this reading. An upper
 * bound, since a short with ohms of its own lies nearer. Null where the reading is more than all of the thread's wire.
 */
export function shortOn(scene: Scene, test: OhmsTest, ohm: number, meter: Meter): Short | null {
  const routes = threadRoutes(scene, test)
  if (!routes) return null
  const length_m = routes.lead.at(-1)!.to_m
  const whole = predict(sceneWith(scene, [shortAt(scene, routes, length_m)]), test, meter)
  if (whole.kind !== 'ohms' || ohm > whole.high_ohm) return null
  const short = (distance_m: number, atCoil: boolean): Short => ({
    distance_m,
    atCoil,
    fault: shortAt(scene, routes, distance_m),
    at: routes.lead.find((r) => r.to_m >= distance_m) ?? routes.lead.at(-1)!,
  })
  if (ohm >= whole.low_ohm) return short(length_m, true)
  let [near, far] = [0, length_m]
  while (far - near > SHORT_WITHIN_m) {
    const middle = (near + far) / 2
    if ((shorted_ohm(scene, test, routes, middle) ?? 0) < ohm) near = middle
    else far = middle
  }
  return short((near + far) / 2, false)
}

/** How finely a short is placed, metres: far finer than a meter's last digit tells. */
const SHORT_WITHIN_m = 0.001

interface Routes {
  readonly lead: readonly Run[]
  readonly back: readonly Run[]
}

/**
 * The way out to the first coil and the way home, as runs with distances; null where a thread has no coil or no way.
 */
function threadRoutes(scene: Scene, test: OhmsTest): Routes | null {
  const coil = coilElements(scene, test)[0]
  const { from, to } = test
  if (!coil || from.kind !== 'terminal' || to.kind !== 'terminal') return null
  const { site, network } = scene
  const link = network.elements[coil.index]!.link!
  const [out, home] = [
    walkFrom(site, network.wiring, from.controller, from.terminal),
    walkFrom(site, network.wiring, to.controller, to.terminal),
  ]
  const [leadSide, homeSide] = out.distance_m.has(link.a) ? [link.a, link.b] : [link.b, link.a]
  const routes = { lead: routeTo(out, leadSide), back: routeTo(home, homeSide) }
  return routes.lead.length > 0 && routes.back.length > 0 ? routes : null
}

function shorted_ohm(scene: Scene, test: OhmsTest, routes: Routes, distance_m: number): number | null {
  const network = withFaults(scene.network, [shortAt(scene, routes, distance_m)])
  const [a, b] = [nodeAt(scene, test.from), nodeAt(scene, test.to)]
  return a === null || b === null ? null : solverOf(network).resistance_ohm(a, b)
}

function shortAt(scene: Scene, routes: Routes, distance_m: number): Fault {
  const [lead, back] = [routes.lead, routes.back].map((route) => pointAlong(scene, route, distance_m)) as [Along, Along]
  return {
    kind: 'cross',
    first: lead.element,
    firstAlong: lead.along,
    second: back.element,
    secondAlong: back.along,
    ohm: 0,
  }
}

interface Along {
  readonly element: number
  readonly along: number
}

/** The element a given distance out on a route, and how far along from its `a`; the route's end beyond its length. */
function pointAlong(scene: Scene, route: readonly Run[], distance_m: number): Along {
  const run = route.find((r) => r.to_m >= distance_m) ?? route.at(-1)!
  const length_m = run.to_m - run.from_m
  const out = length_m > 0 ? Math.min(1, Math.max(0, (distance_m - run.from_m) / length_m)) : 1
  const element = scene.network.elements.findIndex((e) => e.link?.id === run.link.id)
  return { element, along: run.link.a === run.entry ? out : 1 - out }
}
