import loadHighs from 'highs'
import { choiceSolver, size, type Sized } from '../core/sizing'
import { randomPlan, searchAll, siteOf } from '../tests/random-plan'
import { manyPlanned } from './many-plan'

// Sizing: plans of 200 stations with the proven gap and the saving against the best single size, and small random plans
// against trying everything. Seconds are printed beside one evaluation of all demands of the same plan and gate
// nothing.

const [cases, seed] = ['--cases', '--seed'].map((flag) => {
  const at = process.argv.indexOf(flag)
  return at < 0 ? null : Number(process.argv[at + 1])
})
const solve = choiceSolver(await loadHighs())
const sized = (answer: ReturnType<typeof size>): Sized => {
  if (answer.kind !== 'sized') throw new Error(`the bench plan came out ${answer.kind}`)
  return answer
}

const large = [1, 2, 3].map((plan) => {
  const site = manyPlanned(200, plan)
  const start = performance.now()
  const answer = sized(size(site, solve))
  const time_s = (performance.now() - start) / 1000
  return {
    time_s,
    gap: 1 - answer.bound_cents! / answer.cost_cents,
    saving: 1 - answer.cost_cents / answer.uniform!.cost_cents,
  }
})
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

let [agreed, tried, ours_s, search_s, infeasible] = [0, 0, 0, 0, 0]
const exhaustiveCases = cases ?? 60
for (let k = 0; k < exhaustiveCases; k++) {
  const plan = randomPlan((seed ?? 1) * 1000 + k, 8)
  const site = siteOf(plan)
  let start = performance.now()
  const answer = size(site, solve)
  ours_s += (performance.now() - start) / 1000
  start = performance.now()
  const searched = searchAll(plan)
  search_s += (performance.now() - start) / 1000
  tried += searched.tried
  infeasible += Number(searched.cost_cents === null)
  if ((answer.kind === 'sized' ? answer.cost_cents : null) === searched.cost_cents) agreed++
  else
    console.error(
      `plan ${plan.seed}: ours ${answer.kind === 'sized' ? answer.cost_cents : answer.kind},`,
      `search ${searched.cost_cents}`,
    )
}

const result = {
  sizing200_s: median(large.map((l) => l.time_s)),
  gap200: Math.max(...large.map((l) => l.gap)),
  savingVsUniform: median(large.map((l) => l.saving)),
  exhaustiveAgreed: agreed,
  exhaustiveCases,
  infeasible,
  tried,
  ours_s,
  search_s,
}
if (!process.argv.includes('--json')) {
  console.log(
    `200 stations: ${result.sizing200_s.toFixed(1)} s, gap ${(result.gap200 * 100).toFixed(2)} %, ` +
      `${(result.savingVsUniform * 100).toFixed(0)} % below the best single size`,
  )
  console.log(
    `${agreed} of ${exhaustiveCases} small plans as by trying all (${infeasible} cannot be built): ` +
      `ours ${ours_s.toFixed(1)} s, search ${search_s.toFixed(1)} s over ${tried} assignments`,
  )
}
console.log(JSON.stringify(result))
