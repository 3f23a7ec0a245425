import type { ProcedureText } from '../../record'

export type StepText = ProcedureText['steps'][number]
type Does = NonNullable<StepText['does']>

/** A choice by the names of its answers; those that leave a hold shut are written with a `!` before them. */
export const oneOf = (...options: readonly string[]): Does => ({
  kind: 'choice',
  options: options.map((id) => (id.startsWith('!') ? { id: id.slice(1), passes: false } : { id })),
})

/** Answers that several procedures share. */
export const DRY = oneOf('dry', '!drips')
export const WORKS = oneOf('works', '!works_not')
export const WATERS = oneOf('waters_and_stops', 'waters_on', 'dry_zone')
export const STOPS = oneOf('stops', '!runs_on')
/** A look for one cause: the next comes where this is not it. */
export const THIS_ONE = oneOf('mended', 'not_it')
