import type { LineUnit, PriceList, PriceUnit, QuoteLine } from '../record'
import { refusal, refused, accepted, type Outcome } from '../refusal'
import { Fraction, moneyText, rounded, smallestUnit } from './money'

/** A line with its price, all of it as written in the currency. */
export interface PricedLine extends QuoteLine {
  readonly name: string
  /** Of one, its mark-up in it, before any rounding. */
  readonly each: string
  readonly amount: string
  readonly tax: string | null
}
/** A figure that was rounded, as it was before. */
export interface RoundedFigure {
  readonly of: string
  readonly exact: string
  readonly to: string
}
export interface Quote {
  readonly currency: string
  readonly lines: readonly PricedLine[]
  /** Places in the order of their first line; what belongs to the whole under null. */
  readonly groups: readonly { readonly place: string | null; readonly sum: string }[]
  readonly net: string
  /** By rate: what it is taken of, and what it comes to; with inclusive prices it is in the net already. */
  readonly taxes: readonly {
    readonly code: string
    readonly name: string
    readonly percent: string
    readonly of: string
    readonly amount: string
  }[]
  /** What rounding the total to its step adds or takes. */
  readonly adjustment: string
  readonly total: string
  readonly roundings: readonly RoundedFigure[]
}

/**
 * Prices lines by a list: every line is rounded once to the smallest unit, every tax once of the sum of its lines, the
 * total to its step; everything before is exact. A price that is not in the list, or is one of
 * another unit, is asked for.
 */
export function quoteOf(lines: readonly QuoteLine[], list: PriceList): Outcome<Quote> {
  const byCode = new Map(list.prices.map((p) => [p.code, p]))
  const missing = new Map<string, PriceUnit>()
  for (const line of lines) {
    const unit = priceUnit(line.unit)
    if (byCode.get(line.code)?.unit !== unit) missing.set(line.code, unit)
  }
  if (missing.size > 0)
    return refused(...[...missing].map(([code, unit]) => refusal('no_price', ['prices', code], { code, unit })))
  const unit = smallestUnit(list.decimals)
  const text = (amount: Fraction) => moneyText(amount, list.decimals)
  const roundings: RoundedFigure[] = []
  const toUnit = (of: string, exact: Fraction, step = unit): Fraction => {
    const to = rounded(exact, step, list.rounding)
    if (!to.equals(exact)) roundings.push({ of, exact: exact.toFraction(), to: text(to) })
    return to
  }
  const priced = lines.map((line) => {
    const price = byCode.get(line.code)!
    const whole = new Fraction(price.price).div(line.unit === 'min' ? 60 : 1)
    const each = whole.mul(new Fraction(price.markup_pct).div(100).add(1))
    return { line, price, each, amount: toUnit(line.key, each.mul(line.quantity)) }
  })
  const sum = (of: typeof priced) => of.reduce((total, p) => total.add(p.amount), new Fraction(0))
  const net = sum(priced)
  const taxes = list.taxes.flatMap(({ code, name, percent }) => {
    const own = priced.filter((p) => p.price.tax === code)
    if (own.length === 0) return []
    const of = sum(own)
    const rate = new Fraction(percent)
    const exact = list.tax === 'on_top' ? of.mul(rate).div(100) : of.mul(rate).div(rate.add(100))
    return [{ code, name, percent, of, amount: toUnit(`tax ${code}`, exact) }]
  })
  const before = list.tax === 'on_top' ? taxes.reduce((total, t) => total.add(t.amount), net) : net
  const total = list.roundTo === null ? before : toTotal(before, list, unit)
  if (!total.equals(before)) roundings.push({ of: 'total', exact: text(before), to: text(total) })
  const places = [...new Set(lines.map((l) => l.place))]
  return accepted({
    currency: list.currency,
    lines: priced.map(({ line, price, each, amount }) => ({
      ...line,
      name: price.name,
      each: each.toFraction(),
      amount: text(amount),
      tax: price.tax,
    })),
    groups: places.map((place) => ({ place, sum: text(sum(priced.filter((p) => p.line.place === place))) })),
    net: text(net),
    taxes: taxes.map((t) => ({ ...t, of: text(t.of), amount: text(t.amount) })),
    adjustment: text(total.sub(before)),
    total: text(total),
    roundings,
  })
}

const priceUnit = (unit: LineUnit): PriceUnit => (unit === 'min' ? 'h' : unit)

/** To the step of the list, which is no finer than the smallest unit. */
function toTotal(before: Fraction, { roundTo, rounding }: PriceList, unit: Fraction): Fraction {
  const step = rounded(new Fraction(roundTo!), unit, 'up')
  return rounded(before, step, rounding)
}
