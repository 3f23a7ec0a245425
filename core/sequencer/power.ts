/** From a second until another. */
export interface Interval {
  readonly from_s: number
  readonly to_s: number
}

/** Intervals joined where they touch or lie over each other, in order. */
export function union(intervals: readonly Interval[]): Interval[] {
  const joined: Interval[] = []
  for (const { from_s, to_s } of [...intervals].sort((a, b) => a.from_s - b.from_s)) {
    const last = joined.at(-1)
    if (to_s <= from_s) continue
    if (last && from_s <= last.to_s) joined[joined.length - 1] = { ...last, to_s: Math.max(last.to_s, to_s) }
    else joined.push({ from_s, to_s })
  }
  return joined
}

/** What of some intervals is left without others. */
export function without(intervals: readonly Interval[], others: readonly Interval[]): Interval[] {
  const gone = union(others)
  return intervals.flatMap((interval) => {
    const left: Interval[] = []
    let { from_s } = interval
    for (const o of gone) {
      if (o.to_s <= from_s || o.from_s >= interval.to_s) continue
      if (o.from_s > from_s) left.push({ from_s, to_s: o.from_s })
      from_s = o.to_s
    }
    return from_s < interval.to_s ? [...left, { from_s, to_s: interval.to_s }] : left
  })
}

/** A time with power at the input, and the output that then has it. */
export interface Powered extends Interval {
  readonly output: number
  /** Too little time without power before it: the sequencer has stayed where it was. */
  readonly isHeld: boolean
}

/**
 * Which output has power, over all times in which a screw that feeds the sequencer is on and the property has power.
 * Power that comes back steps it by one, where it was away for at least `off_ms`.
 * @param on when the screws that feed it are on, several of them together or not
 * @param outages when the property has no power
 * @param last the output that had power before all of them
 */
export function poweredTurns(
  on: readonly Interval[],
  outages: readonly Interval[],
  { outputs, off_ms }: { readonly outputs: number; readonly off_ms: number },
  last: number,
): Powered[] {
  let [output, off_s] = [last, -Infinity]
  return without(union(on), outages).map((interval) => {
    const isHeld = (interval.from_s - off_s) * 1000 < off_ms
    if (!isHeld) output = (output + 1) % outputs
    off_s = interval.to_s
    return { ...interval, output, isHeld }
  })
}
