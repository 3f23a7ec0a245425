import { minus, poweredOf, size, type Complex, type Powered } from '../circuit'
import {
  commonOf,
  gaugeOf,
  lengthBetween_m,
  getOrThrow,
  stopPositions_m,
  terminalEnd,
  type CableId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type StationId,
} from '../site'
import type { Gauge } from '../quantity'
import { engineVerifier, type Verified } from './engine-verifier'
import { Model, type Violation } from './model'

/** A stretch of a thread at its worst moment: what it carries and what it takes. */
export interface StretchLoss {
  readonly side: 'lead' | 'common'
  readonly cable: CableId
  readonly core: CoreId
  readonly from: PlaceId
  readonly to: PlaceId
  readonly gauge: Gauge | null
  readonly length_m: number
  readonly current_A: number
  readonly drop_V: number
}
/** A point of the stair: what is left between lead and common so far along. */
export interface ProfilePoint {
  readonly at_m: number
  readonly volt_V: number
}

/** A thread at its worst moment. */
export interface ThreadMargin {
  readonly station: StationId | null
  readonly device: DeviceId
  readonly part: Violation['watch']['part']
  /** The station that starts at that moment, and those running. */
  readonly starter: StationId
  readonly running: readonly StationId[]
  readonly open_V: number
  readonly terminal_V: number
  /** What the controller gives at that moment, and what its transformer is rated at, where that is on record. */
  readonly load_VA: number
  readonly rating_VA: number | null
  /** The least the coil may have by the school in force. */
  readonly needed_V: number
  readonly volt_V: number
  readonly margin_V: number
  /** The same with the coil’s real part its winding’s alone; and by the model of constant currents. */
  readonly optimistic_V: number
  readonly model_V: number
  readonly joints_V: number
  readonly stretches: readonly StretchLoss[]
  readonly profile: readonly ProfilePoint[]
  /** A length or size on the way is not on record: the worst that it may be is taken. */
  readonly unknown: boolean
}

export interface Margins {
  /** The weakest first. */
  readonly threads: readonly ThreadMargin[]
  /** Stations to whose coil no complete way is on record. */
  readonly unwired: readonly StationId[]
}

/** Every thread of a property at its worst moment by the circuit engine in the safe phase, the weakest first. */
export function marginsOf(site: Site): Margins {
  const model = new Model(site)
  const { powered } = model
  const ohm = Float64Array.from(powered.parts, (p) => p.z.re)
  const safe = engineVerifier(model, powered)
  const optimistic = engineVerifier(model, poweredOf(site, { ...powered.conditions, phase: 'optimistic' }))
  const borne = new Map<string, { safe: Verified; optimistic: Verified }>()
  const threads = model.findAll(ohm).map((found): ThreadMargin => {
    const { moment } = found
    const key = [moment.starter.station, ...moment.others.map((o) => o.station)].join(' ')
    if (!borne.has(key)) borne.set(key, { safe: safe(moment), optimistic: optimistic(moment) })
    const at = borne.get(key)!
    return threadOf(model, found, at.safe, at.optimistic)
  })
  return { threads: threads.sort((a, b) => a.margin_V - b.margin_V), unwired: model.unwired.map((s) => s.station) }
}

function threadOf(model: Model, found: Violation, borne: Verified, optimistic: Verified): ThreadMargin {
  const { watch, moment } = found
  const { site, powered } = model
  const own = (b: Verified) => b.coils.find((c) => c.device === watch.load.device)!
  const { solution } = borne
  const coil = powered.parts.find((p) => p.of.kind === 'coil' && p.of.device === watch.load.device)!
  const across = minus(solution.volts(coil.a), solution.volts(coil.b))
  // In the direction of the coil's volts, so that the parts add up to the whole; a coil without any has no direction.
  const along = (volts: Complex) =>
    size(across) < 1e-9 ? size(volts) : Math.abs((volts.re * across.re + volts.im * across.im) / size(across))
  const source = powered.sources.find((s) => s.controller === watch.plant.controller)!
  const ordered = inOrder(powered, found, source.common)
  const stretches: StretchLoss[] = []
  let joints_V = 0
  let unknown = false
  const steps: { from_m: number; to_m: number; drop_V: number }[] = []
  for (const { element, side, from_m, to_m } of ordered) {
    const part = powered.parts[element]!
    const volts = minus(solution.volts(part.a), solution.volts(part.b))
    const drop_V = along(volts)
    steps.push({ from_m, to_m, drop_V })
    if (part.of.kind !== 'stretch') {
      joints_V += drop_V
      continue
    }
    const cable = getOrThrow(site.cables, part.of.cable)
    const length = lengthBetween_m(stopPositions_m(cable), part.of.from, part.of.to)
    const gauge = gaugeOf(cable, getOrThrow(cable.cores, part.of.core))
    unknown ||= gauge === null || length.low !== length.high
    stretches.push({
      side,
      cable: part.of.cable,
      core: part.of.core,
      from: cable.stops[part.of.from]!.place,
      to: cable.stops[part.of.to]!.place,
      gauge,
      length_m: length.high,
      current_A: size(volts) / part.z.re,
      drop_V,
    })
  }
  const { volt_V, margin_V } = own(borne)
  return {
    station: watch.start?.station ?? null,
    device: watch.load.device,
    part: watch.part,
    starter: moment.starter.station,
    running: moment.others.map((o) => o.station),
    open_V: source.open_V,
    terminal_V: borne.terminal_V,
    load_VA: borne.load_A * borne.terminal_V,
    rating_VA: getOrThrow(site.controllers, source.controller).transformer?.rating_VA ?? null,
    needed_V: volt_V - margin_V,
    volt_V,
    margin_V,
    optimistic_V: own(optimistic).volt_V,
    model_V: found.volt_V,
    joints_V,
    stretches,
    profile: stair(steps, borne.terminal_V, volt_V),
    unknown,
  }
}

