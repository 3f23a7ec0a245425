import { copperFactor } from '../quantity'
import {
  coresOnPaths,
  entries,
  gaugeOf,
  lengthBetween_m,
  getOrThrow,
  stopPositions_m,
  type Cable,
  type CableId,
  type CoreId,
  type Known,
} from '../site'
import type { Gauge } from '../quantity'
import type { Powered } from '../circuit'

/** Conductors that must have one size: a jacket, or a single conductor from one cut to the next. */
export interface Group {
  readonly cable: CableId
  /** The single conductor's core, and the stops it runs between; all of the jacket where null. */
  readonly core: CoreId | null
  readonly from: number
  readonly to: number
  /** Metres of conductor to be bought, all cores. */
  readonly length_m: number
  /** What is on record, if anything: the present size. */
  readonly now: Gauge | null
}

export interface Grouped {
  readonly groups: readonly Group[]
  /** The group of every element of the powered network that may still be chosen; −1 for the rest. */
  readonly groupOf: Int32Array
  /** Metres of the element times how much warmer than 20 °C it lies, as a factor: ohms are this times Ω/m at 20 °C. */
  readonly weight_m: Float64Array
}

/** Whether a size is settled: seen or reported. What is only assumed, or not on record, the plan may choose. */
export const isPinned = (gauge: Known<Gauge>): boolean => gauge !== null && gauge.how !== 'assumed'

/**
 * The free choices of a property. `anew` frees every conductor, whatever is on record. `path` are the cores of the
 * two-wire path that is sized, as `cable/core`; without it the threads are, and the cores of all paths are left out.
 */
export function groupsOf(powered: Powered, anew = false, path: ReadonlySet<string> | null = null): Grouped {
  const { site, conditions } = powered
  const groups: Group[] = []
  const at = new Map<string, number>()
  const onPaths = path ?? coresOnPaths(site)
  const isAsked = (core: string) => onPaths.has(core) === (path !== null)
  for (const [id, cable] of entries(site.cables)) {
    const positions = stopPositions_m(cable)
    if (cable.kind === 'jumper') continue
    if (cable.kind !== 'single') {
      const free = entries(cable.cores).filter(
        ([coreId, core]) =>
          isAsked(`${id}/${coreId}`) &&
          (anew || (!isPinned(core.gauge) && (core.gauge !== null || !isPinned(cable.gauge)))),
      )
      if (free.length === 0) continue
      const length = lengthBetween_m(positions, 0, cable.stops.length - 1).high
      for (const [core] of free)
        for (let i = 0; i + 1 < cable.stops.length; i++) at.set(`${id}/${core}/${i}`, groups.length)
      groups.push({
        cable: id,
        core: null,
        from: 0,
        to: cable.stops.length - 1,
        length_m: length * free.length,
        now: cable.gauge?.value ?? null,
      })
      continue
    }
    for (const [core, record] of entries(cable.cores)) {
      if (!isAsked(`${id}/${core}`)) continue
      if (!anew && (isPinned(record.gauge) || (record.gauge === null && isPinned(cable.gauge)))) continue
      const cuts = cutsOf(cable, record.cutAt)
      for (let k = 0; k + 1 < cuts.length; k++) {
        const [from, to] = [cuts[k]!, cuts[k + 1]!]
        for (let i = from; i < to; i++) at.set(`${id}/${core}/${i}`, groups.length)
        groups.push({
          cable: id,
          core,
          from,
          to,
          length_m: lengthBetween_m(positions, from, to).high,
          now: gaugeOf(cable, record),
        })
      }
    }
  }
  const groupOf = new Int32Array(powered.parts.length).fill(-1)
  const weight_m = new Float64Array(powered.parts.length)
  powered.parts.forEach(({ of }, e) => {
    if (of.kind !== 'stretch') return
    const cable = getOrThrow(site.cables, of.cable)
    groupOf[e] = at.get(`${of.cable}/${of.core}/${of.from}`) ?? -1
    weight_m[e] =
      lengthBetween_m(stopPositions_m(cable), of.from, of.to).high *
      copperFactor(conditions.climate.ground_C + cable.warmer_K)
  })
  return { groups, groupOf, weight_m }
}

/** The places in the list of stops at which a core begins, is cut, and ends. */
function cutsOf(cable: Cable, cutAt: readonly string[]): number[] {
  return cable.stops.flatMap((s, i) => (i === 0 || i === cable.stops.length - 1 || cutAt.includes(s.id) ? [i] : []))
}
