import { commandsBetween, coreEnd, create, cutAt, capLoose, freeId, join, part, spareCore, type Work } from '../plan'
import {
  commonOf,
  endKey,
  entries,
  getOrThrow,
  terminalEnd,
  type CableId,
  type Command,
  type CoreId,
  type End,
  type Site,
  type StopId,
} from '../site'
import type { BoxJoint } from './box'
import { clear } from './clear'
import { carried } from './connector'
import { seenOf, type Seen } from './conductor'
import { planJoint, type JointPlan } from './joint'

/** A common joint taken apart: a spare core brings a second common from C, and some of the coils hang on it. */
export interface CommonSplit {
  readonly cable: CableId
  readonly core: CoreId
  readonly stop: StopId
  readonly moved: readonly Seen[]
  readonly keeps: JointPlan
  readonly second: JointPlan
  readonly connectors: number
}

/**
 * How a crowded common joint can be split over two cores that both land on C; null where no spare core comes from the
 * cabinet.
 */
export function splitOf(site: Site, joint: BoxJoint): CommonSplit | null {
  if (joint.serves !== 'common') return null
  const connectors = carried(site.settings)
  const incoming = joint.ends.find(
    (s) => s.way === 'arrives' && s.end.kind === 'core' && homeOf(site, s.end.cable) !== null,
  )
  if (incoming?.end.kind !== 'core') return null
  const { cable, stop } = incoming.end
  const core = spareCore(site, cable)
  const devices = joint.ends.filter((s) => s.way === 'device')
  if (core === null || devices.length < 2) return null
  const fresh = seenOf(site, { kind: 'core', cable, core, stop, side: 'arrives' } as End)
  const conductors = (ends: readonly Seen[]) => ends.map((s) => ({ key: endKey(s.end), area_mm2: s.area_mm2 }))
  let best: CommonSplit | null = null
  for (let count = 1; count <= devices.length; count++) {
    const moved = devices.slice(devices.length - count)
    const [stay, go] = [conductors(joint.ends.filter((s) => !moved.includes(s))), conductors([fresh, ...moved])]
    if (stay.length < 2) continue
    const [keeps, second] = [
      planJoint(
        stay,
        connectors.slice(0, 1),
        stay.map((c) => c.area_mm2),
      ) ??
        planJoint(
          stay,
          connectors,
          stay.map((c) => c.area_mm2),
        ),
      planJoint(
        go,
        connectors.slice(0, 1),
        go.map((c) => c.area_mm2),
      ) ??
        planJoint(
          go,
          connectors,
          go.map((c) => c.area_mm2),
        ),
    ]
    if (!keeps || !second) continue
    const total = keeps.made.length + second.made.length
    if (best === null || total < best.connectors) best = { cable, core, stop, moved, keeps, second, connectors: total }
  }
  return best
}

/** The controller whose common the cable brings out, or null. */
function homeOf(site: Site, cable: CableId) {
  const place = getOrThrow(site.cables, cable).stops[0]!.place
  return entries(site.controllers).find(([id, c]) => c.place === place && commonOf(site, id) !== null)?.[0] ?? null
}

/**
 * The commands that make the split: the spare cut in the box and landed on C, the coils moved to it. Connectors are
 * settled with the box.
 */
export function splitCommands(site: Site, joint: BoxJoint, split: CommonSplit): Command[] {
  const work: Work = { site }
  const { cable, core, stop, moved } = split
  const controller = homeOf(site, cable)!
  const { stops } = getOrThrow(site.cables, cable)
  const { place } = joint.holds[0]!.record
  for (const s of stops) for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(cable, core, s.id, side))
  cutAt(work, cable, core, stop)
  join(work, stops[0]!.place, [
    terminalEnd(controller, commonOf(site, controller)!),
    coreEnd(cable, core, stops[0]!.id, 'leaves'),
  ])
  const gone = new Set(moved.map((m) => endKey(m.end)))
  clear(work, joint)
  create(work, 'splices', joint.id, {
    place,
    connector: 'unknown',
    ends: joint.ends.map((s) => s.end).filter((e) => !gone.has(endKey(e))),
  })
  create(work, 'splices', freeId(work.site, 'splices', `${getOrThrow(site.places, place).tag}-j`), {
    place,
    connector: 'unknown',
    ends: [coreEnd(cable, core, stop, 'arrives'), ...moved.map((m) => m.end)],
  })
  capLoose(work, cable)
  return commandsBetween(site, work.site)
}
