import type { FieldFault } from '../../standins'
import {
  entries,
  getOrThrow,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type End,
  type Site,
  type TerminalId,
} from '../../core/site'
import { logBetween, pick, weighted, type Random } from './random'

export const A = 'A' as ControllerId
export const KINDS = ['coil', 'splice', 'conductor', 'common', 'record', 'supply'] as const
export type Kind = (typeof KINDS)[number]
export const WEIGHTS: Readonly<Record<Kind, number>> = {
  coil: 25,
  splice: 30,
  conductor: 20,
  common: 10,
  record: 10,
  supply: 5,
}

/** A fault that was drawn: in the ground, and by the key that a finding names it with. */
export interface Drawn {
  readonly fault: FieldFault
  readonly key: string
  readonly kind: Kind
}

/** The uncut run of a core that holds a stretch, as a key. */
function runKey(site: Site, cable: CableId, core: CoreId, from: number): { key: string; from: number; to: number } {
  const { stops, cores } = getOrThrow(site.cables, cable)
  const cut = new Set<string>(getOrThrow(cores, core).cutAt)
  let [a, b] = [from, from + 1]
  while (a > 0 && !cut.has(stops[a]!.id)) a--
  while (b < stops.length - 1 && !cut.has(stops[b]!.id)) b++
  return { key: `run ${cable} ${core} ${stops[a]!.id} ${stops[b]!.id}`, from: a, to: b }
}

const isCommon = (core: string) => core === 'white'

/**
 * One fault of a kind; what is drawn does not say whether it is material, and null is what this property cannot have.
 */
