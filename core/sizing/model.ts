import { sourceResistance_ohm, unloaded_V, UNKNOWN_TRANSFORMER_VA, type Powered } from '../circuit'
import { getOrThrow, terminalEnd, type ControllerId, type DeviceId, type Site } from '../site'
import type { Demand } from './cheapest'
import type { Grouped } from './groups'
import { loadOf, plantsOf, worstPowered, type Load, type Plant, type Start } from './load'
import { loadsAt, type Moment } from './state'
import { waysOf, type Way } from './ways'

/**
 * A coil that must have its volts, in a part it plays: starting, coming on with a station, or running while another
 * starts.
 */
export interface Watch {
  readonly plant: Plant
  readonly start: Start | null
  readonly load: Load
  readonly part: 'starting' | 'master' | 'holding'
  readonly way: Way
}

/** What one watched coil has at its worst moment by the model. */
export interface Violation {
  readonly watch: Watch
  readonly moment: Moment
  readonly margin_V: number
  readonly volt_V: number
}

/**
 * Every coil a constant current at its sheet's inrush or holding amperes, drops added in magnitude. The worst moment
 * of a watched coil is exact for given sizes: what others add is a sum, so the worst others are those that add most.
 */
export class Model {
  readonly plants: readonly Plant[]
  readonly watches: readonly Watch[]
  /** Stations whose coils no complete way leads to. */
  readonly unwired: readonly Start[]
  private readonly ways = new Map<DeviceId, Way>()
  private readonly held = new Map<Start, readonly Load[]>()
  private readonly together: number

  constructor(
    readonly site: Site,
    readonly powered: Powered = worstPowered(site),
  ) {
    this.together = site.settings.sizing.together
    const wayOf = waysOf(powered)
    const unwired: Start[] = []
    this.plants = plantsOf(site).map((plant) => ({
      ...plant,
      starts: plant.starts.filter((start) => {
        const wired = start.starting.every((l) =>
          this.keep(l.device, wayOf(plant.controller, start.at.terminal, l.device)),
        )
        for (const at of mastersTerminals(site, start))
          for (const l of start.masters)
            if (!this.ways.has(l.device)) this.keep(l.device, wayOf(at.controller, at.terminal, l.device))
        if (!wired) unwired.push(start)
        return wired
      }),
    }))
    this.unwired = unwired
    this.watches = this.plants.flatMap((plant) => this.watchesOf(plant))
  }

  private keep(device: DeviceId, way: Way | null): boolean {
    if (way) this.ways.set(device, way)
    return way !== null
  }

  private watchesOf(plant: Plant): Watch[] {
    const watch = (load: Load, part: Watch['part'], start: Start | null): Watch[] =>
      this.ways.has(load.device) ? [{ plant, start, load, part, way: this.ways.get(load.device)! }] : []
    const masters = new Map(plant.starts.flatMap((s) => s.masters.map((l) => [`${l.device} ${l.face}`, l] as const)))
    return [
      ...plant.starts.flatMap((s) => s.starting.flatMap((l) => watch(l, 'starting', s))),
      ...[...masters.values()].flatMap((l) => watch(l, 'master', null)),
      ...(this.together > 1 ? plant.starts.flatMap((s) => this.holding(s).flatMap((l) => watch(l, 'holding', s))) : []),
    ]
  }

  readonly holding = (start: Start): readonly Load[] => {
    if (!this.held.has(start))
      this.held.set(
        start,
        start.starting.map((l) => loadOf(this.site, l.device, 'holding')),
      )
    return this.held.get(start)!
  }

  source(controller: ControllerId): { open_V: number; source_ohm: number } {
    const rating = getOrThrow(this.site.controllers, controller).transformer?.rating_VA ?? UNKNOWN_TRANSFORMER_VA
    const open_V = unloaded_V(this.site, controller)
    const { mainsLow_ratio } = this.site.settings.sizing
    return { open_V: open_V * (1 - mainsLow_ratio), source_ohm: sourceResistance_ohm(open_V, rating) }
  }

  /** Every watched coil at its worst moment with these ohms of the elements. */
  findAll(ohm: Float64Array): Violation[] {
    const felt = new Float64Array(ohm.length)
    const found: Violation[] = []
    for (const watch of this.watches) {
      const { elements, shares } = watch.way
      for (let k = 0; k < elements.length; k++) felt[elements[k]!] = ohm[elements[k]!]! * shares[k]!
      const { source_ohm } = this.source(watch.plant.controller)
      const adds = (loads: readonly Load[]) =>
        loads.reduce((sum, l) => sum + l.current_A * (source_ohm + this.along(felt, l.device)), 0)
      found.push(this.judged(watch, this.worstMoment(watch, adds), adds))
      for (let k = 0; k < elements.length; k++) felt[elements[k]!] = 0
    }
    return found
  }

