/** A core of the plan: its group at the first end and at the second. */
export interface PlannedPair {
  readonly first: number
  readonly second: number
}

/**
 * How cores are joined at two ends so that the pair (size of its group here, size of its group there) is another one
 * for every core. `known` of them are conductors that are known already and go along as one more.
 */
export interface GroupPlan {
  readonly cores: readonly PlannedPair[]
  readonly known: number
}

/** For so many cores there is no plan; with a known conductor as one more there is. */
const NEEDS_KNOWN: ReadonlySet<number> = new Set([2, 5, 9])
/** Of these the only plans leave one core alone at both ends, where nothing shows that it is broken. */
const ONE_ALONE: ReadonlySet<number> = new Set([4, 8])

/**
 * The plan for n cores, as the method of two groupings has it (K. C. Knowlton’s puzzle, solved by R. L. Graham, “On
 * partitions of a finite set”, 1966). Cores are cells of a table of sizes: a row’s cells are a multiple of its size, a
 * column’s too, and no cell is taken twice. For 2, 5 and 9 a known conductor goes along.
 * @param n cores, 2 to 400
 */
export function groupPlan(n: number): GroupPlan {
  const known = NEEDS_KNOWN.has(n) ? 1 : 0
  const count = n + known
  for (let most = Math.max(2, Math.floor(Math.sqrt(count))); most <= count; most++) {
    const found = tableFor(count, most, ONE_ALONE.has(count))
    if (found) return { cores: numbered(found), known }
  }
  throw new Error(`groupPlan: there is none for ${n} cores`)
}

/** A core’s sizes at both ends. */
export interface Cell {
  readonly row: number
  readonly column: number
}

/** Cells of a table whose sizes go up to `most`, the same sums for rows and columns; null where there is none. */
function tableFor(count: number, most: number, mayBeAlone: boolean): Cell[] | null {
  const room = (size: number) => Math.floor(most / size) * size
  const below = Array.from({ length: most + 1 }, (_, size) =>
    Array.from({ length: size }, (_, i) => room(i + 1)).reduce((sum, r) => sum + r, 0),
  )
  const sums = new Array<number>(most + 1).fill(0)
  const search = (size: number, left: number): Cell[] | null => {
    if (size === 0) return left === 0 ? cellsOf(sums, sums, mayBeAlone) : null
    if (left > below[size]!) return null
    const wanted = [size, ...Array.from({ length: Math.floor(most / size) + 1 }, (_, k) => k * size)]
    for (const sum of new Set(wanted)) {
      if (sum > left || sum > most) continue
      sums[size] = sum
      const found = search(size - 1, left - sum)
      if (found) return found
    }
    sums[size] = 0
    return null
  }
  return search(most, count)
}

/** A table for rows as they are, columns of sizes up to what is needed; where there is none, one that comes near it. */
export function tableWith(rows: readonly number[]): Cell[] {
  const count = rows.reduce((sum, r) => sum + r, 0)
  for (let most = Math.max(...rows); most <= count; most++) {
    const sums = new Array<number>(most + 1).fill(0)
    let tries = 2000
    const search = (size: number, left: number): Cell[] | null => {
      if (tries-- < 0) return null
      if (size === 0) return left === 0 ? cellsOf(rows, sums, false) : null
      for (const sum of new Set([size, ...Array.from({ length: Math.floor(count / size) + 1 }, (_, k) => k * size)])) {
        if (sum > left) continue
        sums[size] = sum
        const found = search(size - 1, left - sum)
        if (found) return found
      }
      sums[size] = 0
      return null
    }
    const found = search(most, count)
    if (found) return found
    if (most > Math.max(...rows) + 4) break
  }
  return rows.flatMap((sum, row) => Array.from({ length: sum }, (_, i) => ({ row, column: nearColumn(count, i) })))
}

/** Groups of one, two, three … in turn, for cores that no table takes. */
function nearColumn(count: number, place: number): number {
  const most = Math.max(1, Math.floor(Math.sqrt(2 * count)) - 1)
  return 1 + (place % most)
}

/**
 * A table of cells with these sums, none taken twice and (1, 1) free unless it may be taken; null where there is none.
 * Every row takes the columns that have most left, as Gale and Ryser (1957) have it; the one that is barred
 * from a column goes first.
 * @param rows,columns sums by size, from 1
 */
export function cellsOf(rows: readonly number[], columns: readonly number[], mayBeAlone: boolean): Cell[] | null {
  const left = [...columns]
  const cells: Cell[] = []
  const byNeed = rows
    .map((sum, row) => ({ sum, row }))
    .filter(({ sum }) => sum > 0)
    .sort((a, b) => Number(b.row === 1) - Number(a.row === 1) || b.sum - a.sum)
  for (const { sum, row } of byNeed) {
    const open = left
      .map((need, column) => ({ need, column }))
      .filter(({ need, column }) => need > 0 && (mayBeAlone || row !== 1 || column !== 1))
      .sort((a, b) => b.need - a.need || b.column - a.column)
      .slice(0, sum)
    if (open.length < sum) return null
    for (const { column } of open) {
      left[column]!--
      cells.push({ row, column })
    }
  }
  return left.every((need) => need === 0) ? cells : null
}

/** Cells as cores whose groups have numbers: those of one size fill group after group. */
function numbered(cells: readonly Cell[]): PlannedPair[] {
  const [rows, columns] = [groupsFor(cells.map((c) => c.row)), groupsFor(cells.map((c) => c.column))]
  return cells.map((_, i) => ({ first: rows[i]!, second: columns[i]! }))
}

/** A group for each, by the size it is to have: numbers from 1, the smallest groups first. */
export function groupsFor(sizes: readonly number[]): number[] {
  const groups = new Array<number>(sizes.length)
  let number = 0
  for (const size of [...new Set(sizes)].sort((a, b) => a - b)) {
    const these = sizes.flatMap((s, i) => (s === size ? [i] : []))
    these.forEach((i, place) => {
      if (place % size === 0) number++
      groups[i] = number
    })
  }
  return groups
}
