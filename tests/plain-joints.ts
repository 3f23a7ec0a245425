import type { Conductor, Connector } from '../core/splice'

/** Whether a connector takes these areas, written out anew for the proof. */
function takes(c: Connector, areas: readonly number[]): boolean {
  return (
    areas.length >= c.least &&
    areas.length <= c.most &&
    areas.every((a) => a <= c.thickest_mm2 * 1.001 && a >= c.thinnest_mm2 / 1.001) &&
    areas.reduce((s, a) => s + a, 0) <= c.together_mm2 * 1.001
  )
}

/** Every tree on n labelled nodes, as its degrees (Prüfer); one node alone has none. */
function* treeDegrees(n: number): Generator<number[]> {
  if (n === 1) {
    yield [0]
    return
  }
  const sequences = n ** (n - 2)
  for (let code = 0; code < sequences; code++) {
    const degrees = Array.from({ length: n }, () => 1)
    for (let i = 0, rest = code; i < n - 2; i++, rest = Math.floor(rest / n)) degrees[rest % n]!++
    yield degrees
  }
}

/**
 * The fewest connectors that join the conductors, by trying every split, every tree and every kind; null up to
 * `most`.
 */
export function fewestByTrying(
  conductors: readonly Conductor[],
  connectors: readonly Connector[],
  jumpers_mm2: readonly number[],
  most: number,
): number | null {
  for (let n = 1; n <= most; n++)
    for (let code = 0; code < n ** conductors.length; code++) {
      const groups = Array.from({ length: n }, (): number[] => [])
      for (let i = 0, rest = code; i < conductors.length; i++, rest = Math.floor(rest / n))
        groups[rest % n]!.push(conductors[i]!.area_mm2)
      for (const degrees of treeDegrees(n))
        for (const jumper of jumpers_mm2)
          if (
            groups.every((g, i) =>
              connectors.some((c) => takes(c, [...g, ...Array.from({ length: degrees[i]! }, () => jumper)])),
            )
          )
            return n
    }
  return null
}
