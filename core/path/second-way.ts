import { climateOf } from '../circuit'
import { apart_m, whereIs } from '../map'
import { copperFactor, maximum_ohmPerM, nominal_ohmPerM, type Gauge } from '../quantity'
import { accepted, type Outcome } from '../refusal'
import { gaugeOf, getOrThrow, type PathAt, type PlaceId, type Site } from '../site'
import { layoutOf } from './layout'
import type { OutputOn } from './running'
import { pathEngine, worstFor } from './volts'

/** One more cable from the controller to a box of the path, and what the weakest decoder then has under the worst. */
export interface SecondWay {
  readonly place: PlaceId
  readonly length_m: number
  readonly gauge: Gauge
  readonly weakest_V: number
  readonly gain_V: number
}

/** A trench is longer than the straight line. */
export const TRENCH = 1.15

/**
 * Which second way out helps by how much: to every box in turn, of the size that leaves the controller now, as long as
 * the straight line and a little, or as the path where a box has no place on the map. The best first.
 */
export function secondWays(site: Site, at: PathAt, on: readonly OutputOn[]): Outcome<SecondWay[]> {
  const conditions = worstFor(site)
  const made = pathEngine(site, at, 'constant_current', on, conditions)
  if (!made.ok) return made
  const { engine, path, volts } = made.value
  const layout = layoutOf(site, path)
  const node = (point: string) => engine.powered.nodeOf.get(point)!
  const weakestOf = (changes: Parameters<typeof volts>[1] = []) =>
    volts(on, changes).decoders.reduce((least, d) => Math.min(least, d.volt_V), Infinity)
  const now_V = weakestOf()
  const [leaving] = layout.spots[0]!.legs.map((leg) => layout.legs[leg]!)
  const [first, second] = [leaving?.first[0], leaving?.second[0]]
  if (!leaving || !first || !second) return accepted([])
  const cable = getOrThrow(site.cables, first.cable)
  const gauge = gaugeOf(cable, getOrThrow(cable.cores, first.core))
  if (gauge === null) return accepted([])
  const ohmPerM =
    (conditions.wire === 'maximum' ? maximum_ohmPerM(gauge) : nominal_ohmPerM(gauge)) *
    copperFactor(climateOf(site, conditions.ground_C).ground_C)
  const home = leaving.a === 0 ? 'a' : 'b'
  const place = (spot: number) => layout.spots[spot]!.place
  const straight_m = (spot: number) => {
    const [from, to] = [0, spot].map((s) => whereIs(getOrThrow(site.places, place(s))))
    return from && to ? TRENCH * apart_m(from, to) : layout.distance_m[spot]!
  }
  const ways = layout.outward.slice(1).flatMap((spot): SecondWay[] => {
    const length = layout.legs[layout.parent[spot]!]!
    const end = length.a === spot ? 'a' : 'b'
    const [one, two] = [length.first[0], length.second[0]]
    if (!one || !two) return []
    const length_m = straight_m(spot)
    const ohm = ohmPerM * length_m
    const weakest_V = weakestOf([
      { kind: 'bridge', a: node(first[home]), b: node(one[end]), ohm },
      { kind: 'bridge', a: node(second[home]), b: node(two[end]), ohm },
    ])
    return [{ place: place(spot), length_m, gauge, weakest_V, gain_V: weakest_V - now_V }]
  })
  return accepted(ways.sort((a, b) => b.weakest_V - a.weakest_V))
}
