import { doorOf } from '../cabinet'
import { sweepTerminals } from '../expect'
import { roundOnFoot, whereIs } from '../map'
import { targetKey, type Each, type Procedure, type Step, type WorkTarget } from '../record'
import {
  byTag,
  entries,
  getOrThrow,
  hangingOn,
  wiringOf,
  type ControllerId,
  type PlaceId,
  type Point,
  type Site,
  type Station,
  type TerminalId,
} from '../site'
import { boxJoints, censusOf } from '../splice'
import { holds } from './suits'
import { controllerFor, type Thing } from './thing'

/** A step on the thing that it is done on. */
export interface StepHere {
  /** The step’s name, and of one that is there several times what it is for: what its answers are kept under. */
  readonly key: string
  readonly step: Step
  readonly thing: Thing
  /** What it is for, where it is there several times. */
  readonly item: string | null
}

/**
 * The steps of a procedure on a thing of the property: those whose conditions hold there, and those that are for each
 * of several things once for each. Steps that follow one another and are for each of the same are done thing by thing.
 */
export function unfold(site: Site, { steps }: Procedure, target: WorkTarget): StepHere[] {
  const there = steps.filter((step) => step.if.every((condition) => holds(site, condition, target)))
  const unfolded: StepHere[] = []
  for (let i = 0; i < there.length;) {
    const { each } = there[i]!
    if (each === undefined) {
      unfolded.push({ key: there[i]!.id, step: there[i]!, thing: { target }, item: null })
      i++
      continue
    }
    const block: Step[] = []
    for (; i < there.length && there[i]!.each === each; i++) block.push(there[i]!)
    for (const { key, thing } of thingsOf(site, each, target))
      for (const step of block) unfolded.push({ key: `${step.id}@${key}`, step, thing, item: key })
  }
  return unfolded
}

/** The steps of a procedure as they are written, on nothing yet: for a list, and where nothing on record suits it. */
export const plainSteps = ({ steps }: Procedure): StepHere[] =>
  steps.map((step) => ({ key: step.id, step, thing: { target: { kind: 'property' } }, item: null }))

interface Item {
  readonly key: string
  readonly thing: Thing
}
const itemOn = (target: WorkTarget): Item => ({ key: targetKey(target), thing: { target } })

/** A station by its screw. Numbers of a path share one: each is known by its valve there. */
function stationItem(controller: ControllerId, { terminal, address, valves }: Station): Item {
  const [device] = valves
  if (address === null) return itemOn({ kind: 'terminal', controller, terminal })
  const item = itemOn(device === undefined ? { kind: 'terminal', controller, terminal } : { kind: 'coil', device })
  return { ...item, key: `${item.key} ${address}` }
}

function thingsOf(site: Site, each: Each, target: WorkTarget): Item[] {
  const controller = controllerFor(site, target)
  switch (each) {
    case 'controller':
      return entries(site.controllers)
        .sort(([, a], [, b]) => byTag(a.tag, b.tag))
        .map(([id]) => itemOn({ kind: 'controller', controller: id }))
    case 'station':
      return controller === null ? [] : stationsOnFoot(site, controller).map((s) => stationItem(controller, s))
    case 'thread':
      return controller === null
        ? []
        : sweepTerminals(site, controller, hangingOn(site, wiringOf(site), controller))
            .filter((terminal) => !isHidden(site, controller, terminal))
            .map((terminal) => itemOn({ kind: 'terminal', controller, terminal }))
    case 'hidden_coil':
      return controller === null
        ? []
        : stationsOnFoot(site, controller)
            .filter(({ terminal }) => isHidden(site, controller, terminal))
            .flatMap(({ valves }) => valves.map((device) => itemOn({ kind: 'coil', device })))
    case 'landed':
      return controller === null
        ? []
        : doorOf(site, controller)
            .filter((t) => t.landed.length > 0)
            // The common last, so that nothing is ever loose in the hand.
            .sort((a, b) => Number(a.role === 'common') - Number(b.role === 'common'))
            .map(({ terminal }) => itemOn({ kind: 'terminal', controller, terminal }))
    case 'coil':
      return controller === null
        ? []
        : [...hangingOn(site, wiringOf(site), controller).values()]
            .flatMap((h) => h.coils)
            .filter((device) => getOrThrow(site.devices, device).kind === 'coil')
            .map((device) => itemOn({ kind: 'coil', device }))
    case 'joint':
      return target.kind !== 'box'
        ? []
        : boxJoints(site, target.place).flatMap((j) => j.holds.map((h) => itemOn({ kind: 'joint', splice: h.splice })))
    case 'spare':
      return target.kind !== 'box'
        ? []
        : censusOf(site, target.place)
            .filter((c) => c.here !== 'through' && (c.use === 'spare' || c.loose.length > 0))
            .map(({ cable, core }) => ({ key: `${cable} ${core}`, thing: { target, core: { cable, core } } }))
    case 'temporary':
      return entries(site.temporaryStates)
        .sort(([, a], [, b]) => a.since.localeCompare(b.since))
        .map(([id]) => ({ key: id, thing: { target, temporary: id } }))
  }
}

/** Whether a sequencer or a decoder hides what hangs on a terminal. */
const isHidden = (site: Site, controller: ControllerId, terminal: TerminalId): boolean =>
  (hangingOn(site, wiringOf(site), controller).get(terminal)?.switchedBy.length ?? 0) > 0

/**
 * A controller’s stations in the order of least walking, those of one box one after the other; a station whose valve
 * has no place on the map comes where its door has it, at the end.
 */
export function stationsOnFoot(site: Site, controller: ControllerId): Station[] {
  const { terminals, place } = getOrThrow(site.controllers, controller)
  const stations = Object.values(site.stations)
    .filter((s) => s.controller === controller)
    .sort(
      (a, b) =>
        getOrThrow(terminals, a.terminal).order - getOrThrow(terminals, b.terminal).order ||
        (a.address ?? 0) - (b.address ?? 0),
    )
  const spot = (at: PlaceId): Point | null => whereIs(getOrThrow(site.places, at))
  const home = spot(place)
  if (!home) return stations
  const boxOf = (s: Station) => s.valves.map((v) => getOrThrow(site.devices, v).place).find((p) => spot(p) !== null)
  const boxes = [...new Set(stations.map(boxOf).filter((b) => b !== undefined))]
  const order = roundOnFoot(
    home,
    boxes.map((b) => spot(b)!),
  ).map((i) => boxes[i]!)
  const rank = (s: Station) => {
    const box = boxOf(s)
    return box === undefined ? boxes.length : order.indexOf(box)
  }
  return stations.sort((a, b) => rank(a) - rank(b))
}
