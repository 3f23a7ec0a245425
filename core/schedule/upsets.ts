import { steadyChance } from '../chance'
import type { Interval } from '../sequencer'
import { instantOf, type WallClock } from './clock'
import { dateOf, dayNumber, type CalendarDate } from './days'

/** What a schedule knows nothing of: the property has no power, or somebody runs a screw by hand. */
export interface Upset extends Interval {
  readonly kind: 'outage' | 'by_hand'
}

const DAY_s = 86_400
/** An outage lasts a minute to eight hours, as many short ones as long ones on a scale of ratios. */
const [SHORTEST_s, LONGEST_s] = [60, 8 * 3600]
/** By hand a station runs for two minutes, within the hours of work. */
const BY_HAND_s = 120
const [BEGINS_s, ENDS_s] = [8 * 3600, 17 * 3600]

/** So many outages and starts by hand, drawn into the dates asked for; the same for the same seed. */
export function drawUpsets(
  clock: WallClock,
  { from, days }: { readonly from: CalendarDate; readonly days: number },
  { outages, byHand, seed }: { readonly outages: number; readonly byHand: number; readonly seed: number },
): Upset[] {
  const random = steadyChance(seed)
  const someDate = () => dateOf(dayNumber(from) + Math.floor(random() * days))
  const drawn = (count: number, kind: Upset['kind'], second: () => number, length_s: () => number) =>
    Array.from({ length: count }, (): Upset => {
      const from_s = instantOf(clock, someDate(), Math.floor(second()))
      return { kind, from_s, to_s: from_s + Math.round(length_s()) }
    })
  return [
    ...drawn(
      outages,
      'outage',
      () => random() * DAY_s,
      () => SHORTEST_s * (LONGEST_s / SHORTEST_s) ** random(),
    ),
    ...drawn(
      byHand,
      'by_hand',
      () => BEGINS_s + random() * (ENDS_s - BEGINS_s),
      () => BY_HAND_s,
    ),
  ].sort((a, b) => a.from_s - b.from_s)
}
