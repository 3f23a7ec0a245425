import { randomSite } from '../../tests/random-site'
import { COMMON_METER, partKey, type RunPart } from '../record'
import { getOrThrow, type ControllerId, type CoreId, type Site, type StopId } from '../site'
import { huntContextOf } from './context'
import { huntOf } from './hunt'
import { conductorRunsOf } from './catalogue'
import { holdsPart, placesOf } from './where'

const A = 'A' as ControllerId
const { site } = randomSite(11, { loops: false })
const runs = conductorRunsOf(huntContextOf(site, A)!)
const long = runs.find((r) => r.to > r.from + 1)!

/** The site with a box that is new on record before the last stop of a run, and with the run opened there if asked. */
function withStop({ where, to }: (typeof runs)[number], opened: boolean): Site {
  const cable = getOrThrow(site.cables, where.cable)
  const core = getOrThrow(cable.cores, where.core)
  const stop = { ...cable.stops[to]!, id: 'new' as StopId, at_m: null }
  const stops = [...cable.stops.slice(0, to), stop, ...cable.stops.slice(to)]
  const cores = opened ? { ...cable.cores, [where.core]: { ...core, cutAt: [...core.cutAt, stop.id] } } : cable.cores
  return { ...site, cables: { ...site.cables, [where.cable]: { ...cable, stops, cores } } }
}

test('a part keeps its name and its places when a stop comes in between; other stretches keep theirs', () => {
  const on = withStop(long, false)
  const keys = new Set(conductorRunsOf(huntContextOf(on, A)!).map((r) => partKey(r.where)))
  expect([...keys].sort()).toEqual(runs.map((r) => partKey(r.where)).sort())
  for (const { where } of runs) expect(placesOf(on, where)).toEqual(placesOf(site, where))
})

test('a run that was opened since is held piece by piece by the run that was named; neighbours are not', () => {
  const on = withStop(long, true)
  const today = conductorRunsOf(huntContextOf(on, A)!).map((r) => r.where)
  const held = today.filter((part) => holdsPart(on, long.where, part))
  const ends = (r: RunPart) => [r.from, r.to]
  expect(held.map(ends)).toEqual([
    [long.where.from, 'new'],
    ['new', long.where.to],
  ])
  expect(holdsPart(on, { ...long.where, core: 'other' as CoreId }, held[0]!)).toBe(false)
  expect(holdsPart(on, { ...long.where, from: 'gone' as StopId }, held[0]!)).toBe(false)
  const hunt = huntOf(on, A, { meter: COMMON_METER })!
  hunt.mended(long.where)
  const believed = new Set([...hunt.beliefs().parts].filter(([, p]) => p > 0).map(([key]) => key))
  expect(held.some((part) => believed.has(partKey(part)))).toBe(false)
  expect(runs.some((r) => r.where !== long.where && believed.has(partKey(r.where)))).toBe(true)
})
