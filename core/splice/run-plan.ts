import {
  addCore,
  bringCore,
  capLoose,
  commandsBetween,
  set,
  spareCore,
  tapCommon,
  withoutDcOnAc,
  type PlanRun,
  type Work,
} from '../plan'
import { refusal, refused, type Outcome } from '../refusal'
import {
  bounded,
  byTag,
  entries,
  getOrThrow,
  stopIndex,
  type CableId,
  type Command,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type StationId,
  isLaid,
} from '../site'
import { censusOf, type CoreUse } from './census'

/** Colours of cores in order where the property names none; a second round carries a white stripe. */
const USUAL_COLOURS = [
  'red',
  'yellow',
  'blue',
  'green',
  'brown',
  'violet',
  'grey',
  'pink',
  'orange',
  'black',
  'turquoise',
] as const
/** Where the common is split over two cores, the other school's colour marks the second. */
const SECOND_COMMON = ['black', 'white'] as const
/** Numbers of cores that jackets are commonly made with. */
const USUAL_JACKETS = [2, 3, 5, 7, 9, 11, 13, 16, 19, 25] as const

/** What the run has to carry. */
export interface RunNeeds {
  readonly stations: number
  readonly masters: number
  readonly commons: number
  readonly spares: number
  readonly cores: number
}
export interface PlannedCore {
  readonly core: CoreId
  readonly use: CoreUse
  readonly terminal: string | null
  readonly colour: string | null
  /** The colour that the order gives it; its own where it is seen, pinned or in the ground. */
  readonly planned: string
  readonly kept: boolean
  /** Boxes where it is cut, and those that it passes uncut on its way to its last. */
  readonly cutAt: readonly PlaceId[]
  readonly through: readonly PlaceId[]
}
/** A valve in a box of the run that no wire reaches yet. */
export interface Unwired {
  readonly station: StationId
  readonly device: DeviceId
  readonly place: PlaceId
  readonly core: CoreId | null
}
export interface RunPlan {
  readonly run: PlanRun
  readonly laid: boolean
  readonly needs: RunNeeds
  readonly has: number
  /** The smallest usual jacket that holds what is needed; null where none does. */
  readonly jacket: number | null
  readonly advised: {
    readonly kind: 'multicore' | 'single'
    readonly because: 'short_and_few' | 'far' | 'many' | 'no_jacket'
    readonly farthest_m: number
  }
  readonly cores: readonly PlannedCore[]
  readonly unwired: readonly Unwired[]
}

/** Colours for cores in order, the common's left out, as many as are asked for. */
export function coloursInOrder(site: Site, count: number): string[] {
  const { colours } = site.settings.wiring
  const base = (colours.length > 0 ? colours : USUAL_COLOURS).filter(
    (c) => c.toLowerCase() !== site.settings.commonColour.toLowerCase(),
  )
  return Array.from({ length: count }, (_, i) => {
    const [round, at] = [Math.floor(i / base.length), i % base.length]
    return round === 0 ? base[at]! : round === 1 ? `${base[at]!}/white` : `${base[at]!} ${round + 1}`
  })
}

/**
 * What a run needs and what each of its cores does. Cores: one a station and master, the common, and spares for growth
 * (the property's least, or its share of the stations if that is more). Which cable: a jacket for short runs of few
 * stations, single conductors for long or large ones; the figures are the property's.
 */
export function planRun(site: Site, run: PlanRun): RunPlan {
  const cable = getOrThrow(site.cables, run.cable)
  const laid = isLaid(cable)
  const { sparesLeast, spares_ratio, multicoreFarthest_m, multicoreMost, jackets } = site.settings.wiring
  const places = new Set<PlaceId>(cable.stops.slice(1).map((s) => s.place))
  const masters = Object.values(site.pointsOfConnection).filter(
    (p) =>
      p.terminal?.controller === run.controller &&
      p.masterValve !== null &&
      places.has(getOrThrow(site.devices, p.masterValve).place),
  )
  const leads = stationsOn(site, run, places)
  const commons =
    cable.kind === 'multicore' ? Math.max(1, coresOf(site, run).filter((c) => c.use === 'common').length) : 1
  const spares = leads.length === 0 ? 0 : Math.max(sparesLeast, Math.ceil(spares_ratio * leads.length - 1e-9))
  const needs = {
    stations: leads.length,
    masters: masters.length,
    commons,
    spares,
    cores: leads.length + masters.length + commons + spares,
  }
  const farthest_m = Math.max(0, ...cable.stops.map((s) => bounded(s.at_m)?.value ?? 0))
  const jacket =
    [...(jackets.length > 0 ? jackets : USUAL_JACKETS)].sort((a, b) => a - b).find((n) => n >= needs.cores) ?? null
  const because =
    farthest_m > multicoreFarthest_m
      ? 'far'
      : leads.length > multicoreMost
        ? 'many'
        : jacket === null
          ? 'no_jacket'
          : 'short_and_few'
  return {
    run,
    laid,
    needs,
    has: Object.keys(cable.cores).length,
    jacket,
    advised: { kind: because === 'short_and_few' ? 'multicore' : 'single', because, farthest_m },
    cores: cable.kind === 'multicore' ? coresOf(site, run) : [],
    unwired: unwiredOn(site, run, leads),
  }
}

