import loadHighs from 'highs'
import { manyPlanned } from '../../bench/many-plan'
import { randomPlan, siteOf } from '../../tests/random-plan'
import { climateOf } from '../circuit'
import { expectSweep, sceneOf } from '../expect'
import { maximum_ohmPerM, nominal_ohmPerM } from '../quantity'
import { COMMON_METER } from '../record'
import { applyBatch, checkSite, type ControllerId, type Site } from '../site'
import { choiceSolver, marginsOf, size, sizingCommands, type ChoiceSolver, type Sized } from './index'

let solve: ChoiceSolver
beforeAll(async () => {
  solve = choiceSolver(await loadHighs())
})
const sized = (site: Site): Sized | null => {
  const answer = size(site, solve)
  return answer.kind === 'sized' ? answer : null
}
const written = (site: Site, answer: Sized): Site => {
  const applied = applyBatch(site, sizingCommands(site, answer))
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
/** Metres of every size by the answer and by the property: nothing may get lost where a conductor is divided. */
const metresBySize = (answer: Sized) => {
  const sum: Record<string, number> = {}
  answer.groups.forEach((g, i) => {
    const key = JSON.stringify(answer.stock[answer.chosen[i]!]!.gauge)
    sum[key] = (sum[key] ?? 0) + g.length_m
  })
  return sum
}
const metresOf = (site: Site) => {
  const sum: Record<string, number> = {}
  for (const cable of Object.values(site.cables)) {
    const at = cable.stops.map((s) => (s.at_m as { value: number }).value)
    for (const core of Object.values(cable.cores)) {
      const key = JSON.stringify((core.gauge ?? cable.gauge)!.value)
      sum[key] = (sum[key] ?? 0) + at.at(-1)! - at[0]!
    }
  }
  return sum
}

test('sizes written into a plan: every metre has its size, the wiring is as whole as before, and every coil keeps what was promised', () => {
  let divided = 0
  for (let seed = 300; seed < 325; seed++) {
    const site = siteOf(randomPlan(seed, 8))
    const answer = sized(site)
    if (!answer) continue
    const after = written(site, answer)
    const [ours, theirs] = [metresBySize(answer), metresOf(after)]
    for (const key of new Set([...Object.keys(ours), ...Object.keys(theirs)]))
      expect([seed, key, theirs[key]]).toEqual([seed, key, expect.closeTo(ours[key]!, 6)])
    expect([seed, checkSite(after).filter((f) => f.weight === 'wrong' || f.code === 'ends_unjoined').length]).toEqual([
      seed,
      checkSite(site).filter((f) => f.weight === 'wrong' || f.code === 'ends_unjoined').length,
    ])
    const { threads, unwired } = marginsOf(after)
    expect([seed, unwired, threads.every((t) => t.margin_V > -1e-6)]).toEqual([seed, [], true])
    expect(Math.min(...threads.map((t) => t.model_V - t.needed_V))).toBeCloseTo(answer.weakest!.margin_V, 6)
    divided += Number(Object.keys(after.cables).length > Object.keys(site.cables).length)
  }
  expect(divided).toBeGreaterThan(3)
})

test('what the meter should read follows the sizes written: the nominal ohms of lead and common, whatever pieces they have become', () => {
  const site = manyPlanned(10, 7)
  const answer = sized(site)!
  const after = written(site, answer)
  const ohmPerM = new Map(
    answer.groups.map((g, i) => [`${g.cable} ${g.from}`, nominal_ohmPerM(answer.stock[answer.chosen[i]!]!.gauge)]),
  )
  expect([...ohmPerM.values()].every((ohm, i) => ohm <= maximum_ohmPerM(answer.stock[answer.chosen[i]!]!.gauge))).toBe(
    true,
  )
  const expectations = expectSweep(sceneOf(after, climateOf(after, 20)), 'A' as ControllerId, COMMON_METER)
  const common = answer.groups.filter((g) => (g.cable as string) === 'G0')
  for (let n = 1; n <= 10; n++) {
    const lead = answer.groups.find((g) => (g.cable as string) === `L${n}`)!
    const box_m = lead.length_m
    let home = 0
    let from_m = 0
    for (const g of common) {
      if (from_m < box_m - 1e-9) home += g.length_m * ohmPerM.get(`G0 ${g.from}`)!
      from_m += g.length_m
    }
    const coil = site.coilKinds[site.devices[`V${n}` as never]!['coilKind' as never] as never]![
      'resistance_ohm' as never
    ] as number
    const e = expectations.find(
      (x) => x.test.from.kind === 'terminal' && (x.test.from.terminal as string) === String(n),
    )!.expectation
    if (e.kind !== 'ohms') throw new Error(`station ${n} reads ${e.kind}`)
    const joints = e.terms.find((t) => t.kind === 'joints')!.ohm
    expect(e.expected_ohm - joints).toBeCloseTo(coil + box_m * ohmPerM.get(`L${n} 0`)! + home, 6)
  }
})
