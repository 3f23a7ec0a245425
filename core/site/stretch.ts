import { gaugeText, type Gauge } from '../quantity'
import { bounded, type Bounded } from './bounded'
import type { Cable, Core } from './cable'
import type { Settings } from './settings'

/** A run of unknown length or with an unknown end. Everyday valves lie within about 100 m; far ones within 300 m. */
export const UNKNOWN_RUN_m: Bounded = { value: 50, low: 0, high: 300 }

/** Sizes taken where none is on record, likeliest first, then the thickest and the thinnest in common use. */
export const UNKNOWN_GAUGE: Readonly<Record<Settings['market'], { likely: Gauge; thick: Gauge; thin: Gauge }>> = {
  awg: { likely: { awg: 18 }, thick: { awg: 12 }, thin: { awg: 20 } },
  metric: { likely: { area_mm2: 0.75 }, thick: { area_mm2: 2.5 }, thin: { area_mm2: 0.5 } },
}

const positionsMade = new WeakMap<Cable, Bounded[]>()

/**
 * Metres along the jacket of every stop, with bounds. A stop of unknown position lies evenly between its known
 * neighbours; beyond the last known one every further run is unknown.
 */
export function stopPositions_m(cable: Cable): readonly Bounded[] {
  const made = positionsMade.get(cable)
  if (made) return made
  const positions = findPositions_m(cable)
  positionsMade.set(cable, positions)
  return positions
}

function findPositions_m(cable: Cable): Bounded[] {
  const at = cable.stops.map((s, i) => (i === 0 && s.at_m === null ? { value: 0, low: 0, high: 0 } : bounded(s.at_m)))
  return at.map((here, i) => {
    if (here) return here
    const before = at.findLastIndex((p, j) => j < i && p !== null)
    const after = at.findIndex((p, j) => j > i && p !== null)
    const from = at[before]!
    if (after < 0) {
      const runs = i - before
      return {
        value: from.value + runs * UNKNOWN_RUN_m.value,
        low: from.low,
        high: from.high + runs * UNKNOWN_RUN_m.high,
      }
    }
    const to = at[after]!
    return {
      value: from.value + ((to.value - from.value) * (i - before)) / (after - before),
      low: from.low,
      high: to.high,
    }
  })
}

/** The place of a stop in its cable's list; -1 where it is not there. */
export const stopIndex = (cable: Cable, stop: string): number => cable.stops.findIndex((s) => s.id === stop)

/** Length between two stops of a cable, by their positions in its list. */
export function lengthBetween_m(positions: readonly Bounded[], from: number, to: number): Bounded {
  const [a, b] = [positions[from]!, positions[to]!]
  return { value: Math.max(0, b.value - a.value), low: Math.max(0, b.low - a.high), high: Math.max(0, b.high - a.low) }
}

/** The core's own size, else its cable's, else null. */
export function gaugeOf(cable: Cable, core: Core): Gauge | null {
  return (core.gauge ?? cable.gauge)?.value ?? null
}

/** Size as read out, `null` for unknown. */
export const gaugeOfText = (cable: Cable, core: Core): string | null => {
  const gauge = gaugeOf(cable, core)
  return gauge && gaugeText(gauge)
}
