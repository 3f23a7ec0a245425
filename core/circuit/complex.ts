/** A complex figure: an impedance, a voltage or a current as a phasor of RMS size. */
export interface Complex {
  readonly re: number
  readonly im: number
}

export const complex = (re: number, im = 0): Complex => ({ re, im })
export const plus = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im })
export const minus = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im })
export const times = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
})
export const scaled = (a: Complex, by: number): Complex => ({ re: a.re * by, im: a.im * by })
/** By the plain root: nothing here comes near what a double holds, and `Math.hypot` takes ten times as long. */
export const size = (a: Complex): number => Math.sqrt(a.re * a.re + a.im * a.im)

export function inverse(a: Complex): Complex {
  const square = a.re * a.re + a.im * a.im
  return { re: a.re / square, im: -a.im / square }
}

/**
 * Solves a small dense complex system by Gauss with partial pivoting; `rows` and `right` are used up.
 * @throws where the matrix is singular: the caller has left a part without a reference
 */
export function solveDense(rows: Complex[][], right: Complex[]): Complex[] {
  const n = rows.length
  for (let k = 0; k < n; k++) {
    let pivot = k
    for (let r = k + 1; r < n; r++) if (size(rows[r]![k]!) > size(rows[pivot]![k]!)) pivot = r
    const [row, value] = [rows[pivot]!, right[pivot]!]
    if (size(row[k]!) === 0) throw new Error(`solveDense: column ${k} of ${n} is empty`)
    rows[pivot] = rows[k]!
    right[pivot] = right[k]!
    rows[k] = row
    right[k] = value
    const over = inverse(row[k]!)
    for (let r = k + 1; r < n; r++) {
      const factor = times(rows[r]![k]!, over)
      if (factor.re === 0 && factor.im === 0) continue
      for (let c = k + 1; c < n; c++) rows[r]![c] = minus(rows[r]![c]!, times(factor, row[c]!))
      right[r] = minus(right[r]!, times(factor, value))
    }
  }
  const x = new Array<Complex>(n)
  for (let k = n - 1; k >= 0; k--) {
    let rest = right[k]!
    for (let c = k + 1; c < n; c++) rest = minus(rest, times(rows[k]![c]!, x[c]!))
    x[k] = times(rest, inverse(rows[k]![k]!))
  }
  return x
}
