export type Random = () => number
/** One of a list. */
export const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!
/** One of several, by their weights. */
export function weighted<T extends string>(random: Random, weights: Readonly<Record<T, number>>): T {
  let at = random() * (Object.values(weights) as number[]).reduce((s, w) => s + w, 0)
  for (const [k, w] of Object.entries(weights) as [T, number][]) if ((at -= w) <= 0) return k
  return Object.keys(weights).at(-1) as T
}
export const logBetween = (random: Random, low: number, high: number) => low * (high / low) ** random()
