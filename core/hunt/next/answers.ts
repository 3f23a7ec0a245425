import type { Explanation } from '../beliefs'
import type { Predictor } from '../memoize'
import { normalBelow } from '../normal'
import { blurAt, type Prediction } from '../predict'
import type { Candidate } from '../tests'
import { bitsAlone } from './bits'
import type { AnswerForecast, Answered } from './forecast'
import type { Targets } from './targets'

/** Figures of a test that lie nearer than this many deviations are one answer. */
const APART = 1.2
export const MOST_ANSWERS = 10

/** The chance of every answer under every explanation; null where the test says nothing. */
export function answered(
  predictor: Predictor,
  looked: readonly Explanation[],
  target: Targets,
  candidate: Candidate,
): Answered | null {
  const { test } = candidate
  const base = predictor.base(test)
  if (base === null) return null
  const touching = new Set(target.faults.flatMap((f) => (predictor.mayAffect(test, f) ? [f.index] : [])))
  if (touching.size === 0) return null
  const distinct = new Map<Prediction, number>([[base, 0]])
  const seen: { s: Prediction; p: number }[] = [{ s: base, p: 0 }]
  const rowOf = Int32Array.from(looked, ({ faults, p }) => {
    const s = faults.some((v) => touching.has(v.fault)) ? (predictor.under(test, faults) ?? base) : base
    let row = distinct.get(s)
    if (row === undefined) {
      row = seen.length
      distinct.set(s, row)
      seen.push({ s, p: 0 })
    }
    seen[row]!.p += p
    return row
  })
  if (seen.length === 1) return null
  const cuts = cutsOf(seen)
  const kinds = kindsOf(base, cuts)
  const answers = kinds.length
  const rows = new Float64Array(seen.length * answers)
  seen.forEach(({ s }, k) => rows.set(chances(s, cuts, kinds), k * answers))
  return { candidate, answers, rows, rowOf, cuts, kinds, bits: bitsAlone(looked, rows, rowOf, answers, target) }
}

const middle = (s: Prediction): { mean: number; sd: number } | null =>
  s.kind === 'ohms'
    ? { mean: s.mean, sd: Math.hypot(blurAt(s, s.mean), ...s.figures, ...s.coils.map(([, c]) => c * 0.035)) }
    : s.kind === 'volts'
      ? { mean: s.mean, sd: s.sd }
      : null

/** Figures between which a reading tells the explanations apart. */
function cutsOf(seen: readonly { s: Prediction; p: number }[]): number[] {
  const groups: { mean: number; sd: number; p: number }[] = []
  const listed = seen
    .flatMap(({ s, p }) => {
      const m = p > 0 ? middle(s.kind === 'either' ? s.well : s) : null
      return m ? [{ ...m, p }] : []
    })
    .sort((a, b) => a.mean - b.mean)
  for (const m of listed) {
    const last = groups.at(-1)
    if (last && m.mean - last.mean < APART * Math.max(m.sd, last.sd)) {
      const p = last.p + m.p
      last.mean = (last.mean * last.p + m.mean * m.p) / p
      last.sd = Math.max(last.sd, m.sd)
      last.p = p
    } else groups.push({ ...m })
  }
  const kept =
    groups.length <= MOST_ANSWERS
      ? groups
      : [...groups]
          .sort((a, b) => b.p - a.p)
          .slice(0, MOST_ANSWERS)
          .sort((a, b) => a.mean - b.mean)
  return kept.slice(1).map((g, i) => {
    const l = kept[i]!
    return (l.mean * g.sd + g.mean * l.sd) / (l.sd + g.sd)
  })
}

function kindsOf(base: Prediction, cuts: readonly number[]): AnswerForecast['kind'][] {
  switch (base.kind) {
    case 'yes':
    case 'waters':
      return ['yes', 'no']
    case 'lamps':
      return ['lamp_good', 'lamp_open', 'lamp_short']
    case 'tone':
      return ['no', 'yes']
    case 'volts':
      return [...cuts, 0].map(() => 'figure')
    default:
      return [...[...cuts, 0].map(() => 'figure' as const), 'open']
  }
}

function chances(s: Prediction, cuts: readonly number[], kinds: readonly AnswerForecast['kind'][]): number[] {
  switch (s.kind) {
    case 'either': {
      const [w, i] = [chances(s.well, cuts, kinds), chances(s.ill, cuts, kinds)]
      return w.map((p, k) => p * (1 - s.p) + i[k]! * s.p)
    }
    case 'yes':
      return [s.p, 1 - s.p]
    case 'waters': {
      const p = s.master * (1 - s.valves.reduce((none, [, q]) => none * (1 - q), 1))
      return [p, 1 - p]
    }
    case 'lamps':
      return [s.good, s.open, s.short]
    case 'tone':
      return s.lost_m === null ? [0.97, 0.03] : [0.03, 0.97]
    case 'anything':
      return kinds.map(() => 1 / kinds.length)
    case 'open':
    case 'insulated':
      return kinds.map((k) => (k === 'open' ? 0.999 : 0.001 / Math.max(1, kinds.length - 1)))
    default: {
      const { mean, sd } = middle(s)!
      let below = 0
      const figures = [...cuts, Infinity].map((c) => {
        const to = c === Infinity ? 1 : normalBelow((c - mean) / sd)
        const p = Math.max(0, to - below)
        below = to
        return p
      })
      return s.kind === 'volts' ? figures : [...figures.map((p) => p * 0.999), 0.001]
    }
  }
}
