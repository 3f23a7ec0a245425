import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { demoProperty } from '../../demo/quarry-lake'
import { sayRefusal, type Speaker } from '../../words'
import { translateHere } from '../../words/speaker'
import { expectSweep, sceneOf } from '../expect'
import { COMMON_METER, partKey, type FieldTest, type Reading, type ReadingValue } from '../record'
import { checkSite, terminalEnd, type ControllerId, type DeviceId, type End, type Site, type SpliceId } from '../site'
import { canonicalJson, readProperty, readReadingsCsv, writeProperty, writeReadingsCsv, type Property } from './index'

const repo = (path: string) => readFileSync(join(__dirname, '../..', path), 'utf8')
const speaker: Speaker = { t: translateHere, figure: (_, value) => String(value), wire: () => null, gauge: () => '' }
const read = (text: string): Property => {
  const outcome = readProperty(text)
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}
const codesOf = (text: string) => {
  const outcome = readProperty(text)
  return outcome.ok ? [] : outcome.refusals.map((r) => r.code)
}

test('the demo file is what its source writes, and comes back byte for byte', () => {
  const text = repo('demo/quarry-lake.json')
  expect(writeProperty(demoProperty())).toBe(text)
  expect(writeProperty(read(text))).toBe(text)
  expect(read(`\uFEFF${text}`)).toEqual(read(text))
})

test('the small property of the format’s page reads what the page says, with what it may leave out left out', () => {
  const page = repo('docs/site-file.md')
  const property = read(/```json\n([\s\S]*?)```/.exec(page)![1]!)
  const expected = expectSweep(sceneOf(property.site), 'a' as ControllerId, COMMON_METER).map(({ expectation: e }) =>
    e.kind === 'ohms' ? e.expected_ohm.toFixed(2) : e.kind,
  )
  expect(expected).toEqual(['36.57', ...['1', '2'].map((t) => new RegExp(`([\\d.]+) Ω for \`A:${t}\``).exec(page)![1])])
  expect(checkSite(property.site).map((f) => f.code)).toEqual(['ends_unjoined', 'ends_unjoined', 'ends_unjoined'])
  expect(writeProperty(read(writeProperty(property)))).toBe(writeProperty(property))
})

test('a file of every version we ever wrote is read, and written as the present one', () => {
  const kept = [1, 2, 3, 4, 5, 6, 7].map((version) => read(repo(`tests/kept/property-v${version}.json`)))
  expect(kept.slice(0, 2).map(({ site }) => site.settings.sizing)).toMatchObject([
    { school: 'coil_minimum', mainsLow_ratio: 0.1 },
    { school: 'allowed_drop', together: 2 },
  ])
  for (const property of kept)
    expect(JSON.parse(writeProperty(property))).toMatchObject({
      version: 8,
      findings: expect.anything(),
      site: {
        about: { name: property.site.about.name },
        underlays: {},
        defects: {},
        settings: { wiring: { sparesLeast: 2 } },
      },
    })
})

test('visits of before there were jobs are a stay and a job each; their findings name parts by ids', () => {
  const text = repo('tests/kept/property-v4.json')
  const { facts } = read(text)
  expect(Object.entries(facts.jobs).map(([id, j]) => [id, j.visit, j.kind, j.title])).toEqual([
    ['hunt', 'hunt', 'hunt', 'Kept hunt'],
    ['sweep', 'sweep', 'sweep', 'Kept sweep'],
  ])
  expect(facts.visits.hunt).toEqual({ at: '2026-03-02T10:00:00.000Z', author: 'Kept', people: [] })
  const owners = [facts.readings, facts.cautions, facts.closings].flatMap((all) => Object.values(all).map((f) => f.job))
  expect(owners).toEqual(['sweep', 'hunt', 'sweep', 'sweep'])
  expect(Object.values(facts.findings).map((f) => f.where && partKey(f.where))).toEqual([
    'run K white B1 B2',
    'touch K blue white CAB B1',
    null,
    'pair A 1 2',
    'coil V1',
    'supply A',
    'terminal A 1',
    'joint B2-j7',
  ])
})

test('canonical JSON: equal values give equal bytes whatever the order of keys, and read back equal', () => {
  const shuffled = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(shuffled)
      : typeof value !== 'object' || value === null
        ? value
        : Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([k, v]) => [k, shuffled(v)]),
          )
  fc.assert(
    fc.property(
      fc.jsonValue({ maxDepth: 5 }).filter((v) => !JSON.stringify(v).includes('__proto__')),
      (value) => {
        const text = canonicalJson(value)
        expect(canonicalJson(shuffled(value))).toBe(text)
        expect(canonicalJson(JSON.parse(text))).toBe(text)
        expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(value)))
      },
    ),
    { seed: 2, numRuns: 400 },
  )
  expect(() => canonicalJson({ a: NaN })).toThrow(RangeError)
})

