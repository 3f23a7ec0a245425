import type { PriceList, QuoteLine } from '../core/record'
import { chance } from '../standins'

/** A company's price list as somebody might have typed it. */
export function drawnPrices(seed: number): PriceList {
  const random = chance(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const figure = (most: number, places: number): string => {
    const text = (random() * most).toFixed(Math.floor(random() * (places + 1)))
    return text === '' ? '0' : text
  }
  const decimals = pick([0, 2, 2, 2, 3])
  const taxes = Array.from({ length: Math.floor(random() * 4) }, (_, i) => ({
    code: `t${i}`,
    name: `Tax ${i}`,
    percent: figure(25, 3),
  }))
  return {
    currency: 'XTS',
    decimals,
    tax: pick(['inclusive', 'on_top']),
    rounding: pick(['half_up', 'half_even', 'up', 'down']),
    roundTo: pick([null, null, '0.05', '0.1', '1', '5', '0.25']),
    taxes,
    prices: Array.from({ length: 1 + Math.floor(random() * 12) }, (_, i) => ({
      code: `p${i}`,
      name: `Price ${i}`,
      unit: pick(['h', 'visit', 'piece', 'm'] as const),
      price: figure(300, 4),
      markup_pct: pick(['0', '0', '12.5', '20', '33.333']),
      tax: taxes.length > 0 && random() < 0.8 ? pick(taxes).code : null,
    })),
  }
}

export function drawnLines(list: PriceList, seed: number): QuoteLine[] {
  const random = chance(seed + 1e6)
  return Array.from({ length: Math.floor(random() * 30) }, (_, i) => {
    const price = list.prices[Math.floor(random() * list.prices.length)]!
    return {
      key: `l${i}`,
      item: random() < 0.2 ? null : `i${Math.floor(random() * 4)}`,
      place: random() < 0.2 ? null : `B${Math.floor(random() * 5)}`,
      code: price.code,
      unit: price.unit === 'h' ? 'min' : price.unit,
      quantity: (random() * 200).toFixed(Math.floor(random() * 3)),
    }
  })
}

/** Whole numbers of millionths: a figure without its point. */
const millionths = (text: string): bigint => {
  const [whole, part = ''] = text.split('.')
  return BigInt(whole!) * 1_000_000n + BigInt(part.padEnd(6, '0'))
}

/** A quotient of what is not negative to a whole number. */
function divided(a: bigint, b: bigint, rule: PriceList['rounding']): bigint {
  const whole = a / b
  const rest = a % b
  if (rest === 0n || rule === 'down') return whole
  if (rule === 'up') return whole + 1n
  if (rest * 2n !== b) return rest * 2n > b ? whole + 1n : whole
  return rule === 'half_up' || whole % 2n === 1n ? whole + 1n : whole
}

/** Net, taxes and total by whole numbers alone: nothing of it is shared with what it is held against. */
export function plainTotals(lines: readonly QuoteLine[], list: PriceList): [string, string[], string] {
  const M = 1_000_000n
  const unit = 10n ** BigInt(list.decimals)
  const priced = lines.map((line) => {
    const price = list.prices.find((p) => p.code === line.code)!
    // Quantity, price and mark-up in millionths: three of them on top, and an hour below.
    const top = millionths(line.quantity) * millionths(price.price) * (millionths(price.markup_pct) + 100n * M) * unit
    const below = M * M * M * 100n * (line.unit === 'min' ? 60n : 1n)
    return { tax: price.tax, units: divided(top, below, list.rounding) }
  })
  const net = priced.reduce((sum, p) => sum + p.units, 0n)
  const taxes = list.taxes.flatMap(({ code, percent }) => {
    const own = priced.filter((p) => p.tax === code)
    if (own.length === 0) return []
    const of = own.reduce((sum, p) => sum + p.units, 0n)
    const below = list.tax === 'on_top' ? 100n * M : 100n * M + millionths(percent)
    return [divided(of * millionths(percent), below, list.rounding)]
  })
  const before = list.tax === 'on_top' ? taxes.reduce((sum, t) => sum + t, net) : net
  let total = before
  if (list.roundTo !== null) {
    // A step finer than the smallest unit is that unit.
    const step = divided(millionths(list.roundTo) * unit, M, 'up')
    total = divided(before, step, list.rounding) * step
  }
  const text = (units: bigint) => {
    const digits = units.toString().padStart(list.decimals + 1, '0')
    return list.decimals === 0 ? digits : `${digits.slice(0, -list.decimals)}.${digits.slice(-list.decimals)}`
  }
  return [text(net), taxes.map(text), text(total)]
}
