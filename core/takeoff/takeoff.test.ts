import { randomPath } from '../../tests/random-path'
import { demoProperty } from '../../demo/quarry-lake'
import { seeded } from '../../tests/random-site'
import { listCommands, stationRow } from '../plan'
import { applyBatch, Draft, type Site } from '../site'
import {
  cableLengths,
  conductorCounts,
  connectorCounts,
  deviceCounts,
  materialPart,
  spoolPlans,
  type SpoolPlan,
} from './index'

const stocked = (site: Site, material: Partial<Site['settings']['material']>): Site => ({
  ...site,
  settings: { ...site.settings, material: { ...site.settings.material, ...material } },
})

test('a cable that arrives and leaves counts its slack twice; one that runs through counts none; expansion is of the route', () => {
  const draft = new Draft('lengths')
    .place('A', 'cabinet')
    .place('B')
    .place('C')
    .place('D')
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 40],
        ['C', 70],
        ['D', 100],
      ],
      cores: ['white', 'red'],
    })
    .valve('V', 'C', null)
    .join('C', ['K.white<', 'V.b', 'K.white>'])
  const [k] = cableLengths(stocked(draft.site(), { slackPerEnd_m: 1.5, expansion_ratio: 0.02 }))
  expect(k).toMatchObject({
    route_m: 100,
    expansion_m: 2,
    ends: 4,
    slack_m: 6,
    order_m: 108,
    unknown: false,
    ware: { cores: 2, kind: 'multicore' },
  })
})

/** Every way of dividing and sharing out, tried plainly: joints first, then metres bought. */
function plainBest(
  pieces: readonly (readonly number[])[],
  cores: number,
  lengths: readonly number[],
): { joints: number; bought: number } {
  const longest = Math.max(...lengths)
  const ways = (runs: readonly number[]): { pulls: number[]; joints: number }[] => {
    if (runs.length === 0) return [{ pulls: [], joints: -cores }]
    const found: { pulls: number[]; joints: number }[] = []
    for (let n = 1, sum = 0; n <= runs.length; n++) {
      sum += runs[n - 1]!
      if (sum <= longest + 1e-9)
        for (const rest of ways(runs.slice(n))) found.push({ pulls: [sum, ...rest.pulls], joints: rest.joints + cores })
    }
    return found
  }
  let all: { pulls: number[]; joints: number }[] = [{ pulls: [], joints: 0 }]
  for (const runs of pieces)
    all = all.flatMap((a) => ways(runs).map((w) => ({ pulls: [...a.pulls, ...w.pulls], joints: a.joints + w.joints })))
  const joints = Math.min(...all.map((a) => a.joints))
  const share = (left: readonly number[], bins: readonly number[]): number => {
    if (left.length === 0) return bins.reduce((sum, used) => sum + lengths.find((l) => l >= used - 1e-9)!, 0)
    const [first, ...rest] = left
    const options = bins.flatMap((used, i) =>
      used + first! <= longest + 1e-9
        ? [
            share(
              rest,
              bins.map((b, j) => (j === i ? b + first! : b)),
            ),
          ]
        : [],
    )
    return Math.min(share(rest, [...bins, first!]), ...options)
  }
  return { joints, bought: Math.min(...all.filter((a) => a.joints === joints).map((a) => share(a.pulls, []))) }
}

test('spools: fewest joints, then least bought, as trying every way finds; ends at boxes, nothing longer than its spool', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed)
    const lengths = [100, 250, 500].slice(0, 1 + Math.floor(random() * 3))
    const draft = new Draft(`spools ${seed}`).place('A', 'cabinet')
    const pieces = Array.from({ length: 1 + Math.floor(random() * 2) }, (_, k) => {
      const runs = Array.from(
        { length: 1 + Math.floor(random() * 3) },
        () => 20 + Math.round(random() * (lengths.at(-1)! - 20)),
      )
      let at = 0
      const stops = runs.map((run, i): [string, number] => [`K${k}B${i}`, (at += run)])
      stops.forEach(([box]) => draft.place(box))
      draft.cable(`K${k}`, { gauge: { awg: 14 }, stops: [['A', 0], ...stops], cores: ['white', 'red', 'blue'] })
      return runs
    })
    const [plan, ...others] = spoolPlans(
      stocked(draft.site(), { spools_m: lengths, slackPerEnd_m: 0, expansion_ratio: 0 }),
    ) as [SpoolPlan, ...SpoolPlan[]]
    expect(others).toEqual([])
    const best = plainBest(pieces, 3, lengths)
    expect([seed, plan.joints, plan.bought_m, plan.bound_m]).toEqual([seed, best.joints, best.bought, best.bought])
    for (const spool of plan.spools)
      expect(spool.pulls.reduce((sum, p) => sum + p.length_m, spool.left_m)).toBeCloseTo(spool.length_m, 6)
    expect(plan.spools.flatMap((s) => s.pulls).reduce((sum, p) => sum + p.length_m, 0)).toBeCloseTo(plan.needed_m, 6)
  }
})