/** Stations of the controller whose valve stands at a box of the run and at none of a run before it. */
function stationsOn(site: Site, run: PlanRun, places: ReadonlySet<PlaceId>): [StationId, DeviceId][] {
  const leadCable = new Map<DeviceId, CableId>()
  for (const { ends } of Object.values(site.splices))
    for (const e of ends)
      if (e.kind === 'port')
        for (const c of ends) if (c.kind === 'core') leadCable.set(e.device, leadCable.get(e.device) ?? c.cable)
  return entries(site.stations)
    .filter(([, s]) => s.controller === run.controller)
    .flatMap(([id, s]): [StationId, DeviceId][] => {
      const valve = s.valves.find((v) => places.has(getOrThrow(site.devices, v).place))
      if (valve === undefined) return []
      const by = leadCable.get(valve)
      return by === undefined || by === run.cable || getOrThrow(site.cables, by).kind !== 'multicore'
        ? [[id, valve]]
        : []
    })
}

function coresOf(site: Site, run: PlanRun): PlannedCore[] {
  const cable = getOrThrow(site.cables, run.cable)
  const laid = isLaid(cable)
  const home = censusOf(site, cable.stops[0]!.place).filter((c) => c.cable === run.cable)
  const keeps = (c: (typeof home)[number]) =>
    laid || getOrThrow(cable.cores, c.core).colour?.how === 'seen' || getOrThrow(cable.cores, c.core).pinned !== null
  const rank = (c: (typeof home)[number]) => ({ common: 0, in_use: 1, spare: 2, unknown: 3 })[c.use]
  const ordered = [...home].sort(
    (a, b) =>
      rank(a) - rank(b) ||
      byTag(numbered(site, run.controller, a.terminal), numbered(site, run.controller, b.terminal)),
  )
  const taken = new Set(ordered.filter(keeps).map((c) => c.colour?.toLowerCase()))
  const { commonColour } = site.settings
  const order = [
    ...ordered
      .filter((c) => c.use === 'common')
      .map((_, i) => (i === 0 ? commonColour : SECOND_COMMON.find((c) => c !== commonColour.toLowerCase())!)),
    ...coloursInOrder(site, 2 * ordered.length + taken.size),
  ]
  const next = () => {
    const colour = order.find((c) => !taken.has(c.toLowerCase()))!
    taken.add(colour.toLowerCase())
    return colour
  }
  return ordered.map((c): PlannedCore => {
    const kept = keeps(c)
    const record = getOrThrow(cable.cores, c.core)
    const planned = kept ? (c.colour ?? '') : next()
    const inner = cable.stops.slice(1, -1)
    const lastCut =
      record.cutAt.length > 0 && c.use !== 'common'
        ? Math.max(...record.cutAt.map((id) => stopIndex(cable, id)))
        : cable.stops.length - 1
    return {
      core: c.core,
      use: c.use,
      terminal: c.terminal,
      colour: c.colour,
      planned,
      kept,
      cutAt: inner.filter((s) => record.cutAt.includes(s.id)).map((s) => s.place),
      through: inner.filter((s, i) => i + 1 < lastCut && !record.cutAt.includes(s.id)).map((s) => s.place),
    }
  })
}

/** The owner's numbering: terminals in the order of the door, the master before the stations. */
function numbered(site: Site, controller: ControllerId, terminal: string | null): string {
  const { terminals } = getOrThrow(site.controllers, controller)
  const found = Object.values(terminals).find((t) => terminal?.endsWith(`:${t.tag}`))
  return String(found?.order ?? 99_999).padStart(5, '0')
}

function unwiredOn(site: Site, run: PlanRun, leads: readonly [StationId, DeviceId][]): Unwired[] {
  const joined = new Set(
    Object.values(site.splices).flatMap((s) =>
      s.connector === 'cap' ? [] : s.ends.flatMap((e) => (e.kind === 'port' ? [e.device] : [])),
    ),
  )
  return leads
    .filter(([, device]) => !joined.has(device))
    .map(([station, device]) => ({
      station,
      device,
      place: getOrThrow(site.devices, device).place,
      core: getOrThrow(site.cables, run.cable).kind === 'multicore' ? spareCore(site, run.cable, station) : null,
    }))
}

