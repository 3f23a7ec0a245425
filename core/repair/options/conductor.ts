import { coreEnd, create, cutAt, freeId, join, set, type Work } from '../../plan'
import { coded } from '../../refusal'
import { stockOf } from '../../sizing'
import {
  bounded,
  getOrThrow,
  lengthBetween_m,
  stopPositions_m,
  type CableId,
  type PlaceId,
  type Site,
  type StopId,
} from '../../site'
import { soundSpares, type Way } from '../lead'
import { broughtOut, replaceStretch } from '../mend'
import type { RepairAsk, Tried, WhyNot } from '../repair'
import { triedWith } from '../tried'

const none = (code: 'no_spare' | 'no_cable', params = {}): WhyNot => coded(code, [], params)
const lengthOf = (site: Site, { cable, from, to }: Way) =>
  lengthBetween_m(stopPositions_m(getOrThrow(site.cables, cable)), from, to).value
const placesOf = (site: Site, ways: readonly Way[]) =>
  ways.flatMap(({ cable, from, to }) => {
    const { stops } = getOrThrow(site.cables, cable)
    return [stops[from]!.place, stops[to]!.place]
  })

/** Every spare core that takes the place of the stretch, at both ends; of several stretches a spare for each. */
export function spareCores(ask: RepairAsk): Tried[] | WhyNot {
  const { damage } = ask
  const { ways, site } = damage
  if (ways.length === 0) return none('no_cable')
  const spares = ways.map((w) => soundSpares(site, w.cable))
  const short = ways.find((_, i) => spares[i]!.length === 0)
  if (short) return none('no_spare', { cable: getOrThrow(site.cables, short.cable).tag ?? short.cable })
  const most = Math.max(...spares.map((s) => s.length))
  return Array.from({ length: most }, (_, n) => {
    const work: Work = { site }
    ways.forEach((way, i) => {
      const spare = spares[i]![Math.min(n, spares[i]!.length - 1)]!
      const [near, far] = broughtOut(work, way.cable, spare, way.from, way.to)
      replaceStretch(work, way, near, far)
    })
    return triedWith(ask, work, placesOf(site, ways), { work: { prove: 2 * ways.length } })
  })
}

/** A new single beside the stretch, in each size of the stores from the thinnest on. */
export function newWires(ask: RepairAsk): Tried[] | WhyNot {
  const { ways, site } = ask.damage
  if (ways.length === 0) return none('no_cable')
  const length_m = ways.reduce((sum, w) => sum + lengthOf(site, w), 0)
  return stockOf(site).map(({ gauge }) => {
    const work: Work = { site }
    for (const way of ways) {
      const { stops, cores } = getOrThrow(site.cables, way.cable)
      const [a, b] = [stops[way.from]!, stops[way.to]!]
      const id = freeId(work.site, 'cables', `${way.cable}-new`) as CableId
      const known = <T>(value: T) => ({ value, how: 'reported' as const, on: null })
      create(work, 'cables', id, {
        kind: 'single',
        gauge: known(gauge),
        stops: [
          { id: 'near', place: a.place, at_m: known(0) },
          { id: 'far', place: b.place, at_m: known(Math.round(lengthOf(site, way) * 10) / 10) },
        ],
        cores: { c0: { colour: getOrThrow(cores, way.core).colour } },
      })
      const c0 = 'c0' as Way['core']
      replaceStretch(work, way, coreEnd(id, c0, 'near', 'leaves'), coreEnd(id, c0, 'far', 'arrives'))
    }
    return triedWith(ask, work, placesOf(site, ways), {
      work: { trench_m: length_m },
      parts: { sleeve_m: length_m },
      wire: { gauge, length_m },
    })
  })
}

/** The break found along the stretch and joined there, in a box of its own. */
export function tracedBreak(ask: RepairAsk): Tried[] | WhyNot {
  const { damage, where } = ask
  const [way, ...more] = damage.ways
  if (!way) return none('no_cable')
  if (more.length > 0 || way.to - way.from > 1) {
    // Where along several lengths it lies nobody knows: the joint is put into the first of them, the others are sound.
    return [mendedAt(ask, { ...way, to: way.from + 1 }, null)]
  }
  return [mendedAt(ask, way, where.kind === 'touch' ? where.other : null)]
}

/** As the record had it before anything was found, with a joint in the middle of the stretch. */
function mendedAt(ask: RepairAsk, way: Way, other: Way['core'] | null): Tried {
  const work: Work = { site: ask.site }
  const cable = getOrThrow(work.site.cables, way.cable)
  const [a, b] = [cable.stops[way.from]!, cable.stops[way.from + 1]!]
  const tag = freeTag(work.site)
  const place = freeId(work.site, 'places', tag) as PlaceId
  create(work, 'places', place, { tag, kind: 'junction_box' })
  const [near, far] = [bounded(a.at_m)?.value, bounded(b.at_m)?.value]
  const middle =
    near === undefined || far === undefined ? null : { value: (near + far) / 2, how: 'assumed' as const, on: null }
  const stop = { id: freeStop(cable.stops, place), place, at_m: middle }
  set(work, 'cables', way.cable, 'stops', [
    ...cable.stops.slice(0, way.from + 1),
    stop,
    ...cable.stops.slice(way.from + 1),
  ])
  for (const core of [way.core, ...(other === null ? [] : [other])]) {
    cutAt(work, way.cable, core, stop.id)
    join(
      work,
      place,
      (['arrives', 'leaves'] as const).map((side) => coreEnd(way.cable, core, stop.id, side)),
    )
  }
  return triedWith(ask, work, [a.place, b.place], {
    work: { trace: 1, hole: 1, place: 1 },
    parts: { box: 1 },
  })
}

/** The first of J1, J2, … that no place has. */
function freeTag(site: Site): string {
  const tags = new Set(Object.values(site.places).map((p) => p.tag))
  let n = 1
  while (tags.has(`J${n}`)) n++
  return `J${n}`
}

const freeStop = (stops: readonly { readonly id: string }[], place: string): StopId => {
  let id = `s-${place}`
  while (stops.some((s) => s.id === id)) id += 'x'
  return id as StopId
}
