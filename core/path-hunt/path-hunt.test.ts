import { drawPathFault, pathFieldOf } from '../../standins'
import { huntPath } from '../../tests/path-hunts'
import { randomPath } from '../../tests/random-path'
import { dome } from '../../demo/dome'
import { layoutOf } from '../path'
import type { PathTest } from '../record'
import { Draft, pathsOf } from '../site'
import { aimOf, fit, pathHuntOf, suspectsOf, type PathRead } from '.'

const huntOn = (site: Parameters<typeof pathHuntOf>[0], path: Parameters<typeof pathHuntOf>[1]) => {
  const made = pathHuntOf(site, path)
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  return made.value
}

test('what a sound path shows is what a simulated one answers, in every test that can be made', () => {
  const { site, path } = randomPath(41, { boxes: 9, exits: 2 })
  const hunt = huntOn(site, path)
  const field = pathFieldOf(site, path, null, 5)
  const odd = hunt.candidates.flatMap(({ test }) => {
    const [value, shown] = [field.answer(test), hunt.predict(null, test)!]
    const likely = shown.kind === 'figure' ? 1 / (shown.sd * Math.sqrt(2 * Math.PI)) : 1
    // Three deviations, or the one answer in fifty that a look at a sound joint gives.
    return fit(test, shown, value) < (shown.kind === 'yes' ? 0.01 : likely * Math.exp(-4.5)) ? [{ test, value }] : []
  })
  expect(odd).toEqual([])
  expect(hunt.candidates.length).toBeGreaterThan(100)
})

test('the dome: an open leg is told by one volt reading past it, a decoder with another’s number by what it adds', () => {
  const site = dome(new Draft('Dome').coilKind('standard', 33, { inrush_A: 0.4, holding_A: 0.23 })).site()
  const path = pathsOf(site)[0]!
  const hunt = huntOn(site, path)
  const place = (tag: string) => Object.entries(site.places).find(([, p]) => p.tag === tag)![0] as never
  const volts = (tag: string, value: number): PathRead => ({ test: { kind: 'path_volts', place: place(tag) }, value })
  const open = hunt.weigh([volts('D10', 0), volts('D9', 25.6)])
  const [first] = suspectsOf(open)
  expect([...first!.places].sort()).toEqual([place('D10'), place('D9')].sort())
  expect(aimOf(open)!.p).toBeGreaterThan(0.85)

  const added = (number: number, value: number): PathRead => ({ test: { kind: 'added_amps', number }, value })
  const twice = [added(7, 0.003), added(13, 0.5)]
  const moved = hunt.weigh(twice)[0]!
  expect(moved.fault).toMatchObject({ kind: 'renumbered', as: 13, where: { device: 'X7' } })
  const given: PathRead = { test: { kind: 'number_read', device: 'X7' as never }, value: 13 }
  expect(hunt.weigh([...twice, given])[0]).toMatchObject({ fault: moved.fault })
  expect(hunt.weigh([...twice, given])[0]!.p).toBeGreaterThan(0.99)

  // Struck by a reading that fits nothing, the odds stay odds.
  const mixed = hunt.weigh([added(7, 0.003), added(7, 0.24), volts('D10', 0), volts('D5', 100)])
  expect(mixed.reduce((sum, w) => sum + w.p, 0)).toBeCloseTo(1)
  expect(hunt.next(mixed, layoutOf(site, path).spots[0]!.place, []).length).toBeGreaterThan(0)
})

test('a short is told by its ohms from the screws, and a leak by the length that is apart', () => {
  const { site, path } = randomPath(7, { boxes: 10, exits: 1, back: 1 })
  const hunt = huntOn(site, path)
  const boxes = layoutOf(site, path).outward.map((spot) => layoutOf(site, path).spots[spot]!.place)
  const apart = (kind: 'legs_earth' | 'legs_between', at: number): PathTest => ({
    kind,
    place: boxes[at]!,
    onto: boxes[at + 1]!,
  })
  for (let seed = 0, seen = 0; seen < 4; seed++) {
    const truth = drawPathFault(site, path, seed)
    if (truth.kind !== 'touch' && truth.kind !== 'earth') continue
    seen++
    const field = pathFieldOf(site, path, truth, seed)
    const kind = truth.kind === 'touch' ? 'legs_between' : 'legs_earth'
    const far = boxes.findLastIndex((box) => truth.places.includes(box))
    const tests = [0, far - 1, far].flatMap((at) => (at >= 0 && at < boxes.length - 1 ? [apart(kind, at)] : []))
    const read = tests.map((test) => ({ test, value: field.answer(test) }))
    const aim = aimOf(hunt.weigh(read))!
    expect(aim.places.some((p) => truth.places.includes(p))).toBe(true)
  }
})

test('searched as advised, drawn faults are reached, and sooner than box after box outward', () => {
  const hunted = Array.from({ length: 6 }, (_, n) => {
    const { site, path } = randomPath(900 + n, { boxes: 9 + n, exits: n % 2 === 0 ? 1 : 2 })
    return huntPath(site, path, 50 + n)
  })
  const sum = (of: (h: (typeof hunted)[number]) => number) => hunted.reduce((s, h) => s + of(h), 0)
  expect(sum((h) => h.minutes)).toBeLessThan(sum((h) => h.outward_min))
  expect(sum((h) => h.wrong)).toBeLessThan(3)
})