/**
 * The commands that bring a planned jacket to its plan: cores for the spares that are needed, every free core its
 * colour in order, pinned cores to the station they are kept for, every loose end capped. A jacket in the ground is
 * left as it is, but for caps on spares.
 */
export function runPlanCommands(site: Site, run: PlanRun): Command[] {
  const work: Work = { site }
  if (getOrThrow(site.cables, run.cable).kind === 'multicore' && !isLaid(getOrThrow(site.cables, run.cable))) {
    for (const [core, { pinned }] of entries(getOrThrow(site.cables, run.cable).cores))
      if (pinned?.use === 'station' && site.stations[pinned.station]) giveTo(work, run, core, pinned.station)
    const spares = () =>
      censusOf(work.site, getOrThrow(work.site.cables, run.cable).stops[0]!.place).filter(
        (c) => c.cable === run.cable && c.terminal === null,
      ).length
    for (let missing = planRun(work.site, run).needs.spares - spares(); missing > 0; missing--)
      addCore(work, run.cable, null)
    capLoose(work, run.cable)
    const { cores } = getOrThrow(work.site.cables, run.cable)
    const planned = new Map(planRun(work.site, run).cores.map((c, order) => [c.core, { colour: c.planned, order }]))
    set(
      work,
      'cables',
      run.cable,
      'cores',
      Object.fromEntries(
        entries(cores).map(([id, core]) => {
          const to = planned.get(id)!
          return [
            id,
            {
              ...core,
              order: to.order,
              colour: core.colour?.value === to.colour ? core.colour : { value: to.colour, how: 'assumed', on: null },
            },
          ]
        }),
      ),
    )
  } else capLoose(work, run.cable)
  return commandsBetween(site, work.site)
}

/** Exchanges the whole way of two cores of a jacket, so that a pinned core serves the station it is kept for. */
function giveTo(work: Work, run: PlanRun, core: CoreId, station: StationId): void {
  const { site } = work
  const { terminal } = getOrThrow(site.stations, station)
  const controller = getOrThrow(site.controllers, run.controller)
  const tag = `${controller.tag}:${getOrThrow(controller.terminals, terminal).tag}`
  const home = censusOf(site, getOrThrow(site.cables, run.cable).stops[0]!.place).find(
    (c) => c.cable === run.cable && c.terminal === tag && c.use === 'in_use',
  )
  if (!home || home.core === core) return
  const { cores, stops } = getOrThrow(site.cables, run.cable)
  const [mine, theirs] = [getOrThrow(cores, core), getOrThrow(cores, home.core)]
  const swapped = new Map([
    [core, home.core],
    [home.core, core],
  ])
  // The joints first lose nothing: an end of one core stands for the same end of the other, cuts go along.
  set(work, 'cables', run.cable, 'cores', {
    ...cores,
    [core]: { ...mine, cutAt: theirs.cutAt },
    [home.core]: { ...theirs, cutAt: mine.cutAt },
  })
  for (const [id, splice] of entries(site.splices)) {
    const ends = splice.ends.map((e) =>
      e.kind === 'core' && e.cable === run.cable && swapped.has(e.core) && stops.some((s) => s.id === e.stop)
        ? { ...e, core: swapped.get(e.core)! }
        : e,
    )
    if (ends.some((e, i) => e !== splice.ends[i])) set(work, 'splices', id, 'ends', ends)
  }
}

/** The commands that pin a core to a station, as common or as spare, or let it go. */
export function pinCommands(
  site: Site,
  cable: CableId,
  core: CoreId,
  pinned: { use: 'common' } | { use: 'spare' } | { use: 'station'; station: StationId } | null,
): Command[] {
  const { cores } = getOrThrow(site.cables, cable)
  return [
    {
      do: 'set',
      in: 'cables',
      id: cable,
      field: 'cores',
      value: { ...cores, [core]: { ...getOrThrow(cores, core), pinned } },
    },
  ]
}

/** The commands that take the next free core to a valve that no wire reaches; cap and tap as in any box. */
export function wireCommands(site: Site, run: PlanRun, unwired: Unwired): Outcome<Command[]> {
  const work: Work = { site }
  if (unwired.core === null)
    return refused(
      refusal('no_core_left', ['cables', run.cable], {
        cable: getOrThrow(site.cables, run.cable).tag ?? run.cable,
        valve: getOrThrow(site.devices, unwired.device).tag ?? unwired.device,
      }),
    )
  bringCore(work, run, unwired.core, getOrThrow(site.stations, unwired.station).terminal, unwired.device, unwired.place)
  tapCommon(work, run, unwired.place, unwired.device)
  capLoose(work, run.cable)
  return withoutDcOnAc(site, work.site)
}
