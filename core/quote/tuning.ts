/** How long works of a kind really took, against what is usual for them, over so many of them. */
export interface TakenMinutes {
  /** The repair’s code. */
  readonly code: string
  readonly count: number
  readonly usual_min: number
  readonly taken_min: number
}

/** What is usual weighs as much as so many works of a company’s own. */
const USUAL_WEIGHS = 3
/** Fewer works than this change nothing. */
const FEWEST = 2

/**
 * By how much the usual minutes of a repair are to be multiplied: the mean of the company’s own works with what is
 * usual, which weighs as three of them (shrinkage towards 1). 1 where too few were done.
 */
export function tunedBy(taken: readonly TakenMinutes[]): (code: string) => number {
  const ratios = new Map(
    taken.flatMap(({ code, count, usual_min, taken_min }): [string, number][] => {
      if (count < FEWEST || !(usual_min > 0)) return []
      const usual = (USUAL_WEIGHS * usual_min) / count
      return [[code, (taken_min + usual) / (usual_min + usual)]]
    }),
  )
  return (code) => ratios.get(code) ?? 1
}
