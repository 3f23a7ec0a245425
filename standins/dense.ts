/** A complex number of its own: this room answers by the plainest arithmetic and borrows none from the circuit engine. */
export interface Z { readonly re: number; readonly im: number }
export interface Branch { readonly a: number; readonly b: number; readonly z: Z }
export interface Current { readonly into: number; readonly outOf: number; readonly amps: Z }

/** Conductance that holds down whatever is joined to nothing, S: a thousandth of what the best insulation leaks. */
const HAIR = 1e-11
/** A branch without resistance, Ω: a thousandth of a meter's last digit. The hair is still seen beside it in double precision. */
const CONTACT = 1e-4

/** Solves for any currents once the whole admittance matrix is taken apart: L·U with partial pivoting, nothing spared. */
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
    for (const [i, j, s] of [[p, p, 1], [q, q, 1], [p, q, -1], [q, p, -1]] as const) { re[i]![j]! += (s * r) / square; im[i]![j]! -= (s * x) / square }
  }
  for (let n = 0; n < nodes; n++) re[n]![n]! += HAIR
  const row = Array.from({ length: nodes }, (_, n) => n)
  for (let k = 0; k < nodes; k++) {
    let pivot = k
    for (let r = k + 1; r < nodes; r++) if (re[r]![k]! ** 2 + im[r]![k]! ** 2 > re[pivot]![k]! ** 2 + im[pivot]![k]! ** 2) pivot = r
    for (const list of [re, im, row] as unknown[][]) [list[k], list[pivot]] = [list[pivot], list[k]]
    const [upRe, upIm] = [re[k]!, im[k]!]
    const square = upRe[k]! ** 2 + upIm[k]! ** 2
    for (let r = k + 1; r < nodes; r++) {
      const [atRe, atIm] = [re[r]!, im[r]!]
      if (atRe[k] === 0 && atIm[k] === 0) continue
      const [fr, fi] = [(atRe[k]! * upRe[k]! + atIm[k]! * upIm[k]!) / square, (atIm[k]! * upRe[k]! - atRe[k]! * upIm[k]!) / square]
      atRe[k] = fr
      atIm[k] = fi
      for (let c = k + 1; c < nodes; c++) {
        if (upRe[c] === 0 && upIm[c] === 0) continue
        atRe[c]! -= fr * upRe[c]! - fi * upIm[c]!
        atIm[c]! -= fr * upIm[c]! + fi * upRe[c]!
      }
    }
  }
  // What is not empty in each row, below the pivot and above it: the rest would take nothing away.
  const full = re.map((r, k) => { const at: number[] = []; for (let c = 0; c < nodes; c++) if (r[c] !== 0 || im[k]![c] !== 0) at.push(c); return at })
  return (currents) => {
    const [rightRe, rightIm] = [new Float64Array(nodes), new Float64Array(nodes)]
    for (const { into, outOf, amps } of currents) for (const [n, sign] of [[slot[into]!, 1], [slot[outOf]!, -1]] as const) { rightRe[n]! += sign * amps.re; rightIm[n]! += sign * amps.im }
    const [vr, vi] = [Float64Array.from(row, (n) => rightRe[n]!), Float64Array.from(row, (n) => rightIm[n]!)]
    const less = (k: number, c: number) => {
      const r = re[k]![c]!
      const x = im[k]![c]!
      vr[k]! -= r * vr[c]! - x * vi[c]!
      vi[k]! -= r * vi[c]! + x * vr[c]!
    }
    for (let k = 0; k < nodes; k++) for (const c of full[k]!) if (c < k) less(k, c)
    for (let k = nodes - 1; k >= 0; k--) {
      for (const c of full[k]!) if (c > k) less(k, c)
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
  for (const { a, b } of branches) { neighbours[a]!++; neighbours[b]!++ }
  const slot = new Array<number>(nodes)
  neighbours.map((_, n) => n).sort((a, b) => neighbours[a]! - neighbours[b]!).forEach((n, k) => { slot[n] = k })
  return slot
}

/** Whether branches lead from one node to another. */
export function joined(nodes: number, branches: readonly Branch[], from: number, to: number): boolean {
  const around: number[][] = Array.from({ length: nodes }, () => [])
  for (const { a, b } of branches) { around[a]!.push(b); around[b]!.push(a) }
  const seen = new Set([from])
  const next = [from]
  for (let at = next.pop(); at !== undefined; at = next.pop()) for (const n of around[at]!) if (!seen.has(n)) { seen.add(n); next.push(n) }
  return seen.has(to)
}
