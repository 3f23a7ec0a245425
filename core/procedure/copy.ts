import { procedure as schema, type Procedure, type Step } from '../record'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { sameJson } from '../site'
import { shipped } from './shipped'

/** A company’s own, begun from one of ours: the same steps, in its words from then on. */
export const copyOf = (original: Procedure, id: string, title: string): Procedure => ({
  ...original,
  id,
  title,
  from: original.from ?? original.id,
})

/** Of a step of ours, what a company leaves as it is; its words it may change. */
const kept = ({ says: _says, why: _why, cautions: _cautions, hold: _hold, ...rest }: Step) => rest

/**
 * What is wrong with a company’s own procedure: a caution or a hold of ours that is gone or moved past another, a step
 * that asks for something else, a step of its own without words, a branch on what is not there.
 * Empty where all is well.
 */
export function brokenCopy(copy: Procedure): Refusal[] {
  const original = copy.from === null ? null : shipped(copy.from)
  const broken: Refusal[] = []
  if (shipped(copy.id)) broken.push(refusal('procedure_name_taken', ['id'], { id: copy.id }))
  if (copy.from !== null && !original) broken.push(refusal('procedure_unknown', ['from'], { id: copy.from }))
  if (original && (copy.on !== original.on || copy.suits !== original.suits))
    broken.push(refusal('procedure_elsewhere', ['on'], { id: original.id }))
  if (copy.title === undefined) broken.push(refusal('procedure_untitled', ['title']))
  const ours = new Map(original?.steps.map((s) => [s.id, s]) ?? [])
  const theirs = new Map(copy.steps.map((s) => [s.id, s]))
  copy.steps.forEach((step, i) => {
    const path = ['steps', i]
    const was = ours.get(step.id)
    if (!was && step.says === undefined) broken.push(refusal('step_without_words', path, { step: step.id }))
    if (was && !sameJson(kept(step), kept(was))) broken.push(refusal('step_changed', path, { step: step.id }))
    for (const { step: other } of step.when)
      if (!copy.steps.slice(0, i).some((s) => s.id === other))
        broken.push(refusal('step_branch_nowhere', [...path, 'when'], { step: step.id, other }))
  })
  for (const was of ours.values()) {
    const now = theirs.get(was.id)
    if (!now) {
      if (was.hold || was.cautions.length > 0) broken.push(refusal('step_gone', ['steps'], { step: was.id }))
      continue
    }
    const path = ['steps', copy.steps.indexOf(now)]
    if (was.hold && !now.hold) broken.push(refusal('hold_gone', path, { step: was.id }))
    if (!was.cautions.every((c) => now.cautions.includes(c)))
      broken.push(refusal('caution_gone', path, { step: was.id }))
  }
  const fixed = (steps: readonly Step[]) =>
    steps.filter((s) => ours.has(s.id) && !ours.get(s.id)!.floats && theirs.has(s.id))
  const [before, after] = [fixed([...ours.values()]), fixed(copy.steps)]
  const moved = after.find((s, i) => before[i]!.id !== s.id)
  if (moved) broken.push(refusal('step_moved', ['steps', copy.steps.indexOf(moved)], { step: moved.id }))
  return broken
}

/** A company’s own procedure, as it is to be kept: whole by its schema, with our cautions and holds in it. */
export function checkedCopy(value: unknown): Outcome<Procedure> {
  const parsed = parseWith(schema, value)
  if (!parsed.ok) return parsed
  const broken = brokenCopy(parsed.value)
  return broken.length > 0 ? refused(...broken) : accepted(parsed.value)
}

/** A company’s own procedure from the text of its file. */
export function readProcedure(text: string): Outcome<Procedure> {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return refused(refusal('procedure_not_json'))
  }
  return checkedCopy(json)
}
