import { defaults as defaultControls } from 'ol/control/defaults'
import ScaleLine from 'ol/control/ScaleLine'
import Feature, { type FeatureLike } from 'ol/Feature'
import LineString from 'ol/geom/LineString'
import OlPoint from 'ol/geom/Point'
import Draw from 'ol/interaction/Draw'
import type Interaction from 'ol/interaction/Interaction'
import Modify from 'ol/interaction/Modify'
import Snap from 'ol/interaction/Snap'
import Translate from 'ol/interaction/Translate'
import Collection from 'ol/Collection'
import ImageLayer from 'ol/layer/Image'
import VectorLayer from 'ol/layer/Vector'
import OlMap from 'ol/Map'
import Projection from 'ol/proj/Projection'
import ImageCanvasSource from 'ol/source/ImageCanvas'
import VectorSource from 'ol/source/Vector'
import { Circle, Fill, RegularShape, Stroke, Style, Text } from 'ol/style'
import View from 'ol/View'
import 'ol/ol.css'
import { atPixel, legsOf, markLine, pixelAt, placementOf, whereIs, type Placement } from '../../core/map'
import { entries, type CableId, type PlaceId, type Point, type Site, type StopId, type Underlay } from '../../core/site'
import { coordinate, overlayFeatures, overlayStyle, type MapOverlay } from './map-overlay'

/** What the reader is doing on the map. */
export type MapMode = 'choose' | 'move' | 'place' | 'cable' | 'bend'
export type MapThing =
  { readonly kind: 'place'; readonly id: PlaceId } | { readonly kind: 'cable'; readonly id: CableId }
/** What happened on the map, in metres of the property. */
export interface MapEvents {
  chose(thing: MapThing | null): void
  clicked(at: Point): void
  moved(place: PlaceId, to: Point): void
  bent(cable: CableId, stop: StopId, bends: Point[]): void
  drew(line: Point[]): void
}
export interface MapColours {
  readonly ink: string
  readonly paper: string
  readonly sheet: string
  readonly quiet: string
  readonly copper: string
  readonly pine: string
  readonly ochre: string
  readonly brick: string
}

/** Words in lines of about so many letters. */
const folded = (text: string, most = 14): string =>
  text
    .split(' ')
    .reduce(
      (lines, word) => {
        const last = lines.at(-1)!
        return last === '' || last.length + word.length < most
          ? [...lines.slice(0, -1), `${last} ${word}`.trim()]
          : [...lines, word]
      },
      [''],
    )
    .join('\n')
const point = ([x_m, y_m]: number[]): Point => ({ x_m: x_m!, y_m: y_m! })

/**
 * The property on a plane of metres: OpenLayers behind our own words. The picture under it is drawn where its ties
 * say.
 */
export class PropertyMap {
  private readonly places = new VectorSource()
  private readonly cables = new VectorSource()
  private readonly notes = new VectorSource()
  private readonly over = new VectorSource()
  private readonly projection = new Projection({ code: 'property-metres', units: 'm' })
  private readonly map: OlMap
  private readonly scale = new ScaleLine({ minWidth: 80 })
  private interactions: Interaction[] = []
  private mode: MapMode = 'choose'
  private selected: MapThing | null = null
  private under: { picture: ImageBitmap; placement: Placement; opacity: number } | null = null
  private readonly picture: ImageCanvasSource
  private readonly pictureLayer: ImageLayer<ImageCanvasSource>

