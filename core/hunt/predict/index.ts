import type { FieldTest, Meter } from '../../record'
import type { HuntContext } from '../context'
import { equivalenceClasses } from '../equivalence'
import { memoizePredictions, type Predictor } from '../memoize'
import type { Cause } from '../odds'
import type { Catalogue, Faults, FaultHypothesis } from '../catalogue'
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

/** An intermittent joint fails in every other test. */
const INTERMITTENT = 0.5
/** What only keeps current away. */
const KEEPS_AWAY: ReadonlySet<Cause> = new Set<Cause>(['open', 'series', 'terminal_dead'])
/** What keeps it away, or the water, before it has left the cabinet: no conductors that touch bring any back. */
const AT_THE_SOURCE: ReadonlySet<Cause> = new Set<Cause>(['supply_dead', 'sensor_open', 'water_off'])

/** Predicts any test under any faults from the network of its state: the one place where a fault becomes a figure. */
export function predictorOf(context: HuntContext, catalogue: Catalogue, meter: Meter): Predictor {
  const basis = basisOf(context, catalogue, meter)
  const { faultOf } = basis
  const ohms = ohmsOf(basis)
  const byKind = byKindOf(basis, ohms, valvesOf(basis))
  /** The open twin of an intermittent joint: the same leg, taken out. */
  const openAt = new Map(
    catalogue.faults.flatMap((f) => (f.cause === 'open' && f.at !== null ? [[f.at, f.index] as const] : [])),
  )
  const withUnlisted = unlistedOf(basis)
  const isUnlisted = (v: FaultHypothesis) => faultOf(v).cause === 'unlisted'
  const isIntermittent = (v: FaultHypothesis) => faultOf(v).cause === 'intermittent'
  const asOpen = (v: FaultHypothesis) => (isIntermittent(v) ? { ...v, fault: openAt.get(faultOf(v).at!)! } : v)

  function foresee(test: FieldTest, faults: Faults): Prediction | null {
    if (faults.some(isUnlisted)) {
      const rest = foresee(
        test,
        faults.filter((v) => !isUnlisted(v)),
      )
      return rest && withUnlisted(test, faults, rest)
    }
    if (test.kind !== 'look' && test.kind !== 'remake' && faults.some(isIntermittent)) {
      const well = foresee(
        test,
        faults.filter((v) => !isIntermittent(v)),
      )
      const ill = foresee(test, faults.map(asOpen))
      return well && ill && { kind: 'either', p: INTERMITTENT, well, ill }
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
    mayAffect: relevanceOf(basis),
    likeIn: equivalenceClasses(context, catalogue),
    compose: (test, faults, alone) => {
      if (test.kind !== 'ohms' || test.to.kind === 'earth' || faults.some(isIntermittent)) return null
      const [a, b] = [basis.pointOf(test.from, faults), basis.pointOf(test.to, faults)]
      return a === null || b === null ? null : ohms.inSeries({ a, b }, faults, alone)
    },
  })
}
