import * as z from 'zod'

export const factId = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/, 'an id of 1 to 64 letters, digits, _ or -')
/** An id as programs make them; written small, so that one id has one spelling. */
export const uuid = z.uuid().toLowerCase()

/** A revision of a property. Far below what the database counts to, so that one that is taken in can go on. */
export const revisionNumber = z.int().min(0).max(1_000_000_000)

export const celsius = z.number().min(-40).max(90)
/** A moment, with its offset from UTC; clocks that were never set are refused. */
export const instant = z.iso
  .datetime({ offset: true })
  .refine((text) => /^(19[7-9]|20|21)/.test(text), 'a moment between 1970 and 2199')