export function drawOne(random: Random, site: Site, stations: readonly TerminalId[], kind: Kind): Drawn | null {
  const terminal = pick(random, stations)
  const device = `V${terminal}` as DeviceId
  const coilDevice = (random() < 1 / (stations.length + 1) ? 'MV' : device) as DeviceId
  const stretch = (common: boolean) => {
    const all = entries(site.cables).flatMap(([cable, c]) =>
      entries(c.cores)
        .filter(([core]) => isCommon(core) === common)
        .flatMap(([core]) =>
          c.stops.slice(1).map((s, from) => ({
            cable,
            core,
            from,
            length_m: (s.at_m as { value: number }).value - (c.stops[from]!.at_m as { value: number }).value,
          })),
        ),
    )
    let at = random() * all.reduce((s, x) => s + x.length_m, 0)
    return all.find((x) => (at -= x.length_m) <= 0) ?? all.at(-1)!
  }
  const jointKey = (end: End) =>
    `joint ${entries(site.splices).find(([, s]) => s.ends.some((e) => JSON.stringify(e) === JSON.stringify(end)))![0]}`
  const wireFault = (cause: 'open' | 'series' | 'leak', at: ReturnType<typeof stretch>): FieldFault => ({
    kind: cause,
    cable: at.cable,
    core: at.core,
    from: at.from,
    ohm: cause === 'leak' ? logBetween(random, 100, 100_000) : logBetween(random, 3, 10_000),
  })
  switch (kind) {
    case 'coil': {
      const cause = weighted(random, { 'coil-open': 62, 'coil-short': 19, 'coil-part': 14, 'coil-dc': 5 })
      const fault: FieldFault =
        cause === 'coil-dc'
          ? { kind: cause, device: coilDevice, ohm: 3 + 4 * random() }
          : { kind: cause, device: coilDevice, fraction: cause === 'coil-part' ? 0.15 + 0.75 * random() : 1 }
      return { kind, fault, key: `coil ${coilDevice}` }
    }
    case 'splice': {
      const cause = weighted(random, { 'joint-open': 68, 'joint-series': 24, 'joint-leak': 4, 'joint-loose': 4 })
      const end: End = { kind: 'port', device: coilDevice, port: random() < 0.5 || cause === 'joint-leak' ? 'a' : 'b' }
      return {
        kind,
        fault: {
          kind: cause,
          end,
          ohm: cause === 'joint-leak' ? logBetween(random, 100, 100_000) : logBetween(random, 3, 10_000),
        },
        key: jointKey(end),
      }
    }
    case 'conductor': {
      const cause = weighted(random, { open: 66, series: 8, touch: 18, leak: 8 })
      const at = stretch(false)
      const run = runKey(site, at.cable, at.core, at.from)
      if (cause === 'touch') {
        const { cores, stops } = getOrThrow(site.cables, at.cable)
        const order = Object.keys(cores) as CoreId[]
        const i = order.indexOf(at.core)
        const other = random() < 0.5 ? order.find((c) => isCommon(c)) : (order[i + 1] ?? order[i - 1])
        if (!other || other === at.core) return null
        const second = runKey(site, at.cable, other, at.from)
        const names = [at.core, other].sort()
        const [from, to] = [Math.max(run.from, second.from), Math.min(run.to, second.to)]
        return {
          kind,
          fault: {
            kind: 'touch',
            cable: at.cable,
            core: at.core,
            other,
            from: at.from,
            ohm: logBetween(random, 0.1, 300),
          },
          key: `touch ${at.cable} ${names.join(' ')} ${stops[from]!.id} ${stops[to]!.id}`,
        }
      }
      return {
        kind,
        fault: wireFault(cause, at),
        key: run.key,
      }
    }
    case 'common': {
      const cause = weighted(random, { open: 80, series: 16, leak: 4 })
      const at = stretch(true)
      // A joint of the common, at the core's end there, or the wire between.
      if (cause !== 'leak' && random() < 0.4) {
        const stops = getOrThrow(site.cables, at.cable).stops
        const end: End = {
          kind: 'core',
          cable: at.cable,
          core: at.core,
          stop: stops[at.from + 1]!.id,
          side: random() < 0.5 && at.from + 2 < stops.length ? 'leaves' : 'arrives',
        }
        return {
          kind,
          fault: { kind: cause === 'open' ? 'joint-open' : 'joint-series', end, ohm: logBetween(random, 3, 10_000) },
          key: jointKey(end),
        }
      }
      return {
        kind,
        fault: wireFault(cause, at),
        key: runKey(site, at.cable, at.core, at.from).key,
      }
    }
    case 'record': {
      const cause = weighted(random, { swap: 66, doubled: 20, 'coil-kind': 14 })
      if (cause === 'coil-kind') {
        const own = getOrThrow(site.coilKinds, getOrThrow(site.devices, device).coilKind!).resistance_ohm
        return {
          kind,
          fault: {
            kind: cause,
            device,
            ohm: pick(
              random,
              [24, 33, 52].filter((o) => Math.abs(o / own - 1) > 0.15),
            ),
          },
          key: `coil ${device}`,
        }
      }
      const i = stations.indexOf(terminal)
      // A neighbour's screw, a lead of the same box, or any.
      const r = random()
      const place = getOrThrow(site.devices, device).place
      const others = stations.filter((t) => t !== terminal)
      const near =
        cause === 'doubled' || r < 0.5
          ? [stations[i + 1] ?? stations[i - 1]!]
          : r < 0.7
            ? others.filter((t) => getOrThrow(site.devices, `V${t}`).place === place)
            : others
      const two = pick(random, near.length > 0 ? near : others)
      return {
        kind,
        fault: { kind: cause, controller: A, one: terminal, two },
        key: `pair A ${[terminal, two].sort().join(' ')}`,
      }
    }
    case 'supply': {
      const cause = weighted(random, {
        supply: 20,
        sensor: 10,
        terminal: 25,
        'stuck-shut': 25,
        'stuck-open': 10,
        water: 10,
      })
      switch (cause) {
        case 'terminal': {
          const t = random() < 1 / (stations.length + 1) ? ('MV' as TerminalId) : terminal
          return { kind, fault: { kind: cause, controller: A, terminal: t }, key: `terminal A ${t}` }
        }
        case 'stuck-shut':
        case 'stuck-open':
          return { kind, fault: { kind: cause, device: coilDevice }, key: `valve ${coilDevice}` }
        default:
          return { kind, fault: { kind: cause, controller: A }, key: `${cause} A` }
      }
    }
  }
}
