import { apart, meetings, signaturesOf, type Pruning, type Scored, type Signature } from './pair-bounds'
import type { LogSumAccumulator } from './log-sum'
import type { FaultHypothesis } from './variants'

/** Explanations further than this below what all hold are not listed, nats. */
export const LISTED_WITHIN_NATS = 9
/** Single faults from which the likeliest pairs are listed. */
const LISTED = 60
/** By so much a pair's bound is taken to be too high when those to be worked out are put in order, nats. */
const RARELY_REACHED = 6
/** A pair that stands for others, no farther below what all hold, is taken apart into them, nats. */
const COUNTS = 6
/** So many pairs are worked out in any case, and of the others so many to see what working them out would move. */
const [FIRST, SAMPLED] = [600, 300]
/** So much of what all hold is worth working the others out. */
const MOVED = 2e-4

/** Some faults that together explain the readings, with the log of what they hold. */
export interface FaultSet {
  readonly faults: readonly FaultHypothesis[]
  readonly log: number
}

/** What weighing pairs goes by. */
export interface Pairing {
  readonly partOf: (v: FaultHypothesis) => number
  /** What a pair explains better than "nothing". */
  readonly gain: (s: Scored, t: Scored) => number
  /** By unit: the best that any single fault does there. */
  readonly best: Float64Array
  /** What all explanations hold at least. */
  readonly evidenceLowerBound: number
  /** The log of what two faults have at the outset. */
  readonly logTwo: number
  readonly scored: (v: FaultHypothesis) => Scored
  readonly pruning: Pruning
}

/** Adds the belief in all pairs to `sums`, and the likeliest to `found`. */
export function addPairs(cells: readonly Scored[], pairing: Pairing, sums: LogSumAccumulator, found: FaultSet[]): void {
  const signatures = signaturesOf(cells, pairing.best.length)
  apartPairs(cells, signatures, pairing, sums, found)
  meetingPairs(signatures, pairing, sums, found)
}

/**
 * Faults that show in different units: each signature's parts with the whole of all signatures apart from it, its own
 * part left out.
 */
function apartPairs(
  cells: readonly Scored[],
  signatures: readonly Signature[],
  { partOf, evidenceLowerBound: least, logTwo, pruning }: Pairing,
  sums: LogSumAccumulator,
  found: FaultSet[],
): void {
  const scale = signatures.reduce((m, s) => Math.max(m, s.log), -Infinity)
  const weight = Float64Array.from(signatures, (s) => Math.exp(s.log - scale))
  const inPart = new Map<number, { at: number; weight: number }[]>()
  const own = signatures.map((s, at) => {
    const byPart = new Map<number, number>()
    for (const c of s.of) byPart.set(partOf(c.variant), (byPart.get(partOf(c.variant)) ?? 0) + Math.exp(c.log - scale))
    for (const [part, w] of byPart) {
      const list = inPart.get(part)
      if (list) list.push({ at, weight: w })
      else inPart.set(part, [{ at, weight: w }])
    }
    return byPart
  })
  signatures.forEach((one, a) => {
    let rest = 0
    for (let b = 0; b < signatures.length; b++) if (apart(one.mask, signatures[b]!.mask)) rest += weight[b]!
    for (const [part, w] of own[a]!) {
      let same = 0
      for (const p of inPart.get(part)!)
        if (p.at === a ? one.units.length === 0 : apart(one.mask, signatures[p.at]!.mask)) same += p.weight
      // Where its own part is most of the rest, the difference would be rounding: added up anew.
      const left =
        same < 0.5 * rest
          ? rest - same
          : signatures.reduce((s, two, b) => {
              let sum = 0
              if (apart(one.mask, two.mask)) for (const [k, x] of own[b]!) if (k !== part) sum += x
              return s + sum
            }, 0)
      if (w * left <= 0) continue
      const log = logTwo + Math.log(w) + Math.log(left) + 2 * scale
      if (log < least - pruning.leftOut - 5) continue
      sums.add(part, log, 0.5) // every pair comes up from both of its sides
    }
  })
  const highest = cells.reduce((m, c) => Math.max(m, c.log), -Infinity)
  const most = cells
    .filter((c) => logTwo + highest + c.log > least - LISTED_WITHIN_NATS)
    .sort((a, b) => b.log - a.log)
    .slice(0, LISTED)
  const masks = new Map(signatures.flatMap((s) => s.of.map((c) => [c, s.mask] as const)))
  most.forEach((s, a) =>
    most.slice(a + 1).forEach((t) => {
      const log = logTwo + s.log + t.log
      if (
        log > least - LISTED_WITHIN_NATS &&
        apart(masks.get(s)!, masks.get(t)!) &&
        partOf(s.variant) !== partOf(t.variant)
      )
        found.push({ faults: [s.variant, t.variant], log })
    }),
  )
}