  constructor(
    target: HTMLElement,
    private readonly events: MapEvents,
    private colours: MapColours,
    private readonly font: string,
  ) {
    this.picture = new ImageCanvasSource({
      canvasFunction: (extent, resolution, ratio, size) => this.drawPicture(extent, ratio / resolution, size),
      projection: this.projection,
      ratio: 1,
    })
    this.pictureLayer = new ImageLayer({ source: this.picture })
    this.map = new OlMap({
      target,
      controls: defaultControls({ attribution: false, rotate: false }).extend([this.scale]),
      layers: [
        this.pictureLayer,
        new VectorLayer({ source: this.cables, style: (f) => this.cableStyle(f) }),
        new VectorLayer({ source: this.notes, style: (f) => this.noteStyle(f) }),
        new VectorLayer({
          source: this.over,
          style: (f, resolution) =>
            overlayStyle(f, resolution, this.colours, (label, colour) => this.text(label, colour, 14, -18)),
        }),
        new VectorLayer({ source: this.places, style: (f) => this.placeStyle(f), declutter: false }),
      ],
      view: new View({
        projection: this.projection,
        center: [0, 0],
        resolution: 0.5,
        minResolution: 0.005,
        maxResolution: 40,
      }),
    })
    this.map.on('singleclick', (event) => {
      if (this.mode === 'place') {
        this.events.clicked(point(event.coordinate))
        return
      }
      if (this.mode === 'choose' || this.mode === 'bend') this.events.chose(this.thingAt(event.pixel))
      if (this.mode === 'choose') this.events.clicked(point(event.coordinate))
    })
  }

  dispose(): void {
    this.map.setTarget(undefined)
  }

  /** Draws the site anew; what is chosen stays chosen. */
  show(site: Site, units: 'm' | 'ft'): void {
    this.scale.setUnits(units === 'm' ? 'metric' : 'imperial')
    for (const source of [this.places, this.cables, this.notes]) source.clear(true)
    for (const [id, cable] of entries(site.cables)) {
      if (cable.kind === 'jumper') continue
      for (const leg of legsOf(site, cable)) {
        const feature = new Feature({ geometry: new LineString(leg.points.map(coordinate)) })
        feature.setProperties({ cable: id, stop: leg.stop, label: cable.tag ?? '', laid: cable.kind })
        this.cables.addFeature(feature)
      }
      for (const mark of cable.marks) {
        const part = markLine(site, cable, mark)
        if (part.length > 1)
          this.notes.addFeature(
            new Feature({ geometry: new LineString(part.map(coordinate)), mark: mark.kind, label: mark.note }),
          )
      }
    }
    for (const [id, place] of entries(site.places)) {
      const at = whereIs(place)
      if (!at) continue
      this.places.addFeature(
        new Feature({
          geometry: new OlPoint(coordinate(at)),
          place: id,
          label: place.tag,
          kind: place.kind,
          found: place.found,
        }),
      )
      if (place.position && place.foundAt)
        this.notes.addFeature(
          new Feature({
            geometry: new LineString([coordinate(place.position.value), coordinate(place.foundAt.value)]),
            mark: 'stray',
            label: '',
          }),
        )
    }
    this.setMode(this.mode)
  }

  /** Lays something over the property, or takes it off. */
  showOverlay(overlay: MapOverlay | null): void {
    this.over.clear(true)
    if (overlay) this.over.addFeatures(overlayFeatures(overlay))
  }

  /** Brings what is laid over into view. */
  fitOverlay(): void {
    const extent = this.over.getExtent()
    if (extent?.every(Number.isFinite))
      this.map.getView().fit(extent, { padding: [56, 56, 56, 56], minResolution: 0.02, maxZoom: 26 })
  }

  choose(thing: MapThing | null): void {
    this.selected = thing
    this.places.changed()
    this.cables.changed()
  }

  recolour(colours: MapColours): void {
    this.colours = colours
    for (const s of [this.places, this.cables, this.notes, this.over]) s.changed()
  }

