import { coil_ohm, complex, partlyShorted, plus, type Change, type Complex, type Join, type Spot } from '../circuit'
import { copperFactor } from '../quantity'
import { partKey, type Part, type RunPart } from '../record'
import {
  getOrThrow,
  stopPositions_m,
  type DeviceId,
  type Link,
  type PlaceId,
  type SpliceId,
  type TerminalId,
} from '../site'
import type { HuntContext, State } from './context'
import {
  CAUSES,
  circumstanceFactor,
  FAMILIES,
  type Cause,
  type Circumstances,
  type Family,
  type OddsBasis,
} from './odds'
import { placesOf } from './where'

/** How a fault changes an element, whatever its impedance is in a state; null takes it out. */
export interface Alter {
  readonly element: number
  readonly to: (z: Complex) => Complex | null
}
/** What a fault does to the wiring. */
export interface NetworkEdit {
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
}

/** A fault with a size and a position: one cell of its grid. */
export interface FaultHypothesis {
  /** Its number in the catalogue, and its part's and family's. */
  readonly index: number
  readonly fault: number
  readonly mods: NetworkEdit
  /** The same with one of its figures (severity, position) one standard deviation of its cell farther on. */
  readonly shifted: readonly NetworkEdit[]
  /** The part of the fault's odds that this cell has. */
  readonly share: number
  readonly ohm: number | null
  /** Along the run from its first stop, 0 … 1, where it has a position. */
  readonly along: number | null
  /** Where it leaks to earth. */
  readonly leak: Spot | null
}

/** A cause at a part. */
export interface Fault {
  readonly index: number
  readonly where: Part
  readonly key: string
  readonly cause: Cause
  readonly family: Family
  /** Prior odds within the catalogue; all add up to 1. */
  readonly prior: number
  readonly variants: readonly FaultHypothesis[]
  /** Coils that may have volts because of it when another's terminal is on. */
  readonly besides: readonly DeviceId[]
  /** Whether it leads the current of one terminal's wire to another's: what else is wrong there then shows at both. */
  readonly links: boolean
  /** Leg or lead at which it sits, for joints: the end's link id. */
  readonly at: string | null
  readonly elements: readonly number[]
}

export interface Catalogue {
  readonly faults: readonly Fault[]
  readonly variants: readonly FaultHypothesis[]
  readonly keys: readonly string[]
}

/**
 * Ohms that corrosion puts in series: from where a sweep sees it to where it is as good as open. Even in the
 * logarithm.
 */
const SERIES_ohm = { from: 3, to: 10_000, cells: 12 } as const
const LEAK_ohm = { from: 100, to: 100_000, cells: 8 } as const
const TOUCH_ohm = [0.1, 1, 3, 10, 30, 70, 140, 300] as const
/** Positions along a run, at the middles of as many equal parts. */
const POSITIONS = 8
/** Shorted turns, as a part of the winding; a shorted coil has what is left of the last turns and its leads. */
const PART = { from: 0.15, to: 0.9, cells: 10 } as const
const SHORTED_ohm = 0.2
/** A latching coil's winding: a few ohms, no hum from alternating current. */
const LATCHING_ohm = 5
/** A coil of another kind than recorded: the usual windings. */
const OTHER_KINDS_ohm = [24, 33, 52] as const

/** A joint of a common is as likely to fail as so much of its wire. */
const JOINT_AS_m = 20

interface Cell {
  readonly mods: NetworkEdit
  readonly shifted?: readonly NetworkEdit[]
  readonly share?: number
  readonly ohm?: number
  readonly along?: number
  readonly leak?: Spot
}
interface Entry {
  where: Part
  cause: Cause
  family: Family
  weight: number
  cells: readonly Cell[]
  besides?: readonly DeviceId[]
  at?: string
  elements: readonly number[]
}

/**
 * Every single fault of a controller's wiring and hydraulics, with its odds. Parts that hang on nothing have none:
 * they cannot show.
 */
