import type { Procedure, Step } from '../record'
import type { RefusalCode } from '../refusal'
import { brokenCopy } from './copy'
import { shipped } from './shipped'

const withSteps = (copy: Procedure, steps: readonly Step[]): Procedure => ({ ...copy, steps: [...steps] })

/** The step as it is in the procedure that a copy was made from; null of the company’s own. */
export const originalOf = (copy: Procedure, id: string): Step | null =>
  (copy.from === null ? null : shipped(copy.from))?.steps.find((s) => s.id === id) ?? null

/** Whether a copy breaks what the one before it did not, in any of these ways. */
function breaks(before: Procedure, after: Procedure, codes: readonly RefusalCode[]): boolean {
  const of = (copy: Procedure) => brokenCopy(copy).filter((b) => codes.includes(b.code)).length
  return of(after) > of(before)
}

/** The copy with a step before or after its neighbour; null where it may not be: past an end, or out of our order. */
export function movedStep(copy: Procedure, at: number, by: -1 | 1): Procedure | null {
  const [step, other] = [copy.steps[at], copy.steps[at + by]]
  if (!step || !other) return null
  const steps = copy.steps.with(at, other).with(at + by, step)
  const moved = withSteps(copy, steps)
  return breaks(copy, moved, ['step_moved', 'step_branch_nowhere']) ? null : moved
}

/** The copy without a step; null where it holds a caution or a hold of ours, is the last, or another depends on it. */
export function withoutStep(copy: Procedure, at: number): Procedure | null {
  const less = withSteps(copy, copy.steps.toSpliced(at, 1))
  return less.steps.length === 0 || breaks(copy, less, ['step_gone', 'step_branch_nowhere']) ? null : less
}

/** The copy with a step of the company’s own after another, under a name that is free; and where it stands. */
export function withOwnStep(copy: Procedure, after: number): { readonly copy: Procedure; readonly at: number } {
  const id = freeName('own', (name) => copy.steps.some((s) => s.id === name) || originalOf(copy, name) !== null)
  const own: Step = { id, cautions: [], hold: false, floats: false, if: [], when: [], does: { kind: 'tick' } }
  return { copy: withSteps(copy, copy.steps.toSpliced(after + 1, 0, own)), at: after + 1 }
}

/** The copy with one step in place of what it was. */
export const withStep = (copy: Procedure, at: number, step: Step): Procedure =>
  withSteps(copy, copy.steps.with(at, step))

/**
 * A name that nothing has yet, from one that is wanted: cut to what a name may hold, with a number where it is taken.
 */
export function freeName(wanted: string, isTaken: (name: string) => boolean): string {
  const base = wanted.slice(0, 34)
  if (!isTaken(base)) return base
  for (let n = 2; ; n++) if (!isTaken(`${base}_${n}`)) return `${base}_${n}`
}
