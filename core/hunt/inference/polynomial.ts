/** The most faults that there may be; sets of more are left out. */
export const MOST_FAULTS = 8
const TERMS = MOST_FAULTS + 1

/** A polynomial in the number of faults, cut after x⁸: the coefficient of xᵏ is what sets of k faults hold. */
export type Polynomial = Float64Array

export const zero = (): Polynomial => new Float64Array(TERMS)
export const constant = (value: number): Polynomial => {
  const p = zero()
  p[0] = value
  return p
}

export function times(a: Polynomial, b: Polynomial): Polynomial {
  const product = zero()
  for (let i = 0; i < TERMS; i++) {
    const x = a[i]!
    if (x !== 0) for (let j = 0; i + j < TERMS; j++) product[i + j]! += x * b[j]!
  }
  return product
}

/** Adds `scale`·xˢ·p to a sum. */
export function addTo(sum: Polynomial, p: Polynomial, scale = 1, shift = 0): void {
  for (let i = 0; i + shift < TERMS; i++) sum[i + shift]! += scale * p[i]!
}

/** p·(1 + w·x): one more part that may be at fault. */
export function orOneMore(p: Polynomial, w: number): Polynomial {
  const product = zero()
  for (let i = 0; i < TERMS; i++) product[i] = p[i]! + (i > 0 ? w * p[i - 1]! : 0)
  return product
}

/** p/(1 + w·x), as a series: the same without a part that was among them. */
export function withoutOne(p: Polynomial, w: number): Polynomial {
  const rest = zero()
  for (let i = 0; i < TERMS; i++) rest[i] = p[i]! - (i > 0 ? w * rest[i - 1]! : 0)
  return rest
}

export function dot(a: Polynomial, b: Polynomial): number {
  let sum = 0
  for (let i = 0; i < TERMS; i++) sum += a[i]! * b[i]!
  return sum
}

/** The product of all others, for each of some polynomials, and of all. */
export function othersOf(list: readonly Polynomial[]): { readonly all: Polynomial; readonly others: Polynomial[] } {
  const before = [constant(1)]
  for (const p of list) before.push(times(before.at(-1)!, p))
  const others: Polynomial[] = []
  let after = constant(1)
  for (let i = list.length - 1; i >= 0; i--) {
    others[i] = times(before[i]!, after)
    after = times(after, list[i]!)
  }
  return { all: after, others }
}
