import {
  commonOf,
  gaugeOfText,
  lookUp,
  getOrThrow,
  placeDistances_m,
  routeTo,
  walkFrom,
  type ControllerId,
  type DeviceId,
  type Link,
  type PlaceId,
  type Run,
  type Site,
  type SpliceId,
  type TerminalId,
  type Walk,
  type Wiring,
} from '../site'

/** A stretch of one colour on a strip, in metres of conductor from the controller. */
export interface StripRun {
  readonly from_m: number
  readonly to_m: number
  readonly from: PlaceId
  readonly to: PlaceId
  readonly colour: string | null
  readonly gauge: string | null
  readonly broken: boolean
  readonly link: Extract<Link, { kind: 'stretch' }>
}

/** A box on a strip: passed uncut (`notch`) or joined there (`knot`). */
export interface StripMark {
  readonly at_m: number
  readonly place: PlaceId
  readonly kind: 'notch' | 'knot'
}

/** A station's way from its terminal to its coils, ready to be drawn as one line. */
export interface Strip {
  readonly terminal: TerminalId
  readonly runs: readonly StripRun[]
  readonly marks: readonly StripMark[]
  /** Joints that the way passes through. */
  readonly joints: readonly { readonly splice: SpliceId; readonly at_m: number }[]
  readonly coils: readonly { readonly device: DeviceId; readonly at_m: number; readonly place: PlaceId }[]
  readonly length_m: number
}

/** Threads that come home along one run of common, with the boxes on it by distance. */
export interface Section {
  readonly key: string
  readonly name: string
  readonly boxes: readonly { readonly place: PlaceId; readonly tag: string; readonly at_m: number }[]
  readonly strips: readonly Strip[]
  readonly common: Strip | null
}

/** The threads of a controller, grouped by the cable of the common they come home on; within a group as on the door. */
export function sectionsOf(
  site: Site,
  wiring: Wiring,
  controller: ControllerId,
  terminals: readonly TerminalId[],
  coilsOn: (terminal: TerminalId) => readonly DeviceId[],
): Section[] {
  const common = commonOf(site, controller)
  const home = common && walkFrom(site, wiring, controller, common)
  const groups = new Map<string, { strips: Strip[]; walks: Walk[]; homeward: Run[] }>()
  for (const terminal of terminals) {
    const walk = walkFrom(site, wiring, controller, terminal)
    // a relay sits in the cabinet
    const coils = coilsOn(terminal).filter((d) => getOrThrow(site.devices, d).kind === 'coil')
    const homeward = home ? coils.flatMap((device) => coilPoints(wiring, device).flatMap((p) => routeTo(home, p))) : []
    const key = firstCable(homeward) ?? firstCable(walk.runs) ?? ''
    const group = groups.get(key) ?? { strips: [], walks: [], homeward: [] }
    groups.set(key, group)
    group.strips.push(stripOf(site, wiring, walk, terminal, coils))
    group.walks.push(walk)
    group.homeward.push(...homeward)
  }
  const cabinet = getOrThrow(site.controllers, controller).place
  return [...groups].map(([key, { strips, homeward }]) => {
    const runs = [...new Set(homeward)]
    const reached = placeDistances_m([
      { runs },
      ...strips.map((s) => ({
        runs: s.runs.map((r) => ({ fromPlace: r.from, toPlace: r.to, from_m: r.from_m, to_m: r.to_m })),
      })),
    ])
    const boxes = [...reached]
      .filter(([place]) => place !== cabinet)
      .map(([place, at_m]) => ({ place, tag: getOrThrow(site.places, place).tag, at_m }))
      .sort((a, b) => a.at_m - b.at_m)
    return {
      key,
      name: nameOf(site, key),
      boxes,
      strips,
      common: common && runs.length > 0 ? { terminal: common, ...drawn(site, runs), coils: [] } : null,
    }
  })
}

const nameOf = (site: Site, cable: string) => {
  const record = lookUp(site.cables, cable)
  return record ? record.name || record.tag || cable : ''
}

const coilPoints = (wiring: Wiring, device: DeviceId) =>
  ['a', 'b'].map((port) => wiring.pointOf({ kind: 'port', device, port }))

function firstCable(runs: readonly Run[]): string | null {
  const first = runs.find((r) => r.link.kind === 'stretch')
  return first?.link.kind === 'stretch' ? first.link.cable : null
}

function stripOf(site: Site, wiring: Wiring, walk: Walk, terminal: TerminalId, devices: readonly DeviceId[]): Strip {
  const points = devices.map((device) => ({
    device,
    point: coilPoints(wiring, device).find((p) => walk.distance_m.has(p)),
  }))
  const coils = points.flatMap(({ device, point }) =>
    point === undefined
      ? []
      : [{ device, at_m: walk.distance_m.get(point)!, place: getOrThrow(site.devices, device).place }],
  )
  const routes = points.flatMap(({ point }) => (point === undefined ? [] : routeTo(walk, point)))
  return { terminal, ...drawn(site, coils.length > 0 ? [...new Set(routes)] : walk.runs), coils }
}

/**
 * Runs as coloured stretches, and a mark at every box: a knot where a joint is passed, a notch where it runs through.
 */
export function drawn(site: Site, route: readonly Run[]): Pick<Strip, 'runs' | 'marks' | 'joints' | 'length_m'> {
  const runs: StripRun[] = []
  const marks = new Map<string, StripMark>()
  const joints = new Map<SpliceId, number>()
  for (const run of route) {
    const { link, from_m, to_m } = run
    if (link.kind === 'stretch') {
      const cable = getOrThrow(site.cables, link.cable)
      const core = getOrThrow(cable.cores, link.core)
      runs.push({
        from_m,
        to_m,
        from: run.fromPlace,
        to: run.toPlace,
        colour: core.colour?.value ?? null,
        gauge: gaugeOfText(cable, core),
        broken: link.broken,
        link,
      })
      if (!marks.has(`${run.toPlace}`)) marks.set(run.toPlace, { at_m: to_m, place: run.toPlace, kind: 'notch' })
    } else if (link.kind === 'leg') {
      marks.set(run.toPlace, { at_m: to_m, place: run.toPlace, kind: 'knot' })
      joints.set(link.splice, to_m)
    }
  }
  return {
    runs,
    marks: [...marks.values()],
    joints: [...joints].map(([splice, at_m]) => ({ splice, at_m })),
    length_m: Math.max(0, ...route.map((r) => r.to_m)),
  }
}
