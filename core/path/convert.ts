import { climateOf, wire_ohmPerM, type Climate } from '../circuit'
import { area_mm2 } from '../quantity'
import { carried, planJoint, type JointPlan } from '../splice'
import {
  entries,
  getOrThrow,
  lengthBetween_m,
  stopPositions_m,
  knownAgainst,
  UNKNOWN_GAUGE,
  gaugeOf,
  type AgainstCore,
  type CableId,
  type CoreId,
  type PlaceId,
  type Site,
  type StopId,
  type System,
} from '../site'
import { coil_A } from './running'

/** Why a core is left out of both legs. */
export type LeftOut = AgainstCore
/** Why a cable cannot become a path, or should not. */
export type Obstacle =
  | { readonly kind: 'twisted_only' }
  | { readonly kind: 'too_few_cores'; readonly sound: number }
  | { readonly kind: 'out_of_reach'; readonly volt_V: number; readonly minimum_V: number }

/** A box of the conversion: what is joined there for either leg, with a tail for the decoder, and by what. */
export interface ConvertedBox {
  readonly stop: StopId
  readonly place: PlaceId
  readonly at_m: number
  /** Conductors in each leg’s joint: cores that come, cores that go on, the tail. */
  readonly ends: readonly [number, number]
  /** Null where nothing that is carried holds them. */
  readonly joints: readonly [JointPlan | null, JointPlan | null]
  /** Both legs in series from the controller’s end to here. */
  readonly loop_ohm: number
}

/** An old cable as a path: every sound core in one of two legs all the way. */
export interface Conversion {
  readonly cable: CableId
  readonly legs: readonly [readonly CoreId[], readonly CoreId[]]
  readonly out: readonly { readonly core: CoreId; readonly why: LeftOut }[]
  /** Each leg from end to end, and both in series: what a meter reads at one end with the far ends joined. */
  readonly leg_ohm: readonly [number, number]
  readonly loop_ohm: number
  readonly boxes: readonly ConvertedBox[]
  /** Volts at the far end with a decoder for each of `decoders` waiting there and one of them on, the worst of it. */
  readonly far_V: number | null
  readonly decoders: number
  readonly obstacles: readonly Obstacle[]
}

const ROUNDING = 1e-12

/**
 * Puts conductances into two groups so that 1/ΣA + 1/ΣB is least. The sum is the same whatever the groups, so the
 * groups should be as even as they can be: of every class of equal cores it is enough to try how many are in the first
 * group, which is every division there is.
 * @returns which are in the first group
 */
export function balanced(conductances: readonly number[]): boolean[] {
  const classes = new Map<number, number[]>()
  conductances.forEach((g, i) => classes.set(g, [...(classes.get(g) ?? []), i]))
  const all = [...classes]
  const whole = conductances.reduce((sum, g) => sum + g, 0)
  let best: { off: number; counts: readonly number[] } = { off: Infinity, counts: [] }
  const tryFrom = (k: number, sum: number, counts: readonly number[]): void => {
    if (k === all.length) {
      const off = Math.abs(whole - 2 * sum)
      if (off < best.off - ROUNDING * whole && sum > 0 && sum < whole) best = { off, counts }
      return
    }
    const [g, members] = all[k]!
    for (let n = members.length; n >= 0; n--) tryFrom(k + 1, sum + n * g, [...counts, n])
  }
  tryFrom(0, 0, [])
  const first = new Set(all.flatMap(([, members], k) => members.slice(0, best.counts[k] ?? 0)))
  return conductances.map((_, i) => first.has(i))
}

/**
 * How a cable on record becomes a path of this system, and whether it can.
 * @param decoders how many will hang on it; one for each valve in its boxes where nothing is said
 * @param kept cores that go on serving what they serve
 */