  private along(felt: Float64Array, device: DeviceId): number {
    const way = this.ways.get(device)
    if (!way) return 0
    let sum = 0
    for (let k = 0; k < way.elements.length; k++) sum += felt[way.elements[k]!]! * way.shares[k]!
    return sum
  }

  private worstMoment({ plant, part, start, load }: Watch, adds: (loads: readonly Load[]) => number): Moment {
    const most = (from: readonly Start[], count: number, value: (s: Start) => number) =>
      count <= 0
        ? []
        : from
            .map((s) => ({ s, v: value(s) }))
            .sort((a, b) => b.v - a.v)
            .slice(0, count)
            .map(({ s }) => s)
    const apart = (...taken: readonly Start[]) =>
      plant.starts.filter((s) => taken.every((t) => this.landingOf(t) !== this.landingOf(s)))
    if (part === 'starting')
      return { starter: start!, others: most(apart(start!), this.together - 1, (s) => adds(this.holding(s))) }
    const may =
      part === 'master' ? plant.starts.filter((s) => s.masters.some((l) => l.device === load.device)) : apart(start!)
    const starter = most(may, 1, (s) => adds(s.starting) + adds(s.masters))[0] ?? start!
    if (part === 'master')
      return { starter, others: most(apart(starter), this.together - 1, (s) => adds(this.holding(s))) }
    return {
      starter,
      others: [start!, ...most(apart(start!, starter), this.together - 2, (s) => adds(this.holding(s)))],
    }
  }

  /** Where a station's lead lands: terminals joined onto one lead, as before a sequencer, never run side by side. */
  private landingOf({ at }: Start): string {
    return this.powered.wiring.pointOf(terminalEnd(at.controller, at.terminal))
  }

  private judged(watch: Watch, moment: Moment, adds: (loads: readonly Load[]) => number): Violation {
    const { open_V, source_ohm } = this.source(watch.plant.controller)
    const loads = loadsAt(moment, this.holding)
    const total_A = loads.reduce((sum, l) => sum + l.current_A, 0)
    const volt_V = open_V - adds(loads)
    const terminal_V = open_V - source_ohm * total_A
    return { watch, moment, volt_V, margin_V: this.allowed_V(watch.load, terminal_V) - (terminal_V - volt_V) }
  }

  /** The most that may be lost between C and the coil, by the school in force. */
  allowed_V(load: Load, terminal_V: number): number {
    const { school, allowedDrop } = this.site.settings.sizing
    if (school !== 'allowed_drop') return terminal_V - load.minimum_V
    return allowedDrop.unit === 'V' ? allowedDrop.value : allowedDrop.value * terminal_V
  }

  /** The demand that a coil at a moment makes on the groups that may still be chosen. */
  demandOf({ watch, moment }: Violation, { groupOf, weight_m }: Grouped): Demand {
    const { open_V, source_ohm } = this.source(watch.plant.controller)
    const loads = loadsAt(moment, this.holding)
    const amps = new Map<number, number>()
    for (const l of loads) {
      const way = this.ways.get(l.device)
      way?.elements.forEach((e, k) => amps.set(e, (amps.get(e) ?? 0) + way.shares[k]! * l.current_A))
    }
    const terminal_V = open_V - source_ohm * loads.reduce((sum, l) => sum + l.current_A, 0)
    let limit_V = this.allowed_V(watch.load, terminal_V)
    const weights = new Map<number, number>()
    watch.way.elements.forEach((e, k) => {
      const felt = watch.way.shares[k]! * (amps.get(e) ?? 0)
      const group = groupOf[e]!
      if (group < 0) limit_V -= felt * this.powered.parts[e]!.z.re
      else weights.set(group, (weights.get(group) ?? 0) + felt * weight_m[e]!)
    })
    const key = [
      watch.load.device,
      watch.part,
      moment.starter.station,
      ...moment.others.map((o) => o.station).sort(),
    ].join(' ')
    return { key, weights, limit_V }
  }

  /**
   * Whether sizes change how currents divide: two ways home of unlike conductors. The model then holds only near the
   * sizes it was made with.
   */
  get looped(): boolean {
    return this.watches.some(({ way }) =>
      way.shares.some((s) => Math.abs(s) !== 1 && Math.abs(Math.abs(s) * Math.round(1 / Math.abs(s)) - 1) > 1e-6),
    )
  }
}

/** The master terminals that come on with a station. */
export function mastersTerminals(site: Site, start: Start) {
  const station = getOrThrow(site.stations, start.station)
  const at =
    station.pointOfConnection === null ? null : getOrThrow(site.pointsOfConnection, station.pointOfConnection).terminal
  return at ? [at] : []
}
