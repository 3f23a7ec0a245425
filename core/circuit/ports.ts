import { complex, plus, scaled, type Complex } from './complex'
import type { Factor, Forward } from './factor'
import type { Powered } from './powered'

/** A node, or a point along an element measured from its `a`. */
export type Spot = { readonly node: number } | { readonly element: number; readonly along: number }
/**
 * Two spots that touch. Both lie in one part of the network as recorded, and an element with a spot in it is not
 * changed besides.
 */
export interface Join {
  readonly p: Spot
  readonly q: Spot
  readonly ohm: number
}

/** Two points of a network as seen from outside: what it takes to solve for a current between them. */
export interface Port {
  readonly terms: readonly { readonly f: Forward; readonly weight: number }[]
  readonly inner: readonly { readonly element: number; readonly along: number; readonly weight: number }[]
  own: Complex
  readonly driven: Complex
  readonly across: Complex[]
}

const spotKey = (s: Spot): string => ('node' in s ? `${s.node}` : `${s.element}@${s.along}`)

/** Ports of elements and of conductors that touch, each taken forward once, and what one makes along another. */
export interface Ports {
  readonly ofElement: (element: number) => Port
  readonly ofJoin: (join: Join) => Port
  /** Volts that a unit current through one port makes along the other. */
  readonly mutual: (one: Port, other: Port) => Complex
}

/** `volts`: what the property's own sources make along a current that was taken forward. */
export function portsOf(parts: Powered['parts'], factor: Factor, volts: (f: Forward) => Complex): Ports {
  const elementPorts = new Map<number, Port>()
  const ofElement = (element: number): Port => {
    const known = elementPorts.get(element)
    if (known) return known
    const f = factor.forward(parts[element]!.a, parts[element]!.b)
    const made: Port = {
      terms: [{ f, weight: 1 }],
      inner: [],
      own: factor.transferImpedance(f, f),
      driven: volts(f),
      across: [],
    }
    elementPorts.set(element, made)
    return made
  }
  const nodeForwards = new Map<number, Forward>()
  const forwardOf = (node: number): Forward => {
    if (!nodeForwards.has(node)) nodeForwards.set(node, factor.forward(node, -1))
    return nodeForwards.get(node)!
  }
  /** What a spot brings to a port with this sign: its nodes, and its place where it lies within an element. */
  const termsAt = (spot: Spot, sign: 1 | -1): Pick<Port, 'terms' | 'inner'> => {
    if ('node' in spot) return { terms: [{ f: forwardOf(spot.node), weight: sign }], inner: [] }
    const { a, b } = parts[spot.element]!
    return {
      terms: [
        { f: forwardOf(a), weight: sign * (1 - spot.along) },
        { f: forwardOf(b), weight: sign * spot.along },
      ],
      inner: [{ ...spot, weight: sign }],
    }
  }
  const joinPorts = new Map<string, Port>()
  /** By the join itself: most are asked for over and over, and their names take as long as the answer. */
  const ofSame = new WeakMap<Join, Port>()
  const ofJoin = (join: Join): Port => {
    let port = ofSame.get(join)
    if (port) return port
    const key = `${spotKey(join.p)} ${spotKey(join.q)}`
    port = joinPorts.get(key) ?? madeJoin(join)
    joinPorts.set(key, port)
    ofSame.set(join, port)
    return port
  }
  const madeJoin = ({ p, q }: Join): Port => {
    const [from, to] = [termsAt(p, 1), termsAt(q, -1)]
    const terms = [...from.terms, ...to.terms]
    const port: Port = {
      terms,
      inner: [...from.inner, ...to.inner],
      own: complex(0),
      driven: terms.reduce((sum, t) => plus(sum, scaled(volts(t.f), t.weight)), complex(0)),
      across: [],
    }
    port.own = impedance(port, port)
    return port
  }
  /** Two spots of one element share, besides, the drop within it. */
  const impedance = (one: Port, other: Port): Complex => {
    let sum = complex(0)
    for (const t of one.terms)
      for (const u of other.terms) sum = plus(sum, scaled(factor.transferImpedance(t.f, u.f), t.weight * u.weight))
    for (const s of one.inner)
      for (const u of other.inner)
        if (s.element === u.element)
          sum = plus(
            sum,
            scaled(
              parts[s.element]!.z,
              s.weight * u.weight * Math.min(s.along, u.along) * (1 - Math.max(s.along, u.along)),
            ),
          )
    return sum
  }
  const pairs = new Map<Port, Map<Port, Complex>>()
  const mutual = (one: Port, other: Port): Complex => {
    if (!pairs.has(one)) pairs.set(one, new Map())
    const row = pairs.get(one)!
    if (!row.has(other)) row.set(other, impedance(one, other))
    return row.get(other)!
  }
  return { ofElement, ofJoin, mutual }
}
