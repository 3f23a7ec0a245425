import Feature, { type FeatureLike } from 'ol/Feature'
import CircleShape from 'ol/geom/Circle'
import LineString from 'ol/geom/LineString'
import MultiPolygon from 'ol/geom/MultiPolygon'
import OlPoint from 'ol/geom/Point'
import { Circle, Fill, RegularShape, Stroke, Style, type Text } from 'ol/style'
import type { Point } from '../../core/site'
import type { MapColours } from './map-view'

/** What is laid over the property: by a trace, its line with how wide it may lie and where a box may be. */
export interface MapOverlay {
  readonly line?: readonly { readonly at: Point; readonly within_m: number }[]
  readonly spots: readonly {
    readonly at: Point
    readonly kind: 'flag' | 'find' | 'miss' | 'hit' | 'here' | 'next' | 'site' | 'wanted' | 'rod'
    readonly label: string
  }[]
  readonly area?: { readonly cell_m: number; readonly half: readonly Point[]; readonly most: readonly Point[] } | null
  /** Parts of cables that are served by something. */
  readonly reach?: readonly (readonly Point[])[]
  /** What keeps clear of a spot by so many metres. */
  readonly clear?: readonly { readonly at: Point; readonly radius_m: number }[]
}

export const coordinate = ({ x_m, y_m }: Point) => [x_m, y_m]

/** An overlay as features of the map. */
export function overlayFeatures({ line = [], spots, area, reach = [], clear = [] }: MapOverlay): Feature[] {
  const square = ({ x_m, y_m }: Point, half_m: number) => [
    [
      [x_m - half_m, y_m - half_m],
      [x_m + half_m, y_m - half_m],
      [x_m + half_m, y_m + half_m],
      [x_m - half_m, y_m + half_m],
      [x_m - half_m, y_m - half_m],
    ],
  ]
  const held = (['most', 'half'] as const).flatMap((part) =>
    area
      ? [
          new Feature({
            geometry: new MultiPolygon(area[part].map((at) => square(at, area.cell_m / 2))),
            held: part,
          }),
        ]
      : [],
  )
  const lengths = line.slice(1).map((b, i) => {
    const a = line[i]!
    const geometry = new LineString([coordinate(a.at), coordinate(b.at)])
    return new Feature({ geometry, within_m: Math.max(a.within_m, b.within_m) })
  })
  return [
    ...held,
    ...reach.map((points) => new Feature({ geometry: new LineString(points.map(coordinate)), reach: true })),
    ...clear.map(
      ({ at, radius_m }) => new Feature({ geometry: new CircleShape(coordinate(at), radius_m), clear: true }),
    ),
    ...lengths,
    ...spots.map(({ at, kind, label }) => new Feature({ geometry: new OlPoint(coordinate(at)), spot: kind, label })),
  ]
}

/** How a feature of an overlay is drawn. `text` writes a label in a colour. */
export function overlayStyle(
  f: FeatureLike,
  resolution: number,
  { ink, sheet, copper, pine, ochre, brick, quiet }: MapColours,
  text: (label: string, colour: string) => Text,
): Style[] {
  const held = f.get('held') as 'half' | 'most' | undefined
  if (held) return [new Style({ fill: new Fill({ color: held === 'half' ? `${ochre}66` : `${ochre}33` }) })]
  if (f.get('reach')) return [new Style({ stroke: new Stroke({ color: `${pine}55`, width: 12, lineCap: 'butt' }) })]
  if (f.get('clear')) return [new Style({ stroke: new Stroke({ color: quiet, width: 1.5, lineDash: [3, 4] }) })]
  const within_m = f.get('within_m') as number | undefined
  if (within_m !== undefined)
    return [
      new Style({ stroke: new Stroke({ color: `${copper}44`, width: Math.max(6, (2 * within_m) / resolution) }) }),
      new Style({ stroke: new Stroke({ color: copper, width: 3 }) }),
    ]
  const kind = f.get('spot') as MapOverlay['spots'][number]['kind']
  const colour = {
    flag: copper,
    find: pine,
    miss: quiet,
    hit: pine,
    here: ink,
    next: ochre,
    site: pine,
    wanted: brick,
    rod: ink,
  }[kind]
  // A ring about the box, whose own mark lies above.
  const isRing = kind === 'site' || kind === 'wanted'
  const stroke = new Stroke({ color: colour, width: isRing ? 4 : 2.5 })
  const fill = new Fill({ color: isRing ? 'transparent' : sheet })
  const shape =
    isRing || kind === 'find'
      ? { points: 4, radius: isRing ? 17 : 8, angle: Math.PI / 4 }
      : kind === 'flag' || kind === 'rod'
        ? { points: 3, radius: kind === 'rod' ? 6 : 9, ...(kind === 'rod' && { rotation: Math.PI }) }
        : { points: 4, radius: 8, radius2: 0, angle: kind === 'next' ? 0 : Math.PI / 4 }
  const image =
    kind === 'here' || kind === 'hit'
      ? new Circle({ radius: kind === 'hit' ? 9 : 6, fill: new Fill({ color: colour }), stroke })
      : new RegularShape({ ...shape, fill, stroke })
  const label = f.get('label') as string
  return [new Style({ image, ...(label === '' ? {} : { text: text(label, colour) }) })]
}
