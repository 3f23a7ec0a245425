import type { Part } from '../core/record'
import { asFound, repairsFor, USUAL_FIGURES, type RepairOption } from '../core/repair'
import { sequencersOf } from '../core/sequencer'
import {
  applyBatch,
  entries,
  pathOf,
  wiringOf,
  type Command,
  type ControllerId,
  type DeviceId,
  type Site,
  type Station,
} from '../core/site'
import { chance, fieldOf, pathFieldOf } from '../standins'
import { randomSite } from './random-site'

const A = 'A' as ControllerId

/**
 * A made-up property with spares, free screws, modules and figures of water here and there, and something found bad.
 */
export function drawnDamage(seed: number): { site: Site; where: Part } {
  const random = chance(seed + 77)
  const often = (p: number) => random() < p
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const { site } = randomSite(seed)
  const controller = site.controllers[A]!
  const terminals = { ...controller.terminals } as Record<string, (typeof controller.terminals)[never]>
  if (often(0.5)) terminals.x1 = { tag: 'X1', role: 'station', label: '', order: 90 }
  const cables = Object.fromEntries(
    entries(site.cables).map(([id, cable]) => {
      const cores = { ...cable.cores } as Record<string, (typeof cable.cores)[never]>
      const state = pick(['sound', 'sound', 'suspect', 'open'] as const)
      if (cable.kind === 'multicore' && often(0.6))
        cores.spare = {
          ...Object.values(cable.cores)[0]!,
          colour: null,
          cutAt: [],
          order: 80,
          condition: { state, since: null, note: '' },
        }
      return [id, { ...cable, cores }]
    }),
  )
  const most_Lmin = pick([null, 60, 90])
  const point = { Supply: { name: 'Supply', most_Lmin } }
  const made: Site = {
    ...site,
    settings: { ...site.settings, sizing: { ...site.settings.sizing, mainsLow_ratio: 0.05 } },
    cables: cables as Site['cables'],
    controllers: {
      [A]: {
        ...controller,
        terminals,
        transformer: { rating_VA: pick([14, 20, 30, 40]), open_V: null },
        fixedStations: often(0.5) ? 2 : null,
        bays: often(0.5) ? [{ tag: 'M1', module: { kind: 'stations', stations: 4, label: '' } }] : [],
      },
    } as Site['controllers'],
    stations: Object.fromEntries(
      entries(site.stations).map(([id, s]) => [
        id,
        { ...s, pointOfConnection: 'Supply', withMaster: false, flow_Lmin: pick([null, 25, 40, 70]) },
      ]),
    ) as Site['stations'],
    pointsOfConnection: point as never as Site['pointsOfConnection'],
  }
  const whole = { ...made, pointsOfConnection: { Supply: { ...EMPTY_POINT, name: 'Supply', most_Lmin } } as never }
  return { site: whole, where: pick(partsOf(whole, random)) }
}
const EMPTY_POINT = {
  masterValve: null,
  pumpRelay: null,
  flowSensor: null,
  terminal: null,
  masterRest: 'closed',
  reached: { masterValve: 'direct', pumpRelay: 'direct', flowSensor: 'direct' },
}

/** One part of each kind. */
function partsOf(site: Site, random: () => number): Part[] {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const stretches = wiringOf(site).links.flatMap((l) => (l.kind === 'stretch' ? [l] : []))
  const used = new Set(
    entries(site.splices).flatMap(([, s]) =>
      s.ends.flatMap((e) => (e.kind === 'core' && s.connector !== 'cap' ? [`${e.cable} ${e.core}`] : [])),
    ),
  )
  const run = pick(stretches.filter((l) => used.has(`${l.cable} ${l.core}`)))
  const { stops, cores } = site.cables[run.cable]!
  const [from, to] = [stops[run.from]!.id, stops[run.to]!.id]
  const station = pick(Object.values(site.stations))
  const stretch = { cable: run.cable, core: run.core, from, to }
  const others = (Object.keys(cores) as (typeof run.core)[]).filter(
    (c) => c !== run.core && used.has(`${run.cable} ${c}`),
  )
  const joints = entries(site.splices).filter(([, s]) => s.connector !== 'cap')
  const next = pick(Object.values(site.stations).filter((s) => s.terminal !== station.terminal))
  return [
    { kind: 'run', ...stretch },
    { kind: 'run', ...stretch },
    ...(others.length > 0 ? [{ kind: 'touch' as const, ...stretch, other: pick(others) }] : []),
    { kind: 'joint', splice: pick(joints)[0] },
    { kind: 'coil', device: pick(station.valves) },
    { kind: 'terminal', controller: A, terminal: station.terminal },
    { kind: 'terminal', controller: A, terminal: station.terminal },
    { kind: 'thread', controller: A, terminal: station.terminal },
    { kind: 'supply', controller: A },
    { kind: 'pair', controller: A, one: station.terminal, two: next.terminal },
  ]
}

