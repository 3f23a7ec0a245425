import {
  corrected_ohm,
  judge,
  partsRead,
  predictOnce,
  stateOf,
  type Baseline,
  type Expectation,
  type Judged,
  type Scene,
} from '../expect'
import type { Meter, OhmsTest } from '../record'
import { getOrThrow, type Site } from '../site'
import type { Past } from './past'

/** The site made ready at the temperatures of a job. */
export type SceneAt = (ground_C: number, coil_C: number | null) => Scene

/** An accepted reading as a part of what the record predicted of it, which holds at any temperature. */
export interface Kept {
  readonly ratio: number
  readonly meter: Meter
  readonly reading: string
  readonly at: string
}

/** A reading as it stood when it was taken, and what was kept as baseline after it. */
export interface Judgement {
  readonly past: Past
  readonly expected: Expectation
  readonly judged: Judged
  readonly counts: boolean
  readonly kept: Kept | null
}

/**
 * Goes through the readings of a thread, oldest first: each is judged by the record and by the baseline before it, and
 * becomes the baseline itself where it fits or was accepted by hand. Readings of parts that were changed since count
 * for nothing. The correction for temperature is the ratio of what the record predicts, so that a coil's own
 * deviation and the wire's warm up alike.
 */
export function judgements(
  scene: Scene,
  sceneAt: SceneAt,
  test: OhmsTest,
  past: readonly Past[],
): readonly Judgement[] {
  const made = judged.get(past)
  if (made?.site === scene.site) return made.judgements
  const fresh = judgeAll(scene, sceneAt, test, past)
  judged.set(past, { site: scene.site, judgements: fresh })
  return fresh
}

/** Lists of past readings never change, so what was found in one holds while the site does. */
const judged = new WeakMap<readonly Past[], { site: Site; judgements: readonly Judgement[] }>()

function judgeAll(scene: Scene, sceneAt: SceneAt, test: OhmsTest, past: readonly Past[]): Judgement[] {
  const changed = newestPart(scene, test)
  let kept: Kept | null = null
  return past.map((p): Judgement => {
    const { reading, job } = p
    const then = sceneAt(job.ground_C, job.coil_C)
    const expected = predictOnce(then, test, reading.meter)
    const judged = judge(then, test, reading.value, reading.meter, baselineFrom(kept, expected, reading.meter))
    const counts =
      reading.value.kind === 'ohm' &&
      expected.kind === 'ohms' &&
      (changed === null || reading.at.slice(0, 10) >= changed)
    if (
      counts &&
      reading.value.kind === 'ohm' &&
      expected.kind === 'ohms' &&
      (p.acceptedByHand || stateOf(judged.verdict.code) === 'fits')
    )
      kept = {
        ratio: corrected_ohm(reading.value.ohm, reading.meter) / expected.expected_ohm,
        meter: reading.meter,
        reading: p.id,
        at: reading.at,
      }
    return { past: p, expected, judged, counts, kept }
  })
}

/** What was kept, at the temperatures of an expectation, ± the errors of its meter and of the one in use now. */
export function baselineFrom(kept: Kept | null, expected: Expectation, meter: Meter): Baseline | null {
  if (kept === null || expected.kind !== 'ohms') return null
  const ohm = kept.ratio * expected.expected_ohm
  const apart = error_ohm(ohm, kept.meter) + error_ohm(ohm, meter)
  return {
    corrected_ohm: ohm,
    low_ohm: Math.max(0, ohm - apart),
    high_ohm: ohm + apart,
    reading: kept.reading,
    at: kept.at,
  }
}

/** A baseline is looked for among so many of the last readings: twelve years of two sweeps a year. */
const MOST_LOOKED_BACK = 24

/** The baseline of a thread now: the last reading of the same coil and wiring that was accepted. */
export function baselineOf(
  scene: Scene,
  sceneAt: SceneAt,
  test: OhmsTest,
  meter: Meter,
  past: readonly Past[],
): Baseline | null {
  const kept = judgements(scene, sceneAt, test, lastOf(past)).at(-1)?.kept ?? null
  return kept && baselineFrom(kept, predictOnce(scene, test, meter), meter)
}

const shortened = new WeakMap<readonly Past[], readonly Past[]>()

function lastOf(past: readonly Past[]): readonly Past[] {
  if (past.length <= MOST_LOOKED_BACK) return past
  const made = shortened.get(past) ?? past.slice(-MOST_LOOKED_BACK)
  shortened.set(past, made)
  return made
}

export const error_ohm = (ohm: number, meter: Meter): number => meter.accuracy_ratio * ohm + meter.offset_ohm

/** The day on which the last of the parts in a reading was made or installed, as far as on record. */
function newestPart(scene: Scene, test: OhmsTest): string | null {
  const { site } = scene
  const days = partsRead(scene, test).flatMap((link) => {
    const known =
      link.kind === 'coil'
        ? getOrThrow(site.devices, link.device).installed
        : link.kind === 'leg'
          ? getOrThrow(site.splices, link.splice).made
          : getOrThrow(site.cables, link.cable).installed
    return known ? [known.value] : []
  })
  return days.length === 0 ? null : days.reduce((a, b) => (a > b ? a : b))
}
