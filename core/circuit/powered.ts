import {
  commonOf,
  outputsOf,
  pathsOf,
  portsOf,
  entries,
  lengthBetween_m,
  lookUp,
  getOrThrow,
  stopPositions_m,
  terminalEnd,
  wiringOf,
  type ControllerId,
  type DefectId,
  type DeviceId,
  type End,
  type Link,
  type Site,
  type TerminalId,
  type WirePoint,
  type Wiring,
} from '../site'
import { complex, inverse, type Complex } from './complex'
import { coilImpedance, type Face, type Frequency, type Phase } from './impedance'
import { LEAST_ohm, linkNominal_ohm, wire_ohmPerM, type Climate } from './network'

/** Volt-amperes taken for a transformer that is not on record. */
export const UNKNOWN_TRANSFORMER_VA = 30
/** The nominal secondary volts at which a transformer gives its rating. */
const NOMINAL_V = 24

/**
 * Under which circumstances a property is powered. `mains_ratio` scales the open volts; the source resistance stays.
 */
export interface Conditions {
  readonly climate: Climate
  readonly frequency_Hz: Frequency
  readonly phase: Phase
  readonly mains_ratio: number
  /** `nominal`: what wire has; `maximum`: the most that its standard allows and its record leaves open. */
  readonly wire: 'nominal' | 'maximum'
  /** The face of every coil that is not named: plunger out unless said otherwise. */
  readonly faces: ReadonlyMap<DeviceId, Face>
  /**
   * What decoders on two-wire paths are taken for; paths are not powered where nothing is said. `constant_current`:
   * what their sheet says, in phase with the source, which is the safe case; `constant_impedance`: what would draw that
   * at the path’s own volts.
   */
  readonly path?: 'constant_current' | 'constant_impedance'
  /** Which output of a sequencer has its turn, by its number; the first where not named. */
  readonly turns: ReadonlyMap<DeviceId, number>
  /**
   * Terminals that are live in every state asked of this network, as a master's is while its stations take their
   * turns.
   */
  readonly live?: readonly { readonly controller: ControllerId; readonly terminal: TerminalId }[]
}

/**
 * An element between two nodes: a part of the site, a transformer's inner resistance, a sequencer's contact, or a
 * terminal that is live throughout.
 */
export interface Part {
  readonly a: number
  readonly b: number
  readonly z: Complex
  readonly y: Complex
  readonly of:
    | Link
    | { readonly kind: 'source'; readonly controller: ControllerId }
    | { readonly kind: 'contact'; readonly device: DeviceId }
    | { readonly kind: 'decoder'; readonly device: DeviceId }
    | { readonly kind: 'path'; readonly controller: ControllerId; readonly terminal: TerminalId }
    | { readonly kind: 'shunt'; readonly defect: DefectId }
    | { readonly kind: 'live'; readonly controller: ControllerId; readonly terminal: TerminalId }
}
/** A current that leaves one node and comes back at another, whatever the volts between them. */
export interface Draw {
  readonly a: number
  readonly b: number
  readonly amps: Complex
}
export interface Source {
  readonly controller: ControllerId
  readonly feeds: 'terminals' | 'path'
  readonly common: number
  readonly hot: number
  readonly open_V: number
  readonly source_ohm: number
}

/** The whole property as one network with its sources, every terminal open that is not live throughout. */
export interface Powered {
  readonly site: Site
  readonly conditions: Conditions
  readonly nodeCount: number
  readonly parts: readonly Part[]
  readonly sources: readonly Source[]
  /** What waiting decoders draw. */
  readonly draws: readonly Draw[]
  readonly wiring: Wiring
  readonly nodeOf: ReadonlyMap<WirePoint, number>
  /** Names for people and decks: letters, digits and `_` in lower case, each once. */
  readonly names: readonly string[]
  readonly earth: number
}

/** Unloaded volts of a controller's transformer: as it was measured, else as the property's usually are. */
export const unloaded_V = (site: Site, controller: ControllerId): number =>
  getOrThrow(site.controllers, controller).transformer?.open_V ?? site.settings.V_open_V

