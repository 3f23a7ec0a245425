import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Papa from 'papaparse'
import { noFacts } from '../core/record'
import { demoProperty } from '../demo/quarry-lake'
import { readProperty, writeProperty } from '../core/formats'
import { rowsOf } from '../core/plan'
import { randomPlan, searchAll, siteOf } from '../tests/random-plan'
import { OUTPUTS } from './output'
import { thread } from '../tests/shell'

const ROOT = join(__dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'thread-plan-'))
afterAll(() => rmSync(folder, { recursive: true }))
const file = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}
const DEMO = join(ROOT, 'demo/quarry-lake.json')
const property = (site: ReturnType<typeof siteOf>) =>
  file(`${site.about.name}.json`, writeProperty({ ...demoProperty(), site, facts: noFacts() }))

test('size: a plan costs what trying everything says; one that cannot be built names thread, shortfall and mends', async () => {
  const plans = Array.from({ length: 40 }, (_, i) => randomPlan(500 + i, 6))
  const built = plans.find((p) => searchAll(p).cost_cents !== null)!
  const not = plans.find((p) => searchAll(p).cost_cents === null)!
  const sized = OUTPUTS.size.parse(JSON.parse((await thread('size', property(siteOf(built)), '--json')).out))
  expect([sized.answer, sized.cost_cents, sized.bound_cents]).toEqual([
    'sized',
    searchAll(built).cost_cents,
    searchAll(built).cost_cents,
  ])
  expect(sized.sizes!.length).toBeGreaterThan(1)
  const refused = OUTPUTS.size.parse(JSON.parse((await thread('size', property(siteOf(not)), '--json')).out))
  expect([refused.answer, refused.shortfall_V! > 0, refused.failing! > 0]).toEqual(['infeasible', true, true])
  expect(refused.says).toMatch(/lacks \d/)
  for (const mend of refused.mends!) expect(mend.says).toMatch(/\.$/)
})

test('stations: out as CSV, changed, in again; only what was changed differs, and the file is a property file', async () => {
  const csv = (await thread('stations', DEMO)).out
  const rows = Papa.parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true }).data
  expect(rows).toHaveLength(26)
  expect(rows[2]).toMatchObject({ station: 'A:1', name: 'Entrance bed', box: 'B2', at: '46 m', cable: 'K1' })
  const changed = readProperty(
    (await thread('stations', DEMO, file('list.csv', csv.replace('Entrance bed', 'Gate roses')))).out,
  )
  if (!changed.ok) throw new Error(JSON.stringify(changed.refusals))
  const [before, after] = [rowsOf(demoProperty().site), rowsOf(changed.value.site)]
  expect(
    after.filter((r, i) => JSON.stringify(r) !== JSON.stringify(before[i])).map((r) => [r.station, r.name]),
  ).toEqual([['A:1', 'Gate roses']])
  const bad = await thread('stations', DEMO, file('bad.csv', 'station,at\nA:1,far'))
  expect([bad.status, bad.out]).toEqual([2, ''])
  expect(bad.err).toContain('“far” is no length')
})

test('material: lengths add up from route, expansion and slack; the CSV reads back sheet by sheet', async () => {
  const { out } = await thread('material', DEMO, '--json')
  const material = OUTPUTS.material.parse(JSON.parse(out))
  for (const c of material.cables) expect(c.order_m).toBeCloseTo(c.route_m + c.expansion_m + c.slack_m, 9)
  for (const ware of material.spools) {
    expect(ware.bought_m).toBeGreaterThanOrEqual(ware.bound_m - 1e-9)
    expect(ware.spools.reduce((sum, s) => sum + s.length_m, 0)).toBeCloseTo(ware.bought_m, 9)
  }
  const sheets = material.csv.split('\n\n').map((s) => {
    const [name, ...lines] = s.trim().split('\n')
    return { name, rows: Papa.parse<string[]>(lines.join('\n')).data }
  })
  expect(sheets.map((s) => s.name)).toEqual(['cables', 'spools', 'connectors', 'conductors', 'devices'])
  for (const { rows } of sheets) expect(rows.every((r) => r.length === rows[0]!.length)).toBe(true)
  expect(sheets[0]!.rows).toHaveLength(material.cables.length + 1)
})

test('solve and deck agree on their nodes, and what floats is left out of the one and marked in the other', async () => {
  const solved = OUTPUTS.solve.parse(JSON.parse((await thread('solve', DEMO, '--on', 'A:3,A:18', '--json')).out))
  const { out: deck } = await thread('deck', DEMO, '--on', 'A:3,A:18')
  const inDeck = new Set(
    [...deck.matchAll(/^[RL]\d+ (\S+) (\S+) /gm)].flatMap((m) => [m[1]!, m[2]!]).filter((n) => !/^m\d+$/.test(n)),
  )
  const live = solved.nodes.filter((n) => !n.floating).map((n) => n.name)
  expect([...inDeck].filter((n) => !live.includes(n))).toEqual([])
  for (const { name } of solved.nodes.filter((n) => n.floating))
    expect(deck).toContain(`* left out, no way to a source: ${name}\n`)
  expect(solved.coils.map((c) => `${c.device} ${c.face}`).sort()).toEqual([
    'MV inrush',
    'PR inrush',
    'V18 inrush',
    'V3 holding',
  ])
  for (const c of solved.coils) expect([c.device, c.safe_V < c.volt_V]).toEqual([c.device, true])
})

test('wiring: cores and joints of the demo as recorded, with the ways to make them; what breaks a rule is in check', async () => {
  const wiring = OUTPUTS.wiring.parse(JSON.parse((await thread('wiring', DEMO, '--json')).out))
  expect(wiring.runs.map((r) => [r.cable, r.laid, r.has])).toEqual([
    ['K1', true, 17],
    ['G2', true, 1],
    ['K3', true, 7],
  ])
  const common = wiring.boxes.find((b) => b.box === 'B2')!.joints[0]!
  expect(common).toMatchObject({
    serves: 'common',
    conductors: 5,
    made: true,
    connectors: ['nut_and_gel_tube'],
    ways: [
      { connectors: ['nut_and_gel_tube'], jumpers: 0 },
      { connectors: ['gel_crimp_3', 'gel_crimp_3', 'gel_crimp_3'], jumpers: 2 },
    ],
  })
  expect((await thread('check', DEMO)).out).toContain('3 conductors under C, which takes 2')
})
