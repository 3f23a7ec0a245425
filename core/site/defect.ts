import * as z from 'zod'
import { end } from './end'
import { cableId, controllerId, coreId, day, stopId, terminalId, words } from './ids'

const told = { since: day.nullable().default(null), note: words(300).default('') }
const ohm = z.number().min(0).max(100_000)

/**
 * What is known to be wrong and is left as it is: predictions count with it. A part that is broken says so by its
 * condition; one whose part is on record no more counts for nothing.
 */
export const defect = z.discriminatedUnion('kind', [
  /** An end that is held badly in its joint: so many ohms beside a sound grip's, null where it is open. */
  z.strictObject({ kind: z.literal('grip'), end, ohm: ohm.nullable(), ...told }),
  /** A core with so many ohms beside its copper's on the stretch that leaves a stop. */
  z.strictObject({ kind: z.literal('series'), cable: cableId, core: coreId, from: stopId, ohm, ...told }),
  /** Two cores that touch where a stretch leaves a stop. */
  z.strictObject({ kind: z.literal('touch'), cable: cableId, core: coreId, other: coreId, from: stopId, ohm, ...told }),
  /** An end that leaks to earth. */
  z.strictObject({ kind: z.literal('leak'), end, ohm, ...told }),
  /** A screw that was looked at: nothing is under it. */
  z.strictObject({ kind: z.literal('bare'), controller: controllerId, terminal: terminalId, ...told }),
])
export type Defect = z.infer<typeof defect>
