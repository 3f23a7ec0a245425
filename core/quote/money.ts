import Fraction from 'fraction.js'
import type { Rounding } from '../record'

export { Fraction }

/** A figure to whole steps by a rule; the step is more than nothing. */
export function rounded(exact: Fraction, step: Fraction, rule: Rounding): Fraction {
  const steps = exact.div(step)
  const below = steps.floor()
  const over = steps.sub(below)
  if (over.equals(0)) return exact
  const half = over.compare(new Fraction(1, 2))
  const isUp =
    rule === 'up' || (rule !== 'down' && (half > 0 || (half === 0 && (rule === 'half_up' || !below.mod(2).equals(0)))))
  return (isUp ? below.add(1) : below).mul(step)
}

/** The smallest unit of a currency with so many places. */
export const smallestUnit = (decimals: number): Fraction => new Fraction(1, 10 ** decimals)

/** With so many places, whatever it is: `12.50`. Only of what has no more. */
export function moneyText(amount: Fraction, decimals: number): string {
  const units = amount.mul(10 ** decimals)
  const digits = units
    .abs()
    .n.toString()
    .padStart(decimals + 1, '0')
  const sign = units.s < 0n && units.n !== 0n ? '-' : ''
  return decimals === 0 ? `${sign}${digits}` : `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`
}
