import { copperFactor, maximum_ohmPerM, nominal_ohmPerM, type Gauge } from '../quantity'
import {
  gaugeOf,
  lengthBetween_m,
  getOrThrow,
  stopPositions_m,
  UNKNOWN_GAUGE,
  wiringOf,
  type Link,
  type Site,
  type WirePoint,
  type Wiring,
} from '../site'

/** The temperatures of a job. Wire lies in the ground; a coil that has not run has its temperature too. */
export interface Climate {
  readonly ground_C: number
  readonly coil_C: number
}

/** The property's own temperatures: coils as warm as the ground unless set otherwise. */
export const climateOf = (site: Site, ground_C = site.settings.ground_C, coil_C = site.settings.coil_C): Climate => ({
  ground_C,
  coil_C: coil_C ?? ground_C,
})

/** DC figures of a typical AC coil where none is on record, and the range valves are made in. */
export const UNKNOWN_COIL_ohm = { value: 33, low: 20, high: 60 } as const

/**
 * The least resistance an element is given, Ω. A run of no length keeps a current of its own, so that it can be named
 * as the place of a fault; a thread of 100 such parts is 0.1 mΩ off, a hundredth of the last digit a meter shows.
 */
export const LEAST_ohm = 1e-6

/** A resistance between two nodes, with the part of the site that it stands for; null for what should not be there. */
export interface Element {
  readonly a: number
  readonly b: number
  readonly ohm: number
  readonly link: Link | null
  /** On record as what should not be there. */
  readonly known?: true
}

/**
 * A site as resistances at DC, every terminal open: what an ohmmeter at the cabinet sees with the leads off. Nodes are
 * the wiring's points by number; broken parts are left out.
 */
export interface Network {
  readonly nodeCount: number
  readonly elements: readonly Element[]
  readonly nodeOf: ReadonlyMap<WirePoint, number>
  readonly wiring: Wiring
}

/** The network of the site as recorded. Wire of a known size at its nominal resistance. */
export function networkOf(site: Site, climate: Climate): Network {
  const wiring = wiringOf(site)
  const nodeOf = new Map<WirePoint, number>()
  const node = (point: WirePoint) => {
    const known = nodeOf.get(point)
    if (known !== undefined) return known
    nodeOf.set(point, nodeOf.size)
    return nodeOf.size - 1
  }
  const elements: Element[] = []
  for (const link of wiring.links) {
    const [a, b] = [node(link.a), node(link.b)]
    if (!link.broken) elements.push({ a, b, ohm: Math.max(LEAST_ohm, linkNominal_ohm(site, link, climate)), link })
  }
  for (const { a, b, ohm } of wiring.shunts)
    elements.push({ a: node(a), b: node(b), ohm: Math.max(LEAST_ohm, ohm), link: null, known: true })
  return { nodeCount: nodeOf.size, elements, nodeOf, wiring }
}

/**
 * Resistance of one link as recorded: copper at ground temperature, half a sound joint per leg, what is known to be in
 * series with either, a coil at its own.
 */
export function linkNominal_ohm(site: Site, link: Link, climate: Climate): number {
  switch (link.kind) {
    case 'leg':
      return site.settings.soundSplice_ohm / 2 + link.more_ohm
    case 'coil':
      return coil_ohm(site, link, 'value') * copperFactor(climate.coil_C)
    case 'stretch': {
      const cable = getOrThrow(site.cables, link.cable)
      const length = lengthBetween_m(stopPositions_m(cable), link.from, link.to)
      return length.value * wire_ohmPerM(site, link, climate).value + link.more_ohm
    }
  }
}

/** A coil's DC ohms at 20 °C by its sheet, or the typical figure or bound where the sheet is not on record. */
export function coil_ohm(site: Site, link: Extract<Link, { kind: 'coil' }>, of: 'value' | 'low' | 'high'): number {
  const kind = getOrThrow(site.devices, link.device).coilKind
  return kind === null ? UNKNOWN_COIL_ohm[of] : getOrThrow(site.coilKinds, kind).resistance_ohm
}

/**
 * Ω/m of a stretch at ground temperature: nominal, and the bounds its size leaves (the maximum of the standard
 * above).
 */
export function wire_ohmPerM(
  site: Site,
  link: Extract<Link, { kind: 'stretch' }>,
  climate: Climate,
): { value: number; low: number; high: number; gauge: Gauge | null } {
  const cable = getOrThrow(site.cables, link.cable)
  const gauge = gaugeOf(cable, getOrThrow(cable.cores, link.core))
  const unknown = UNKNOWN_GAUGE[site.settings.market]
  const factor = copperFactor(climate.ground_C + cable.warmer_K)
  return {
    gauge,
    value: nominal_ohmPerM(gauge ?? unknown.likely) * factor,
    low: nominal_ohmPerM(gauge ?? unknown.thick) * factor,
    high: maximum_ohmPerM(gauge ?? unknown.thin) * factor,
  }
}
