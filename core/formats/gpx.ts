import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import { legsOf, toLatLon, whereIs, type Drawn, type LatLon, type Origin } from '../map'
import { byTag, entries, type Point, type Site } from '../site'
import type { Carried } from './geojson'
import { withinLimit } from './drawn-limit'

/** A spot as attributes of a point in GPX. */
export const spotIn =
  (origin: Origin) =>
  (p: Point): { '@lat': string; '@lon': string } => {
    const { latitude_deg, longitude_deg } = toLatLon(origin, p)
    return { '@lat': latitude_deg.toFixed(8), '@lon': longitude_deg.toFixed(8) }
  }

/** A file of GPX 1.1 with these waypoints and tracks. */
export const gpxText = (name: string, waypoints: readonly object[], tracks: readonly object[]): string =>
  new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    indentBy: ' ',
    suppressEmptyNode: true,
  }).build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    gpx: {
      '@version': '1.1',
      '@creator': 'Field Thread',
      '@xmlns': 'http://www.topografix.com/GPX/1/1',
      metadata: { name },
      wpt: waypoints,
      trk: tracks,
    },
  }) as string

/**
 * Boxes as waypoints and cable routes as tracks in GPX 1.1, for a hand-held receiver. A waypoint has a name, a place
 * and words; everything else that a property knows has no room in the format and is counted.
 */
export function writeGpx(site: Site): Outcome<Carried<string>> {
  const { origin } = site.about
  if (origin === null) return refused(refusal('no_origin', ['about', 'origin']))
  const at = spotIn(origin)
  const placed = entries(site.places).sort(([, a], [, b]) => byTag(a.tag, b.tag))
  const waypoints = placed.flatMap(([, p]) => {
    const point = whereIs(p)
    return point ? [{ ...at(point), name: p.tag, ...(p.name === '' ? {} : { desc: p.name }), type: p.kind }] : []
  })
  const cables = entries(site.cables).filter(([, c]) => c.kind !== 'jumper')
  const drawn = cables.flatMap(([id, c]) => {
    const legs = legsOf(site, c)
    return legs.length === 0
      ? []
      : [
          {
            name: c.tag ?? id,
            ...(c.name === '' ? {} : { desc: c.name }),
            trkseg: legs.map((l) => ({ trkpt: l.points.map(at) })),
          },
        ]
  })
  const text = gpxText(site.about.name, waypoints, drawn)
  const left = [
    { code: 'unplaced', count: placed.length - waypoints.length },
    { code: 'undrawn', count: cables.length - drawn.length },
    { code: 'depths', count: placed.filter(([, p]) => p.depth_m !== null || p.lid !== '' || p.marker !== '').length },
    { code: 'strays', count: placed.filter(([, p]) => p.position !== null && p.foundAt !== null).length },
    { code: 'cores', count: cables.reduce((n, [, c]) => n + Object.keys(c.cores).length, 0) },
    { code: 'marks', count: cables.reduce((n, [, c]) => n + c.marks.length, 0) },
    { code: 'splices', count: Object.keys(site.splices).length },
    { code: 'devices', count: Object.keys(site.devices).length },
  ].filter((l) => l.count > 0)
  return accepted({ value: text, left })
}

/** A file with a document type could name entities of its own; no GPX needs one. */
const DOCTYPE = /<!DOCTYPE/i

/** Waypoints, routes and tracks of a GPX file under their names; a track's segments are lines of their own. */
export function readGpx(text: string): Outcome<Carried<Drawn>> {
  const valid = DOCTYPE.test(text) ? { err: { line: 1 } } : XMLValidator.validate(text)
  if (valid !== true) return refused(refusal('not_xml', [], { line: valid.err.line }))
  const root = child(parsed(text), 'gpx')
  if (root === undefined) return refused(refusal('not_gpx'))
  let bad = 0
  const position = (node: unknown): LatLon | null => {
    const { '@lat': lat, '@lon': lon } = (node ?? {}) as Record<string, unknown>
    const [latitude_deg, longitude_deg] = [Number(lat ?? NaN), Number(lon ?? NaN)]
    if (Math.abs(latitude_deg) <= 90 && Math.abs(longitude_deg) <= 180) return { latitude_deg, longitude_deg }
    bad++
    return null
  }
  const points = list(child(root, 'wpt')).flatMap((w) => {
    const at = position(w)
    return at ? [{ name: words(child(w, 'name')), at }] : []
  })
  const lineOf = (name: string, nodes: unknown[]) => {
    const at = nodes.map(position).filter((p) => p !== null)
    return at.length > 1 ? [{ name, at }] : []
  }
  const routes = list(child(root, 'rte')).flatMap((r) => lineOf(words(child(r, 'name')), list(child(r, 'rtept'))))
  const tracks = list(child(root, 'trk')).flatMap((k) =>
    list(child(k, 'trkseg')).flatMap((s) => lineOf(words(child(k, 'name')), list(child(s, 'trkpt')))),
  )
  const drawn = withinLimit({ points, lines: [...routes, ...tracks] })
  if (!drawn.ok) return drawn
  return accepted({
    value: drawn.value,
    left: bad > 0 ? [{ code: 'bad_points', count: bad }] : [],
  })
}

const list = (x: unknown): unknown[] => (x === undefined || x === '' ? [] : Array.isArray(x) ? x : [x])
const child = (x: unknown, name: string): unknown =>
  typeof x === 'object' && x !== null && Object.hasOwn(x, name) ? (x as Record<string, unknown>)[name] : undefined
const words = (x: unknown): string => (typeof x === 'string' ? x.trim() : '')

/** The elements as objects; undefined where the parser gives up on what its validator let pass. */
function parsed(text: string): unknown {
  try {
    return new XMLParser({
      ignoreAttributes: false,
      attributeNamePrefix: '@',
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: true,
    }).parse(text)
  } catch {
    return undefined
  }
}
