import { complex, plus, type Spot } from '../../circuit'
import type { Part } from '../../record'
import type { DeviceId } from '../../site'
import type { Cause, Family } from '../odds'
import type { Alter, Leak, NetworkEdit } from './fault'

/** Ohms that corrosion puts in series: from half an ohm to where it is as good as open. Even in the logarithm. */
export const SERIES_ohm = { from: 0.5, to: 10_000, cells: 15 } as const

export interface Cell {
  readonly mods: NetworkEdit
  readonly shifted?: readonly NetworkEdit[]
  readonly share?: number
  readonly ohm?: number
  readonly sd_ohm?: number
  readonly along?: number
  readonly leak?: Leak
}
export interface Entry {
  where: Part
  cause: Cause
  family: Family
  weight: number
  cells: readonly Cell[]
  besides?: readonly DeviceId[]
  at?: string
  elements: readonly number[]
  /** It shows in some states only. */
  withState?: true
}

export const none: NetworkEdit = { alters: [], joins: [] }
export const alter = (element: number, to: Alter['to']): NetworkEdit => ({ alters: [{ element, to }], joins: [] })
export const gone = (element: number): NetworkEdit => alter(element, () => null)
export const more = (element: number, ohm: number): NetworkEdit => alter(element, (z) => plus(z, complex(ohm)))

/** Middles, shares and spreads of cells that are even in the logarithm. */
export function logCells({
  from,
  to,
  cells,
}: {
  from: number
  to: number
  cells: number
}): { ohm: number; sd: number }[] {
  const step = Math.log(to / from) / cells
  return Array.from({ length: cells }, (_, i) => {
    const [low, high] = [from * Math.exp(i * step), from * Math.exp((i + 1) * step)]
    const mean = (high - low) / step // of the cell's own distribution, even in the logarithm
    return { ohm: mean, sd: Math.sqrt((high ** 2 - low ** 2) / (2 * step) - mean ** 2) }
  })
}
export const seriesCells = (element: number): Cell[] =>
  logCells(SERIES_ohm).map(({ ohm, sd }) => ({
    mods: more(element, ohm),
    shifted: [more(element, ohm + sd)],
    ohm,
    sd_ohm: sd,
  }))
export const joined = (p: Spot, q: Spot, ohm: number): NetworkEdit => ({ alters: [], joins: [{ p, q, ohm }] })

/** The middles of `count` equal parts, and one deviation within such a part. */
export const middles = (count: number) => ({
  at: Array.from({ length: count }, (_, i) => (i + 0.5) / count),
  sd: 1 / count / Math.sqrt(12),
})
