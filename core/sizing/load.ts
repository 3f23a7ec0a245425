import {
  conditionsFor,
  minimumOf,
  poweredOf,
  rated_A,
  runningOf,
  type Conditions,
  type Face,
  type Powered,
  type TerminalAt,
} from '../circuit'
import { entries, lookUp, getOrThrow, type ControllerId, type DeviceId, type Site, type StationId } from '../site'

/** One coil as a load: the amperes of its sheet in a face, and the volts it asks for there. */
export interface Load {
  readonly device: DeviceId
  readonly face: Face
  readonly current_A: number
  readonly minimum_V: number
}

/** What a controller does when one station starts: the station's coils, and what comes on with them. */
export interface Start {
  readonly station: StationId
  readonly at: TerminalAt
  readonly starting: readonly Load[]
  /** Master valve and relay, starting with it or in before it. */
  readonly masters: readonly Load[]
}

export interface Plant {
  readonly controller: ControllerId
  readonly starts: readonly Start[]
}

/**
 * The coil's temperature in the worst case: its sheet's own. A warmer coil draws less, so wire sized for this holds.
 */
const SHEET_C = 20

/** The worst a property must bear: low mains, hottest ground, thickest tolerance of wire, coils in the safe phase. */
function worstConditions(site: Site): Omit<Conditions, 'faces' | 'turns'> {
  const { sizing, mains_Hz } = site.settings
  return {
    climate: { ground_C: sizing.hottest_C, coil_C: SHEET_C },
    frequency_Hz: mains_Hz,
    phase: 'safe',
    mains_ratio: 1 - sizing.mainsLow_ratio,
    wire: 'maximum',
  }
}

/** The property under its worst conditions, every coil's plunger out. */
export const worstPowered = (site: Site): Powered =>
  poweredOf(site, conditionsFor({ live: [], faces: new Map() }, worstConditions(site)))

export function loadOf(site: Site, device: DeviceId, face: Face): Load {
  const { coilKind } = getOrThrow(site.devices, device)
  const kind = coilKind === null ? null : getOrThrow(site.coilKinds, coilKind)
  return { device, face, current_A: rated_A(kind, face), minimum_V: minimumOf(kind, face) }
}

/** Every station of every controller that runs a coil by the wiring on record. */
export function plantsOf(site: Site): Plant[] {
  return entries(site.controllers)
    .map(([controller]) => ({
      controller,
      starts: entries(site.stations).flatMap(([station, s]): Start[] => {
        if (
          s.controller !== controller ||
          s.address !== null ||
          lookUp(getOrThrow(site.controllers, controller).terminals, s.terminal)?.role === 'common'
        )
          return []
        const at = { controller, terminal: s.terminal }
        const running = runningOf(site, [at])
        if (!running.ok) return []
        const own = runningOf(
          site,
          [at],
          running.value.live
            .filter((l) => l.terminal !== s.terminal || l.controller !== controller)
            .map((l) => ({ ...l, as: 'off' as const })),
        )
        const starting = own.ok ? [...own.value.faces.keys()] : []
        const masters = [...running.value.faces].filter(([device]) => !starting.includes(device))
        if (starting.length === 0) return []
        return [
          {
            station,
            at,
            starting: starting.map((d) => loadOf(site, d, 'inrush')),
            masters: masters.map(([d, face]) => loadOf(site, d, face)),
          },
        ]
      }),
    }))
    .filter((plant) => plant.starts.length > 0)
}
