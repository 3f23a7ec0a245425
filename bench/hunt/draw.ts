import { chance, fieldOf, type FieldFault, type Field } from '../../standins'
import { COMMON_METER, type FieldTest, type Meter, type ReadingValue } from '../../core/record'
import {
  Draft,
  entries,
  lookUp,
  getOrThrow,
  terminalEnd,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type End,
  type Site,
  type TerminalId,
} from '../../core/site'

/** A case of the bench: a property, what is wrong in it, and what the engine is told at the door. */
export interface Case {
  readonly seed: number
  readonly site: Site
  readonly faults: readonly FieldFault[]
  /** The parts at fault, by the keys that a finding names them with. */
  readonly truth: readonly string[]
  readonly kinds: readonly Kind[]
  /** Last year's sweep of the sound property, or none. */
  readonly known: readonly { readonly test: FieldTest; readonly ohm: number }[]
  /** The property with these of its faults left; chance for the meter goes on. */
  readonly field: (left: readonly FieldFault[]) => Field
  /** What every station waters with these of its faults left, found once for whoever hunts. */
  readonly symptoms: (
    left: readonly FieldFault[],
  ) => readonly { readonly test: FieldTest; readonly value: ReadingValue }[]
}
export const KINDS = ['coil', 'splice', 'conductor', 'common', 'record', 'supply'] as const
export type Kind = (typeof KINDS)[number]
const WEIGHTS: Readonly<Record<Kind, number>> = {
  coil: 25,
  splice: 30,
  conductor: 20,
  common: 10,
  record: 10,
  supply: 5,
}
export const A = 'A' as ControllerId
export const METER: Meter = COMMON_METER
/** The meter without its own errors, to see whether a fault is material. */
const EXACT: Meter = { ...METER, accuracy_ratio: 0, offset_ohm: 0 }
const GAUGES = [18, 16, 14] as const
const MOST_TRIES = 1000

type Random = () => number
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!
function weighted<T extends string>(random: Random, weights: Readonly<Record<T, number>>): T {
  let at = random() * (Object.values(weights) as number[]).reduce((s, w) => s + w, 0)
  for (const [k, w] of Object.entries(weights) as [T, number][]) if ((at -= w) <= 0) return k
  return Object.keys(weights).at(-1) as T
}
const logBetween = (random: Random, low: number, high: number) => low * (high / low) ** random()

/** 6 to 40 stations on one to four branches of multi-core or single cables, with a master valve in the first box. */
export function propertyOf(
  random: Random,
  stations = 6 + Math.floor(random() * 35),
  branches = 1 + Math.floor(random() * Math.min(4, stations / 4)),
): Site {
  const draft = new Draft('bench')
    .place('A', 'cabinet')
    .coilKind('k', pick(random, [33, 33, 52, 24]), { inrush_A: 0.38, holding_A: 0.22 })
    .controller('A', 'A', stations, { transformer: { rating_VA: 60 } })
  const homes: string[] = []
  let next = 1
  for (let r = 0; r < branches; r++) {
    const own = Math.floor(stations / branches) + (r < stations % branches ? 1 : 0)
    const boxes: { tag: string; at_m: number; stations: number[] }[] = []
    let at_m = 0
    for (let left = own; left > 0;) {
      const here = Math.min(left, 1 + Math.floor(random() * 4))
      at_m += 8 + Math.round(random() * 50)
      boxes.push({ tag: `R${r}B${boxes.length + 1}`, at_m, stations: Array.from({ length: here }, () => next++) })
      left -= here
    }
    const jacket = random() < 0.6
    const stops = boxes.map((b): [string, number] => [b.tag, b.at_m])
    for (const b of boxes) draft.place(b.tag)
    const gauge = { awg: pick(random, GAUGES) }
    const master = r === 0
    if (jacket)
      draft.cable(`K${r}`, {
        gauge,
        stops: [['A', 0], ...stops],
        cores: ['white', ...(master ? ['mv'] : []), ...boxes.flatMap((b) => b.stations.map((n) => `c${n}`))],
      })
    else draft.cable(`K${r}`, { gauge, kind: 'single', stops: [['A', 0], ...stops], cores: ['white'] })
    const lead = (name: string, box: { tag: string; at_m: number }) => {
      if (jacket) return `K${r}.${name}`
      draft.cable(`L${name}`, {
        gauge,
        kind: 'single',
        stops: [
          ['A', 0],
          [box.tag, box.at_m],
        ],
        cores: ['red'],
      })
      return `L${name}.red`
    }
    homes.push(`K${r}.white>`)
    if (master) {
      const core = lead('mv', boxes[0]!)
      draft
        .valve('MV', boxes[0]!.tag, 'k')
        .pointOfConnection('P', { name: 'Supply', masterValve: 'MV', terminal: { controller: 'A', terminal: 'MV' } })
        .join('A', ['A:MV', `${core}>`])
        .join(boxes[0]!.tag, [`${core}<`, 'MV.a'])
    }
    boxes.forEach((box, i) => {
      for (const n of box.stations) {
        const core = lead(`c${n}`, box)
        draft
          .valve(`V${n}`, box.tag, 'k')
          .station(`A:${n}`, `Station ${n}`, [`V${n}`], { pointOfConnection: 'P' })
          .join('A', [`A:${n}`, `${core}>`])
          .join(box.tag, [`${core}<`, `V${n}.a`])
      }
      draft.join(
        box.tag,
        [
          `K${r}.white<`,
          ...(master && i === 0 ? ['MV.b'] : []),
          ...box.stations.map((n) => `V${n}.b`),
          ...(i < boxes.length - 1 ? [`K${r}.white>`] : []),
        ],
        'gel_nut',
      )
    })
  }
  return draft.join('A', ['A:C', ...homes]).site()
}