export function catalogueOf(
  context: HuntContext,
  basis: OddsBasis,
  circumstances: Circumstances,
  today: string | null,
): Catalogue {
  const listed = [
    ...runFaults(context, basis),
    ...touchFaults(context, basis),
    ...jointFaults(context, basis, today),
    ...coilFaults(context, basis),
    ...cabinetFaults(context),
  ].map((e) => ({
    ...e,
    times: circumstanceFactor(basis, circumstances, e.family, e.cause, placesOf(context.site, e.where)),
  }))
  const whole = new Map<string, number>()
  for (const e of listed) {
    const k = `${e.family} ${e.cause}`
    whole.set(k, (whole.get(k) ?? 0) + e.weight)
  }
  // What a property does not have leaves its odds to the rest of its family.
  const familyCauses = (f: Family) =>
    CAUSES.filter((c) => (whole.get(`${f} ${c}`) ?? 0) > 0).map((c) => [c, causeWeight(basis, f, c)] as const)
  const causeShare = new Map<string, number>(
    FAMILIES.flatMap((f) => {
      const list = familyCauses(f)
      const sum = list.reduce((s, [, w]) => s + w, 0)
      return list.map(([c, w]) => [`${f} ${c}`, sum > 0 ? w / sum : 0] as const)
    }),
  )
  const present = FAMILIES.filter((f) => familyCauses(f).length > 0)
  const familySum = present.reduce((s, f) => s + basis.families[f], 0)
  const variants: FaultHypothesis[] = []
  const faults = listed.map((e, index): Fault => {
    const k = `${e.family} ${e.cause}`
    const shares = e.cells.reduce((s, c) => s + (c.share ?? 1), 0)
    const own = e.cells.map((c, i): FaultHypothesis => ({
      index: variants.length + i,
      fault: index,
      mods: c.mods,
      shifted: c.shifted ?? [],
      share: (c.share ?? 1) / shares,
      ohm: c.ohm ?? null,
      along: c.along ?? null,
      leak: c.leak ?? null,
    }))
    variants.push(...own)
    return {
      index,
      where: e.where,
      key: partKey(e.where),
      cause: e.cause,
      family: e.family,
      variants: own,
      besides: e.besides ?? [],
      links: (e.besides ?? []).length > 0,
      at: e.at ?? null,
      elements: e.elements,
      prior: (basis.families[e.family] / familySum) * causeShare.get(k)! * (e.weight / whole.get(k)!) * e.times,
    }
  })
  // What befell the property raises its kind of trouble against the others, and all still add up to one.
  const sum = faults.reduce((s, f) => s + f.prior, 0)
  return {
    faults: faults.map((f) => ({ ...f, prior: f.prior / sum })),
    variants,
    keys: [...new Set(faults.map((f) => f.key))],
  }
}

const causeWeight = (basis: OddsBasis, family: Family, cause: Cause): number =>
  (basis.causes[family] as Partial<Record<Cause, number>>)[cause] ?? 0

const none: NetworkEdit = { alters: [], joins: [] }
const alter = (element: number, to: Alter['to']): NetworkEdit => ({ alters: [{ element, to }], joins: [] })
const gone = (element: number): NetworkEdit => alter(element, () => null)
const more = (element: number, ohm: number): NetworkEdit => alter(element, (z) => plus(z, complex(ohm)))

/** Middles, shares and spreads of cells that are even in the logarithm. */
function logCells({ from, to, cells }: { from: number; to: number; cells: number }): { ohm: number; sd: number }[] {
  const step = Math.log(to / from) / cells
  return Array.from({ length: cells }, (_, i) => {
    const [low, high] = [from * Math.exp(i * step), from * Math.exp((i + 1) * step)]
    const mean = (high - low) / step // of the cell's own distribution, even in the logarithm
    return { ohm: mean, sd: Math.sqrt((high ** 2 - low ** 2) / (2 * step) - mean ** 2) }
  })
}
const seriesCells = (element: number): Cell[] =>
  logCells(SERIES_ohm).map(({ ohm, sd }) => ({ mods: more(element, ohm), shifted: [more(element, ohm + sd)], ohm }))
const joined = (p: Spot, q: Spot, ohm: number): NetworkEdit => ({ alters: [], joins: [{ p, q, ohm }] })

