import { flowIn, flowUnit } from '../quantity'
import { entries, type PointOfConnectionId, type Site, type Station } from '../site'
import { localText } from './clock'
import type { Judged, ScheduleFinding } from './finding'
import { momentsOf } from './moments'
import { stationKey, stationsInOrder, type StationOn } from './station'
import { stationTag } from './station-tag'

/** A flow below what its point gives by less than this is the same flow, rounded on its way here. */
const ROUNDING_Lmin = 1e-6

/**
 * Stations that share the water of a point of connection and together, or alone, want more than it gives; each point
 * once, at the first such time. Stations without a flow on record count for nothing.
 */
export function flowFindings({ site, controller, ran, clock }: Judged): ScheduleFinding[] {
  const limits = entries(site.pointsOfConnection).filter(([, p]) => p.most_Lmin !== null)
  if (limits.length === 0) return []
  const stations = stationsInOrder(site, controller).map(([, s]) => s)
  const wanted = (of: StationOn, point: PointOfConnectionId): number =>
    stations.reduce((sum, s) => (stationKey(s) === stationKey(of) ? sum + takenFrom(point, s) : sum), 0)
  const found = new Map<PointOfConnectionId, ScheduleFinding>()
  for (const moment of momentsOf(ran.runs, stationKey)) {
    for (const [id, point] of limits) {
      if (found.has(id)) continue
      const on = [...moment.others, moment.starting].filter((s) => wanted(s, id) > 0)
      const flow_Lmin = on.reduce((sum, s) => sum + wanted(s, id), 0)
      if (flow_Lmin <= point.most_Lmin! + ROUNDING_Lmin) continue
      found.set(id, {
        code: 'over_flow',
        params: {
          stations: on.map((s) => stationTag(site, controller, s)).join(' + '),
          at: localText(clock, moment.at_s),
          point: point.name,
          flow: figure(site, flow_Lmin),
          most: figure(site, point.most_Lmin!),
          unit: flowUnit(site.settings.units.length),
        },
        about: { station: moment.starting, beside: on.length - 1 },
      })
    }
  }
  return [...found.values()]
}

const takenFrom = (point: PointOfConnectionId, station: Station): number =>
  station.pointOfConnection === point ? (station.flow_Lmin ?? 0) : 0
const figure = (site: Site, flow_Lmin: number): number =>
  Math.round(flowIn(flow_Lmin, site.settings.units.length) * 10) / 10
