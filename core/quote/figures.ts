import type { PriceList, PriceUnit } from '../record'
import { REPAIR_PARTS, USUAL_FIGURES, type RepairFigures } from '../repair'
import { partCode, WORK_CODE } from './lines'

/**
 * What repairs are ranked by where a company has its prices: with mark-ups, before taxes that come on top. What the
 * list has no price for stays as usual.
 */
export function figuresBy(list: PriceList | null): RepairFigures {
  if (!list) return USUAL_FIGURES
  const cents = (code: string, unit: PriceUnit): number | null => {
    const found = list.prices.find((p) => p.code === code && p.unit === unit)
    return found ? 100 * Number(found.price) * (1 + Number(found.markup_pct) / 100) : null
  }
  const hour = cents(WORK_CODE, 'h')
  const wires = list.prices.filter((p) => p.code.startsWith('wire_') && p.unit === 'm')
  return {
    ...USUAL_FIGURES,
    cents_per_min: hour === null ? USUAL_FIGURES.cents_per_min : hour / 60,
    parts_cents: Object.fromEntries(
      REPAIR_PARTS.map((part) => [
        part,
        cents(partCode(part), part === 'sleeve_m' ? 'm' : 'piece') ?? USUAL_FIGURES.parts_cents[part],
      ]),
    ) as RepairFigures['parts_cents'],
    wire_cents_per_m: Object.fromEntries(wires.map(({ code }) => [code, cents(code, 'm')!])),
  }
}