export function convert(
  site: Site,
  id: CableId,
  system: System,
  decoders?: number,
  climate = climateOf(site),
  kept: ReadonlySet<CoreId> = new Set(),
): Conversion {
  const cable = getOrThrow(site.cables, id)
  const cores = entries(cable.cores)
    .filter(([core]) => !kept.has(core))
    .sort(([, a], [, b]) => a.order - b.order)
  const judged = cores.map(([core]) => ({ core, why: knownAgainst(site, id, core) }))
  const sound = judged.filter((c) => c.why === null).map((c) => c.core)
  const perM = (core: CoreId, at: Climate, of: 'value' | 'high') =>
    wire_ohmPerM(site, { kind: 'stretch', cable: id, core } as never, at)[of]
  const isFirst = balanced(sound.map((core) => 1 / perM(core, climate, 'value')))
  const legs = [sound.filter((_, i) => isFirst[i]), sound.filter((_, i) => !isFirst[i])] as const
  const legPerM = (leg: readonly CoreId[], at: Climate, of: 'value' | 'high') =>
    1 / leg.reduce((sum, core) => sum + 1 / perM(core, at, of), 0)
  const positions = stopPositions_m(cable)
  const last = positions.length - 1
  const long = lengthBetween_m(positions, 0, last)
  const each = legs.map((leg) => long.value * legPerM(leg, climate, 'value')) as [number, number]
  const areas = (leg: readonly CoreId[]) =>
    leg.map((core) =>
      area_mm2(gaugeOf(cable, getOrThrow(cable.cores, core)) ?? UNKNOWN_GAUGE[site.settings.market].likely),
    )
  const joint = (leg: readonly CoreId[], sides: number) => {
    const own = areas(leg)
    const all = [...Array.from({ length: sides }, () => own).flat(), Math.max(...own, 0)]
    return planJoint(
      all.map((area, i) => ({ key: String(i), area_mm2: area })),
      carried(site.settings).filter((c) => system.joints.length === 0 || system.joints.some((j) => j === c.kind)),
      own,
    )
  }
  const boxes = cable.stops.flatMap((stop, i): ConvertedBox[] => {
    if (i === 0 || legs[1].length === 0) return []
    const at_m = lengthBetween_m(positions, 0, i).value
    const sides = i === last ? 1 : 2
    return [
      {
        stop: stop.id,
        place: stop.place,
        at_m,
        ends: [sides * legs[0].length + 1, sides * legs[1].length + 1],
        joints: [joint(legs[0], sides), joint(legs[1], sides)],
        loop_ohm: at_m * (legPerM(legs[0], climate, 'value') + legPerM(legs[1], climate, 'value')),
      },
    ]
  })
  const places = new Set<PlaceId>(cable.stops.slice(1).map((s) => s.place))
  const valves = entries(site.devices).filter(([, d]) => d.kind === 'coil' && places.has(d.place))
  const count = decoders ?? valves.length
  const { path_V, minimum_V, idle_A, active_A } = system
  const hot = climateOf(site, site.settings.sizing.hottest_C)
  const heaviest_A = Math.max(0, ...valves.map(([v]) => coil_A(site, v, 'inrush')))
  const hot_ohm = system.source_ohm + long.high * (legPerM(legs[0], hot, 'high') + legPerM(legs[1], hot, 'high'))
  const far_V =
    path_V === null || idle_A === null || active_A === null || legs[1].length === 0
      ? null
      : path_V * (1 - site.settings.sizing.mainsLow_ratio) -
        hot_ohm * (Math.max(0, count - 1) * idle_A + active_A + heaviest_A)
  const obstacles: Obstacle[] = []
  if (system.cable === 'twisted' && cable.kind !== 'twisted_pair') obstacles.push({ kind: 'twisted_only' })
  if (sound.length < 2) obstacles.push({ kind: 'too_few_cores', sound: sound.length })
  if (far_V !== null && minimum_V !== null && far_V < minimum_V)
    obstacles.push({ kind: 'out_of_reach', volt_V: far_V, minimum_V })
  return {
    cable: id,
    legs,
    out: judged.flatMap(({ core, why }) => (why === null ? [] : [{ core, why }])),
    leg_ohm: each,
    loop_ohm: each[0] + each[1],
    boxes,
    far_V,
    decoders: count,
    obstacles,
  }
}