interface Run {
  readonly where: RunPart
  /** Its ends' places in the cable's list of stops. */
  readonly from: number
  readonly to: number
  readonly elements: readonly number[]
  readonly common: boolean
  readonly length_m: number
  readonly suspect: boolean
}

/** Every core between two openings that hangs on the controller, with its stretches in order. */
export function conductorRunsOf(context: HuntContext): Run[] {
  const {
    site,
    meterState: { powered },
  } = context
  const runs: Run[] = []
  let open: { link: Extract<Link, { kind: 'stretch' }>; elements: number[] } | null = null
  const close = () => {
    if (!open) return
    const { link, elements } = open
    const last = powered.parts[elements.at(-1)!]!.of as Extract<Link, { kind: 'stretch' }>
    const cable = getOrThrow(site.cables, link.cable)
    const at = stopPositions_m(cable)
    const core = getOrThrow(cable.cores, link.core)
    const states = [
      cable.condition,
      core.condition,
      ...elements.map((e) => core.conditions[cable.stops[(powered.parts[e]!.of as typeof link).from]!.id]),
    ]
    runs.push({
      where: {
        kind: 'run',
        cable: link.cable,
        core: link.core,
        from: cable.stops[link.from]!.id,
        to: cable.stops[last.to]!.id,
      },
      from: link.from,
      to: last.to,
      elements,
      common: context.onCommon(link.a),
      length_m: Math.max(0.5, at[last.to]!.value - at[link.from]!.value),
      suspect: states.some((c) => c?.state === 'suspect'),
    })
    open = null
  }
  powered.parts.forEach(({ of }, element) => {
    if (of.kind !== 'stretch' || !context.within(element)) {
      close()
      return
    }
    const cable = getOrThrow(site.cables, of.cable)
    const goesOn =
      open !== null &&
      open.link.cable === of.cable &&
      open.link.core === of.core &&
      (powered.parts[open.elements.at(-1)!]!.of as typeof of).to === of.from &&
      !getOrThrow(cable.cores, of.core).cutAt.includes(cable.stops[of.from]!.id)
    if (goesOn) open!.elements.push(element)
    else {
      close()
      open = { link: of, elements: [element] }
    }
  })
  close()
  return runs
}

/** The element of a run in which a part of its way lies, and how far along that element. */
function spotAlong(context: HuntContext, run: Run, along: number): Spot {
  const {
    site,
    meterState: { powered },
  } = context
  const at = stopPositions_m(getOrThrow(site.cables, run.where.cable))
  const here = at[run.from]!.value + along * (at[run.to]!.value - at[run.from]!.value)
  for (const element of run.elements) {
    const { from, to } = powered.parts[element]!.of as Extract<Link, { kind: 'stretch' }>
    const [a, b] = [at[from]!.value, at[to]!.value]
    if (here <= b || element === run.elements.at(-1))
      return { element, along: b > a ? Math.min(1, Math.max(0, (here - a) / (b - a))) : 0.5 }
  }
  throw new Error('spotAlong: a run without stretches')
}

/** The middles of `count` equal parts, and one deviation within such a part. */
const middles = (count: number) => ({
  at: Array.from({ length: count }, (_, i) => (i + 0.5) / count),
  sd: 1 / count / Math.sqrt(12),
})

function runFaults(context: HuntContext, basis: OddsBasis): Entry[] {
  return conductorRunsOf(context).flatMap((run): Entry[] => {
    const family = run.common ? 'common' : 'conductor'
    // The longest stretch stands for the run: the same current passes through all of it.
    const main = run.elements.reduce((best, e) =>
      context.meterState.powered.parts[e]!.z.re > context.meterState.powered.parts[best]!.z.re ? e : best,
    )
    const entry = {
      where: run.where,
      family,
      weight: run.length_m * (run.suspect ? basis.suspect : 1),
      elements: run.elements,
    } as const
    const leaks = middles(POSITIONS).at.flatMap((along) =>
      logCells(LEAK_ohm).map(({ ohm }): Cell => ({ mods: none, ohm, along, leak: spotAlong(context, run, along) })),
    )
    return [
      { ...entry, cause: 'open', cells: [{ mods: gone(main) }] },
      { ...entry, cause: 'series', cells: seriesCells(main) },
      { ...entry, cause: 'leak', cells: leaks },
    ]
  })
}

