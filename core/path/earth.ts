import type { Facts } from '../record'
import type { DeviceId, System } from '../site'

/** A reading of an earth that stands, with its verdict by the system’s limits. */
export interface EarthRead {
  readonly id: string
  readonly at: string
  readonly ohm: number
  readonly soil: 'dry' | 'moist' | 'wet'
  readonly how: 'unbonded' | 'clamp'
  readonly verdict: 'good' | 'passes' | 'fails'
}
/** An earth over the years: its readings, oldest first, and how it drifts where two of one soil are on record. */
export interface Earth {
  readonly device: DeviceId
  readonly readings: readonly EarthRead[]
  /** Ω a year between the first and the last reading in the soil of the last one; null where there is one only. */
  readonly drift_ohmPerYear: number | null
}

const YEAR_ms = 365.25 * 24 * 3600 * 1000

/** By the limits of field practice unless the system has its own: below 10 Ω is good, below 25 Ω passes. */
export const judgeEarth = (ohm: number, { earthGood_ohm, earthPass_ohm }: System['surge']): EarthRead['verdict'] =>
  ohm < earthGood_ohm ? 'good' : ohm < earthPass_ohm ? 'passes' : 'fails'

/** Every earth that was read, by its device. */
export function earthsOf(facts: Facts, surge: System['surge']): ReadonlyMap<DeviceId, Earth> {
  const all = Object.entries(facts.earthReadings)
  const back = new Set(all.flatMap(([, f]) => (f.earthed.kind === 'back' ? [f.earthed.reading] : [])))
  const byDevice = new Map<DeviceId, EarthRead[]>()
  for (const [id, { at, earthed }] of all) {
    if (earthed.kind !== 'read' || back.has(id)) continue
    const { of, ohm, soil, how } = earthed
    byDevice.set(of, [...(byDevice.get(of) ?? []), { id, at, ohm, soil, how, verdict: judgeEarth(ohm, surge) }])
  }
  return new Map(
    [...byDevice].map(([device, unsorted]) => {
      const readings = unsorted.sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
      const last = readings.at(-1)!
      const first = readings.find((r) => r.soil === last.soil)!
      const years = (Date.parse(last.at) - Date.parse(first.at)) / YEAR_ms
      return [device, { device, readings, drift_ohmPerYear: years > 0 ? (last.ohm - first.ohm) / years : null }]
    }),
  )
}
