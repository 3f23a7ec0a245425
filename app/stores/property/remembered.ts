import { climateOf } from '../../../core/circuit'
import { sceneOf, type Scene } from '../../../core/expect'
import { pastOf, type PastByTest } from '../../../core/history'
import { readingsOf } from '../../../core/record'
import type { Site } from '../../../core/site'
import type { PropertyState } from './state'

/** What is worked out from the site and its facts once and asked for often. */
export function remembered({ held, site, facts }: PropertyState) {
  const scenes = new Map<string, { site: Site; scene: Scene }>()
  const pasts = new Map<string | null, { key: string; past: PastByTest }>()

  /** The site at a job's temperatures, kept while neither changes. */
  function sceneAt(ground_C: number | null, coil_C: number | null = null): Scene {
    const now = site.value!
    const climate = ground_C === null ? climateOf(now) : climateOf(now, ground_C, coil_C)
    const key = `${climate.ground_C} ${climate.coil_C}`
    const known = scenes.get(key)
    if (known?.site === now) return known.scene
    const scene = sceneOf(now, climate)
    scenes.set(key, { site: now, scene })
    return scene
  }

  /**
   * Readings of the jobs before one, or of all. Facts only ever grow, so their numbers tell whether anything has come
   * in that matters here; readings of the job itself do not, and the answer stays the same object while they come.
   */
  function pastBefore(job: string | null): PastByTest {
    const now = facts.value!
    const others = Object.keys(now.readings).length - (job === null ? 0 : readingsOf(now, job).length)
    const grown = [now.jobs, now.strikeOuts, now.acceptances].map((x) => Object.keys(x).length)
    const key = [held.value!.id, others, ...grown].join(' ')
    const known = pasts.get(job)
    if (known?.key === key) return known.past
    const past = pastOf(now, job)
    pasts.set(job, { key, past })
    return past
  }
  return { sceneAt, pastBefore }
}
