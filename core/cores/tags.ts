/** The values of a decade in the series that stock has, E12 of IEC 60063. */
const E12 = [10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82] as const

/** What tags are read with: their tolerance, the wire’s ohms there and back at most, and the meter’s accuracy. */
export interface TagConditions {
  readonly tolerance_ratio: number
  readonly wire_ohm: number
  readonly accuracy_ratio: number
  readonly offset_ohm: number
}
export const USUAL_TAGS: TagConditions = { tolerance_ratio: 0.05, wire_ohm: 60, accuracy_ratio: 0.01, offset_ohm: 0.2 }

/** A resistor that is hung on, and what a meter at the other end can show of it. */
export interface Tag {
  readonly ohm: number
  readonly low_ohm: number
  readonly high_ohm: number
}

/** Stock from 10 Ω to 1 MΩ, in ohms. */
export const STOCK_ohm: readonly number[] = [
  ...[1, 10, 100, 1000, 10_000].flatMap((decade) => E12.map((value) => value * decade)),
  1_000_000,
]

/** What a meter may show of a resistor through the wire: R·(1 ± tolerance) + wire, read within accuracy and offset. */
export function tagOf(ohm: number, { tolerance_ratio, wire_ohm, accuracy_ratio, offset_ohm }: TagConditions): Tag {
  return {
    ohm,
    low_ohm: ohm * (1 - tolerance_ratio) * (1 - accuracy_ratio) - offset_ohm,
    high_ohm: (ohm * (1 + tolerance_ratio) + wire_ohm) * (1 + accuracy_ratio) + offset_ohm,
  }
}

/**
 * The most tags of a stock that can be told apart at the other end, from each other and from a core that is linked with
 * no tag at all: no two bands touch. Taking the band that ends first, again and again, gives the most there can be
 * (interval scheduling).
 */
export function bestTags(stock_ohm: readonly number[], conditions: TagConditions): Tag[] {
  const chosen: Tag[] = []
  let reached_ohm = tagOf(0, conditions).high_ohm
  const byEnd = [...new Set(stock_ohm)].map((ohm) => tagOf(ohm, conditions)).sort((a, b) => a.high_ohm - b.high_ohm)
  for (const tag of byEnd)
    if (tag.low_ohm > reached_ohm) {
      chosen.push(tag)
      reached_ohm = tag.high_ohm
    }
  return chosen
}

/** The tag that a reading is of; null of one that lies in no band. */
export const tagRead = (tags: readonly Tag[], reading_ohm: number): Tag | null =>
  tags.find((t) => reading_ohm >= t.low_ohm && reading_ohm <= t.high_ohm) ?? null
