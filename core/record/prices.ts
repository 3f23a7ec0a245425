import * as z from 'zod'

/** A figure as it is written, so that nothing of it is lost: digits, and up to six places behind the point. */
const decimal = z.string().regex(/^\d{1,9}(\.\d{1,6})?$/, 'a figure such as 12 or 8.25')
const code = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_.-]{0,39}$/, 'a code of letters and digits')
const name = z.string().trim().min(1).max(80)

export const PRICE_UNITS = ['h', 'visit', 'piece', 'm'] as const
/** What a line counts in: work in minutes, at the price of an hour. */
export const LINE_UNITS = ['min', 'visit', 'piece', 'm'] as const
export type LineUnit = (typeof LINE_UNITS)[number]
export const ROUNDINGS = ['half_up', 'half_even', 'up', 'down'] as const
export type Rounding = (typeof ROUNDINGS)[number]

/** A company's prices: what an hour, a call-out and every part cost, with mark-ups, taxes and the rule of rounding. */
export const priceList = z
  .strictObject({
    currency: z.string().regex(/^[A-Z]{3}$/, 'three capital letters'),
    /** Places of the currency's smallest unit. */
    decimals: z.int().min(0).max(3),
    /** Whether prices have their tax in them, or it comes on top. */
    tax: z.enum(['inclusive', 'on_top']),
    rounding: z.enum(ROUNDINGS),
    /** What the total is rounded to, such as 0.05; null is the smallest unit. */
    roundTo: decimal.nullable(),
    taxes: z.array(z.strictObject({ code, name, percent: decimal })).max(12),
    prices: z
      .array(
        z.strictObject({
          code,
          name,
          unit: z.enum(PRICE_UNITS),
          price: decimal,
          markup_pct: decimal,
          tax: code.nullable(),
        }),
      )
      .max(5000),
  })
  .superRefine((list, context) => {
    const twice = (codes: readonly string[]) => codes.find((c, i) => codes.indexOf(c) !== i)
    for (const field of ['taxes', 'prices'] as const) {
      const again = twice(list[field].map((x) => x.code))
      if (again) context.addIssue({ code: 'custom', path: [field], message: `each code once, ${again} is there twice` })
    }
    const taxes = new Set(list.taxes.map((t) => t.code))
    list.prices.forEach((p, i) => {
      if (p.tax !== null && !taxes.has(p.tax))
        context.addIssue({ code: 'custom', path: ['prices', i, 'tax'], message: `a tax of the list, not ${p.tax}` })
    })
    if (list.roundTo !== null && Number(list.roundTo) === 0)
      context.addIssue({ code: 'custom', path: ['roundTo'], message: 'more than nothing' })
  })
export type PriceList = z.infer<typeof priceList>
export type PriceUnit = (typeof PRICE_UNITS)[number]
