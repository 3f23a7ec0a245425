/** A batch as far as others may be in its way: what it made, and the addresses it wrote. */
export interface Footprint {
  readonly id: string
  readonly revision: number
  readonly paths: readonly (readonly string[])[]
}

interface Touch {
  readonly revision: number
  readonly id: string
}

/**
 * Which batches wrote where, to be asked about any base: whether an address has been written since by anybody but its
 * asker. A record meets its fields and a field its record. Asking costs the same however long the journal is.
 */
export class ChangedFields {
  /** Writes of an address itself, and for a record those of any of its fields too; revisions ascending. */
  private readonly at = new Map<string, Touch[]>()
  private readonly within = new Map<string, Touch[]>()
  /** Addresses held. */
  size = 0

  constructor(batches: readonly Footprint[] = []) {
    for (const batch of batches) this.add(batch)
  }

  /** Adds a batch; its revision is later than all that were added before. */
  add({ id, revision, paths }: Footprint): void {
    const touch = { id, revision }
    for (const path of paths) {
      push(this.at, keyOf(path), touch)
      if (path.length === 3) push(this.within, keyOf(path.slice(0, 2)), touch)
    }
    this.size += paths.length
  }

  /** Whether anyone but `own` has written at an address, around it or within it, after a revision. */
  since(path: readonly string[], revision: number, own: ReadonlySet<string>): boolean {
    const touches = [
      this.at.get(keyOf(path)),
      path.length === 2 ? this.within.get(keyOf(path)) : this.at.get(keyOf(path.slice(0, 2))),
    ]
    return touches.some((list) => list !== undefined && laterThan(list, revision).some((t) => !own.has(t.id)))
  }
}

const keyOf = (path: readonly string[]) => path.join('/')

function push(map: Map<string, Touch[]>, key: string, touch: Touch): void {
  const list = map.get(key)
  if (!list) map.set(key, [touch])
  else if (list.at(-1)!.id !== touch.id) list.push(touch)
}

/** The touches after a revision; a list is ascending, so its end is looked at first. */
function laterThan(list: readonly Touch[], revision: number): readonly Touch[] {
  let from = list.length
  while (from > 0 && list[from - 1]!.revision > revision) from--
  return list.slice(from)
}