/**
 * Faults that meet in a unit: those whose bound can reach the others are worked out, first those of which most may be
 * wrong.
 */
function meetingPairs(
  signatures: readonly Signature[],
  {
    partOf,
    gain,
    best,
    evidenceLowerBound: least,
    logTwo,
    scored,
    pruning: { faint, leftOut, negligible, together },
  }: Pairing,
  sums: LogSumAccumulator,
  found: FaultSet[],
): void {
  const near: { s: Scored; t: Scored; hidden: number; unsure: number }[] = []
  const hide = (s: Scored, t: Scored, hidden: number) => {
    if (hidden > least - negligible) sums.addPair(partOf(s.variant), partOf(t.variant), hidden)
  }
  meetings(signatures, best, least - leftOut - logTwo, (s, t, bound, hiding) => {
    if (partOf(s.variant) === partOf(t.variant)) return
    const [reach, hidden] = [logTwo + bound, logTwo + Math.min(bound, hiding)]
    // What counts anyway, and what could be reached, which few do.
    if (reach >= least - faint) near.push({ s, t, hidden, unsure: Math.max(hidden, reach - RARELY_REACHED) })
    else hide(s, t, hidden)
  })
  near.sort((x, y) => y.unsure - x.unsure)
  const workedOut = (s: Scored, t: Scored) => logTwo + s.odds + s.extra + t.odds + t.extra + gain(s, t)
  const add = (s: Scored, t: Scored, log: number) => {
    sums.addPair(partOf(s.variant), partOf(t.variant), log)
    if (log > least - LISTED_WITHIN_NATS) found.push({ faults: [s.variant, t.variant], log })
  }
  /** What working out moved, as a part of what all hold. */
  const workOut = ({ s, t, hidden }: (typeof near)[number]): number => {
    const log = workedOut(s, t)
    // One that counts is taken apart into all for which it stands.
    if (log > least - COUNTS && s.standsFor.length * t.standsFor.length > 1) {
      const others = t.standsFor.map(scored)
      for (const v of s.standsFor) {
        const one = scored(v)
        for (const other of others) add(one, other, workedOut(one, other))
      }
    } else add(s, t, log)
    return Math.abs(Math.exp(log - least) - Math.exp(hidden - least))
  }
  const [first, rest] = [near.slice(0, FIRST), near.slice(FIRST, together)]
  first.forEach(workOut)
  // Of the many others every so-manieth tells whether it is worth while: mostly the one hides the other where they
  // meet.
  const step = together === Infinity ? 1 : Math.ceil(rest.length / SAMPLED)
  const moved = rest.reduce((sum, pair, n) => (n % step === 0 ? sum + workOut(pair) : sum), 0)
  const worth = moved * step > MOVED
  rest.forEach((pair, n) => {
    if (n % step !== 0) {
      if (worth) workOut(pair)
      else hide(pair.s, pair.t, pair.hidden)
    }
  })
  near.slice(FIRST + rest.length).forEach(({ s, t, hidden }) => {
    hide(s, t, hidden)
  })
}
