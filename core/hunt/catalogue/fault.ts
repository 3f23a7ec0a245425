import type { Complex, Join, Spot } from '../../circuit'
import type { Part } from '../../record'
import type { DeviceId } from '../../site'
import type { Cause, Family } from '../odds'

/** How a fault changes an element, whatever its impedance is in a state; null takes it out. */
export interface Alter {
  readonly element: number
  readonly to: (z: Complex) => Complex | null
}
/** What a fault does to the wiring. */
export interface NetworkEdit {
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
}

/** Where something leaks to earth, and one deviation of its ohms within the cell. */
export interface Leak {
  readonly spot: Spot
  readonly sd_ohm: number
}

/** A fault with a size and a position: one cell of its grid. */
export interface FaultHypothesis {
  /** Its number in the catalogue, and its part's and family's. */
  readonly index: number
  readonly fault: number
  readonly mods: NetworkEdit
  /** The same with one of its figures (severity, position) one standard deviation of its cell farther on. */
  readonly shifted: readonly NetworkEdit[]
  /** The part of the fault's odds that this cell has. */
  readonly share: number
  readonly ohm: number | null
  /** By how much its first setting of `shifted` has more ohms, where it is known by them. */
  readonly sd_ohm: number | null
  /** Along the run from its first stop, 0 … 1, where it has a position. */
  readonly along: number | null
  readonly leak: Leak | null
}

/** A cause at a part. */
export interface Fault {
  readonly index: number
  readonly where: Part
  readonly key: string
  readonly cause: Cause
  readonly family: Family
  /** Prior odds within the catalogue; all add up to 1. */
  readonly prior: number
  readonly variants: readonly FaultHypothesis[]
  /** Coils that may have volts because of it when another's terminal is on. */
  readonly besides: readonly DeviceId[]
  /** Whether it leads the current of one terminal's wire to another's: what else is wrong there then shows at both. */
  readonly links: boolean
  /** Leg or lead at which it sits, for joints: the end's link id. */
  readonly at: string | null
  readonly elements: readonly number[]
  /** It is there in the states only in which something is said to fail. */
  readonly withState: boolean
}

export interface Catalogue {
  readonly faults: readonly Fault[]
  readonly variants: readonly FaultHypothesis[]
  readonly keys: readonly string[]
}

/**
 * Whether a fault leads current elsewhere, or to earth: what the others leave of the wiring says whether it is reached,
 * so that they count too where only it can show.
 */
export const leadsOn = ({ links, cause }: Fault): boolean => links || cause === 'leak'

/** Of a fault's cells of one size, the one in the middle of its positions. */
export const middleLike = (f: Fault, ohm: number | null): FaultHypothesis => {
  const like = f.variants.filter((v) => v.ohm === ohm)
  return like[like.length >> 1]!
}

/** By cell, by its number, the one in the middle of all that have its name; cells without a name are left out. */
export function middlesOf(
  { variants }: Catalogue,
  nameOf: (v: FaultHypothesis) => string | null,
): ReadonlyMap<number, FaultHypothesis> {
  const lists = new Map<string, FaultHypothesis[]>()
  for (const v of variants) {
    const name = nameOf(v)
    if (name === null) continue
    const list = lists.get(name)
    if (list) list.push(v)
    else lists.set(name, [v])
  }
  const middles = new Map<number, FaultHypothesis>()
  for (const list of lists.values()) for (const v of list) middles.set(v.index, list[list.length >> 1]!)
  return middles
}
/** By cell of cores that touch, the one of the same cores at the same ohms that lies in the middle of all places. */
export const touchesAlike = (catalogue: Catalogue): ReadonlyMap<number, FaultHypothesis> =>
  middlesOf(catalogue, (v) => {
    const { where, withState } = catalogue.faults[v.fault]!
    return where.kind === 'touch' ? `${where.cable} ${where.core} ${where.other} ${v.ohm} ${withState}` : null
  })

/** Faults that are there together. */
export type Faults = readonly FaultHypothesis[]