/** The source resistance of a transformer with a nominal 24 V secondary, Ω: (V_open − 24) / (VA / 24), nominal. */
export const sourceResistance_ohm = (open_V: number, rating_VA: number): number =>
  (open_V - NOMINAL_V) / (rating_VA / NOMINAL_V)

/**
 * The site as recorded, powered. Broken parts are left out; nothing about intent is assumed. Where controllers are
 * joined, volts are against the common of the `first` one.
 */
export function poweredOf(site: Site, conditions: Conditions, first?: ControllerId): Powered {
  const wiring = wiringOf(site)
  const nodeOf = new Map<WirePoint, number>()
  const node = (point: WirePoint): number => {
    const known = nodeOf.get(point)
    if (known !== undefined) return known
    nodeOf.set(point, nodeOf.size)
    return nodeOf.size - 1
  }
  const earth = node('earth')
  const parts: Part[] = []
  const add = (a: number, b: number, z: Complex, of: Part['of']) => parts.push({ a, b, z, y: inverse(z), of })
  // Coils behind a decoder that draw what they draw are no impedance: a state that runs one draws it.
  const drawn = new Set(
    conditions.path === 'constant_current' ? outputsOf(site).flatMap((o) => o.coils) : ([] as readonly DeviceId[]),
  )
  for (const link of wiring.links) {
    const [a, b] = [node(link.a), node(link.b)]
    if (link.kind === 'coil' && drawn.has(link.device)) continue
    if (!link.broken) add(a, b, linkImpedance(site, link, conditions), link)
  }
  for (const { a, b, ohm, defect } of wiring.shunts)
    add(node(a), node(b), complex(Math.max(LEAST_ohm, ohm)), { kind: 'shunt', defect })
  const sources: Source[] = []
  for (const [controller, record] of entries(site.controllers).sort(
    ([a], [b]) => Number(b === first) - Number(a === first),
  )) {
    for (const terminal of Object.keys(record.terminals)) node(wiring.pointOf(terminalEnd(controller, terminal)))
    const common = commonOf(site, controller)
    if (common === null) continue
    const open_V = unloaded_V(site, controller)
    const source_ohm = sourceResistance_ohm(open_V, record.transformer?.rating_VA ?? UNKNOWN_TRANSFORMER_VA)
    const source: Source = {
      controller,
      feeds: 'terminals',
      common: node(wiring.pointOf(terminalEnd(controller, common))),
      hot: node(`hot ${controller}`),
      open_V: open_V * conditions.mains_ratio,
      source_ohm,
    }
    sources.push(source)
    add(source.hot, source.common, complex(source_ohm), { kind: 'source', controller })
    for (const t of conditions.live ?? [])
      if (t.controller === controller)
        add(node(wiring.pointOf(terminalEnd(controller, t.terminal))), source.hot, complex(LEAST_ohm), {
          kind: 'live',
          ...t,
        })
  }
  for (const [device, record] of entries(site.devices)) {
    if (record.kind !== 'sequencer') continue
    const port = (name: string) => node(wiring.pointOf({ kind: 'port', device, port: name } as End))
    add(port('in'), port(`out_${conditions.turns.get(device) ?? 1}`), complex(LEAST_ohm), { kind: 'contact', device })
  }
  const draws = conditions.path ? powerPaths(site, wiring, conditions, { node, add, sources }) : []
  let names: string[] | null = null
  // Worked out when they are first asked for: a hunt makes dozens of states and names none.
  return {
    site,
    conditions,
    nodeCount: nodeOf.size,
    parts,
    sources,
    draws,
    wiring,
    nodeOf,
    get names() {
      return (names ??= namesOf(site, nodeOf))
    },
    earth,
  }
}

/**
 * Adds the two-wire paths: a source each, the screws of every way out on it, and what the waiting decoders draw.
 * Paths whose system has no volts on record are left unpowered.
 * @returns the draws, where currents are constant
 */
