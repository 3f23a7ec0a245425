import type { PriceList, QuotedItem, QuoteLine, SentQuote } from '../record'
import type { Outcome } from '../refusal'
import { Fraction, moneyText } from './money'
import { quoteOf, type Quote } from './total'

/** Of a price list what these lines ask for, with its taxes: a quote that was sent needs nothing else to be read. */
export function pricesFor(lines: readonly QuoteLine[], list: PriceList): PriceList {
  const codes = new Set(lines.map((l) => l.code))
  const prices = list.prices.filter((p) => codes.has(p.code))
  const taxes = new Set(prices.map((p) => p.tax))
  return { ...list, prices, taxes: list.taxes.filter((t) => taxes.has(t.code)) }
}

/** Items that some line is for, in the order they are given: one without a line would be accepted for nothing. */
export function itemsWithLines(items: readonly QuotedItem[], lines: readonly QuoteLine[]): QuotedItem[] {
  const asked = new Set(lines.map((l) => l.item))
  return items.filter((i) => asked.has(i.key))
}

/**
 * What a quote that was sent comes to, or what of it comes to with some of its items alone. What belongs to the whole
 * (the call-out, the walk) stays as it was quoted while anything of it is done.
 * @param items keys; null is all of them
 */
export function sentTotals(sent: SentQuote, items: ReadonlySet<string> | null = null): Outcome<Quote> {
  const some = items === null || sent.items.some((i) => items.has(i.key))
  const lines = sent.lines.filter((l) => some && (items === null || l.item === null || items.has(l.item)))
  return quoteOf(lines, sent.prices)
}

/** What each item comes to by its own lines, before taxes that come on top: `12.50` by its key. */
export function itemSums(sent: SentQuote, whole: Quote): ReadonlyMap<string, string> {
  const itemOf = new Map(sent.lines.map((l) => [l.key, l.item]))
  return new Map(
    sent.items.map(({ key }) => {
      const own = whole.lines.filter((l) => itemOf.get(l.key) === key)
      const sum = own.reduce((total, l) => total.add(l.amount), new Fraction(0))
      return [key, moneyText(sum, sent.prices.decimals)]
    }),
  )
}
