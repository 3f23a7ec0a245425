import {
  createRecord,
  endKey,
  entries,
  getOrThrow,
  jointTicks,
  lookUp,
  setField,
  type Command,
  type End,
  type PlaceId,
  type Site,
  type Splice,
} from '../site'
import type { Deed, StepAnswer } from '../record'
import { censusOf, connectorCommands, tickCommands, type ConnectorKind } from '../splice'
import { accepted, type Outcome } from '../refusal'
import type { StepHere } from './unfold'

type Tick = (typeof jointTicks)[number]
const TICKS: Partial<Record<Deed, Tick>> = {
  tick_home: 'home',
  tick_squeezed: 'squeezed',
  tick_tugged: 'tugged',
  tick_sealed: 'sealed',
}
/** The tick of a joint that a step stands for: it is kept with the joint, and nowhere else. */
export const tickOf = ({ deed }: StepHere['step']): Tick | null => (deed && TICKS[deed]) ?? null

/** Whether the record itself says that a step is done. */
export function isTicked(site: Site, { step, thing }: StepHere): boolean {
  const tick = tickOf(step)
  if (tick === null || thing.target.kind !== 'joint') return false
  return getOrThrow(site.splices, thing.target.splice).ticks.includes(tick)
}

export interface DeedContext {
  readonly today: string
  /** Ids for what is created, new each time. */
  readonly id: () => string
}

/** What the answer to a step writes into the record: a batch like any other, nothing where it writes nothing. */
export function deedCommands(
  site: Site,
  { step, thing }: StepHere,
  answer: StepAnswer,
  { today, id }: DeedContext,
): Outcome<Command[]> {
  const tick = tickOf(step)
  const { target } = thing
  if (tick !== null && target.kind === 'joint')
    return accepted(
      answer.kind === 'done' || answer.kind === 'undone'
        ? tickCommands(site, target.splice, tick, answer.kind === 'done', today)
        : [],
    )
  if (answer.kind === 'refused' || answer.kind === 'undone' || step.deed === undefined) return accepted([])
  const seen = { how: 'seen', on: today } as const
  switch (step.deed) {
    case 'joint_opened':
      return accepted(target.kind === 'joint' ? openCommands(site.splices[target.splice]!, target.splice) : [])
    case 'joint_kind':
      return target.kind === 'joint' && answer.kind === 'chosen'
        ? connectorCommands(site, target.splice, answer.option as ConnectorKind)
        : accepted([])
    case 'coil_new':
      return accepted(
        target.kind === 'coil'
          ? [
              setField('devices', target.device, 'installed', { value: today, ...seen }),
              ...(getOrThrow(site.devices, target.device).condition.state === 'sound'
                ? []
                : [setField('devices', target.device, 'condition', { state: 'sound', since: today, note: '' })]),
            ]
          : [],
      )
    case 'box_found':
      return accepted(
        target.kind === 'box'
          ? [
              ...(getOrThrow(site.places, target.place).found === 'found'
                ? []
                : [setField('places', target.place, 'found', 'found')]),
              ...(answer.kind === 'text' ? [setField('places', target.place, 'marker', answer.text.slice(0, 80))] : []),
            ]
          : [],
      )
    case 'sensor_in':
      return accepted(
        target.kind === 'controller' && answer.kind === 'chosen'
          ? [
              setField('controllers', target.controller, 'sensor', {
                ...getOrThrow(site.controllers, target.controller).sensor,
                closedBy: 'sensor',
                dry: answer.option === 'closed_when_dry' ? 'closed' : 'open',
              }),
            ]
          : [],
      )
    case 'spare_capped':
      return accepted(thing.core && target.kind === 'box' ? capCommands(site, target.place, thing.core, id) : [])
    case 'temporary_begins':
      return accepted(
        answer.kind === 'text'
          ? [createRecord('temporaryStates', id(), { what: answer.text.slice(0, 200), since: today })]
          : [],
      )
    case 'temporary_ends':
      return accepted(
        thing.temporary &&
          answer.kind === 'chosen' &&
          answer.option === 'undone' &&
          lookUp(site.temporaryStates, thing.temporary)
          ? [{ do: 'remove', in: 'temporaryStates', id: thing.temporary }]
          : [],
      )
    default:
      return accepted([])
  }
}

/** A joint that was cut open: nothing that was looked at when it was made holds any longer. */
const openCommands = (splice: Splice, id: string): Command[] => [
  ...(splice.ticks.length > 0 ? [setField('splices', id, 'ticks', [])] : []),
  ...(splice.made === null ? [] : [setField('splices', id, 'made', null)]),
]

/** A cap on every loose end of a core in a box. */
function capCommands(
  site: Site,
  place: PlaceId,
  { cable, core }: NonNullable<StepHere['thing']['core']>,
  id: () => string,
): Command[] {
  const held = new Set(entries(site.splices).flatMap(([, s]) => s.ends.map(endKey)))
  const loose: readonly End[] = censusOf(site, place).find((c) => c.cable === cable && c.core === core)?.loose ?? []
  return loose
    .filter((end) => !held.has(endKey(end)))
    .map((end) => createRecord('splices', id(), { place, connector: 'cap', ends: [end] }))
}
