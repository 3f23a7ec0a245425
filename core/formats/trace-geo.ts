import { toLatLon } from '../map'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import type { Point, Site } from '../site'
import { gpxText, spotIn } from './gpx'

/** What of a trace lies somewhere: the line that was found, and spots with what they are. */
export interface TraceDrawn {
  readonly name: string
  readonly line: readonly Point[]
  readonly spots: readonly { readonly at: Point; readonly kind: string; readonly name: string; readonly note: string }[]
}

/** The line as a LineString and every spot as a Point, RFC 7946. Refused where the property has no place on earth. */
export function writeTraceGeoJson(site: Site, { name, line, spots }: TraceDrawn): Outcome<string> {
  const { origin } = site.about
  if (origin === null) return refused(refusal('no_origin', ['about', 'origin']))
  const at = (p: Point) => {
    const { latitude_deg, longitude_deg } = toLatLon(origin, p)
    return [Number(longitude_deg.toFixed(8)), Number(latitude_deg.toFixed(8))]
  }
  const features = [
    ...(line.length > 1
      ? [
          {
            type: 'Feature',
            properties: { name, kind: 'traced' },
            geometry: { type: 'LineString', coordinates: line.map(at) },
          },
        ]
      : []),
    ...spots.map((s) => ({
      type: 'Feature',
      properties: { name: s.name, kind: s.kind, note: s.note },
      geometry: { type: 'Point', coordinates: at(s.at) },
    })),
  ]
  return accepted(`${JSON.stringify({ type: 'FeatureCollection', features }, null, 1)}\n`)
}

/** The same as GPX 1.1: the line as a track, spots as waypoints. */
export function writeTraceGpx(site: Site, { name, line, spots }: TraceDrawn): Outcome<string> {
  const { origin } = site.about
  if (origin === null) return refused(refusal('no_origin', ['about', 'origin']))
  const at = spotIn(origin)
  const waypoints = spots.map((s) => ({ ...at(s.at), name: s.name, ...(s.note ? { desc: s.note } : {}), type: s.kind }))
  return accepted(gpxText(name, waypoints, line.length > 1 ? [{ name, trkseg: [{ trkpt: line.map(at) }] }] : []))
}