  /** All in view, the picture too. */
  fit(): void {
    const extents = [this.places, this.cables].map((s) => s.getExtent()).filter((e) => e?.every(Number.isFinite))
    if (this.under) {
      const { picture, placement } = this.under
      const corners = [
        [0, 0],
        [picture.width, 0],
        [0, picture.height],
        [picture.width, picture.height],
      ].map(([px, py]) => atPixel(placement, px!, py!))
      extents.push([
        Math.min(...corners.map((c) => c.x_m)),
        Math.min(...corners.map((c) => c.y_m)),
        Math.max(...corners.map((c) => c.x_m)),
        Math.max(...corners.map((c) => c.y_m)),
      ])
    }
    if (extents.length === 0) return
    const all = extents.reduce((a, b) => [
      Math.min(a![0]!, b![0]!),
      Math.min(a![1]!, b![1]!),
      Math.max(a![2]!, b![2]!),
      Math.max(a![3]!, b![3]!),
    ])!
    this.map.getView().fit(all, { padding: [48, 96, 48, 72], maxZoom: 24, minResolution: 0.02 })
  }

  centre(at: Point): void {
    this.map.getView().setCenter(coordinate(at))
  }

  setPicture(picture: ImageBitmap | null, underlay: Underlay | null): void {
    this.under = picture && underlay ? { picture, placement: placementOf(underlay), opacity: underlay.opacity } : null
    this.pictureLayer.setOpacity(this.under?.opacity ?? 1)
    this.picture.changed()
  }

  /** The pixel of the picture under a spot; null where there is none. */
  pictureSpot(at: Point): { px: number; py: number } | null {
    if (!this.under) return null
    const { px, py } = pixelAt(this.under.placement, at)
    return px >= 0 && py >= 0 && px <= this.under.picture.width && py <= this.under.picture.height
      ? { px: Math.round(px), py: Math.round(py) }
      : null
  }

  setMode(mode: MapMode): void {
    this.mode = mode
    for (const i of this.interactions) this.map.removeInteraction(i)
    this.interactions = []
    const add = (i: Interaction) => {
      this.interactions.push(i)
      this.map.addInteraction(i)
    }
    if (mode === 'move') {
      const translate = new Translate({ filter: (f) => f.get('place') !== undefined, hitTolerance: 12 })
      translate.on('translateend', (e) => {
        const f = e.features.item(0)
        if (f) this.events.moved(f.get('place') as PlaceId, point((f.getGeometry() as OlPoint).getCoordinates()))
      })
      add(translate)
    } else if (mode === 'bend') {
      const own =
        this.selected?.kind === 'cable'
          ? this.cables.getFeatures().filter((f) => f.get('cable') === this.selected!.id)
          : this.cables.getFeatures()
      const modify = new Modify({ features: new Collection(own), pixelTolerance: 14 })
      modify.on('modifyend', (e) => {
        for (const f of e.features.getArray()) {
          const line = (f.getGeometry() as LineString).getCoordinates()
          this.events.bent(f.get('cable') as CableId, f.get('stop') as StopId, line.slice(1, -1).map(point))
        }
      })
      add(modify)
      add(new Snap({ source: this.places, pixelTolerance: 14 }))
    } else if (mode === 'cable') {
      const draw = new Draw({ type: 'LineString' })
      draw.on('drawend', (e) => this.events.drew((e.feature.getGeometry() as LineString).getCoordinates().map(point)))
      add(draw)
      add(new Snap({ source: this.places, pixelTolerance: 18 }))
      add(new Snap({ source: this.cables, pixelTolerance: 8 }))
    }
    const element = this.map.getTargetElement()
    if (element) element.style.cursor = mode === 'place' || mode === 'cable' ? 'crosshair' : ''
  }

  /** Ends a line that is being drawn, as the second click on its end would. */
  finish(): void {
    for (const i of this.interactions) if (i instanceof Draw) i.finishDrawing()
  }

  private thingAt(pixel: number[]): MapThing | null {
    const things = this.map.getFeaturesAtPixel(pixel, { hitTolerance: 10 })
    const place = things.find((f) => f.get('place') !== undefined)
    if (place) return { kind: 'place', id: place.get('place') as PlaceId }
    const cable = things.find((f) => f.get('cable') !== undefined)
    return cable ? { kind: 'cable', id: cable.get('cable') as CableId } : null
  }

