import { type Gauge } from '../quantity'
import { entries, gaugeOf, lengthBetween_m, getOrThrow, stopPositions_m, type Site, type Splice } from '../site'

/** Connectors of one kind for so many conductors, with the reserve that goes along. */
export interface ConnectorCount {
  readonly connector: Splice['connector']
  readonly conductors: number
  readonly count: number
  readonly withReserve: number
}
export interface ConductorCount {
  readonly gauge: Gauge | null
  readonly length_m: number
}
export interface DeviceCount {
  readonly kind: string
  readonly name: string
  readonly count: number
}

/** Joints and caps by connector and number of conductors, landings left out. */
export function connectorCounts(site: Site): ConnectorCount[] {
  const counts = new Map<string, { connector: Splice['connector']; conductors: number; count: number }>()
  for (const { connector, ends } of Object.values(site.splices)) {
    if (connector === 'terminal') continue
    const key = `${connector} ${ends.length}`
    const known = counts.get(key) ?? { connector, conductors: ends.length, count: 0 }
    counts.set(key, { ...known, count: known.count + 1 })
  }
  return [...counts.values()]
    .sort((a, b) => (a.connector < b.connector ? -1 : a.connector > b.connector ? 1 : a.conductors - b.conductors))
    .map((c) => ({ ...c, withReserve: Math.ceil(c.count * (1 + site.settings.material.reserve_ratio) - 1e-9) }))
}

/** Metres of conductor by size, spares and slack apart. */
export function conductorCounts(site: Site): ConductorCount[] {
  const lengths = new Map<string, { gauge: Gauge | null; length_m: number }>()
  for (const cable of Object.values(site.cables)) {
    if (cable.kind === 'jumper') continue // an offcut

    const length_m = lengthBetween_m(stopPositions_m(cable), 0, cable.stops.length - 1).high
    for (const core of Object.values(cable.cores)) {
      const gauge = gaugeOf(cable, core)
      const key = JSON.stringify(gauge)
      lengths.set(key, { gauge, length_m: (lengths.get(key)?.length_m ?? 0) + length_m })
    }
  }
  return [...lengths.values()].sort((a, b) => b.length_m - a.length_m)
}

/** What goes along with a device: a decoder’s stake out of the mud, a rod’s clamp. */
const GOES_ALONG: Readonly<Record<string, string>> = { decoder: 'stake', rod: 'clamp' }

/** Devices by their kind, coils by their sheet too, and what goes along with them. */
export function deviceCounts(site: Site): DeviceCount[] {
  const counts = new Map<string, DeviceCount>()
  for (const [, device] of entries(site.devices)) {
    const name = device.coilKind === null ? '' : getOrThrow(site.coilKinds, device.coilKind).name
    const key = `${device.kind} ${name}`
    counts.set(key, { kind: device.kind, name, count: (counts.get(key)?.count ?? 0) + 1 })
  }
  const devices = [...counts.values()]
  const along = devices.flatMap(({ kind, count }) => {
    const extra = GOES_ALONG[kind]
    return extra === undefined ? [] : [{ kind: extra, name: '', count }]
  })
  return [...devices, ...along]
}
