import type { Scene } from '../../core/expect'
import { controllerFor, isOnRecord } from '../../core/procedure'
import { targetOfPart, type Part } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { sectionsOf, type Strip } from '../../core/strip'
import { marksOn, type Mark } from './strip-marks'

/** A thread of a property, by which it is found again when the property is another. */
export interface ThreadOn {
  readonly controller: ControllerId
  /** The section that it comes home in, and its terminal; null of the common there. */
  readonly section: string
  readonly terminal: Strip['terminal'] | null
  readonly strip: Strip
  readonly bad: readonly Mark[]
}

const threadsOn = (scene: Scene, controller: ControllerId) => {
  const stations = Object.values(scene.site.stations).filter((s) => s.controller === controller)
  const terminals = [...new Set(stations.map((s) => s.terminal))]
  const coilsOn = (terminal: Strip['terminal']) => scene.hanging(controller).get(terminal)?.coils ?? []
  return sectionsOf(scene.site, scene.network.wiring, controller, terminals, coilsOn).flatMap(
    ({ key: section, strips, common }) => [
      ...strips.map((strip) => ({ section, terminal: strip.terminal, strip })),
      ...(common ? [{ section, terminal: null, strip: common }] : []),
    ],
  )
}

/** The thread that a part lies on, with where it is bad; null of a part that lies on none. */
export function threadOf(scene: Scene, where: Part): ThreadOn | null {
  const target = targetOfPart(where)
  const controller = isOnRecord(scene.site, target) ? controllerFor(scene.site, target) : null
  if (controller === null) return null
  for (const thread of threadsOn(scene, controller)) {
    const bad = marksOn(scene.site, thread.strip, [{ where, p: 1 }])
    if (bad.length > 0) return { controller, ...thread, bad }
  }
  return null
}

/** The same thread of a property that was changed; null where it is there no more. */
export function sameThread(scene: Scene, { controller, section, terminal }: ThreadOn): Strip | null {
  const found = threadsOn(scene, controller).filter((t) => t.terminal === terminal)
  // A lead may come home by another section than before, a common is its section's.
  return (found.find((t) => t.section === section) ?? (terminal === null ? null : found[0]))?.strip ?? null
}

/** Stretches of a thread that lie otherwise than they did before. */
export function changedRuns(before: Strip, after: Strip): Strip['runs'] {
  const was = new Set(before.runs.map((r) => r.link.id))
  return after.runs.filter((r) => !was.has(r.link.id))
}
