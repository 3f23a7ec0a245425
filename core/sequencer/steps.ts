import { targetKey, type Facts, type StepDone } from '../record'
import type { ControllerId } from '../site'
import type { SequencerEvent } from './event'
import { lastOutput, type Sequenced } from './sequenced'

/** The procedure that brings a sequencer into step: each `turn_…` of it is one, and says what watered. */
const SYNC = 'sequencer_sync'
const SYNC_TURN = /^turn_\d+$/
/** The walk on which every station runs for a few minutes. */
const WALK = 'wet_check'

/**
 * What the steps of procedures tell of a sequencer: the turns of bringing it into step, and stations on its screws that
 * were run on a wet check.
 */
export const stepEvents = (facts: Facts, controller: ControllerId, sequenced: Sequenced): SequencerEvent[] =>
  latestOf(facts).flatMap((done): SequencerEvent[] => {
    const { answer, at } = done
    const follows = facts.jobs[done.job]?.follows
    if (!follows || answer.kind !== 'chosen') return []
    const procedure = follows.own?.from ?? follows.id
    const at_s = Date.parse(at) / 1000
    const turn = { at_s, kind: 'turned' as const, times: 1 }
    if (procedure === WALK) return runsOnFoot(done, controller, sequenced) ? [turn] : []
    const isOwn = procedure === SYNC && follows.on.kind === 'device' && follows.on.device === sequenced.device
    if (!isOwn || !SYNC_TURN.test(done.step)) return []
    const last = sequenced.outputs[lastOutput(sequenced)]
    if (answer.option === 'last_valve') return last ? [turn, { at_s, kind: 'watered', valve: last[0]! }] : [turn]
    // Where every output has a valve, one that stays dry tells nothing of the place in the cycle.
    const isCapped = answer.option === 'no_valve' && sequenced.outputs.some((coils) => coils.length === 0)
    return isCapped ? [turn, { at_s, kind: 'watered', valve: null }] : [turn]
  })

function runsOnFoot({ step }: StepDone, controller: ControllerId, { fedBy }: Sequenced): boolean {
  const [name, item] = step.split('@')
  return name === 'zone' && fedBy.some((terminal) => item === targetKey({ kind: 'terminal', controller, terminal }))
}

/** The answer that counts of every step: the latest, none where that takes the one before back. */
function latestOf(facts: Facts): StepDone[] {
  const latest = new Map<string, StepDone>()
  for (const done of Object.values(facts.steps).sort((a, b) => Date.parse(a.at) - Date.parse(b.at)))
    latest.set(`${done.job} ${done.step}`, done)
  return [...latest.values()].filter((done) => done.answer.kind !== 'undone')
}
