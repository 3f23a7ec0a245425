import { corrected_ohm, predictOnce, stateOf, type Baseline, type Scene, type State, type VerdictCode } from '../expect'
import type { Meter, OhmsTest } from '../record'
import { baselineFrom, error_ohm, judgements, type SceneAt } from './baseline'
import { driftOf, type Drift } from './drift'
import type { Past } from './past'

/** One reading of a thread among the others. `now_ohm` is what it would be at the temperatures of now. */
export interface Point {
  readonly id: string
  readonly at: string
  readonly job: string
  readonly open: boolean
  readonly acceptedByHand: boolean
  readonly read_ohm: number | null
  readonly now_ohm: number | null
  readonly code: VerdictCode
  readonly state: State
}

/** A thread over the years. */
export interface ThreadHistory {
  readonly points: readonly Point[]
  readonly baseline: Baseline | null
  /**
   * Its creep since its parts were last changed, and when it will leave the record band; null where none can be told.
   */
  readonly drift: Drift | null
}

const DAY_ms = 86_400_000

/** Every standing reading of a test in order, each judged by what was known before it, and what they show together. */
export function threadHistory(
  scene: Scene,
  sceneAt: SceneAt,
  test: OhmsTest,
  meter: Meter,
  past: readonly Past[],
): ThreadHistory {
  const now = predictOnce(scene, test, meter)
  const all = judgements(scene, sceneAt, test, past)
  const points = all.map(({ past: { id, reading, job, acceptedByHand }, expected, judged }): Point => {
    const read_ohm = reading.value.kind === 'ohm' ? corrected_ohm(reading.value.ohm, reading.meter) : null
    const now_ohm =
      read_ohm !== null && expected.kind === 'ohms' && now.kind === 'ohms'
        ? (read_ohm * now.expected_ohm) / expected.expected_ohm
        : read_ohm
    return {
      id,
      at: reading.at,
      job: job.title,
      open: read_ohm === null,
      acceptedByHand,
      read_ohm,
      now_ohm,
      code: judged.verdict.code,
      state: stateOf(judged.verdict.code),
    }
  })
  const baseline = baselineFrom(all.at(-1)?.kept ?? null, now, meter)
  if (now.kind !== 'ohms') return { points, baseline, drift: null }
  const excesses = all.flatMap(({ counts, past: { reading } }, i) => {
    const { now_ohm, state } = points[i]!
    // A reading that is a fault is no creep; the meter's stated error is its limit, taken as two standard errors.
    if (!counts || now_ohm === null || state === 'fault') return []
    return [
      {
        at_days: Date.parse(reading.at) / DAY_ms,
        excess_ohm: now_ohm - now.expected_ohm,
        sigma_ohm: error_ohm(now_ohm, reading.meter) / 2,
      },
    ]
  })
  return { points, baseline, drift: driftOf(excesses, now.high_ohm - now.expected_ohm) }
}

/** A day count of a drift as a calendar day. */
export const dayOf = (at_days: number): string => new Date(at_days * DAY_ms).toISOString().slice(0, 10)
