import * as z from 'zod'
import { controllerId, day, terminalId, words } from './ids'

const secondOfDay = z.int().min(0).max(86_399)
const perCent = z.number().min(0).max(1000)

/** On which days a program runs. Monday is 0; odd and even are days of the month. */
const days = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('weekdays'), on: z.array(z.int().min(0).max(6)).max(7) }),
  z.strictObject({ kind: z.literal('odd') }),
  z.strictObject({ kind: z.literal('even') }),
  z.strictObject({ kind: z.literal('every'), n: z.int().min(1).max(999), from: day }),
])

/** A program as it stands on the door of its controller. */
export const program = z.strictObject({
  controller: controllerId,
  name: words(20).min(1, 'a name'),
  /** Programs of a controller come in this order; of starts at one time the earlier program's is the first. */
  order: z.int().min(0).max(9999),
  /** Start times in their places on the controller; null is one left blank on purpose. */
  starts_s: z.array(secondOfDay.nullable()).max(24).default([]),
  /** Null: it never runs. */
  days: days.nullable().default(null),
  /** Of the minutes: one figure all year, or one for each month from January. */
  seasonal_pct: z.union([perCent, z.array(perCent).length(12)]).default(100),
  /** In the order of running: a screw, or with a number a station on the path. */
  runs: z
    .array(
      z.strictObject({
        terminal: terminalId,
        address: z.int().min(0).max(9999).nullable().default(null),
        minutes: z.number().min(0).max(10_080),
      }),
    )
    .max(400)
    .default([]),
})
export type ProgramRecord = z.infer<typeof program>
