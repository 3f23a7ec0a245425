import loadHighs from 'highs'
import { manyPlanned } from '../../bench/many-plan'
import { randomPlan, siteOf } from '../../tests/random-plan'
import { applyBatch, Draft, type Site } from '../site'
import { groupsOf } from './groups'
import { choiceSolver, marginsOf, size, sizingCommands, stockOf, type ChoiceSolver } from './index'
import { Model } from './model'
import { borne } from './size'
import { ohmsOf } from './sized'

let solve: ChoiceSolver
beforeAll(async () => {
  solve = choiceSolver(await loadHighs())
})
const withSizing = (site: Site, sizing: Partial<Site['settings']['sizing']>): Site => ({
  ...site,
  settings: { ...site.settings, sizing: { ...site.settings.sizing, ...sizing } },
})

/** The cheapest assignment that holds at every worst moment, by trying all; the demands are found anew for each. */
function tryAll(site: Site): number | null {
  const model = new Model(site)
  const grouped = groupsOf(model.powered)
  const stock = stockOf(site)
  const chosen = grouped.groups.map(() => 0)
  let best: number | null = null
  const visit = (g: number, cost: number): void => {
    if (best !== null && cost >= best) return
    if (g === chosen.length) {
      if (
        model.findAll(ohmsOf(model.powered, grouped, stock, chosen)).every((f) => f.margin_V >= -1e-8) &&
        borne(model, grouped, stock, chosen)
      )
        best = cost
      return
    }
    stock.forEach((s, k) => {
      chosen[g] = k
      visit(g + 1, cost + Math.round(grouped.groups[g]!.length_m * s.cents_per_m))
    })
  }
  visit(0, 0)
  return best
}

test('two stations together: demands added as they are broken lead to the same cost as trying all, within the proven gap', () => {
  let [sized, infeasible] = [0, 0]
  for (let seed = 700; seed < 712; seed++) {
    const plan = randomPlan(seed, 5)
    const site = withSizing(siteOf(plan), { together: 2 })
    const best = tryAll(site)
    const answer = size(site, solve)
    if (answer.kind !== 'sized') {
      expect([seed, answer.kind, best]).toEqual([seed, 'infeasible', null])
      infeasible++
      continue
    }
    sized++
    expect([seed, best !== null && answer.cost_cents <= best / (1 - 0.004) + 1, answer.bound_cents! <= best!]).toEqual([
      seed,
      true,
      true,
    ])
  }
  expect([sized > 6, sized + infeasible]).toEqual([true, 12])
})

/** A common that comes home on two unlike conductors from the last box: currents divide by size. */
const ring = (metres: number) => {
  const draft = new Draft('ring')
    .setting('V_open_V', 28)
    .place('A', 'cabinet')
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .controller('A', 'A', 3, { transformer: { rating_VA: 60 } })
  const boxes = [1, 2, 3].map((n): [string, number] => [`B${n}`, metres * n])
  boxes.forEach(([box]) => draft.place(box))
  draft.cable('G', { gauge: null, kind: 'single', stops: [['A', 0], ...boxes], cores: ['white'] }).cable('H', {
    gauge: null,
    kind: 'single',
    stops: [
      ['A', 0],
      ['B3', metres * 2],
    ],
    cores: ['black'],
  })
  boxes.forEach(([box, at], i) =>
    draft
      .cable(`L${i + 1}`, {
        gauge: null,
        kind: 'single',
        stops: [
          ['A', 0],
          [box, at],
        ],
        cores: ['red'],
      })
      .valve(`V${i + 1}`, box, 'k')
      .station(`A:${i + 1}`, `S${i + 1}`, [`V${i + 1}`])
      .join('A', [`A:${i + 1}`, `L${i + 1}.red>`])
      .join(box, [`L${i + 1}.red<`, `V${i + 1}.a`])
      .join(box, ['G.white<', `V${i + 1}.b`, i < 2 ? 'G.white>' : 'H.black<'], 'nut_and_gel_tube'),
  )
  return draft.join('A', ['A:C', 'G.white>', 'H.black>']).site()
}

test('a loop in the common: sizes hold by model and engine made anew with them, and no bound is claimed', () => {
  for (const metres of [80, 160, 240]) {
    const site = ring(metres)
    expect(new Model(site).looped).toBe(true)
    const answer = size(site, solve)
    if (answer.kind !== 'sized') throw new Error(`${metres} m comes out ${answer.kind}`)
    expect(answer.bound_cents).toBe(null)
    const applied = applyBatch(site, sizingCommands(site, answer))
    if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
    const { threads } = marginsOf(applied.value.site)
    expect([metres, threads.length, threads.every((t) => t.margin_V >= -1e-6)]).toEqual([metres, 3, true])
    expect(answer.cost_cents).toBeLessThanOrEqual(answer.uniform!.cost_cents)
  }
})

test('progress is told on the way, and a plan without anything free or wired says so', () => {
  const told: [number | null, number][] = []
  const answer = size(manyPlanned(120, 4), solve, { onProgress: (best, bound) => told.push([best, bound]) })
  if (answer.kind !== 'sized') throw new Error(answer.kind)
  expect(told.length).toBeGreaterThan(0)
  for (const [best, bound] of told)
    if (best !== null && Number.isFinite(bound)) expect(bound).toBeLessThanOrEqual(best + 1e-6)
  expect(1 - answer.bound_cents! / answer.cost_cents).toBeLessThanOrEqual(0.005)
  const site = manyPlanned(4, 1)
  const settled = {
    ...site,
    cables: Object.fromEntries(
      Object.entries(site.cables).map(([id, c]) => [
        id,
        { ...c, gauge: { value: { awg: 12 }, how: 'seen', on: null } },
      ]),
    ),
  } as Site
  expect([size(settled, solve).kind, size({ ...site, stations: {} } as Site, solve).kind]).toEqual([
    'nothing_free',
    'nothing_wired',
  ])
})

test('stores with odd prices: the uniform size is the cheapest that holds, not the thinnest; one size alone is taken', () => {
  const site = manyPlanned(6, 2)
  const stocked = (stock: [number, number][]): Site => ({
    ...site,
    settings: {
      ...site.settings,
      material: {
        ...site.settings.material,
        stock: stock.map(([awg, cents_per_m]) => ({ gauge: { awg }, cents_per_m })),
      },
    },
  })
  const odd = size(
    stocked([
      [18, 50],
      [14, 40],
      [12, 30],
    ]),
    solve,
  )
  if (odd.kind !== 'sized') throw new Error(odd.kind)
  expect(odd.uniform!.stocked.gauge).toEqual({ awg: 12 })
  expect(odd.chosen.every((k) => k === 2)).toBe(true)
  const one = size(stocked([[10, 20]]), solve)
  expect(one.kind === 'sized' && one.cost_cents === one.uniform!.cost_cents).toBe(true)
  expect(size(stocked([[20, 1]]), solve).kind).toBe('infeasible')
})