/**
 * Neighbours in a jacket that touch: each core with the next in the jacket's order, and every one with the common
 * beside it.
 */
function touchFaults(context: HuntContext, basis: OddsBasis): Entry[] {
  const { site } = context
  const byCable = new Map<string, Run[]>()
  for (const run of conductorRunsOf(context))
    byCable.set(run.where.cable, [...(byCable.get(run.where.cable) ?? []), run])
  const found: Entry[] = []
  for (const runs of byCable.values()) {
    const order = (run: Run) => getOrThrow(getOrThrow(site.cables, run.where.cable).cores, run.where.core).order
    const cores = [...new Set(runs.map((r) => r.where.core))].sort(
      (a, b) => order(runs.find((r) => r.where.core === a)!) - order(runs.find((r) => r.where.core === b)!),
    )
    for (const one of runs)
      for (const other of runs) {
        if (one === other || (one.common && other.common)) continue
        const [i, j] = [cores.indexOf(one.where.core), cores.indexOf(other.where.core)]
        // Each pair once: the common comes second, else the later core does.
        if (one.common || (!other.common && j !== i + 1)) continue
        const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)]
        if (from >= to) continue
        const cable = getOrThrow(site.cables, one.where.cable)
        const at = stopPositions_m(cable)
        const length_m = Math.max(0.5, at[to]!.value - at[from]!.value)
        // A lead has its eight positions over all the pieces of the common that it lies beside.
        const spots = middles(Math.max(2, Math.round((POSITIONS * length_m) / Math.max(one.length_m, length_m))))
        const along = (run: Run, x: number) => {
          const m = at[from]!.value + x * (at[to]!.value - at[from]!.value)
          const [a, b] = [at[run.from]!.value, at[run.to]!.value]
          return b > a ? (m - a) / (b - a) : 0.5
        }
        const touch = (x: number, ohm: number) =>
          joined(spotAlong(context, one, along(one, x)), spotAlong(context, other, along(other, x)), ohm)
        found.push({
          where: {
            kind: 'touch',
            cable: one.where.cable,
            core: one.where.core,
            other: other.where.core,
            from: cable.stops[from]!.id,
            to: cable.stops[to]!.id,
          },
          cause: 'touch',
          family: 'conductor',
          weight: length_m * (one.suspect || other.suspect ? basis.suspect : 1),
          elements: [...one.elements, ...other.elements],
          // Two leads that touch at little run both their valves.
          besides: other.common ? [] : [one, other].flatMap((r) => devicesOn(context, r)),
          cells: spots.at.flatMap((x) =>
            TOUCH_ohm.map((ohm, k): Cell => {
              const sd = (ohm - (TOUCH_ohm[k - 1] ?? 0)) / 2
              return {
                mods: touch(x, ohm),
                shifted: [touch(x, ohm + sd), touch(Math.min(1, x + spots.sd), ohm)],
                share: k < 2 ? 2 : 1,
                ohm,
                along: x,
              }
            }),
          ),
        })
      }
  }
  return found
}

const devicesOn = (context: HuntContext, run: Run): DeviceId[] => {
  const { powered } = context.meterState
  const reached = context.terminals.find((t) =>
    context.walk(t).runs.some((r) => r.link === powered.parts[run.elements[0]!]!.of),
  )
  return reached === undefined ? [] : [...(context.hanging.get(reached)?.coils ?? [])]
}