const demo = JSON.parse(repo('demo/quarry-lake.json')) as Record<string, never>
const changed = (path: string, value: unknown): string => {
  const copy = structuredClone(demo) as Record<string, unknown>
  const steps = path.split('/')
  const last = steps.pop()!
  const holder = steps.reduce((at, step) => at[step] as Record<string, unknown>, copy)
  if (value === undefined) delete holder[last]
  else holder[last] = value
  return JSON.stringify(copy)
}

describe('each way a file can be broken has its own code', () => {
  test.each<[string, string, unknown]>([
    ['not_our_file', 'format', 'something-else'],
    ['newer_file', 'version', 99],
    ['bad_version', 'version', '1'],
    ['missing', 'id', undefined],
    ['wrong_type', 'site/settings/ground_C', 'warm'],
    ['unknown_field', 'site/places/A/colour', 'red'],
    ['not_one_of', 'site/places/A/kind', 'shed'],
    ['too_big', 'site/settings/ground_C', 900],
    ['bad_key', 'site/places/a b', { tag: 'Z', kind: 'other' }],
    ['points_nowhere', 'site/devices/V1/place', 'B99'],
    ['points_nowhere', 'jobs/spring-2026/controller', 'Q'],
    ['points_nowhere', 'readings/spring-2026-1/job', 'never'],
    ['reading_ahead', 'readings/spring-2026-1/revision', 7],
    ['tag_twice', 'site/places/B1/tag', 'B2'],
    ['no_such_end', 'site/cables/K1/cores/orange/cutAt', []],
  ])('%s at %s', (code, path, value) => expect(codesOf(changed(path, value))).toContain(code))
  test('and text that is no JSON says where it ends', () => {
    expect([codesOf(''), codesOf('[]'), codesOf('{"format":')]).toEqual([
      ['empty_file'],
      ['not_our_file'],
      ['not_json'],
    ])
  })
})