/** The valves that a property has water through when their screw is on, by a simulated one without any spread. */
export function watering(site: Site, dead: ReadonlySet<string> = new Set()): Set<DeviceId> {
  const own = sequencersOf(site, A)
  const sequenced = new Set(own.flatMap((q) => q.outputs.flat()))
  const sequencers = new Map(own.map((q) => [q.device, q.outputs.length - 1] as const))
  const field = fieldOf(site, [], { random: () => 0.5, ground_C: 20, spread: 0, sequencers })
  const found = new Set<DeviceId>()
  let at_s = 0
  for (const station of Object.values(site.stations)) {
    if (station.valves.length === 0 || dead.has(station.terminal)) continue
    if (station.address !== null) {
      for (const v of answering(site, station)) found.add(v)
      continue
    }
    // As many turns as the widest sequencer has outputs: each valve behind one has its own.
    for (let turn = 0; turn < 4; turn++) {
      const waters = field.running(A, [station.terminal], (at_s += 3600))
      field.running(A, [], (at_s += 60))
      for (const v of waters) if (station.valves.includes(v)) found.add(v)
      // Jumpered screws take turns at a sequencer: there another’s valve is none that runs where it should not.
      for (const v of waters) if (!station.valves.includes(v) && !sequenced.has(v)) found.delete(v)
    }
  }
  return found
}

/**
 * The valves of a station on the path that draw current of their own when its number is called, by a simulated path.
 */
function answering(site: Site, { address, valves }: Station): DeviceId[] {
  const path = pathOf(site, A)!
  const { answer } = pathFieldOf(site, path, null, 1)
  const added_A = Number(answer({ kind: 'added_amps', number: address! }))
  return added_A > 0.1 * valves.length ? [...valves] : []
}

export interface Judgement {
  readonly options: readonly RepairOption[]
  /** Options called possible after which a valve is dry that was not, by the simulated property. */
  readonly dryAfter: readonly string[]
  /** Commands of an option called possible that do not lead where they should. */
  readonly astray: readonly string[]
  /** As it was found, something is dry that was not before, or runs that should not. */
  readonly isHarmed: boolean
}

/** What is said of a damage, held against the simulated property with each repair done to it by its commands. */
export function judged(site: Site, where: Part): Judgement {
  const options = repairsFor(site, A, where, '2027-05-01', USUAL_FIGURES)
  const before = watering(site)
  const damage = asFound(site, where)
  const dryAfter: string[] = []
  const astray: string[] = []
  for (const o of options) {
    if (!o.possible) continue
    const after = applied(site, o.commands)
    if (after === null || JSON.stringify(sorted(after)) !== JSON.stringify(sorted(o.tried.after.site))) {
      astray.push(o.code)
      continue
    }
    // A screw that is still dead, and a supply that is, give nothing.
    const dead = new Set(o.tried.after.dead.map((d) => d.terminal))
    const wet = o.tried.after.noSupply === null ? watering(after, dead) : new Set<DeviceId>()
    const isDry = [...before].some((v) => !wet.has(v) && !o.tried.bypassed.includes(v))
    if (isDry) dryAfter.push(`${o.code} ${damage.dead.length}`)
  }
  const found =
    damage.noSupply === null ? watering(damage.site, new Set(damage.dead.map((d) => d.terminal))) : new Set()
  return { options, dryAfter, astray, isHarmed: [...before].some((v) => !found.has(v)) }
}

/** A site after commands; null where they are refused. */
export function applied(site: Site, commands: readonly Command[]): Site | null {
  const made = applyBatch(site, commands)
  return made.ok ? made.value.site : null
}
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value !== null && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, v]) => [k, sorted(v)]),
        )
      : value
