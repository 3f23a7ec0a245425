/** A way things may stand: which valve hangs on each output, and which output had power last. */
interface State {
  /** Valves by output, as numbers in the list of valves; null is an output that is capped. */
  readonly valves: readonly (number | null)[]
  readonly last: number
  readonly probability: number
}
/** What is known of a sequencer: every way things may stand, with its odds; they add up to one. */
export interface SequencerBelief {
  readonly states: readonly State[]
  /** Something was seen that no state allowed: the count was lost before, and began anew there. */
  readonly lost: number
}

/** More outputs than these that look alike have too many orders to hold; they are taken to be as recorded. */
const MOST_ALIKE = 4

/**
 * Where nothing is known yet: any output may have had power last, and where outputs look alike and nobody has tried
 * them, any of them may have any valve.
 * @param valves by output, as they are on record
 */
export function nothingKnown(valves: readonly (number | null)[], isOrderKnown: boolean): SequencerBelief {
  const orders = isOrderKnown || valves.length > MOST_ALIKE ? [valves] : permutations(valves)
  const states = orders.flatMap((order) => order.map((_, last) => ({ valves: order, last, probability: 1 })))
  return { states: normal(states), lost: 0 }
}

/** Power came so many times, each after long enough without. */
export const turned = ({ states, lost }: SequencerBelief, times: number): SequencerBelief => ({
  states: states.map((s) => ({ ...s, last: (s.last + times) % s.valves.length })),
  lost,
})

/**
 * Power came nobody knows how often, as in an outage or with somebody else at the controller.
 * @param odds of no time, once, twice and so on
 */
export function perhapsTurned(belief: SequencerBelief, odds: readonly number[]): SequencerBelief {
  const whole = odds.reduce((sum, p) => sum + p, 0)
  const states = odds.flatMap((p, times) =>
    p <= 0 ? [] : turned(belief, times).states.map((s) => ({ ...s, probability: (s.probability * p) / whole })),
  )
  return { states: normal(states), lost: belief.lost }
}

/** With power now, this valve was seen to water; null: none did, so that the output is one that is capped. */
export function watered(belief: SequencerBelief, valve: number | null): SequencerBelief {
  const fits = belief.states.filter((s) => s.valves[s.last] === valve)
  if (fits.length > 0) return { states: normal(fits), lost: belief.lost }
  // The order stays as far as it is known: it is the count that was lost.
  const anew = belief.states.flatMap((s) => s.valves.flatMap((v, last) => (v === valve ? [{ ...s, last }] : [])))
  // A valve that is on no output at all tells nothing of those that are.
  return anew.length === 0 ? belief : { states: normal(anew), lost: belief.lost + 1 }
}

/** How likely each valve is the next to have power, by its number; under null, that none has. */
export function nextValves({ states }: SequencerBelief): ReadonlyMap<number | null, number> {
  const odds = new Map<number | null, number>()
  for (const { valves, last, probability } of states) {
    const valve = valves[(last + 1) % valves.length]!
    odds.set(valve, (odds.get(valve) ?? 0) + probability)
  }
  return odds
}

/** How likely a valve waters first after so many pulses, from none (it had power last) on. */
export function pulsesUntil({ states }: SequencerBelief, valve: number): number[] {
  const odds = Array.from({ length: states[0]!.valves.length }, () => 0)
  for (const { valves, last, probability } of states) {
    const on = valves.indexOf(valve)
    if (on >= 0) odds[(on - last + valves.length) % valves.length]! += probability
  }
  return odds
}

function permutations<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]]
  return list.flatMap((first, i) => permutations(list.filter((_, j) => j !== i)).map((rest) => [first, ...rest]))
}

/** States that are alike as one, their odds adding up to one in all. */
function normal(states: readonly State[]): State[] {
  const byKey = new Map<string, State>()
  let whole = 0
  for (const state of states) {
    const key = `${state.last} ${state.valves.join(',')}`
    whole += state.probability
    byKey.set(key, { ...state, probability: state.probability + (byKey.get(key)?.probability ?? 0) })
  }
  return [...byKey.values()].map((s) => ({ ...s, probability: s.probability / whole }))
}
