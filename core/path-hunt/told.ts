import { partKey, type PathFault } from './faults'
import type { Shown } from './shown'

/**
 * What one test shows under every fault, by the fault's place in the list; made once, looked at before every reading.
 */
export interface Row {
  /** Chance of a yes; −1 where the answer is none of yes and no. */
  readonly yes: Float64Array
  /** Class of a figure: what is no further apart than its spread has one. −1 where there is none. */
  readonly classOf: Int32Array
  readonly classes: number
}

/** Figures that far apart, in standard deviations, are told apart. */
const APART_sd = 2.5

/** The row of a test, by what it shows under each fault. */
export function rowFor(
  faults: readonly { readonly fault: PathFault | null }[],
  show: (fault: PathFault | null) => Shown | null,
): Row {
  const yes = new Float64Array(faults.length).fill(-1)
  const classOf = new Int32Array(faults.length).fill(-1)
  const names = new Map<string, number>()
  const named = (name: string) => names.get(name) ?? names.set(name, names.size).get(name)!
  const figures: { i: number; x: number; sd: number }[] = []
  faults.forEach(({ fault }, i) => {
    const at = show(fault)
    if (at?.kind === 'yes') yes[i] = at.p
    else if (at?.kind === 'none') classOf[i] = named('none')
    else if (at?.kind === 'number') classOf[i] = named(`number ${at.number}`)
    else if (at?.kind === 'figure') figures.push({ i, x: at.x, sd: at.sd })
  })
  let [begin, group] = [-Infinity, 0]
  for (const { i, x, sd } of figures.sort((a, b) => a.x - b.x)) {
    if (x - begin > APART_sd * sd) {
      begin = x
      group++
    }
    classOf[i] = named(`figure ${group}`)
  }
  return { yes, classOf, classes: names.size }
}

/**
 * The part of every fault by number: what is asked is which part to mend, and two sizes of one need no telling apart.
 */
export function partsOf(faults: readonly { readonly fault: PathFault | null }[]): Int32Array {
  const names = new Map<string, number>()
  return Int32Array.from(faults, ({ fault }) => {
    const key = fault ? partKey(fault) : ''
    return names.get(key) ?? names.set(key, names.size).get(key)!
  })
}

const entropyTerm = (p: number) => (p > 0 ? -p * Math.log2(p) : 0)

/** Bits that a test tells of which part is at fault: H(answer) − H(answer | part), with the odds as they stand. */
export function told_bits({ yes, classOf, classes }: Row, p: Float64Array, parts: Int32Array): number {
  const wide = classes + 2
  const [byClass, byPart, joint] = [new Float64Array(wide), new Map<number, number>(), new Map<number, number>()]
  let sum = 0
  const add = (i: number, name: number, q: number) => {
    byClass[name]! += q
    const key = parts[i]! * wide + name
    joint.set(key, (joint.get(key) ?? 0) + q)
    byPart.set(parts[i]!, (byPart.get(parts[i]!) ?? 0) + q)
    sum += q
  }
  p.forEach((q, i) => {
    if (q === 0) return
    if (yes[i]! >= 0) {
      add(i, classes, q * yes[i]!)
      add(i, classes + 1, q * (1 - yes[i]!))
    } else if (classOf[i]! >= 0) add(i, classOf[i]!, q)
  })
  if (sum === 0) return 0
  let bits = 0
  for (const q of byClass) bits += entropyTerm(q / sum)
  // H(answer | part) = H(answer, part) − H(part)
  for (const q of joint.values()) bits -= entropyTerm(q / sum)
  for (const q of byPart.values()) bits += entropyTerm(q / sum)
  return Math.max(0, bits)
}
