import { minus, times, type Across, type Join, type Spot } from '../../circuit'
import type { DeviceId } from '../../site'
import { changesOf, modsOf, type Alter, type Faults, type FaultHypothesis } from '../catalogue'
import type { Basis } from './basis'
import { half, meterSpread, type Prediction } from './prediction'

/** What is undone and jumpered for a test, beside the faults. */
interface Undone {
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
}
const NOTHING: Undone = { alters: [], joins: [] }

/** Predictions of an ohmmeter on the network with its power off. */
export interface Ohms {
  /** Ohms between two nodes with these changes; null where no way leads from one to the other. */
  readonly between: (across: Across, alters: readonly Alter[], joins: readonly Join[]) => number | null
  readonly reading: (across: Across, faults: Faults, undone?: Undone) => Prediction
  readonly toEarth: (from: number, faults: Faults, alters?: readonly Alter[]) => Prediction
  /**
   * What several faults show together from what each shows alone, where all of the meter's current passes each of
   * them: ohms in series add up, an open one opens all. Null where that is not so.
   */
  readonly inSeries: (
    across: Across,
    faults: Faults,
    alone: (v: FaultHypothesis | null) => Prediction | null,
  ) => Prediction | null
}

/** A reading that a fault moves by less than this no meter tells from the sound one. */
const UNSEEN_ohm = 0.005
/** A coil with less of the meter's current than this part is none of the reading's. */
const LEAST_SHARE = 0.02

/** A leak that is known keeps its ohms to within so much of them, one deviation: wet ground and dry. */
const KNOWN_LEAK_ratio = 0.3

/** The end of a stretch through which a leak along it is read. */
const nearNode = ({ meterState: { powered } }: Basis['context'], spot: Spot): number =>
  'node' in spot ? spot.node : spot.along < 0.5 ? powered.parts[spot.element]!.a : powered.parts[spot.element]!.b

/** Whether two conductors touch at the same spots. */
const isSame = (one: Join, other: Join): boolean => isSpot(one.p, other.p) && isSpot(one.q, other.q)
const isSpot = (one: Spot, other: Spot): boolean =>
  'node' in one
    ? 'node' in other && one.node === other.node
    : 'element' in other && one.element === other.element && one.along === other.along