interface Drawn {
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
function drawOne(random: Random, site: Site, stations: readonly TerminalId[], kind: Kind): Drawn | null {
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
        fault: {
          kind: cause,
          cable: at.cable,
          core: at.core,
          from: at.from,
          ohm: cause === 'leak' ? logBetween(random, 100, 100_000) : logBetween(random, 3, 10_000),
        },
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
        fault: {
          kind: cause,
          cable: at.cable,
          core: at.core,
          from: at.from,
          ohm: cause === 'leak' ? logBetween(random, 100, 100_000) : logBetween(random, 3, 10_000),
        },
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

/**
 * A case by its seed: 60 % one fault, 25 % two, 15 % none. A fault that nothing at the cabinet shows is drawn again
 * within its kind.
 */
export function caseOf(seed: number, { spread = 1, stations }: { spread?: number; stations?: number } = {}): Case {
  const random = chance(seed * 2654435761 + 17)
  const site = propertyOf(random, stations)
  const tags = Object.values(site.stations).map((s) => s.terminal)
  const baseline = random() < 0.5
  const inGround = Math.floor(random() * 1e9)
  const meterSeed = Math.floor(random() * 1e9)
  const field = (faults: readonly FieldFault[], meter = meterSeed) =>
    fieldOf(site, faults, { random: chance(inGround), noise: chance(meter + faults.length), ground_C: 20, spread })
  const count = weighted(random, { none: 15, one: 60, two: 25 })
  const wanted = count === 'none' ? 0 : count === 'one' ? 1 : 2
  const sound = shown(site, tags, field([]))
  const drawn: Drawn[] = []
  while (drawn.length < wanted) {
    const kind = weighted(random, WEIGHTS)
    // A kind that this property hardly has is left for another.
    for (let tries = 0; tries < MOST_TRIES; tries++) {
      const one = drawOne(random, site, tags, kind)
      // Material by itself: the second of two may hide behind the first.
      if (
        one === null ||
        drawn.some((d) => d.key === one.key) ||
        !isMaterial(sound, shown(site, tags, field([one.fault])), baseline)
      )
        continue
      drawn.push(one)
      break
    }
  }
  const known = baseline
    ? sweepTests(site)
        .map((test) => ({ test, ohm: field([], meterSeed + 1).answer(test, METER) }))
        .flatMap(({ test, ohm }) => (ohm.kind === 'ohm' ? [{ test, ohm: ohm.ohm }] : []))
    : []
  const walked = (of: Field) => tags.map((t) => ({ test: waterTest(t), value: of.answer(waterTest(t), METER) }))
  const found = new Map<string, ReturnType<Case['symptoms']>>()
  const symptoms = (left: readonly FieldFault[]) => {
    const key = JSON.stringify(left)
    const made = found.get(key) ?? walked(field(left))
    found.set(key, made)
    return made
  }
  return {
    seed,
    site,
    faults: drawn.map((d) => d.fault),
    truth: drawn.map((d) => d.key),
    kinds: drawn.map((d) => d.kind),
    known,
    field: (left) => field(left),
    symptoms,
  }
}

const at = (t: string) => terminalEnd(A, t) as Extract<End, { kind: 'terminal' }>
export const waterTest = (t: TerminalId): FieldTest => ({ kind: 'water', at: at(t) })
/** Every terminal to common. */
export const sweepTests = (site: Site): FieldTest[] =>
  [
    ...Object.values(site.stations).map((s) => s.terminal),
    ...(lookUp(site.devices, 'MV') ? ['MV' as TerminalId] : []),
  ].map((t) => ({ kind: 'ohms', from: at(t), to: at('C') }))

/** What the cabinet shows: the zones, which take longest to work out, only where they are asked for. */
interface Shown {
  readonly ohms: readonly (number | null)[]
  readonly earth: number
  readonly waters: () => readonly string[]
}
function shown(site: Site, tags: readonly TerminalId[], field: Field): Shown {
  const ohm = (v: ReadingValue) => (v.kind === 'ohm' ? v.ohm : null)
  let waters: readonly string[] | undefined
  return {
    ohms: sweepTests(site).map((t) => ohm(field.answer(t, EXACT))),
    earth:
      ohm(
        field.answer(
          { kind: 'ohms', from: at('C'), to: { kind: 'earth', place: getOrThrow(site.controllers, A).place } },
          EXACT,
        ),
      ) ?? Infinity,
    waters: () =>
      (waters ??= tags.map((t) => {
        const v = field.answer(waterTest(t), EXACT)
        return v.kind === 'waters' ? v.valves.join() : ''
      })),
  }
}

/**
 * Whether a station fails or a reading of the sweep moves by three of its deviations: 8 % of a coil at two, or both
 * meters' error where a baseline is there.
 */
function isMaterial(sound: Shown, ill: Shown, baseline: boolean): boolean {
  if (ill.earth < 1e5 && sound.earth > 1e6) return true
  const moved = sound.ohms.some((ohm, i) => {
    const now = ill.ohms[i]!
    if (ohm === null || now === null) return ohm !== now
    const meter = 0.44 * (0.01 * ohm + 0.2)
    return Math.abs(now - ohm) > 3 * (baseline ? meter * Math.SQRT2 : Math.hypot(meter, 0.035 * ohm))
  })
  return moved || sound.waters().some((w, i) => w !== ill.waters()[i])
}
