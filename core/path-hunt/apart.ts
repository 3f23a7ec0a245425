import { climateOf, influenceOf, poweredOf } from '../circuit'
import { layoutOf, type KnownPath } from '../path'
import type { PathTest } from '../record'
import type { DeviceId, Link, Site } from '../site'
import { jointEnds, type Spot } from './faults'

type Stretch = Extract<Link, { kind: 'stretch' }>

/** A length that leaves a box, with the conductors by which it is held there. */
interface Side {
  readonly length: number
  readonly end: 'a' | 'b'
  readonly first: Stretch
  readonly second: Stretch
}

/** A length apart at one of its ends. */
export type Parting = Pick<Extract<PathTest, { kind: 'legs_earth' }>, 'place' | 'onto'>

/** Ohms of the legs with the path off its controller and one length apart: how far it is from there to a spot. */
export function apartOf(site: Site, path: KnownPath) {
  const powered = poweredOf(site, {
    climate: climateOf(site),
    frequency_Hz: 0,
    phase: 'optimistic',
    mains_ratio: 1,
    wire: 'nominal',
    faces: new Map(),
    turns: new Map(),
  })
  const influence = influenceOf(powered)
  const layout = layoutOf(site, path)
  const endsOf = jointEnds(site)
  const elementOf = new Map(powered.parts.map((p, i) => [p.of, i] as const))
  const node = (point: string) => powered.nodeOf.get(point)!
  const tests = new Map<number, number>()
  const testOf = (a: number, b: number) => {
    const key = a * powered.nodeCount + b
    if (!tests.has(key)) tests.set(key, influence.test({ a, b }))
    return tests.get(key)!
  }
  const sides = new Map<string, Side>()
  layout.legs.forEach((leg, length) => {
    const [first, second] = [leg.first[0], leg.second[0]]
    if (!first || !second) return
    const [a, b] = [layout.spots[leg.a]!.place, layout.spots[leg.b]!.place]
    // Off its screws a way out is apart as it is.
    if (leg.a === 0 || endsOf(first, 'a').length > 0) sides.set(`${a} ${b}`, { length, end: 'a', first, second })
    if (leg.b === 0 || endsOf(first, 'b').length > 0) sides.set(`${b} ${a}`, { length, end: 'b', first, second })
  })
  const sideOf = ({ place, onto }: Parting) => sides.get(`${place} ${onto}`)
  const cuts = new Map<Side, { element: number; z: null }[]>()
  const cutOf = (side: Side) => {
    if (!cuts.has(side)) {
      const { first, second } = layout.legs[side.length]!
      const ends = [...first, ...second].flatMap((s) => endsOf(s, side.end)).flatMap((l) => elementOf.get(l) ?? [])
      cuts.set(
        side,
        [...new Set(ends)].map((element) => ({ element, z: null })),
      )
    }
    return cuts.get(side)!
  }
  const way = (side: Side, leg: 'first' | 'second', to: string): number | null => {
    const read = influence.ohms(testOf(node(side[leg][side.end]), node(to)), cutOf(side))
    return read.open ? null : read.value.re
  }
  const both = (side: Side, first: string, second: string): number | null => {
    const [one, two] = [way(side, 'first', first), way(side, 'second', second)]
    return one === null || two === null ? null : one + two
  }
  return {
    sideOf,
    /** Ohms there and back from a parted end to a spot; null where no way leads there. */
    toSpot: (spot: Spot, at: Parting): number | null => {
      const side = sideOf(at)
      if (!side) return null
      const to = (end: 'a' | 'b') => both(side, spot.first[end], spot.second[end])
      if (spot.end !== 'along') return to(spot.end)
      const [a, b] = [to('a'), to('b')]
      return a === null || b === null ? null : (a + b) / 2
    },
    toDevice: (device: DeviceId | null, at: Parting): number | null => {
      const side = sideOf(at)
      const legs = path.decoders.find((d) => d.device === device)?.legs
      return side && legs ? both(side, legs[0], legs[1]) : null
    },
  }
}
