import { defaults as defaultControls } from 'ol/control/defaults'
import ScaleLine from 'ol/control/ScaleLine'
import { boundingExtent } from 'ol/extent'
import Feature, { type FeatureLike } from 'ol/Feature'
import OlPoint from 'ol/geom/Point'
import VectorLayer from 'ol/layer/Vector'
import OlMap from 'ol/Map'
import { fromLonLat } from 'ol/proj'
import Cluster from 'ol/source/Cluster'
import VectorSource from 'ol/source/Vector'
import { Circle, Fill, Stroke, Style, Text } from 'ol/style'
import View from 'ol/View'
import 'ol/ol.css'
import type { MapColours } from './map-view'

/** A property where it lies; `ask`: what it asks for somebody with cannot wait, or can. */
export interface Spot {
  readonly id: string
  readonly name: string
  readonly latitude_deg: number
  readonly longitude_deg: number
  readonly ask: 'urgent' | 'some' | 'none'
}

/** Properties nearer to each other than this, px, are drawn as one. */
const APART_px = 44
/** Around what is shown, px. */
const MARGIN_px = 60
/** How long it takes to come nearer. */
const TURN_ms = 250

/** Properties where they lie: a mark each, those side by side as one with their number. No ground is drawn under it. */
export class OfficeMap {
  private readonly spots = new VectorSource<Feature<OlPoint>>()
  private readonly map: OlMap
  private chosen: readonly string[] = []

  constructor(
    target: HTMLElement,
    chose: (ids: readonly string[]) => void,
    private colours: MapColours,
    private readonly font: string,
  ) {
    const source = new Cluster({ source: this.spots, distance: APART_px, minDistance: APART_px / 2 })
    this.map = new OlMap({
      target,
      controls: defaultControls({ attribution: false, rotate: false }).extend([new ScaleLine({ minWidth: 80 })]),
      layers: [new VectorLayer({ source, style: (f) => this.styleOf(f) })],
      view: new View({ center: [0, 0], zoom: 3, maxZoom: 19 }),
    })
    this.map.on('singleclick', ({ pixel }) => {
      const [hit] = this.map.getFeaturesAtPixel(pixel, { hitTolerance: 8 })
      const members = hit ? this.membersOf(hit) : []
      chose(members.map((f) => f.get('id') as string))
      if (members.length > 1) this.fit(members, TURN_ms)
    })
    this.map.on('pointermove', ({ pixel, dragging }) => {
      if (!dragging) target.style.cursor = this.map.hasFeatureAtPixel(pixel) ? 'pointer' : ''
    })
  }

  show(spots: readonly Spot[]): void {
    this.spots.clear()
    this.spots.addFeatures(
      spots.map(
        ({ longitude_deg, latitude_deg, ...rest }) =>
          new Feature({ geometry: new OlPoint(fromLonLat([longitude_deg, latitude_deg])), ...rest }),
      ),
    )
  }
  /** Brings them into sight, all where nothing is said. */
  fit(features: readonly Feature<OlPoint>[] = this.spots.getFeatures(), duration = 0): void {
    const at = features.map((f) => f.getGeometry()!.getCoordinates())
    if (at.length === 0) return
    const padding = Array<number>(4).fill(MARGIN_px)
    this.map.getView().fit(boundingExtent(at), { padding, maxZoom: 15, duration })
  }
  choose(ids: readonly string[]): void {
    this.chosen = ids
    this.spots.changed()
  }
  recolour(colours: MapColours): void {
    this.colours = colours
    this.spots.changed()
  }
  dispose(): void {
    this.map.setTarget(undefined)
    this.map.dispose()
  }

  private membersOf(cluster: FeatureLike): Feature<OlPoint>[] {
    return cluster.get('features') as Feature<OlPoint>[]
  }
  private styleOf(cluster: FeatureLike): Style {
    const { ink, sheet, copper, brick, ochre, paper } = this.colours
    const members = this.membersOf(cluster)
    const asks = (how: Spot['ask']) => members.some((f) => f.get('ask') === how)
    const colour = asks('urgent') ? brick : asks('some') ? ochre : ink
    const isChosen = members.some((f) => this.chosen.includes(f.get('id') as string))
    const many = members.length > 1
    return new Style({
      image: new Circle({
        radius: many ? 16 : 9,
        fill: new Fill({ color: many ? colour : sheet }),
        stroke: new Stroke({ color: isChosen ? copper : colour, width: isChosen ? 5 : many ? 2 : 4 }),
      }),
      text: new Text({
        text: many ? String(members.length) : (members[0]!.get('name') as string),
        font: `700 14px ${this.font}`,
        fill: new Fill({ color: many ? paper : ink }),
        ...(many ? {} : { offsetY: -20, stroke: new Stroke({ color: paper, width: 4 }) }),
      }),
    })
  }
}