export function ohmsOf({ context, faultOf, meter }: Basis): Ohms {
  const { site, meterState } = context
  const { powered } = meterState
  const ends = (element: number) => powered.parts[element]!
  const between: Ohms['between'] = (across, alters, joins) => {
    const reading = meterState.influence.ohms(
      meterState.testOf(across.a, across.b),
      changesOf(meterState, alters),
      joins,
    )
    return reading.open ? null : Math.max(0, reading.value.re)
  }
  /** Coils that a reading depends on as recorded: worked out once per pair of points. */
  const coilsIn = new Map<string, DeviceId[]>()
  const coilsOf = (across: Across, joins: readonly Join[]): readonly DeviceId[] => {
    const key = `${across.a} ${across.b} ${joins.length}`
    const known = coilsIn.get(key)
    if (known) return known
    const test = meterState.testOf(across.a, across.b)
    const found = [...context.coilElement].flatMap(([device, element]) =>
      meterState.influence.share(test, element) > LEAST_SHARE ? [device] : [],
    )
    coilsIn.set(key, found)
    return found
  }
  const sounds = new Map<string, Prediction>()
  const soundOf = (across: Across): Prediction => {
    const key = `${across.a} ${across.b}`
    const made = sounds.get(key) ?? reading(across, [])
    sounds.set(key, made)
    return made
  }
  function reading(across: Across, faults: Faults, undone: Undone = NOTHING): Prediction {
    const mods = modsOf(faults, ends)
    const changes = changesOf(meterState, [...mods.alters, ...undone.alters])
    const joins = [...mods.joins, ...undone.joins]
    const test = meterState.testOf(across.a, across.b)
    const flow = meterState.influence.flow(test, changes, joins)
    const mean = flow && Math.max(0, flow.value.re)
    if (undone === NOTHING && faults.length > 0 && mean !== null && changes.every((c) => c.z !== null)) {
      const sound = soundOf(across)
      if (sound.kind === 'ohms' && Math.abs(mean - sound.mean) < UNSEEN_ohm) return sound
    }
    if (mean === null || mean > meter.highest_ohm) return { kind: 'open' }
    // Touching leads bring in each other's coils.
    const devices = new Set([
      ...coilsOf(across, undone.joins),
      ...(mods.joins.length > 0 ? faults.flatMap((v) => faultOf(v).besides) : []),
    ])
    const now = new Map(changes.map((c) => [c.element, c.z]))
    const coils = [...devices].flatMap((d) => {
      const element = context.coilElement.get(d)
      const z = element === undefined ? null : now.has(element) ? now.get(element)! : powered.parts[element]!.z
      const s = z === null ? 0 : times(flow!.ofElement(element!), z).re
      return Math.abs(s) > 0.01 ? [[d, s] as const] : []
    })
    let join = 0
    const figures = faults.flatMap((v) => {
      const first = join
      join += v.mods.joins.length
      return v.shifted.map((to) => {
        if (to.joins.some((j, k) => !isSame(j, v.mods.joins[k]!))) {
          const elsewhere = modsOf(faults, ends, (w) => (w === v ? to : w.mods))
          const moved = between(across, [...elsewhere.alters, ...undone.alters], [...elsewhere.joins, ...undone.joins])
          return (moved ?? mean) - mean
        }
        const joined = to.joins.map((j, k) => flow!.ofJoin(first + k).re * (j.ohm - v.mods.joins[k]!.ohm))
        const altered = to.alters.map((a, k) => {
          const { z } = powered.parts[a.element]!
          const [here, there] = [v.mods.alters[k]!.to(z), a.to(z)]
          return here && there ? times(flow!.ofElement(a.element), minus(there, here)).re : 0
        })
        return [...joined, ...altered].reduce((sum, x) => sum + x, 0)
      })
    })
    return { ...spreadOf(mean, between(across, undone.alters, undone.joins) ?? 0, coils), mean, coils, figures }
  }
  /** What blurs a reading of so many ohms; of what it would be without faults, all but the coils is wire. */
  function spreadOf(mean: number, sound: number, coils: readonly (readonly [DeviceId, number])[]) {
    const wire = Math.max(0, Math.min(mean, sound) - coils.reduce((s, [, c]) => s + c, 0))
    const noise = meterSpread(mean, meter, half(site.settings.lengthTolerance_ratio) * wire)
    return { kind: 'ohms', noise, ratio: half(meter.accuracy_ratio) } as const
  }

  const hasKnownLeak = powered.wiring.shunts.some((s) => s.b === 'earth')
  function toEarth(from: number, faults: Faults, alters: readonly Alter[] = []): Prediction {
    const leaks = faults.flatMap((v) => (v.leak ? [{ v, leak: v.leak }] : []))
    const mods = modsOf(faults, ends)
    const paths = leaks.flatMap(({ v, leak }) => {
      const to = nearNode(context, leak.spot)
      const way = from === to ? 0 : between({ a: from, b: to }, [...mods.alters, ...alters], mods.joins)
      return way === null ? [] : [{ ohm: v.ohm! + way, sd: leak.sd_ohm }]
    })
    // A leak that is on record is one of the wiring's own ways.
    const known = hasKnownLeak ? between({ a: from, b: powered.earth }, [...mods.alters, ...alters], mods.joins) : null
    if (paths.length === 0 && known === null) return { kind: 'insulated' }
    const mean = 1 / paths.reduce((s, p) => s + 1 / p.ohm, known === null ? 0 : 1 / known)
    const wanders = known === null ? 0 : (KNOWN_LEAK_ratio * mean ** 2) / known
    return {
      kind: 'ohms',
      mean,
      noise: Math.hypot(meterSpread(mean, meter, 1), wanders),
      ratio: half(meter.accuracy_ratio),
      coils: [],
      figures: paths.map((p) => (p.sd * mean ** 2) / p.ohm ** 2),
    }
  }
  const wholeCurrent = new Map<string, boolean>()
  const isInSeries = (across: Across, { mods, leak }: FaultHypothesis): boolean => {
    const [only, other] = mods.alters
    if (!only || other || mods.joins.length > 0 || leak) return false
    const key = `${across.a} ${across.b} ${only.element}`
    let known = wholeCurrent.get(key)
    if (known === undefined) {
      known = meterState.influence.share(meterState.testOf(across.a, across.b), only.element) > 1 - 1e-9
      wholeCurrent.set(key, known)
    }
    return known
  }
  const inSeries: Ohms['inSeries'] = (across, faults, alone) => {
    if (!faults.every((v) => isInSeries(across, v))) return null
    if (new Set(faults.map((v) => v.mods.alters[0]!.element)).size < faults.length) return null
    const [base, singles] = [alone(null), faults.map(alone)]
    if (base?.kind !== 'ohms') return null
    if (singles.some((s) => s?.kind === 'open')) return { kind: 'open' }
    const seen = singles.flatMap((s) => (s?.kind === 'ohms' ? [s] : []))
    if (seen.length < faults.length) return null
    const mean = seen.reduce((sum, s) => sum + s.mean - base.mean, base.mean)
    if (mean > meter.highest_ohm) return { kind: 'open' }
    const coils = base.coils.flatMap(([d, c]) => {
      const left = seen.reduce((x, s) => x * ((s.coils.find(([e]) => e === d)?.[1] ?? 0) / c), c)
      return Math.abs(left) > 0.01 ? [[d, left] as const] : []
    })
    return { ...spreadOf(mean, base.mean, coils), mean, coils, figures: seen.flatMap((s) => s.figures) }
  }
  return { between, reading, toEarth, inSeries }
}
