import { coded, type Coded } from '../refusal'
import { voltsAsker, type VoltsThen } from '../schedule'
import { sequencersOf } from '../sequencer'
import {
  deviceName,
  entries,
  getOrThrow,
  lookUp,
  outputsOf,
  type ControllerId,
  type DeviceId,
  type Site,
  type Station,
  type StationId,
} from '../site'
import type { Damage } from './damage'

/** Why a station does not do what it is there for. */
export type FailCode = 'no_power' | 'below_minimum_V' | 'over_VA' | 'runs_another' | 'over_flow' | 'screw_dead'
export type Failing = Coded<FailCode>

/**
 * Whether stations do their work: their valves and no others have the volts they need, by the circuit engine under the
 * worst that the property is sized for, within the transformer’s rating and what their point of connection gives.
 * @param controller whose stations are looked at
 * @param bypassed master valves that stand open by hand for now
 * @returns what fails, by station; those that work are not in it
 */
export function failing(
  { site, dead, noSupply }: Damage,
  controller: ControllerId,
  bypassed: ReadonlySet<DeviceId> = new Set(),
): ReadonlyMap<StationId, Failing> {
  const asked = new Map<string, ReturnType<typeof voltsAsker>>()
  const volts = (station: Station, turns: ReadonlyMap<DeviceId, number>): VoltsThen => {
    const key = `${station.controller} ${[...turns].join(' ')}`
    const ask = asked.get(key) ?? voltsAsker(site, station.controller, turns)
    asked.set(key, ask)
    return ask([station])
  }
  const found = new Map<StationId, Failing>()
  for (const [id, station] of entries(site.stations)) {
    if (station.controller !== controller || station.valves.length === 0) continue
    const isDead =
      noSupply === station.controller ||
      dead.some((d) => d.controller === station.controller && d.terminal === station.terminal)
    const why = isDead
      ? coded<FailCode>('screw_dead', [], { name: station.name })
      : (tooLittleWater(site, station) ?? powerless(site, station, volts, bypassed))
    if (why) found.set(id, why)
  }
  return found
}

function tooLittleWater(site: Site, { name, pointOfConnection, flow_Lmin }: Station): Failing | null {
  const point = pointOfConnection && lookUp(site.pointsOfConnection, pointOfConnection)
  if (!point || point.most_Lmin === null || flow_Lmin === null || flow_Lmin <= point.most_Lmin + 1e-6) return null
  return coded('over_flow', [], { name, flow: flow_Lmin, most: point.most_Lmin })
}

function powerless(
  site: Site,
  station: Station,
  volts: (station: Station, turns: ReadonlyMap<DeviceId, number>) => VoltsThen,
  bypassed: ReadonlySet<DeviceId>,
): Failing | null {
  const { name } = station
  const point = station.pointOfConnection && lookUp(site.pointsOfConnection, station.pointOfConnection)
  const masters = point && station.withMaster ? [point.masterValve, point.pumpRelay].filter((d) => d !== null) : []
  for (const turns of turnsFor(site, station)) {
    const { at, also, load_VA, rating_VA } = volts(station, turns.outputs)
    if (rating_VA !== null && load_VA > rating_VA)
      return coded('over_VA', [], { name, load_VA: tenth(load_VA), rating_VA })
    for (const device of [...turns.valves, ...masters, ...decodersOf(site, station)]) {
      if (bypassed.has(device)) continue
      const given = at.find((a) => a.device === device)
      const called = deviceName(site, device)
      if (!given) return coded('no_power', [], { name, device: called })
      if (!given.enough)
        return coded('below_minimum_V', [], {
          name,
          device: called,
          volt_V: tenth(given.volt_V),
          minimum_V: given.minimum_V,
        })
    }
    const meant = new Set<DeviceId>([...station.valves, ...masters])
    const wrongly = at.find((a) => !meant.has(a.device) && !isDecoder(site, a.device))?.device
    const other = wrongly ?? also.find((device) => !meant.has(device))
    if (other !== undefined) return coded('runs_another', [], { name, device: deviceName(site, other) })
  }
  return null
}
/** The decoders that answer to a station’s number: without volts of their own they switch nothing. */
const decodersOf = (site: Site, { address, valves }: Station): DeviceId[] =>
  address === null
    ? []
    : outputsOf(site).flatMap((o) =>
        o.address === address && o.coils.some((c) => valves.includes(c)) ? [o.decoder] : [],
      )
const isDecoder = (site: Site, device: DeviceId) => getOrThrow(site.devices, device).kind === 'decoder'
const tenth = (x: number) => Math.round(x * 10) / 10

/** The turns in which each of a station’s valves has power: one for all where no sequencer stands between. */
function turnsFor(
  site: Site,
  station: Station,
): { readonly valves: readonly DeviceId[]; readonly outputs: ReadonlyMap<DeviceId, number> }[] {
  const own = station.address === null ? sequencersOf(site, station.controller) : []
  const behind = own.filter((q) => q.fedBy.includes(station.terminal))
  const sequenced = new Set(behind.flatMap((q) => q.outputs.flat()))
  const direct = station.valves.filter((v) => !sequenced.has(v))
  const turns = behind.flatMap((q) =>
    q.outputs.flatMap((coils, i) => {
      const valves = station.valves.filter((v) => coils.includes(v))
      return valves.length > 0 ? [{ valves, outputs: new Map([[q.device, i + 1]]) }] : []
    }),
  )
  return direct.length > 0 || turns.length === 0 ? [{ valves: direct, outputs: new Map() }, ...turns] : turns
}
