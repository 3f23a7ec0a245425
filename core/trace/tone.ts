import type { Facts } from '../record'

/** Whose transmitter is on a conductor, and since when. */
export interface ToneOn {
  readonly since: string
  readonly author: string
  /** The job that hooked it up. */
  readonly job: string
}

/** Which steps of which procedures put a tone on, and which see it off. */
const PUTS_ON: readonly string[] = ['hook_up on']
const SEES_OFF: readonly string[] = ['hook_up off', 'pack_up off', 'two_people off']

/** Whether a tone is on somewhere at a visit: the latest of what procedures say of it. Null where it is off. */
export function toneOn(facts: Facts, visit: string): ToneOn | null {
  const said = Object.values(facts.steps)
    .flatMap((step) => {
      const job = facts.jobs[step.job]
      const of = `${job?.follows?.own?.from ?? job?.follows?.id} ${step.step.split('@')[0]}`
      const isSaid = job?.visit === visit && (step.answer.kind === 'done' || step.answer.kind === 'undone')
      return isSaid && [...PUTS_ON, ...SEES_OFF].includes(of) ? [{ step, of }] : []
    })
    .sort((a, b) => a.step.at.localeCompare(b.step.at))
  let on: ToneOn | null = null
  for (const { step, of } of said) {
    const isDone = step.answer.kind === 'done'
    if (PUTS_ON.includes(of)) on = isDone ? { since: step.at, author: step.author, job: step.job } : null
    else if (isDone) on = null
  }
  return on
}
