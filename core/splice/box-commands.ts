import { accepted, refusal, refused, type Outcome } from '../refusal'
import { commandsBetween, create, freeId, type Work } from '../plan'
import {
  applyBatch,
  endKey,
  getOrThrow,
  type CableId,
  type Command,
  type End,
  type PlaceId,
  type Site,
  type Splice,
  type SpliceId,
} from '../site'
import { boxJoints, isMade, type BoxJoint, type Way } from './box'
import { clear } from './clear'
import { carried, limitsOf, misfitOf, type ConnectorKind } from './connector'
import { seenOf } from './conductor'
import { planJoint } from './joint'
import { splitCommands, splitOf } from './split-common'

/** Length of an offcut that links two connectors, m: both hold it with a hand's breadth between. */
const JUMPER_m = 0.15

/** The commands that make a joint as a way says: its connectors, and the jumpers between them. */
export function wayCommandsOf(site: Site, joint: BoxJoint, way: Way): Command[] {
  const work: Work = { site }
  layOut(work, joint, way)
  return commandsBetween(site, work.site)
}

function layOut(work: Work, joint: BoxJoint, { plan }: Way): void {
  const { place } = joint.holds[0]!.record
  const ends = new Map(joint.ends.map((s) => [endKey(s.end), s.end]))
  clear(work, joint)
  const jumperEnds: End[][] = Array.from({ length: plan.jumpers }, () => [])
  const tag = getOrThrow(work.site.places, place).tag
  for (let j = 0; j < plan.jumpers; j++) {
    const id = freeId(work.site, 'cables', `${tag}-jumper`) as CableId
    create(work, 'cables', id, {
      kind: 'jumper',
      gauge: { value: { area_mm2: Math.round(plan.jumper_mm2 * 1000) / 1000 }, how: 'reported' },
      stops: [
        { id: 'a', place, at_m: { value: 0, how: 'reported' } },
        { id: 'b', place, at_m: { value: JUMPER_m, how: 'reported' } },
      ],
      cores: { c0: {} },
    })
    jumperEnds[j] = [
      { kind: 'core', cable: id, core: 'c0', stop: 'a', side: 'leaves' },
      { kind: 'core', cable: id, core: 'c0', stop: 'b', side: 'arrives' },
    ] as End[]
  }
  plan.made.forEach(({ connector, holds, jumpers }, i) => {
    const id = i === 0 ? joint.id : freeId(work.site, 'splices', joint.id)
    create(work, 'splices', id, {
      place,
      connector: connector.kind,
      ends: [...holds.map((k) => ends.get(k)!), ...jumpers.map((j) => jumperEnds[j]!.shift()!)],
    })
  })
}

/**
 * Settles every joint of some boxes that nobody has made yet and whose connector is open or does not hold: by its
 * first way.
 */
export function planBoxCommands(site: Site, ...places: readonly PlaceId[]): Outcome<Command[]> {
  const start = site.settings.wiring.manyCommons === 'split' ? places.reduce(withSplits, site) : site
  const work: Work = { site: start }
  const stuck: BoxJoint[] = []
  // Boxes do not touch one another, so the joints of all can be read from the start.
  for (const joint of places.flatMap((place) => boxJoints(start, place))) {
    if (isSettled(joint)) continue
    if (joint.ways.length === 0) stuck.push(joint)
    else layOut(work, joint, joint.ways[0]!)
  }
  if (stuck.length > 0) return refused(...stuck.map((j) => nothingHolds(site, j)))
  return accepted(commandsBetween(site, work.site))
}

/** A joint that somebody has made, or whose connectors are named and hold. */
const isSettled = (joint: BoxJoint) =>
  joint.holds.some((h) => isMade(h.record)) ||
  joint.holds.every((h) => h.record.connector !== 'unknown' && h.misfit === null)

/**
 * Splits every open common joint of a box that one preferred connector does not hold, as long as spare cores come
 * from the cabinet.
 */
function withSplits(site: Site, place: PlaceId): Site {
  const joint = boxJoints(site, place).find(
    (j) =>
      !isSettled(j) &&
      j.ways.every((w) => w.way !== 'one' || w.plan.made[0]!.connector !== carried(site.settings)[0]) &&
      splitOf(site, j) !== null,
  )
  if (!joint) return site
  const next = applyBatch(site, splitCommands(site, joint, splitOf(site, joint)!))
  if (!next.ok) throw new Error(`withSplits: ${JSON.stringify(next.refusals)}`)
  return withSplits(next.value.site, place)
}

const nothingHolds = (site: Site, joint: BoxJoint) =>
  refusal('no_connector_holds', ['splices', joint.id], {
    count: joint.ends.length,
    thickest_mm2: Math.round(Math.max(...joint.ends.map((s) => s.area_mm2)) * 100) / 100,
    at: getOrThrow(site.places, joint.holds[0]!.record.place).tag,
  })

/**
 * The commands that note another kind of connector for one joint; a kind that does not hold what is in it is refused
 * with the mend.
 */
export function connectorCommands(site: Site, splice: SpliceId, kind: ConnectorKind): Outcome<Command[]> {
  const record = getOrThrow(site.splices, splice)
  const limits = limitsOf(site.settings, kind)
  const areas = record.ends.map((e) => seenOf(site, e).area_mm2)
  const misfit = limits && misfitOf(limits, areas)
  if (misfit) {
    const chain = planJoint(
      areas.map((area, i) => ({ key: String(i), area_mm2: area })),
      [limits],
      areas,
    )
    return refused(
      refusal(`connector_${misfit.code}`, ['splices', splice, 'connector'], {
        connector: kind,
        is: Math.round(misfit.is * 100) / 100,
        limit: misfit.limit,
        count: chain?.made.length ?? 0,
        jumpers: chain?.jumpers ?? 0,
      }),
    )
  }
  return accepted([{ do: 'set', in: 'splices', id: splice, field: 'connector', value: kind }])
}

/** The commands that note a tick of a joint and the day; the last tick taken away leaves it not made. */
export function tickCommands(
  site: Site,
  splice: SpliceId,
  tick: Splice['ticks'][number],
  on: boolean,
  today: string,
): Command[] {
  const { ticks, made } = getOrThrow(site.splices, splice)
  const next = on ? [...ticks.filter((t) => t !== tick), tick] : ticks.filter((t) => t !== tick)
  const commands: Command[] = [{ do: 'set', in: 'splices', id: splice, field: 'ticks', value: next }]
  if (on && made === null)
    commands.push({
      do: 'set',
      in: 'splices',
      id: splice,
      field: 'made',
      value: { value: today, how: 'seen', on: today },
    })
  if (next.length === 0 && made?.how === 'seen' && made.value === today)
    commands.push({ do: 'set', in: 'splices', id: splice, field: 'made', value: null })
  return commands
}