function powerPaths(
  site: Site,
  wiring: Wiring,
  conditions: Conditions,
  { node, add, sources }: { node: (p: WirePoint) => number; add: AddPart; sources: Source[] },
): Draw[] {
  const draws: Draw[] = []
  for (const { controller, system, pairs, decoders } of pathsOf(site)) {
    if (system?.path_V == null) continue
    const source: Source = {
      controller,
      feeds: 'path',
      common: node(`path_return ${controller}`),
      hot: node(`path_hot ${controller}`),
      open_V: system.path_V * conditions.mains_ratio,
      source_ohm: Math.max(LEAST_ohm, system.source_ohm),
    }
    sources.push(source)
    add(source.hot, source.common, complex(source.source_ohm), { kind: 'source', controller })
    for (const pair of pairs)
      pair.forEach((terminal, side) =>
        add(
          node(wiring.pointOf(terminalEnd(controller, terminal))),
          side === 0 ? source.hot : source.common,
          complex(LEAST_ohm),
          { kind: 'path', controller, terminal },
        ),
      )
    const idle_A = system.idle_A ?? 0
    for (const { device, legs } of decoders) {
      for (const port of portsOf(site.devices[device]!)) node(wiring.pointOf({ kind: 'port', device, port }))
      if (legs === null || idle_A === 0 || site.devices[device]!.condition.state === 'open') continue
      const [a, b] = [node(legs[0]), node(legs[1])]
      if (conditions.path === 'constant_current') draws.push({ a, b, amps: complex(idle_A) })
      else add(a, b, complex(system.path_V / idle_A), { kind: 'decoder', device })
    }
  }
  return draws
}
type AddPart = (a: number, b: number, z: Complex, of: Part['of']) => unknown

/** Impedance of one link: wire by its length and size, half a sound joint per leg, a coil by its face. */
function linkImpedance(site: Site, link: Link, c: Conditions): Complex {
  if (link.kind === 'coil') {
    const device = getOrThrow(site.devices, link.device)
    const kind = device.coilKind === null ? null : getOrThrow(site.coilKinds, device.coilKind)
    return coilImpedance(kind, c.faces.get(link.device) ?? 'inrush', c.phase, c.frequency_Hz, c.climate.coil_C)
  }
  if (link.kind === 'leg' || c.wire === 'nominal')
    return complex(Math.max(LEAST_ohm, linkNominal_ohm(site, link, c.climate)))
  const length = lengthBetween_m(stopPositions_m(getOrThrow(site.cables, link.cable)), link.from, link.to)
  return complex(Math.max(LEAST_ohm, length.high * wire_ohmPerM(site, link, c.climate).high + link.more_ohm))
}

/** Points of the wiring by their tags, as `k1_red_b2_in`; a number is added where two would read alike. */
function namesOf(site: Site, nodeOf: ReadonlyMap<WirePoint, number>): string[] {
  const names: string[] = []
  const taken = new Set(['0'])
  for (const point of nodeOf.keys()) {
    const plain =
      spoken(site, point)
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '_')
        .replace(/^_+|_+$/g, '') || 'node'
    let name = plain
    for (let n = 2; taken.has(name); n++) name = `${plain}_${n}`
    taken.add(name)
    names.push(name)
  }
  return names
}

function spoken(site: Site, point: WirePoint): string {
  const [kind, first = '', second = '', third = '', side] = point.split(' ')
  switch (kind) {
    case 'path_hot':
    case 'path_return':
      return `${kind} ${lookUp(site.controllers, first)?.tag ?? first}`
    case 'terminal':
    case 'hot': {
      const controller = lookUp(site.controllers, first)
      return kind === 'hot'
        ? `hot ${controller?.tag ?? first}`
        : `terminal ${controller?.tag ?? first} ${controller && (lookUp(controller.terminals, second)?.tag ?? second)}`
    }
    case 'landing': {
      const end = lookUp(site.splices, first)?.ends.find((e) => e.kind === 'terminal')
      return end?.kind === 'terminal' ? spoken(site, `terminal ${end.controller} ${end.terminal}`) : point
    }
    case 'core': {
      const cable = lookUp(site.cables, first)
      const stop = cable?.stops.find((s) => s.id === third)
      const place = (stop && lookUp(site.places, stop.place)?.tag) ?? third
      const way = side === 'arrives' ? 'in' : side === 'leaves' ? 'out' : 'by'
      return `${cable?.tag ?? first} ${second} ${place} ${way}`
    }
    case 'port':
      return `${lookUp(site.devices, first)?.tag ?? first} ${second}`
    default:
      return point
  }
}
