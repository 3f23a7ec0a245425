import type { KnownFigure } from './known'

/** A figure with its bounds; bounds coincide where the figure is known exactly. */
export interface Bounded {
  readonly value: number
  readonly low: number
  readonly high: number
}

/** The middle of a range with its ends; null for unknown. */
export function bounded(figure: KnownFigure): Bounded | null {
  if (figure === null) return null
  if ('value' in figure) return { value: figure.value, low: figure.value, high: figure.value }
  return { value: (figure.low + figure.high) / 2, low: figure.low, high: figure.high }
}