function jointFaults(context: HuntContext, basis: OddsBasis, today: string | null): Entry[] {
  const {
    site,
    meterState: { powered },
  } = context
  const legs = new Map<string, number[]>()
  powered.parts.forEach(({ of }, element) => {
    if (of.kind === 'leg' && context.within(element)) legs.set(of.splice, [...(legs.get(of.splice) ?? []), element])
  })
  return [...legs].flatMap(([id, all]): Entry[] => {
    const splice = getOrThrow(site.splices, id)
    const where: Part = { kind: 'joint', splice: id as SpliceId }
    const years =
      today !== null && splice.made
        ? Math.max(0, (Date.parse(today) - Date.parse(splice.made.value)) / 31_557_600_000)
        : 0
    const held = (basis.connector as Record<string, number | undefined>)[splice.connector] ?? 1
    const weight = held * (1 + years / basis.old_years) * (splice.condition.state === 'suspect' ? basis.suspect : 1)
    // Two ends carry the same current: either leg stands for both.
    const shown = all.length === 2 ? all.slice(0, 1) : all
    return shown.flatMap((element): Entry[] => {
      const { of } = powered.parts[element]! as { of: Extract<Link, { kind: 'leg' }> }
      const common = context.onCommon(of.a) && of.end.kind === 'core' && all.length > 2
      const entry = {
        where,
        family: common ? 'common' : 'splice',
        weight: weight * (common ? JOINT_AS_m : 1),
        at: of.id,
        elements: [element],
      } as const
      return [
        { ...entry, cause: 'open', cells: [{ mods: gone(element) }] },
        { ...entry, cause: 'series', cells: seriesCells(element) },
        ...(common ? [] : [{ ...entry, cause: 'intermittent' as const, cells: [{ mods: gone(element) }] }]),
        ...(element === shown[0] && !common
          ? [
              {
                ...entry,
                cause: 'leak' as const,
                cells: logCells(LEAK_ohm).map(({ ohm }): Cell => ({
                  mods: none,
                  ohm,
                  leak: { node: powered.parts[element]!.a },
                })),
              },
            ]
          : []),
      ]
    })
  })
}

function coilFaults(context: HuntContext, basis: OddsBasis): Entry[] {
  const { site, climate } = context
  const warm = copperFactor(climate.coil_C)
  return [...context.coilElement]
    .filter(([, e]) => context.within(e))
    .flatMap(([device, element]): Entry[] => {
      const entry = {
        where: { kind: 'coil', device } as const,
        family: 'coil',
        weight: getOrThrow(site.devices, device).condition.state === 'suspect' ? basis.suspect : 1,
        elements: [element],
      } as const
      const own = coil_ohm(site, { kind: 'coil', device } as Extract<Link, { kind: 'coil' }>, 'value')
      const step = (PART.to - PART.from) / PART.cells
      const part = (f: number) => alter(element, (z) => partlyShorted(z, f))
      const plain = (ohm: number) => alter(element, () => complex(ohm * warm))
      const scaledTo = (ohm: number) => alter(element, (z) => ({ re: (z.re * ohm) / own, im: (z.im * ohm) / own }))
      const others = OTHER_KINDS_ohm.filter((o) => Math.abs(o / own - 1) > 0.15)
      return [
        { ...entry, cause: 'coil_open', cells: [{ mods: gone(element) }] },
        { ...entry, cause: 'coil_short', cells: [{ mods: plain(SHORTED_ohm), shifted: [plain(2 * SHORTED_ohm)] }] },
        {
          ...entry,
          cause: 'coil_part',
          cells: Array.from({ length: PART.cells }, (_, i): Cell => {
            const f = PART.from + (i + 0.5) * step
            return { mods: part(f), shifted: [part(f + step / Math.sqrt(12))], ohm: own * (1 - f) }
          }),
        },
        { ...entry, cause: 'coil_dc', cells: [{ mods: plain(LATCHING_ohm), shifted: [plain(LATCHING_ohm + 1.5)] }] },
        {
          ...entry,
          family: 'record',
          cause: 'coil_kind',
          cells: others.map((o): Cell => ({ mods: scaledTo(o), ohm: o })),
        },
        { ...entry, where: { kind: 'valve', device }, family: 'supply', cause: 'stuck_shut', cells: [{ mods: none }] },
        { ...entry, where: { kind: 'valve', device }, family: 'supply', cause: 'stuck_open', cells: [{ mods: none }] },
      ]
    })
}

/** How many times likelier two leads are mistaken for each other than any two. */
const [NEXT_ON_THE_DOOR, IN_ONE_BOX] = [4, 3]

/**
 * Leads one screw beside their own, and what dies in the cabinet. Leads are mistaken for a neighbour's before any
 * other's.
 */
