import * as z from 'zod'
import { day, words } from '../../site/ids'
import { factId, instant } from '../basics'
import { part } from '../part'
import { LINE_UNITS, priceList } from '../prices'
import { factKind } from './kind'

/** What names an item or a line within its quote. */
const key = words(200).min(1)

/** Something that is accepted or declined as one: a repair of a part, something that was seen, or a line by itself. */
export const quotedItem = z.strictObject({
  key,
  of: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('repair'), where: part, option: words(40).min(1) }),
    z.strictObject({ kind: z.literal('sighting'), sighting: factId }),
    z.strictObject({ kind: z.literal('line') }),
  ]),
  /** As the customer read it. */
  says: words(300).min(1),
  /** What is usual for a repair, before the company’s own works were heeded; null of what is no repair. */
  usual_min: z.number().min(0).max(100_000).nullable().default(null),
})
export type QuotedItem = z.infer<typeof quotedItem>

/** So much of something that the list has a price for; quantities are figures as they are written. */
export const quoteLine = z.strictObject({
  key,
  /** What it belongs to; null of what belongs to the whole. */
  item: key.nullable(),
  /** Where it is done; null of what belongs to no place. */
  place: words(80).nullable(),
  code: words(40).min(1),
  unit: z.enum(LINE_UNITS),
  quantity: z.string().regex(/^\d{1,9}(\.\d{1,6})?$/, 'a figure such as 3 or 2.5'),
})
export type QuoteLine = Readonly<z.infer<typeof quoteLine>>

/**
 * A quote as it was sent: its items and lines, and of the price list what they ask for. It is never changed; what comes
 * after it is another one.
 */
export const quote = z
  .strictObject({
    at: instant,
    author: words(80),
    items: z.array(quotedItem).min(1).max(500),
    lines: z.array(quoteLine).min(1).max(5000),
    prices: priceList,
    /** The last day on which it may be accepted. */
    until: day.nullable().default(null),
    note: words(500).default(''),
  })
  .superRefine(({ items, lines }, context) => {
    const keys = new Set(items.map((i) => i.key))
    if (keys.size < items.length)
      context.addIssue({ code: 'custom', path: ['items'], message: 'each item once, under a key of its own' })
    lines.forEach((l, i) => {
      if (l.item !== null && !keys.has(l.item))
        context.addIssue({ code: 'custom', path: ['lines', i, 'item'], message: `an item of the quote, not ${l.item}` })
    })
  })
export type SentQuote = z.infer<typeof quote>

export const quoteKind = factKind({ kind: 'quote', collection: 'quotes', schema: quote })
