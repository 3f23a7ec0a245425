import * as z from 'zod'
import { day } from './ids'

/** How a fact about the ground came to be on record. */
export const howKnown = z.enum(['seen', 'reported', 'assumed'])
export type HowKnown = z.infer<typeof howKnown>

/** A value with how it is known and since when; `null` stands for unknown. */
export const known = <T extends z.ZodType>(value: T) =>
  z.strictObject({ value, how: howKnown, on: day.nullable().default(null) }).nullable()
export type Known<T> = { readonly value: T; readonly how: HowKnown; readonly on: string | null } | null

/** As `known`, for a figure that may also be a range, low ≤ high. */
export const knownFigure = (figure: z.ZodType<number>) =>
  z
    .union([
      z.strictObject({ value: figure, how: howKnown, on: day.nullable().default(null) }),
      z
        .strictObject({ low: figure, high: figure, how: howKnown, on: day.nullable().default(null) })
        .refine((range) => range.low <= range.high, 'low must not exceed high'),
    ])
    .nullable()
export type KnownFigure =
  | { readonly value: number; readonly how: HowKnown; readonly on: string | null }
  | { readonly low: number; readonly high: number; readonly how: HowKnown; readonly on: string | null }
  | null
