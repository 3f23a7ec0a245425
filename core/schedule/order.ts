import { getOrThrow, type ControllerId, type Site } from '../site'
import { voltsAsker } from './electric'
import type { Program } from './program'
import { stationKey, stationsInOrder, type StationOn } from './station'
import { wetCheck } from './wet-check'

type Runs = Program<StationOn>['runs']
/** Runs by a rank of their stations, those of one rank as they were. */
const sortedBy = (rank: ReadonlyMap<string, number>) => (runs: Runs) =>
  [...runs].sort(
    (a, b) => (rank.get(stationKey(a.station)) ?? Infinity) - (rank.get(stationKey(b.station)) ?? Infinity) || 0,
  )

/** The order in which one walks from box to box. */
export function byBox(site: Site, controller: ControllerId): (runs: Runs) => Runs {
  const { stops, unplaced } = wetCheck(site, controller)
  const walked = [...stops.map((s) => s.stations), unplaced]
  return sortedBy(
    new Map(walked.flatMap((own, i) => own.map((s) => [stationKey(getOrThrow(site.stations, s.station)), i]))),
  )
}

/**
 * The weakest coil first: by how much more than it needs, to a tenth of a volt, it gets when its station runs alone.
 */
export function byVolts(site: Site, controller: ControllerId): (runs: Runs) => Runs {
  const voltsOf = voltsAsker(site, controller)
  const margin = (station: StationOn) =>
    Math.min(Infinity, ...voltsOf([station]).at.map((c) => Math.round((c.volt_V - c.minimum_V) * 10)))
  return sortedBy(new Map(stationsInOrder(site, controller).map(([, s]) => [stationKey(s), margin(s)])))
}
