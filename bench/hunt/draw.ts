import { chance, fieldOf, WORLD, type FieldFault, type Field, type World } from '../../standins'
import { COMMON_METER, type FieldTest, type Meter, type ReadingValue } from '../../core/record'
import {
  Draft,
  entries,
  getOrThrow,
  lookUp,
  stopIndex,
  terminalEnd,
  type End,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../../core/site'
import { A, drawOne, WEIGHTS, type Drawn, type Kind } from './draw-fault'
import { pick, weighted, type Random } from './random'

/** A case of the bench: a property, what is wrong in it, and what the engine is told at the door. */
export interface Case {
  readonly seed: number
  /** The property as it is, but for what is off its sheets. */
  readonly site: Site
  /** The property as it is on record: what the engine and the crew are told. */
  readonly record: Site
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
export const METER: Meter = COMMON_METER
/** The meter without its own errors, to see whether a fault is material. */
const EXACT: Meter = { ...METER, accuracy_ratio: 0, offset_ohm: 0 }
const GAUGES = [18, 16, 14] as const
const MOST_TRIES = 1000
/** How many faults a case has, in the order in which they are drawn from. */
const COUNTS = { none: 15, one: 60, two: 25 } as const
const NUMBER = { none: 0, one: 1, two: 2, three: 3, four: 4, five: 5 } as const
const MANY = { three: 60, four: 25, five: 15 } as const

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

/** A world that is not as the engine reckons: every figure that the record does not give is another. */
export const OFF_WORLD: World = {
  ...WORLD,
  mains_ratio: 0.05,
  insulation_ohm: { from: 8e5, to: 9e7 },
  soil_ohm: { from: 30, to: 2000 },
  shorted_ohm: 0.7,
  turns_power: 1.5,
  loose: 0.35,
  shows: { look: { bad: 0.8, sound: 0.05 }, remake: { bad: 0.998, sound: 0.002 } },
}
/** Of the recorded stretches so many are off, by so much either way. */
const [WRONG_LENGTHS, LENGTH_OFF] = [0.1, 0.2]

/** A property with some of its recorded lengths wrong. */
function misrecorded(random: Random, site: Site): Site {
  const cables = entries(site.cables).map(([id, cable]) => {
    let moved_m = 0
    const stops = cable.stops.map((stop, i) => {
      const [here, before] = [stop, cable.stops[i - 1]].map((s) => (s?.at_m as { value: number } | undefined)?.value)
      if (before !== undefined && random() < WRONG_LENGTHS)
        moved_m += (here! - before) * (random() < 0.5 ? LENGTH_OFF : -LENGTH_OFF)
      return { ...stop, at_m: { ...stop.at_m!, value: here! + moved_m } as typeof stop.at_m }
    })
    return [id, { ...cable, stops }] as const
  })
  return { ...site, cables: Object.fromEntries(cables) }
}

/** Where a part lies, by its key. */
export function placesOf(site: Site, key: string): PlaceId[] {
  const [kind, id = ''] = key.split(' ')
  switch (kind) {
    case 'joint':
      return [getOrThrow(site.splices, id).place]
    case 'coil':
    case 'valve':
      return [getOrThrow(site.devices, id).place]
    case 'run':
    case 'touch': {
      const cable = getOrThrow(site.cables, id)
      return key
        .split(' ')
        .slice(-2)
        .map((stop) => cable.stops[stopIndex(cable, stop)]!.place)
    }
    default:
      return [getOrThrow(site.controllers, A).place]
  }
}

export interface CaseOptions {
  /** Parts are so many times farther off their sheets. */
  readonly spread?: number
  readonly stations?: number
  /** Three faults or more, at different places of a property of ten stations or more. */
  readonly many?: boolean
  /** A world unlike the engine's, and wrong lengths on record. */
  readonly off?: boolean
}

/**
 * A case by its seed: 60 % one fault, 25 % two, 15 % none; or of many 60 % three, 25 % four, 15 % five. A fault that
 * nothing at the cabinet shows is drawn again within its kind.
 */
export function caseOf(seed: number, { spread = 1, stations, many = false, off = false }: CaseOptions = {}): Case {
  const random = chance(seed * 2654435761 + 17)
  const site = propertyOf(random, stations ?? (many ? 10 + Math.floor(random() * 31) : undefined))
  const record = off ? misrecorded(random, site) : site
  const tags = Object.values(site.stations).map((s) => s.terminal)
  const baseline = random() < 0.5
  const inGround = Math.floor(random() * 1e9)
  const meterSeed = Math.floor(random() * 1e9)
  const field = (faults: readonly FieldFault[], meter = meterSeed) =>
    fieldOf(site, faults, {
      random: chance(inGround),
      noise: chance(meter + faults.length),
      ground_C: 20,
      spread,
      world: off ? OFF_WORLD : WORLD,
    })
  const wanted = NUMBER[many ? weighted(random, MANY) : weighted(random, COUNTS)]
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
        drawn.some(
          (d) => d.key === one.key || (many && placesOf(site, d.key).at(-1) === placesOf(site, one.key).at(-1)),
        ) ||
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
    record,
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