test('files damaged anywhere are read or refused in sentences that name the place; nothing throws', () => {
  const at = (value: unknown, steps: readonly number[]): string[] => {
    if (steps.length === 0 || typeof value !== 'object' || value === null || Object.keys(value).length === 0) return []
    const key = Object.keys(value)[steps[0]! % Object.keys(value).length]!
    return [key, ...at((value as Record<string, unknown>)[key], steps.slice(1))]
  }
  const junk = fc.constantFrom<unknown>(
    undefined,
    null,
    true,
    -1,
    1e300,
    '',
    'x',
    'Ω\u0000',
    '\ud800',
    [],
    {},
    [[]],
    { constructor: 1 },
    'a'.repeat(400),
  )
  let refused = 0
  fc.assert(
    fc.property(fc.array(fc.nat(60), { minLength: 1, maxLength: 8 }), junk, (steps, value) => {
      const outcome = readProperty(changed(at(demo, steps).join('/'), value))
      if (outcome.ok) return
      refused++
      for (const r of outcome.refusals) {
        const sentence = sayRefusal(r, speaker)
        expect(sentence).toMatch(/^\S.{20,}[.!]?$/s)
        expect(sentence).not.toMatch(/refusal\.|\{\w+\}|undefined|\[object/)
      }
    }),
    { seed: 9, numRuns: 500 },
  )
  expect(refused).toBeGreaterThan(200)
})

describe('readings as CSV', () => {
  const site: Site = read(repo('demo/quarry-lake.json')).site
  const ends = (test: FieldTest) =>
    test.kind === 'ohms'
      ? [test.from, test.to].map((e) => (e.kind === 'terminal' ? `${e.controller}:${e.terminal}` : e.kind))
      : []
  const csv = (text: string) => readReadingsCsv(text, site, COMMON_METER)
  test('columns in any order, any separator, decimal commas, words for open', () => {
    const outcome = csv('\uFEFFReading;Terminal;to\n34,6;A:1;\nOL;a:mv;\n1.2k;A:2;A:3\n4M;A:C;earth\n')
    expect(outcome.ok && outcome.value.map((r) => [r.line, r.value, ...ends(r.test)])).toEqual([
      [2, { kind: 'ohm', ohm: 34.6 }, 'A:1', 'A:C'],
      [3, { kind: 'open' }, 'A:MV', 'A:C'],
      [4, { kind: 'ohm', ohm: 1200 }, 'A:2', 'A:3'],
      [5, { kind: 'ohm', ohm: 4e6 }, 'A:C', 'earth'],
    ])
  })
  test('every reading of the demo goes out and comes back the same, volts, clicks and earth among them', () => {
    const readings = Object.values(demoProperty().facts.readings)
    const outcome = csv(writeReadingsCsv(site, readings))
    expect(outcome.ok && outcome.value.map(({ test: t, value, at }) => ({ test: t, value, at }))).toEqual(
      readings.map(({ test: t, value, at }) => ({ test: t, value, at })),
    )
  })
  test('the state that a reading was taken in goes out and comes back; one that is none is refused by its line', () => {
    const [first, second] = Object.values(demoProperty().facts.readings)
    const outcome = csv(writeReadingsCsv(site, [{ ...first!, state: 'wet' }, second!]))
    expect(outcome.ok && outcome.value.map((r) => r.state)).toEqual(['wet', undefined])
    const bad = csv('terminal,reading,state\nA:1,34.6,Wet\nA:2,34.1,damp\n')
    expect(bad.ok ? [] : bad.refusals.map((r) => [r.code, ...r.path])).toEqual([['not_one_of', 'line 3', 'state']])
  })
  test('what cannot be understood refuses the whole, naming line and column', () => {
    const bad = csv('terminal,reading\nA:1,34.6\nA:99,30\nA:2,soon\nA:3,1\n')
    expect(bad.ok ? [] : bad.refusals.map((r) => [r.code, ...r.path])).toEqual([
      ['no_such_terminal', 'line 3', 'terminal'],
      ['reading_not_a_figure', 'line 4', 'reading'],
      ['reading_mark_or_figure', 'line 5', 'reading'],
    ])
    expect(
      csv('terminal\nA:1\n').ok ||
        csv('terminal,reading,when\nA:1,3,now\n').ok ||
        csv('terminal,reading\nA:1,34,6\n').ok,
    ).toBe(false)
  })
})

test('every test of a hunt goes out as CSV and comes back as it was; a valve, a joint or an answer that is none is told by its line', () => {
  const { site } = demoProperty()
  const [V3, A] = ['V3' as DeviceId, 'A' as ControllerId]
  const at = (tag: string) => terminalEnd(A, tag) as Extract<End, { kind: 'terminal' }>
  const joint = Object.entries(site.splices).find(([, s]) =>
    s.ends.some((e) => e.kind === 'port' && e.device === V3 && e.port === 'a'),
  )![0] as SpliceId
  const taken: readonly (readonly [FieldTest, ReadingValue])[] = [
    [
      { kind: 'water', at: at('3') },
      { kind: 'waters', valves: [] },
    ],
    [
      { kind: 'water', at: at('4') },
      { kind: 'waters', valves: ['V4' as DeviceId, V3] },
    ],
    [
      { kind: 'swap_test', at: at('3'), onto: at('4') },
      { kind: 'heard', heard: false },
    ],
    [
      { kind: 'tone', at: at('3') },
      { kind: 'tone', lost_m: 31 },
    ],
    [
      { kind: 'tone', at: at('4') },
      { kind: 'tone', lost_m: null },
    ],
    ...(['coil_ohms', 'loop_lead', 'loop_common', 'lead_earth', 'lead_through', 'common_earth'] as const).map(
      (kind) =>
        [
          { kind, device: V3 },
          { kind: 'ohm', ohm: 33.4 },
        ] as const,
    ),
    [
      { kind: 'coil_volts', device: V3 },
      { kind: 'volt', volt: 25.9 },
    ],
    [
      { kind: 'coil_beside', device: V3, live: at('4') },
      { kind: 'volt', volt: 11.2 },
    ],
    [
      { kind: 'energise', device: V3 },
      { kind: 'heard', heard: true },
    ],
    [
      { kind: 'by_hand', device: V3 },
      { kind: 'flows', flows: false },
    ],
    [
      { kind: 'look', splice: joint },
      { kind: 'looked', sound: false },
    ],
    [
      { kind: 'remake', splice: joint },
      { kind: 'looked', sound: true },
    ],
  ]
  const csv = writeReadingsCsv(
    site,
    taken.map(([test, value]) => ({ test, value, at: '', meter: COMMON_METER }) as unknown as Reading),
  )
  const back = readReadingsCsv(csv, site, COMMON_METER)
  expect(back.ok ? back.value.map((r) => [r.test, r.value]) : back.refusals).toEqual(
    taken.map(([test, value]) => [test, value]),
  )
  const wrong = readReadingsCsv(
    'terminal,test,reading\nV99,coil_ohms,33\nV3.z,look,sound\nA:3,water,V3 V98\nV3,by_hand,wet\nA:3,tone,far\n',
    site,
    COMMON_METER,
  )
  expect(wrong.ok ? [] : wrong.refusals.map((r) => [r.code, r.path[0]])).toEqual([
    ['no_such_valve', 'line 2'],
    ['no_such_joint', 'line 3'],
    ['no_such_valve', 'line 4'],
    ['not_one_of', 'line 5'],
    ['not_one_of', 'line 6'],
  ])
})
