import * as z from 'zod'
import { accepted, parseWith, refusal, refused, type Outcome } from '../refusal'
import { legsOf, toLatLon, type Drawn } from '../map'
import { entries, type Cable, type Point, type Site } from '../site'
import { withinLimit } from './drawn-limit'
import { parseJson } from './site-file'

/** What a format had no room for, by a code that the edge puts into words. */
export interface Carried<T> {
  readonly value: T
  readonly left: readonly { readonly code: string; readonly count: number }[]
}

/** Degrees to a centimetre or better (RFC 7946 advises six decimals; a box wants one more). */
const degree = (x: number) => Math.round(x * 1e8) / 1e8

/**
 * The property's places and cable routes as GeoJSON (RFC 7946), every field of theirs in the properties of its feature.
 * A place without a position and a route that is not drawn go out with a null geometry.
 */
export function writeGeoJson(site: Site): Outcome<Carried<string>> {
  const { origin } = site.about
  if (origin === null) return refused(refusal('no_origin', ['about', 'origin']))
  const at = (p: Point) => {
    const { latitude_deg, longitude_deg } = toLatLon(origin, p)
    return [degree(longitude_deg), degree(latitude_deg)]
  }
  const places = entries(site.places).flatMap(([id, p]) => {
    const point = (p.foundAt ?? p.position)?.value
    const { position, foundAt, ...rest } = p
    return [
      {
        type: 'Feature',
        id,
        geometry: point ? { type: 'Point', coordinates: at(point) } : null,
        properties: {
          thing: 'place',
          ...rest,
          drawn: position && { ...position, value: at(position.value) },
          foundAt: foundAt && { ...foundAt, value: at(foundAt.value) },
        },
      },
    ]
  })
  const cables = entries(site.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .map(([id, c]) => ({
      type: 'Feature',
      id,
      geometry: lineGeometry(site, c, at),
      properties: {
        thing: 'cable',
        ...properties(c),
        bends: Object.fromEntries(entries(c.bends).map(([stop, bends]) => [stop, bends.map(at)])),
      },
    }))
  const left = [
    { code: 'splices', count: Object.keys(site.splices).length },
    { code: 'devices', count: Object.keys(site.devices).length },
    { code: 'stations', count: Object.keys(site.stations).length },
    { code: 'controllers', count: Object.keys(site.controllers).length },
    { code: 'underlays', count: Object.keys(site.underlays).length },
  ].filter((l) => l.count > 0)
  return accepted({
    value: `${JSON.stringify({ type: 'FeatureCollection', features: [...places, ...cables] }, null, 1)}\n`,
    left,
  })
}

const properties = ({ bends: _own, ...rest }: Cable) => rest

function lineGeometry(site: Site, cable: Cable, at: (p: Point) => number[]) {
  const legs = legsOf(site, cable)
  if (legs.length === 0) return null
  const whole = legs.length === cable.stops.length - 1
  const lines = whole ? [legs.flatMap((l, i) => (i === 0 ? l.points : l.points.slice(1)))] : legs.map((l) => l.points)
  return lines.length === 1
    ? { type: 'LineString', coordinates: lines[0]!.map(at) }
    : { type: 'MultiLineString', coordinates: lines.map((l) => l.map(at)) }
}

const lonLat = z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]).rest(z.number())
const geometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Point'), coordinates: lonLat }),
  z.object({ type: z.literal('MultiPoint'), coordinates: z.array(lonLat) }),
  z.object({ type: z.literal('LineString'), coordinates: z.array(lonLat).min(2) }),
  z.object({ type: z.literal('MultiLineString'), coordinates: z.array(z.array(lonLat).min(2)) }),
  z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(lonLat)) }),
  z.object({ type: z.literal('MultiPolygon'), coordinates: z.array(z.array(z.array(lonLat))) }),
])
const feature = z.object({
  type: z.literal('Feature'),
  geometry: geometry.nullable(),
  properties: z.record(z.string(), z.unknown()).nullish(),
})
const collection = z.object({ type: z.literal('FeatureCollection'), features: z.array(feature).max(20_000) })

/** Points and lines of a GeoJSON file under their names, in degrees; polygons are counted as left out. */
export function readGeoJson(text: string): Outcome<Carried<Drawn>> {
  const json = parseJson(text)
  if (!json.ok) return json
  const kind = (json.value as { type?: unknown } | null)?.type
  if (kind !== 'FeatureCollection' && kind !== 'Feature') return refused(refusal('not_geojson', ['type']))
  const parsed = parseWith(
    collection,
    kind === 'Feature' ? { type: 'FeatureCollection', features: [json.value] } : json.value,
  )
  if (!parsed.ok) return parsed
  const points: { name: string; at: [number, number] }[] = []
  const lines: { name: string; at: [number, number][] }[] = []
  let areas = 0
  for (const f of parsed.value.features) {
    const name = nameOf(f.properties ?? {})
    const flat = ([lon, lat]: readonly number[]): [number, number] => [lon!, lat!]
    if (f.geometry?.type === 'Point') points.push({ name, at: flat(f.geometry.coordinates) })
    else if (f.geometry?.type === 'MultiPoint')
      for (const c of f.geometry.coordinates) points.push({ name, at: flat(c) })
    else if (f.geometry?.type === 'LineString') lines.push({ name, at: f.geometry.coordinates.map(flat) })
    else if (f.geometry?.type === 'MultiLineString')
      for (const l of f.geometry.coordinates) lines.push({ name, at: l.map(flat) })
    else if (f.geometry) areas++
  }
  const turned = (at: [number, number]) => ({ longitude_deg: at[0], latitude_deg: at[1] })
  const drawn = withinLimit({
    points: points.map((p) => ({ name: p.name, at: turned(p.at) })),
    lines: lines.map((l) => ({ name: l.name, at: l.at.map(turned) })),
  })
  if (!drawn.ok) return drawn
  return accepted({
    value: drawn.value,
    left: areas > 0 ? [{ code: 'areas', count: areas }] : [],
  })
}

const nameOf = (properties: Record<string, unknown>): string => {
  for (const key of ['tag', 'name', 'title', 'label'])
    if (typeof properties[key] === 'string' && properties[key] !== '') return properties[key]
  return ''
}
