import type { Facts, Procedure, StepAnswer, StepDone, WorkTarget } from '../record'
import type { Site } from '../site'
import { isTicked } from './deeds'
import { shipped } from './shipped'
import { isOnRecord } from './thing'
import { toldOf } from './told'
import { unfold, type StepHere } from './unfold'

/**
 * How a step stands: answered well; answered so that a hold stays shut, or a figure out of its band; refused with a
 * reason; not yet answered; not to be answered before a hold.
 */
export type StepState = 'done' | 'failed' | 'refused' | 'open' | 'locked'

export interface RunStep extends StepHere {
  readonly state: StepState
  /** The answer that counts, of whoever gave it; null without one, or where the record itself says it is done. */
  readonly given: StepDone | null
}

/** A piece of work that follows a procedure, as far as it has come. */
export interface Run {
  readonly job: string
  readonly procedure: Procedure
  readonly target: WorkTarget
  readonly steps: readonly RunStep[]
  /** The first step that can be answered and is not, or failed; null when nothing is left. */
  readonly next: string | null
  readonly left: number
}

/** The procedure that a job follows: one of ours, or the one that came along with it; null where neither is known. */
export function procedureOf(facts: Facts, job: string): Procedure | null {
  const follows = facts.jobs[job]?.follows
  return follows ? (follows.own ?? shipped(follows.id)) : null
}

const answersMade = new WeakMap<Facts['steps'], ReadonlyMap<string, ReadonlyMap<string, StepDone>>>()

/** The answer that counts of every step, by job: the latest; one taken back leaves none. */
function answersOf(facts: Facts, job: string): ReadonlyMap<string, StepDone> {
  let made = answersMade.get(facts.steps)
  if (!made) {
    const byJob = new Map<string, Map<string, StepDone>>()
    const inOrder = Object.entries(facts.steps).sort(
      ([a, x], [b, y]) => Date.parse(x.at) - Date.parse(y.at) || a.localeCompare(b),
    )
    for (const [, done] of inOrder) {
      const own = byJob.get(done.job) ?? new Map<string, StepDone>()
      byJob.set(done.job, own)
      if (done.answer.kind === 'undone') own.delete(done.step)
      else own.set(done.step, done)
    }
    answersMade.set(facts.steps, (made = byJob))
  }
  return made.get(job) ?? new Map()
}

/**
 * Where a job that follows a procedure stands, by the record as it is now and by what was answered; null of any other
 * job, and where what it is on is on record no more.
 */
export function runOf(site: Site, facts: Facts, job: string): Run | null {
  const procedure = procedureOf(facts, job)
  const target = facts.jobs[job]?.follows?.on
  if (!procedure || !target || !isOnRecord(site, target)) return null
  const answers = answersOf(facts, job)
  const struck = new Set(Object.values(facts.strikeOuts).map((s) => s.reading))
  const gone = new Set(Object.values(facts.photoNotes).flatMap((n) => (n.gone ? [n.photo] : [])))
  /** A reading that was struck out answers nothing any more, nor does a photo that is gone. */
  const given = (key: string): StepDone | null => {
    const done = answers.get(key) ?? null
    const isVoid =
      (done?.answer.kind === 'reading' && struck.has(done.answer.reading)) ||
      (done?.answer.kind === 'photo' && gone.has(done.answer.photo))
    return isVoid ? null : done
  }
  const steps: RunStep[] = []
  /** The thing whose hold is shut within a block of steps that are for each of several; null for a hold of all. */
  const shut = new Set<string>()
  let block: string | undefined
  for (const here of unfold(site, procedure, target)) {
    if (!applies(here, given)) continue
    if (here.step.each !== block) {
      // A hold within a block keeps back what comes after the block.
      if (shut.size > 0) shut.add('')
      block = here.step.each
    }
    const answer = given(here.key)
    const ticked = isTicked(site, here)
    const stands = ticked ? 'done' : stateOf(site, here, answer)
    const locked = shut.has('') || (here.item !== null && shut.has(here.item))
    const state = stands === 'open' && locked ? 'locked' : stands
    steps.push({ ...here, state, given: ticked ? null : answer })
    if (here.step.hold && state !== 'done' && state !== 'refused') shut.add(here.item ?? '')
  }
  const open = steps.filter((s) => s.state === 'open' || s.state === 'failed')
  return {
    job,
    procedure,
    target,
    steps,
    next: open[0]?.key ?? null,
    left: steps.filter((s) => s.state !== 'done' && s.state !== 'refused').length,
  }
}

/** Whether a step is there at all, by what the steps before it were answered with; for one of several, of the same. */
function applies({ step, item }: StepHere, given: (key: string) => StepDone | null): boolean {
  return (
    step.when.length === 0 ||
    step.when.some(({ step: other, is }) => {
      const answer = (item === null ? null : given(`${other}@${item}`)) ?? given(other)
      return answer?.answer.kind === 'chosen' && is.includes(answer.answer.option)
    })
  )
}

function stateOf(site: Site, here: StepHere, given: StepDone | null): StepState {
  if (!given) return 'open'
  if (given.answer.kind === 'refused') return 'refused'
  return passes(site, here, given.answer) ? 'done' : 'failed'
}

/** What a step’s figure should lie within: its own limits, or the record’s figure that it is held against. */
export interface FigureBand {
  readonly low: number
  readonly high: number
}

/** The band of a step that asks for a figure; null of any other, and where neither it nor the record has a limit. */
export function figureBandOf(
  site: Site,
  { step: { does }, thing }: Pick<StepHere, 'step' | 'thing'>,
): FigureBand | null {
  if (does.kind !== 'figure') return null
  const { stations, limit_A } = does.against ? toldOf(site, thing) : { stations: null, limit_A: null }
  if (does.against === 'stations') return stations === null ? null : { low: stations, high: stations }
  const high = does.against === 'master_limit_A' ? limit_A : does.high
  return does.low === null && high === null ? null : { low: does.low ?? -Infinity, high: high ?? Infinity }
}

export const isWithin = (value: number, { low, high }: FigureBand): boolean => value >= low && value <= high

/**
 * Whether an answer lets one go on: a choice that passes, a figure in its band where the step is a hold. Elsewhere a
 * figure out of its band is what was found, and is answered.
 */
function passes(site: Site, here: Pick<StepHere, 'step' | 'thing'>, answer: StepAnswer): boolean {
  const { does, hold } = here.step
  if (does.kind === 'choice' && answer.kind === 'chosen')
    return does.options.find((o) => o.id === answer.option)?.passes ?? true
  if (answer.kind !== 'figure' || !hold) return true
  const band = figureBandOf(site, here)
  return band === null || isWithin(answer.value, band)
}
