import { quarryLake } from '../../demo/quarry-lake'
import { whereIs } from '../map'
import { getOrThrow, type ControllerId } from '../site'
import { wetCheck } from '.'

test('the wet check of the gatehouse and the dome: every station once, boxes once, each long enough to be reached', () => {
  const site = quarryLake()
  for (const controller of ['A', 'D'] as ControllerId[]) {
    const check = wetCheck(site, controller, { look_min: 2, walk_mPerMin: 60 })
    const meant = Object.entries(site.stations).filter(([, s]) => s.controller === controller && s.valves.length > 0)
    const all = [...check.stops.flatMap((s) => s.stations), ...check.unplaced].map((s) => s.station)
    expect([...all].sort()).toEqual(meant.map(([id]) => id).sort())
    expect(new Set(check.stops.map((s) => s.place)).size).toBe(check.stops.length)
    for (const { walk_m, stations } of check.stops) {
      expect(stations[0]!.minutes * 60).toBeGreaterThanOrEqual(walk_m + 2 * 60)
      expect(stations.slice(1).every((s) => s.minutes === 2)).toBe(true)
    }
    expect(check.minutes).toBe(
      [...check.stops.flatMap((s) => s.stations), ...check.unplaced].reduce((n, s) => n + s.minutes, 0),
    )
    // Out and back: the way between stops, and home from the last.
    const [last, home] = [check.stops.at(-1)!.place, getOrThrow(site.controllers, controller).place].map((p) =>
      whereIs(getOrThrow(site.places, p))!,
    )
    const back_m = Math.hypot(last!.x_m - home!.x_m, last!.y_m - home!.y_m)
    expect(check.stops.reduce((sum, s) => sum + s.walk_m, back_m)).toBeCloseTo(check.walk_m, 6)
    expect(check.bound_m).toBeGreaterThanOrEqual(0.99 * check.walk_m)
  }
})

test('stations in boxes that are on no map come last, and are not left out', () => {
  const site = quarryLake()
  const places = Object.fromEntries(
    Object.entries(site.places).map(([id, p]) => [id, p.tag === 'B3' ? { ...p, position: null, foundAt: null } : p]),
  )
  const check = wetCheck({ ...site, places } as typeof site, 'A' as ControllerId)
  expect(check.unplaced.length).toBeGreaterThan(0)
  expect(check.stops.some((s) => getOrThrow(site.places, s.place).tag === 'B3')).toBe(false)
})
