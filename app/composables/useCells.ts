/** What a grid of cells says of one of them; `R` is a row's key, `C` a column's. */
interface CellDoors<R extends string, C extends string> {
  /** What the record has there now; null where the row is gone meanwhile. */
  readonly shown: (row: R, column: C) => string | null
  /** Whether what is typed could be kept. */
  readonly isGood: (row: R, column: C, text: string) => boolean
  readonly keep: (row: R, column: C, text: string) => Promise<boolean>
  /** Goes so many rows down from a cell, or up. */
  readonly go: (row: R, column: C, by: number) => void
}

/**
 * Cells gone through by Enter and the arrows, each kept as it is left. What is typed stays in its cell until the record
 * says it: drawn again meanwhile, a cell keeps its own words.
 */
export function useCells<R extends string, C extends string>({ shown, isGood, keep, go }: CellDoors<R, C>) {
  const drafts = reactive(new Map<string, string>())
  const bad = ref<string | null>(null)
  const keyOf = (row: R, column: C) => `${row} ${column}`
  /**
   * Cells are kept one after the other, each made from the record as the one before has left it; typing does not wait.
   */
  let queue: Promise<void> = Promise.resolve()
  let waiting = 0

  function write(row: R, column: C): void {
    const key = keyOf(row, column)
    const written = drafts.get(key)
    if (written === undefined) return
    waiting++
    const keepIt = async () => {
      const now = shown(row, column)
      if (now === null || drafts.get(key) !== written) return
      const kept = written.trim() === now || (await keep(row, column, written))
      if (!kept) bad.value = key
      else {
        if (drafts.get(key) === written) drafts.delete(key)
        if (bad.value === key) bad.value = null
      }
    }
    queue = queue.then(keepIt).finally(() => {
      waiting--
    })
  }

  /** Enter and the arrows go up and down a column; what was typed is kept on leaving a cell. */
  function onKey(event: KeyboardEvent, row: R, column: C): void {
    const key = keyOf(row, column)
    if (event.key === 'Escape') {
      drafts.delete(key)
      if (bad.value === key) bad.value = null
      return
    }
    const steps: Readonly<Record<string, number>> = { Enter: event.shiftKey ? -1 : 1, ArrowDown: 1, ArrowUp: -1 }
    const by = steps[event.key]
    if (by === undefined) return
    event.preventDefault()
    const written = drafts.get(key)
    // While earlier cells are still being kept nobody can say yet whether this one is refused: a quick hand goes on,
    // and what is refused is marked where it stands.
    if (waiting > 0 || written === undefined || isGood(row, column, written))
      go(row, column, by) // leaving keeps it
    else write(row, column)
  }

  return {
    /** What is on record there. */
    was: (row: R, column: C) => shown(row, column) ?? '',
    text: (row: R, column: C) => drafts.get(keyOf(row, column)) ?? shown(row, column) ?? '',
    type: (row: R, column: C, text: string) => drafts.set(keyOf(row, column), text),
    isBad: (row: R, column: C) => bad.value === keyOf(row, column),
    write,
    onKey,
  }
}

export type Cells<R extends string, C extends string> = ReturnType<typeof useCells<R, C>>

/** Goes to a field of a grid, with what is in it marked. */
export function focusCell(id: string): void {
  const to = document.getElementById(id) as HTMLInputElement | null
  to?.focus()
  to?.select()
}