function cabinetFaults(context: HuntContext): Entry[] {
  const { controller, terminals, site } = context
  const stations = terminals.filter((t) => context.stationAt(t) !== null)
  const placeAt = (t: TerminalId): PlaceId | null => {
    const v = context.valvesOf(t)[0]
    return v === undefined ? null : getOrThrow(site.devices, v).place
  }
  const pair = (i: number, j: number, cause: 'swapped' | 'doubled', weight: number): Entry => {
    const [one, two] = [stations[i]!, stations[j]!]
    return {
      where: { kind: 'pair', controller, one, two },
      cause,
      family: 'record',
      weight,
      elements: [],
      cells: [
        { mods: cause === 'swapped' ? none : joined({ node: context.wire(one) }, { node: context.wire(two) }, 1e-3) },
      ],
      besides: [...context.valvesOf(one), ...context.valvesOf(two)],
    }
  }
  const pairs = stations.flatMap((one, i) =>
    stations.slice(i + 1).flatMap((two, k): Entry[] => {
      const j = i + 1 + k
      const near = j === i + 1 ? NEXT_ON_THE_DOOR : placeAt(one) === placeAt(two) ? IN_ONE_BOX : 1
      return [pair(i, j, 'swapped', near), ...(j === i + 1 ? [pair(i, j, 'doubled', 1), pair(j, i, 'doubled', 1)] : [])]
    }),
  )
  const cabinet = (kind: 'supply' | 'sensor' | 'water', cause: Cause): Entry => ({
    where: { kind, controller },
    cause,
    family: 'supply',
    weight: 1,
    cells: [{ mods: none }],
    elements: [],
  })
  return [
    ...pairs,
    cabinet('supply', 'supply_dead'),
    cabinet('water', 'water_off'),
    ...(getOrThrow(site.controllers, controller).sensor.closedBy === 'nothing'
      ? []
      : [cabinet('sensor', 'sensor_open')]),
    ...terminals.map((terminal): Entry => ({
      where: { kind: 'terminal', controller, terminal },
      cause: 'terminal_dead',
      family: 'supply',
      weight: 1,
      cells: [{ mods: none }],
      elements: [],
    })),
  ]
}

/** Of a fault's cells of one size, the one in the middle of its positions. */
export const middleLike = (f: Fault, ohm: number | null): FaultHypothesis => {
  const like = f.variants.filter((v) => v.ohm === ohm)
  return like[like.length >> 1]!
}

/** Faults that are there together. */
export type Faults = readonly FaultHypothesis[]

/**
 * All that some faults do at once; `at` chooses which of a variant's settings. `ends` are the nodes of an element:
 * where one fault changes the very element along which the other touches, the touching moves to the nearer end of it.
 */
export function modsOf(
  faults: Faults,
  ends: (element: number) => { readonly a: number; readonly b: number },
  at: (v: FaultHypothesis) => NetworkEdit = (v) => v.mods,
): NetworkEdit {
  if (faults.length === 1) return at(faults[0]!)
  const alters = faults.flatMap((v) => at(v).alters)
  const clear = (s: Spot): Spot =>
    'node' in s || !alters.some((x) => x.element === s.element)
      ? s
      : { node: s.along < 0.5 ? ends(s.element).a : ends(s.element).b }
  return { alters, joins: faults.flatMap((v) => at(v).joins.map((j) => ({ ...j, p: clear(j.p), q: clear(j.q) }))) }
}

/** Changes of a state's elements; several on one element work one after the other. */
export function changesOf(state: State, alters: readonly Alter[]): Change[] {
  const changed = ({ element, to }: Alter, z = state.powered.parts[element]!.z): Change => ({ element, z: to(z) })
  if (alters.length < 2 || (alters.length === 2 && alters[0]!.element !== alters[1]!.element))
    return alters.map((a) => changed(a))
  const now = new Map<number, Complex | null>()
  for (const { element, to } of alters) {
    const z = now.has(element) ? now.get(element)! : state.powered.parts[element]!.z
    now.set(element, z === null ? null : to(z))
  }
  return [...now].map(([element, z]) => ({ element, z }))
}