test('a division costs only the cores that are not cut there anyway; slack comes with every end it makes', () => {
  const draft = new Draft('priced')
    .place('A', 'cabinet')
    .place('B')
    .place('C')
    .place('D')
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 90],
        ['C', 150],
        ['D', 240],
      ],
      cores: ['white', 'red', 'blue'],
    })
    .valve('V', 'C', null)
    .valve('W', 'B', null)
    .join('C', ['K.white<', 'V.b', 'K.white>'])
    .join('C', ['K.red<', 'V.a'])
    .join('C', ['K.red>'])
    .join('B', ['K.blue<', 'W.a'])
    .join('B', ['K.blue>'])
  const [plan] = spoolPlans(stocked(draft.site(), { spools_m: [160], slackPerEnd_m: 1, expansion_ratio: 0 }))
  // At B one core is cut already, at C two: dividing at C joins one core, at B two; nothing fits without.
  expect([plan!.joints, plan!.spools.map((s) => s.pulls.map((p) => [p.from, p.to]))]).toEqual([
    1,
    [[['A', 'C']], [['C', 'D']]],
  ])
  expect(plan!.needed_m).toBeCloseTo(150 + 4 + (90 + 2), 9)
  const whole = draft.join('C', ['K.blue<', 'K.blue>']).site()
  expect(spoolPlans(stocked(whole, { spools_m: [160], slackPerEnd_m: 1, expansion_ratio: 0 }))[0]!.joints).toBe(0)
})

test('many pulls of one ware: the bound is below what is bought and above what is needed; a pull that no box divides is named', () => {
  const draft = new Draft('many').place('A', 'cabinet')
  const random = seeded(4)
  for (let k = 0; k < 40; k++)
    draft.place(`B${k}`).cable(`L${k}`, {
      gauge: { awg: 14 },
      kind: 'single',
      stops: [
        ['A', 0],
        [`B${k}`, Math.round(20 + 200 * random())],
      ],
      cores: ['red'],
    })
  draft.place('Far').cable('L99', {
    gauge: { awg: 14 },
    kind: 'single',
    stops: [
      ['A', 0],
      ['Far', 900],
    ],
    cores: ['red'],
  })
  const [plan] = spoolPlans(stocked(draft.site(), { spools_m: [150, 300] }))
  expect(plan!.tooLong.map((p) => p.cable)).toEqual(['L99'])
  expect(plan!.spools.flatMap((s) => s.pulls)).toHaveLength(40)
  expect(plan!.bound_m).toBeLessThanOrEqual(plan!.bought_m)
  expect(plan!.bought_m).toBeLessThan(plan!.bound_m * 1.2)
})

test('the demo: joints by connector with reserve, conductors by size', () => {
  const { site } = demoProperty()
  const counts = connectorCounts(site)
  expect(counts.reduce((sum, c) => sum + c.count, 0)).toBe(
    Object.values(site.splices).filter((s) => s.connector !== 'terminal').length,
  )
  expect(counts.every((c) => c.withReserve >= c.count * 1.1 - 1e-9 && c.withReserve < c.count * 1.1 + 1)).toBe(true)
  const total = conductorCounts(site).reduce((sum, c) => sum + c.length_m, 0)
  expect(total).toBeCloseTo(
    Object.values(site.cables).reduce(
      (sum, c) => sum + (c.stops.at(-1)!.at_m as { value: number }).value * Object.keys(c.cores).length,
      0,
    ),
    6,
  )
})

test('what is there and what is to buy are all there is, part by part; a station planned onto a spare core is bought', () => {
  const { site, facts } = demoProperty()
  const read = Object.values(facts.readings).flatMap(({ test: points }) =>
    Object.values(points).flatMap((at) => (typeof at === 'object' && at.kind === 'terminal' ? [at] : [])),
  )
  expect(Object.keys(materialPart(site, 'to_buy', read).devices)).toEqual([])
  const listed = listCommands(site, [stationRow.parse({ station: 'A:19', name: 'Rim pots', box: 'B7', at_m: 240 })])
  if (!listed.ok) throw new Error(JSON.stringify(listed.refusals))
  const planned = applyBatch(site, listed.value)
  if (!planned.ok) throw new Error(JSON.stringify(planned.refusals))
  const [bought, there] = [
    materialPart(planned.value.site, 'to_buy', read),
    materialPart(planned.value.site, 'there', read),
  ]
  expect([cableLengths(bought), deviceCounts(bought).map((d) => d.count)]).toEqual([[], [1]])
  // The valve's own joint, and the common's nut that it goes into as well; each conductor of the jacket is there.
  expect(connectorCounts(bought).reduce((sum, c) => sum + c.count, 0)).toBe(2)
  for (const part of ['cables', 'devices', 'splices'] as const)
    expect({ ...bought[part], ...there[part] }).toEqual(planned.value.site[part])
})

test('a stake goes along with every decoder, and a clamp with every rod', () => {
  const { site } = randomPath(3, { boxes: 5, lead_m: 0 })
  const rods = { R1: { ...Object.values(site.devices)[0]!, kind: 'rod', long_m: 2.4, stands: null } }
  const counts = deviceCounts({ ...site, devices: { ...site.devices, ...rods } } as never)
  const count = (kind: string) => counts.find((c) => c.kind === kind)?.count
  expect([count('stake'), count('clamp')]).toEqual([count('decoder'), count('rod')])
  expect(count('decoder')).toBe(5)
})
