import type { CellClass } from './classes'

/**
 * Odds of one cell of each class, no two of them at one part: sums over how some of them could coincide, with their
 * signs (inclusion and exclusion over set partitions). A class that comes twice stands for two of its cells.
 * @param without a part that none of them may be at
 */
export function distinctOdds(classes: readonly CellClass[], without: number | null = null): number {
  if (classes.length === 0) return 1
  if (classes.length === 1) return oddsOf(classes[0]!, without)
  return together(classes, without) / repeats(classes)
}

/** By part: odds of the sets of such cells in which one is at that part. */
export function distinctByPart(classes: readonly CellClass[]): Map<number, number> {
  const sums = new Map<number, number>()
  classes.forEach((c, k) => {
    const others = classes.filter((_, i) => i !== k)
    for (const [part, o] of c.parts)
      sums.set(part, (sums.get(part) ?? 0) + (o * together(others, part)) / repeats(classes))
  })
  return sums
}

const oddsOf = (c: CellClass, without: number | null): number =>
  without === null ? c.odds : c.odds - (c.parts.get(without) ?? 0)

/** The same with the order of the classes told apart. */
function together(classes: readonly CellClass[], without: number | null): number {
  let sum = 0
  const blocks: CellClass[][] = []
  const visit = (k: number): void => {
    if (k === classes.length) {
      sum += blocks.reduce((product, block) => product * blockOdds(block, without), 1)
      return
    }
    const c = classes[k]!
    for (const block of blocks) {
      block.push(c)
      visit(k + 1)
      block.pop()
    }
    blocks.push([c])
    visit(k + 1)
    blocks.pop()
  }
  visit(0)
  return sum
}

/** All of a block at one part, with the sign and the number of ways of its coinciding. */
function blockOdds(block: readonly CellClass[], without: number | null): number {
  if (block.length === 1) return oddsOf(block[0]!, without)
  let sum = 0
  for (const [part, o] of block[0]!.parts) {
    if (part === without) continue
    sum += block.slice(1).reduce((product, c) => product * (c.parts.get(part) ?? 0), o)
  }
  let ways = 1
  for (let k = 2; k < block.length; k++) ways *= k
  return block.length % 2 === 0 ? -ways * sum : ways * sum
}

/** In how many orders the same sets come, where a class comes more than once. */
function repeats(classes: readonly CellClass[]): number {
  const counts = new Map<CellClass, number>()
  let product = 1
  for (const c of classes) {
    const n = (counts.get(c) ?? 0) + 1
    counts.set(c, n)
    product *= n
  }
  return product
}
