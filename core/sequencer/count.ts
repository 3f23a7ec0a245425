import type { Facts, FieldTest, SequencerTurn } from '../record'
import type { ControllerId, DeviceId, TerminalId } from '../site'
import { nextValves, nothingKnown, perhapsTurned, pulsesUntil, turned, watered, type SequencerBelief } from './belief'
import type { SequencerEvent } from './event'
import { lastOutput, type Sequenced } from './sequenced'
import { stepEvents } from './steps'

const outputOf = ({ outputs }: Sequenced, valve: DeviceId) => outputs.findIndex((coils) => coils.includes(valve))

/** Whether a reading has a screw of a sequencer switched on, or a coil behind it running. */
function isTurn(test: FieldTest, controller: ControllerId, sequenced: Sequenced): boolean {
  switch (test.kind) {
    case 'water':
    case 'click':
    case 'volts':
      return test.at.controller === controller && sequenced.fedBy.includes(test.at.terminal)
    case 'coil_beside':
      return test.live.controller === controller && sequenced.fedBy.includes(test.live.terminal)
    case 'swap_test':
      return test.onto.controller === controller && sequenced.fedBy.includes(test.onto.terminal)
    case 'coil_volts':
      return outputOf(sequenced, test.device) >= 0
    default:
      return false
  }
}

/**
 * Everything on record that bears on the count of a sequencer: what was told of it, steps of procedures, and readings.
 * Each reading that runs a screw of it is a turn, and one that says what watered tells which valve had it.
 */
export const eventsIn = (facts: Facts, controller: ControllerId, sequenced: Sequenced): SequencerEvent[] => [
  ...read(facts, controller, sequenced),
  ...stepEvents(facts, controller, sequenced),
  ...told(facts, sequenced),
]

/** Entries of the count itself that stand, the latest last. */
export function entriesOf(facts: Facts, sequenced: Sequenced): [string, SequencerTurn][] {
  const own = Object.entries(facts.sequencerTurns).filter(([, f]) => f.sequencer === sequenced.device)
  const back = new Set(own.flatMap(([, { told: said }]) => (said.kind === 'back' ? [said.entry] : [])))
  return own
    .filter(([id, f]) => f.told.kind !== 'back' && !back.has(id))
    .sort(([a, x], [b, y]) => Date.parse(x.at) - Date.parse(y.at) || a.localeCompare(b))
}

const told = (facts: Facts, sequenced: Sequenced): SequencerEvent[] =>
  entriesOf(facts, sequenced).flatMap(([, { at, told: said }]): SequencerEvent[] => {
    const at_s = Date.parse(at) / 1000
    switch (said.kind) {
      case 'turned':
        return [{ at_s, kind: 'turned', times: said.times }]
      case 'perhaps':
        return [{ at_s, kind: 'perhaps', odds: Array.from({ length: said.most + 1 }, () => 1) }]
      case 'watered':
        return [{ at_s, kind: 'watered', valve: said.valve }]
      case 'back':
        return []
    }
  })

function read(facts: Facts, controller: ControllerId, sequenced: Sequenced): SequencerEvent[] {
  const struck = new Set(Object.values(facts.strikeOuts).map((s) => s.reading))
  return Object.entries(facts.readings).flatMap(([id, { at, test, value }]): SequencerEvent[] => {
    if (!isTurn(test, controller, sequenced)) return []
    const at_s = Date.parse(at) / 1000
    const turn = { at_s, kind: 'turned' as const, times: 1 }
    // One that is struck out was a turn all the same; what it said of the water is not believed.
    if (value.kind !== 'waters' || struck.has(id)) return [turn]
    const own = value.valves.filter((v) => outputOf(sequenced, v) >= 0)
    // Two at once, or one of elsewhere, is nothing that could be counted by.
    return own.length > 1 || value.valves.length !== own.length
      ? [turn]
      : [turn, { at_s, kind: 'watered', valve: own[0] ?? null }]
  })
}

/** What is known of a sequencer after some events, in their order of time; of like outputs none is tried before. */
export function countOf(sequenced: Sequenced, events: readonly SequencerEvent[]): SequencerBelief {
  const valves = sequenced.outputs.map((coils, output) => (coils.length > 0 ? output : null))
  return [...events]
    .sort((a, b) => a.at_s - b.at_s)
    .reduce(
      (belief: SequencerBelief, event) => {
        switch (event.kind) {
          case 'turned':
            return turned(belief, event.times)
          case 'perhaps':
            return perhapsTurned(belief, event.odds)
          case 'watered':
            return watered(belief, event.valve === null ? null : outputOf(sequenced, event.valve))
        }
      },
      nothingKnown(valves, false),
    )
}

/** The turns among events, as far as they were counted. */
export const turnsIn = (events: readonly SequencerEvent[]): number =>
  events.reduce((sum, e) => sum + (e.kind === 'turned' ? e.times : 0), 0)

/** Rounds of the cycle that are seen without a valve before it is said that it never comes. */
const ROUNDS = 2

/**
 * Valves that never came while others did, over at least two rounds of what was seen to water since they last did: the
 * device or their output has failed, or what hangs there.
 */
export function neverCame(sequenced: Sequenced, events: readonly SequencerEvent[]): DeviceId[] {
  const seen = [...events].sort((a, b) => a.at_s - b.at_s).flatMap((e) => (e.kind === 'watered' ? [e.valve] : []))
  const needed = ROUNDS * sequenced.outputs.length
  return sequenced.outputs.flatMap(([valve]) => {
    if (valve === undefined) return []
    const since = seen.slice(seen.lastIndexOf(valve) + 1)
    return since.length >= needed ? [valve] : []
  })
}

/** How likely something comes next. */
export interface Odds<T> {
  readonly of: T
  readonly probability: number
}

/** The valve that has power at the next turn, the likeliest first; null where none may have. */
export const nextOf = (sequenced: Sequenced, belief: SequencerBelief): Odds<DeviceId | null>[] =>
  [...nextValves(belief)]
    .map(([output, probability]) => ({
      of: output === null ? null : (sequenced.outputs[output]![0] ?? null),
      probability,
    }))
    .sort((a, b) => b.probability - a.probability)

/** How a sequencer is brought into step: a screw that is pulsed until a valve waters. */
export interface Resync {
  readonly terminal: TerminalId
  readonly until: DeviceId
  /** By the number of pulses, the fewest first. */
  readonly pulses: readonly Odds<number>[]
}

/**
 * The pulses after which the next start is the first of the cycle: the last of its screws, or the only one, on and off
 * until the valve of the last output waters. Null of one without a valve.
 */
export function resyncOf(sequenced: Sequenced, belief: SequencerBelief): Resync | null {
  const last = lastOutput(sequenced)
  const terminal = sequenced.fedBy.at(-1)
  if (last < 0 || terminal === undefined) return null
  return {
    terminal,
    until: sequenced.outputs[last]![0]!,
    pulses: pulsesUntil(belief, last).flatMap((probability, times) =>
      probability > 0 ? [{ of: times, probability }] : [],
    ),
  }
}
