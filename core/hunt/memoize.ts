import type { Prediction } from './predict/prediction'
import type { Like } from './equivalence'
import { takenKey, type TakenTest } from './taken'
import { leadsOn, type Catalogue, type Fault, type Faults, type FaultHypothesis } from './catalogue'

/**
 * Predicts any test under any faults; every answer is worked out once, since a hunt asks for the same again after
 * each reading.
 */
export interface Predictor {
  readonly base: (test: TakenTest) => Prediction | null
  /**
   * As with one or two faults; null where the test says nothing (its points are not on record, or a switch stands
   * between).
   */
  readonly under: (test: TakenTest, faults: Faults) => Prediction | null
  /** Whether a fault can show in a test at all; where not, `base` holds. */
  readonly mayAffect: (test: TakenTest, fault: Fault) => boolean
  /**
   * Of some faults those that `under` counts: the ones that can show, and all of them once one that shows links
   * wires; one alone where it settles what the test shows, whatever the other does.
   */
  readonly activeFaults: (test: TakenTest, faults: Faults) => Faults
  /** The cell that shows as this one does in a test: itself, or the one that stands for its like. */
  readonly like: (test: TakenTest, variant: FaultHypothesis) => FaultHypothesis
}

interface Recalled {
  readonly base: Prediction | null
  readonly like: Like | null
  readonly touched: Uint8Array
  readonly one: Map<number, Prediction | null>
  readonly two: Map<number, Prediction | null>
}
const [UNKNOWN, NO, YES] = [0, 1, 2] as const

/**
 * `settles`: whether a fault by which a test shows this shows it beside the other too. `likeIn`: null where every
 * cell shows by itself.
 */
export function memoizePredictions(
  { faults, variants }: Catalogue,
  {
    foresee,
    mayAffect: touches,
    dominates: settles,
    likeIn,
    compose,
  }: {
    foresee: (test: TakenTest, faults: Faults) => Prediction | null
    mayAffect: (test: TakenTest, fault: Fault) => boolean
    dominates: (v: FaultHypothesis, seen: Prediction | null, other: FaultHypothesis) => boolean
    likeIn: (test: TakenTest) => Like | null
    /** What some faults show together from what each shows alone; null where they have to be worked out. */
    compose: (
      test: TakenTest,
      faults: Faults,
      alone: (v: FaultHypothesis | null) => Prediction | null,
    ) => Prediction | null
  },
): Predictor {
  const byKey = new Map<string, Recalled>()
  const byTest = new WeakMap<TakenTest, Recalled>()
  const of = (test: TakenTest): Recalled => {
    let known = byTest.get(test)
    if (known) return known
    const key = takenKey(test)
    known = byKey.get(key) ?? {
      base: foresee(test, []),
      like: likeIn(test),
      touched: new Uint8Array(faults.length),
      one: new Map(),
      two: new Map(),
    }
    byKey.set(key, known)
    byTest.set(test, known)
    return known
  }
  const touched = (test: TakenTest, known: Recalled, fault: Fault): boolean => {
    if (known.touched[fault.index] === UNKNOWN) known.touched[fault.index] = touches(test, fault) ? YES : NO
    return known.touched[fault.index] === YES
  }
  const once = (of: Map<number, Prediction | null>, key: number, make: () => Prediction | null): Prediction | null => {
    let made = of.get(key)
    if (made === undefined) {
      made = make()
      of.set(key, made)
    }
    return made
  }
  /** What one fault makes of a test. */
  const alone = (test: TakenTest, known: Recalled, v: FaultHypothesis): Prediction | null => {
    const like = known.like?.(v, [v]) ?? v
    return once(known.one, like.index, () => foresee(test, [like]))
  }
  const feltIn = (test: TakenTest, known: Recalled, together: Faults): Faults => {
    const felt = together.filter((v) => touched(test, known, faults[v.fault]!))
    const leads = felt.some((v) => leadsOn(faults[v.fault]!))
    if (leads && felt.length < together.length) return together
    if (felt.length < 2) return felt
    for (const one of felt) {
      const seen = alone(test, known, one)
      if (felt.every((other) => other === one || settles(one, seen, other))) return [one]
    }
    return felt
  }
  return {
    base: (test) => of(test).base,
    mayAffect: (test, fault) => touched(test, of(test), fault),
    activeFaults: (test, together) => feltIn(test, of(test), together),
    like: (test, variant) => of(test).like?.(variant, [variant]) ?? variant,
    under: (test, together) => {
      const known = of(test)
      let felt = together.length === 0 ? together : feltIn(test, known, together)
      if (felt.length === 1) return alone(test, known, felt[0]!)
      if (known.like) {
        const like = felt.map((v) => known.like!(v, felt))
        // Two that are alike are still two.
        if (new Set(like).size === like.length) felt = like
      }
      if (felt.length === 0) return known.base
      const composed = compose(test, felt, (v) => (v === null ? known.base : alone(test, known, v)))
      if (composed !== null) return composed
      // What the zones showed is asked for once of a pair, and pairs are many.
      return felt.length === 2 && test.kind !== 'water'
        ? once(known.two, felt[0]!.index * variants.length + felt[1]!.index, () => foresee(test, felt))
        : foresee(test, felt)
    },
  }
}
