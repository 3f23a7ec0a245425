/**
 * A complex number of its own: this room answers by the plainest arithmetic and borrows none from the circuit engine.
 */
export interface Z {
  readonly re: number
  readonly im: number
}
export interface Branch {
  readonly a: number
  readonly b: number
  readonly z: Z
}
export interface Current {
  readonly into: number
  readonly outOf: number
  readonly amps: Z
}

/** Conductance that holds down whatever is joined to nothing, S: a thousandth of what the best insulation leaks. */
const HAIR = 1e-11
/**
 * A branch without resistance, Ω: a thousandth of a meter's last digit. The hair is still seen beside it in double
 * precision.
 */
const CONTACT = 1e-4

/**
 * Solves for any currents once the whole admittance matrix is taken apart, L·U over full rows. Every branch adds as
 * much to the diagonal as it takes beside it, so that no pivot is sought; what is filled in a row right of the
 * diagonal is filled below it.
 */
export function denseSolver(nodes: number, branches: readonly Branch[]): (currents: readonly Current[]) => Z[] {
  const slot = fewestFirst(nodes, branches)
  const re = Array.from({ length: nodes }, () => new Float64Array(nodes))
  const im = Array.from({ length: nodes }, () => new Float64Array(nodes))
  for (const { a, b, z } of branches) {
    if (a === b) continue
    const bare = Math.hypot(z.re, z.im) < CONTACT
    const [r, x] = bare ? [CONTACT, 0] : [z.re, z.im]
    const square = r * r + x * x
    const [p, q] = [slot[a]!, slot[b]!]
    for (const [i, j, s] of [
      [p, p, 1],
      [q, q, 1],
      [p, q, -1],
      [q, p, -1],
    ] as const) {
      re[i]![j]! += (s * r) / square
      im[i]![j]! -= (s * x) / square
    }
  }
  for (let n = 0; n < nodes; n++) re[n]![n]! += HAIR
  const right: number[][] = []
  for (let k = 0; k < nodes; k++) {
    const [upRe, upIm] = [re[k]!, im[k]!]
    const square = upRe[k]! ** 2 + upIm[k]! ** 2
    const filled: number[] = []
    for (let c = k + 1; c < nodes; c++) if (upRe[c] !== 0 || upIm[c] !== 0) filled.push(c)
    for (const r of filled) {
      const [atRe, atIm] = [re[r]!, im[r]!]
      const fr = (atRe[k]! * upRe[k]! + atIm[k]! * upIm[k]!) / square
      const fi = (atIm[k]! * upRe[k]! - atRe[k]! * upIm[k]!) / square
      atRe[k] = fr
      atIm[k] = fi
      for (const c of filled) {
        atRe[c]! -= fr * upRe[c]! - fi * upIm[c]!
        atIm[c]! -= fr * upIm[c]! + fi * upRe[c]!
      }
    }
    right.push(filled)
  }
  return (currents) => {
    const [vr, vi] = [new Float64Array(nodes), new Float64Array(nodes)]
    for (const { into, outOf, amps } of currents)
      for (const [n, sign] of [
        [slot[into]!, 1],
        [slot[outOf]!, -1],
      ] as const) {
        vr[n]! += sign * amps.re
        vi[n]! += sign * amps.im
      }
    const less = (row: number, c: number) => {
      const r = re[row]![c]!
      const x = im[row]![c]!
      vr[row]! -= r * vr[c]! - x * vi[c]!
      vi[row]! -= r * vi[c]! + x * vr[c]!
    }
    for (let k = 0; k < nodes; k++) for (const row of right[k]!) less(row, k)
    for (let k = nodes - 1; k >= 0; k--) {
      for (const c of right[k]!) less(k, c)
      const pr = re[k]![k]!
      const pi = im[k]![k]!
      const square = pr * pr + pi * pi
      const here = (vr[k]! * pr + vi[k]! * pi) / square
      vi[k] = (vi[k]! * pr - vr[k]! * pi) / square
      vr[k] = here
    }
    return slot.map((n) => ({ re: vr[n]!, im: vi[n]! }))
  }
}

/** Rows of few neighbours first: most of the matrix then stays empty, and what is empty is passed over. */
function fewestFirst(nodes: number, branches: readonly Branch[]): number[] {
  const neighbours = new Array<number>(nodes).fill(0)
  for (const { a, b } of branches) {
    neighbours[a]!++
    neighbours[b]!++
  }
  const slot = new Array<number>(nodes)
  neighbours
    .map((_, n) => n)
    .sort((a, b) => neighbours[a]! - neighbours[b]!)
    .forEach((n, k) => {
      slot[n] = k
    })
  return slot
}

/** Whether branches lead from one node to another. */
export function joined(nodes: number, branches: readonly Branch[], from: number, to: number): boolean {
  const around: number[][] = Array.from({ length: nodes }, () => [])
  for (const { a, b } of branches) {
    around[a]!.push(b)
    around[b]!.push(a)
  }
  const seen = new Set([from])
  const next = [from]
  for (let at = next.pop(); at !== undefined; at = next.pop())
    for (const n of around[at]!)
      if (!seen.has(n)) {
        seen.add(n)
        next.push(n)
      }
  return seen.has(to)
}