  private drawPicture([x0, , , y1]: number[], s: number, [width, height]: number[]): HTMLCanvasElement {
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(width!)
    canvas.height = Math.round(height!)
    if (this.under) {
      const {
        placement: { a, b, c, d },
        picture,
      } = this.under
      const to = canvas.getContext('2d')!
      to.setTransform(s * a, -s * b, s * b, s * a, s * (c - x0!), s * (y1! - d))
      to.drawImage(picture, 0, 0)
    }
    return canvas
  }

  private text(label: string, colour: string, size: number, offsetY: number): Text {
    return new Text({
      text: label,
      font: `700 ${size}px ${this.font}`,
      fill: new Fill({ color: colour }),
      stroke: new Stroke({ color: this.colours.paper, width: 4 }),
      offsetY,
      overflow: true,
    })
  }

  private placeStyle(f: FeatureLike): Style[] {
    const { ink, sheet, copper, ochre } = this.colours
    const chosen = this.selected?.kind === 'place' && f.get('place') === this.selected.id
    const [kind, found] = [f.get('kind') as string, f.get('found') as string]
    const colour = chosen ? copper : found === 'lost' ? ochre : ink
    const stroke = new Stroke({
      color: colour,
      width: chosen ? 4 : 2.5,
      ...(found === 'found' ? {} : { lineDash: [4, 3] }),
    })
    const fill = new Fill({ color: kind === 'cabinet' ? colour : sheet })
    const image =
      kind === 'cabinet'
        ? new RegularShape({ points: 4, radius: 13, angle: Math.PI / 4, fill, stroke })
        : kind === 'junction_box'
          ? new RegularShape({ points: 3, radius: 11, fill, stroke })
          : new Circle({ radius: 9, fill, stroke })
    return [
      new Style({
        image,
        text: this.text(
          found === 'lost' ? `${f.get('label') as string} ?` : (f.get('label') as string),
          colour,
          15,
          -22,
        ),
      }),
    ]
  }

  private cableStyle(f: FeatureLike): Style[] {
    const { ink, copper, paper, quiet } = this.colours
    const chosen = this.selected?.kind === 'cable' && f.get('cable') === this.selected.id
    const multi = f.get('laid') === 'multicore'
    const styles = [
      new Style({
        stroke: new Stroke({ color: chosen ? copper : multi ? ink : quiet, width: chosen ? 6 : multi ? 4 : 2.5 }),
      }),
    ]
    if (multi) styles.push(new Style({ stroke: new Stroke({ color: paper, width: chosen ? 2 : 1.4 }) }))
    return styles
  }

  private noteStyle(f: FeatureLike): Style[] {
    const { ink, brick, quiet } = this.colours
    const kind = f.get('mark') as 'sleeve' | 'hazard' | 'stray'
    const [left, , right] = this.cables.getExtent() ?? []
    const [at] = (f.getGeometry() as LineString).getCoordinateAt(0.5)
    // Away from the middle of the property, where nothing else is written.
    const outward = at! > (left! + right!) / 2 ? 1 : -1
    if (kind === 'stray') return [new Style({ stroke: new Stroke({ color: quiet, width: 2, lineDash: [2, 4] }) })]
    return [
      new Style({
        stroke: new Stroke({ color: kind === 'sleeve' ? `${ink}66` : `${brick}66`, width: 14, lineCap: 'butt' }),
        text: new Text({
          text: folded(f.get('label') as string),
          font: `600 13px ${this.font}`,
          fill: new Fill({ color: kind === 'sleeve' ? ink : brick }),
          stroke: new Stroke({ color: this.colours.paper, width: 4 }),
          textAlign: outward < 0 ? 'right' : 'left',
          justify: 'left',
          offsetX: 14 * outward,
          offsetY: 16,
          overflow: true,
        }),
      }),
    ]
  }
}