/** The elements of a thread outward along the lead, then along the common, each with its metres from the controller. */
function inOrder(
  powered: Powered,
  { watch, moment }: Violation,
  common: number,
): { element: number; side: 'lead' | 'common'; from_m: number; to_m: number }[] {
  const { site } = powered
  const at = watch.part === 'master' ? masterTerminal(site, moment.starter.station) : (watch.start ?? moment.starter).at
  const home = commonOf(site, watch.plant.controller)
  const start =
    at === null || home === null
      ? undefined
      : powered.nodeOf.get(powered.wiring.pointOf(terminalEnd(at.controller, at.terminal)))
  const left = new Set(watch.way.elements)
  const done: { element: number; side: 'lead' | 'common'; from_m: number; to_m: number }[] = []
  for (const [side, first] of [
    ['lead', start],
    ['common', common],
  ] as const) {
    const reached = new Map<number, number>(first === undefined ? [] : [[first, 0]])
    for (let found = true; found;) {
      found = false
      for (const element of left) {
        const { a, b, of } = powered.parts[element]!
        const entry = reached.has(a) ? a : reached.has(b) ? b : null
        if (entry === null) continue
        const from_m = reached.get(entry)!
        const length_m =
          of.kind === 'stretch'
            ? lengthBetween_m(stopPositions_m(getOrThrow(site.cables, of.cable)), of.from, of.to).high
            : 0
        const there = entry === a ? b : a
        if (!reached.has(there)) reached.set(there, from_m + length_m)
        done.push({ element, side, from_m, to_m: from_m + length_m })
        left.delete(element)
        found = true
      }
    }
  }
  // Behind a sequencer's later outputs: joints of the same box, reached through a contact that is not on the way's
  // list.
  const end_m = Math.max(0, ...done.filter((d) => d.side === 'lead').map((d) => d.to_m))
  return [...done, ...[...left].map((element) => ({ element, side: 'lead' as const, from_m: end_m, to_m: end_m }))]
}

function masterTerminal(site: Site, station: StationId) {
  const at = getOrThrow(site.stations, station).pointOfConnection
  return at === null ? null : getOrThrow(site.pointsOfConnection, at).terminal
}

/** Volts left against distance: falls along wire, steps at joints. Ends at what the coil has. */
function stair(
  steps: readonly { from_m: number; to_m: number; drop_V: number }[],
  terminal_V: number,
  coil_V: number,
): ProfilePoint[] {
  const marks = [...new Set(steps.flatMap((s) => [s.from_m, s.to_m]))].sort((a, b) => a - b)
  const lostBefore = (at_m: number, withSteps: boolean) =>
    steps.reduce((sum, s) => {
      if (s.to_m === s.from_m) return sum + (s.from_m < at_m || (withSteps && s.from_m === at_m) ? s.drop_V : 0)
      return sum + s.drop_V * Math.max(0, Math.min(1, (at_m - s.from_m) / (s.to_m - s.from_m)))
    }, 0)
  const points = marks.flatMap((at_m): ProfilePoint[] => {
    const [before, after] = [terminal_V - lostBefore(at_m, false), terminal_V - lostBefore(at_m, true)]
    return Math.abs(before - after) < 1e-9
      ? [{ at_m, volt_V: after }]
      : [
          { at_m, volt_V: before },
          { at_m, volt_V: after },
        ]
  })
  return [{ at_m: 0, volt_V: terminal_V }, ...points, { at_m: marks.at(-1) ?? 0, volt_V: coil_V }]
}
