import type { Meter } from '../../record'
import type { HuntContext } from '../context'
import { equivalenceClasses } from '../equivalence'
import { memoizePredictions, type Predictor } from '../memoize'
import type { Cause } from '../odds'
import { waitsForState, type TakenTest } from '../taken'
import type { Catalogue, Fault, Faults, FaultHypothesis } from '../catalogue'
import { basisOf } from './basis'
import { byKindOf } from './by-kind'
import { relevanceOf } from './may-affect'
import { ohmsOf } from './ohms'
import type { Prediction } from './prediction'
import { unlistedOf } from './unlisted'
import { valvesOf } from './valves'

export { SOIL_MOST_ohm } from './by-kind'
export { blurAt, TRUNCATED } from './prediction'
export type { Prediction } from './prediction'

/** An intermittent joint fails in every other test, and a state that nobody looked to was there every other time. */
const EVERY_OTHER = 0.5
/** What only keeps current away. */
const KEEPS_AWAY: ReadonlySet<Cause> = new Set<Cause>(['open', 'series', 'terminal_dead'])
/** What keeps it away, or the water, before it has left the cabinet: no conductors that touch bring any back. */
const AT_THE_SOURCE: ReadonlySet<Cause> = new Set<Cause>(['supply_dead', 'sensor_open', 'water_off'])

/** The same test, made in a state in which what comes and goes is there. */
const plain = ({ taken: _, ...test }: TakenTest): TakenTest => test as TakenTest
/** Whether a test was taken in a state in which a fault is not there. */
const isElsewhere = (test: TakenTest, { withState }: Fault): boolean =>
  withState && test.taken === 'elsewhere' && waitsForState(test)

/** Predicts any test under any faults from the network of its state: the one place where a fault becomes a figure. */
export function predictorOf(context: HuntContext, catalogue: Catalogue, meter: Meter): Predictor {
  const basis = basisOf(context, catalogue, meter)
  const { faultOf } = basis
  const ohms = ohmsOf(basis)
  const byKind = byKindOf(basis, ohms, valvesOf(basis))
  /** The open twin of an intermittent joint: the same leg, taken out. */
  const openAt = new Map(
    catalogue.faults.flatMap((f) =>
      f.cause === 'open' && f.at !== null && !f.withState ? [[f.at, f.index] as const] : [],
    ),
  )
  const withUnlisted = unlistedOf(basis)
  const mayAffect = relevanceOf(basis)
  const isUnlisted = (v: FaultHypothesis) => faultOf(v).cause === 'unlisted'
  const isIntermittent = (v: FaultHypothesis) => faultOf(v).cause === 'intermittent'
  const asOpen = (v: FaultHypothesis) => (isIntermittent(v) ? { ...v, fault: openAt.get(faultOf(v).at!)! } : v)
  /** What may show in a test or not: what comes and goes by itself, and with a state that nobody looked to. */
  const isSometimes = (test: TakenTest) => (v: FaultHypothesis) =>
    isIntermittent(v) || (test.taken === 'unsaid' && faultOf(v).withState)

  function foresee(test: TakenTest, together: Faults): Prediction | null {
    const faults = together.filter((v) => !isElsewhere(test, faultOf(v)))
    if (faults.some(isUnlisted)) {
      const rest = foresee(
        test,
        faults.filter((v) => !isUnlisted(v)),
      )
      return rest && withUnlisted(test, faults, rest)
    }
    const sometimes = isSometimes(test)
    if (waitsForState(test) && faults.some(sometimes)) {
      const well = foresee(
        test,
        faults.filter((v) => !sometimes(v)),
      )
      const ill = foresee(test.taken === 'unsaid' ? plain(test) : test, faults.map(asOpen))
      return well && ill && { kind: 'either', p: EVERY_OTHER, well, ill }
    }
    return byKind[test.kind](test as never, faults)
  }

  /**
   * Where current is kept away and nothing is left, another fault brings none back unless it joins conductors or a
   * valve is open by itself.
   */
  function dominates(v: FaultHypothesis, seen: Prediction | null, other: FaultHypothesis): boolean {
    const [{ cause }, beside] = [faultOf(v), faultOf(other)]
    const nothing =
      seen?.kind === 'open' || (seen?.kind === 'waters' && (seen.master === 0 || seen.valves.every(([, p]) => p === 0)))
    if (!nothing || beside.cause === 'stuck_open') return false
    return AT_THE_SOURCE.has(cause) || (KEEPS_AWAY.has(cause) && !beside.links && other.mods.joins.length === 0)
  }

  return memoizePredictions(catalogue, {
    foresee,
    dominates,
    mayAffect: (test, fault) => !isElsewhere(test, fault) && mayAffect(test, fault),
    likeIn: equivalenceClasses(context, catalogue),
    compose: (test, faults, alone) => {
      if (test.kind !== 'ohms' || test.to.kind === 'earth') return null
      if (faults.some((v) => isSometimes(test)(v) || isElsewhere(test, faultOf(v)))) return null
      const [a, b] = [basis.pointOf(test.from, faults), basis.pointOf(test.to, faults)]
      return a === null || b === null ? null : ohms.inSeries({ a, b }, faults, alone)
    },
  })
}
