import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoProperty } from '../demo/quarry-lake'
import { writeProperty, writeReadingsCsv } from '../core/formats'
import { OUTPUTS } from './output'
import { thread } from '../tests/shell'

const ROOT = join(__dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'thread-'))
afterAll(() => rmSync(folder, { recursive: true }))
const file = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}
const DEMO = join(ROOT, 'demo/quarry-lake.json')
const demo = demoProperty()
const springCsv = () =>
  file(
    'spring.csv',
    writeReadingsCsv(
      demo.site,
      Object.values(demo.facts.readings).filter((r) => r.job === 'spring-2026'),
    ),
  )

test('each verb answers with the object its schema promises, exit 0', async () => {
  const programs = file('programs.csv', 'program,starts,days,station,minutes\nA,06:00,odd,1,20\nA,,,2,15\n')
  const prices = file(
    'prices.csv',
    'kind,code,value,unit\nsetting,currency,XTS,\nprice,call_out,60,visit\nprice,work,60,h\nprice,connector,2,piece\n',
  )
  for (const [verb, args] of [
    ['check', []],
    ['expect', ['--ground', '9', '--between', 'A:1,A:2']],
    ['judge', [springCsv(), '--ground', '9']],
    ['solve', ['--on', 'A:3,A:18', '--state', 'A:MV=holding', '--hz', '50']],
    ['deck', ['--on', 'A:3']],
    ['size', ['--anew']],
    ['material', []],
    ['stations', []],
    ['wiring', []],
    ['simulate', ['--fault', 'coil-part V18 0.45', '--seed', '3', '--power']],
    ['path', ['--arrestors', '--convert', 'K8', '--size', '--anew', '--on', '12,17']],
    ['sequencer', ['--from', '2027-05-01']],
    ['repair', [file('finding.json', JSON.stringify({ where: { kind: 'thread', controller: 'A', terminal: '14' } }))]],
    ['quote', ['--prices', prices]],
    ['schedule', ['--programs', programs, '--from', '2027-05-01', '--controller', 'A']],
  ] as const) {
    const { status, out, err } = await thread(verb, DEMO, ...args, '--json')
    expect([verb, status, err]).toEqual([verb, 0, ''])
    expect(() => OUTPUTS[verb].parse(JSON.parse(out))).not.toThrow()
  }
}, 30_000)

test('schedule: runs by the zone’s clock, and a sentence for every cell that is wrong', async () => {
  const programs = file(
    'two.csv',
    'program,starts,days,seasonal_pct,station,minutes\nA,01:30 02:30,Sun,50,1,20\nB,02:45,even,,2,10\n',
  )
  const asked = ['--from', '2027-03-14', '--days', '1', '--controller', 'A', '--zone', 'America/New_York']
  const { out } = await thread('schedule', DEMO, '--programs', programs, ...asked, '--json')
  // 02:30 and 02:45 are left out that night: both are 03:00.
  expect(OUTPUTS.schedule.parse(JSON.parse(out)).runs.map((r) => `${r.terminal} ${r.start.slice(11)}`)).toEqual([
    '1 01:30:00',
    '1 03:00:00',
    '2 03:10:00',
  ])
  const wrong = file('wrong.csv', 'program,starts,days,station,minutes\nA,noon,odd,99,-1\n')
  const refused = await thread('schedule', DEMO, '--programs', wrong, '--from', '2027-03-14', '--controller', 'A')
  expect([refused.status, refused.err.trim().split('\n').length]).toEqual([2, 2])
  expect(refused.err).toContain('“noon” is no list of times of day')
})

test('judge finds the spring’s cut common and the coil that the rule of thumb passes', async () => {
  const judged = OUTPUTS.judge.parse(
    JSON.parse((await thread('judge', DEMO, springCsv(), '--ground', '9', '--json')).out),
  )
  expect(judged.conclusions.map((c) => [c.kind, c.between])).toEqual([
    ['open', ['B4', 'B5']],
    ['resistive', ['A', 'B3']],
    ['coil_part', ['B11']],
  ])
  expect(judged.conclusions.map((c) => c.doubtful)).toEqual([false, true, false])
  expect(judged.readings.find((r) => r.terminal === 'A:5')).toMatchObject({ verdict: 'drifted', state: 'doubtful' })
  expect(judged.checks.map((c) => c.state)).toEqual(['fits', 'fits', 'fits', 'fault'])
  expect(judged.readings.find((r) => r.terminal === 'A:18')).toMatchObject({
    verdict: 'low',
    ruleOfThumb: { passes: true, passesFault: true },
  })
  expect((await thread('judge', DEMO, springCsv(), '--ground', '9')).out).toContain(
    'The common is cut between B4 and B5.',
  )
})

test('a cut before the master valve: the stations read through relay and master valve, and the cut is put before their box', async () => {
  const lines = ['MV', ...Array.from({ length: 12 }, (_, i) => String(i + 1))].map(
    (t) => `A:${t},${t === 'MV' ? '176' : '263'}`,
  )
  const judged = OUTPUTS.judge.parse(
    JSON.parse((await thread('judge', DEMO, file('cut.csv', ['terminal,reading', ...lines].join('\n')), '--json')).out),
  )
  expect(judged.conclusions[0]).toMatchObject({ kind: 'open', between: ['A', 'B1'] })
  expect(judged.conclusions[0]!.suspects.map((s) => s.kind)).toEqual(expect.arrayContaining(['stretch', 'joint']))
})

test('bad input: exit 2, a sentence on standard error, nothing on standard output', async () => {
  const cases: string[][] = [
    [],
    ['dance', DEMO],
    ['check'],
    ['check', 'nowhere.json'],
    ['judge', DEMO],
    ['expect', DEMO, '--ground', 'warm'],
    ['expect', DEMO, '--loud'],
    ['expect', DEMO, '--controller', 'Q'],
    ['expect', DEMO, '--between', 'A:1'],
    ['solve', DEMO, '--on', 'A:99'],
    ['solve', DEMO, '--on', 'A:C'],
    ['solve', DEMO, '--on', 'A:1', '--state', 'A:1=loud'],
    ['deck', DEMO, '--hz', '55'],
    ['check', file('half.json', '{"format":')],
    ['judge', DEMO, file('bad.csv', 'terminal,reading\nA:77,3')],
  ]
  for (const args of cases) {
    const { status, out, err } = await thread(...args)
    expect([args, status, out]).toEqual([args, 2, ''])
    expect(err).toMatch(/^\S.{15,}[.\]]\n/)
    expect(err).not.toContain('    at ')
  }
})

test('the command itself: reads a file from where the person is, prints what the shell answers and ends as it says', () => {
  file('here.json', writeProperty(demo))
  const command = (...args: string[]) => {
    const done = spawnSync(process.execPath, [join(ROOT, 'scripts/thread.mjs'), ...args], {
      encoding: 'utf8',
      env: { ...process.env, INIT_CWD: folder },
    })
    return [done.status, done.stdout, done.stderr]
  }
  const [status, out, err] = command('check', 'here.json', '--json')
  expect([status, err, OUTPUTS.check.parse(JSON.parse(String(out))).property]).toEqual([0, '', demo.site.about.name])
  expect(command('check', 'nowhere.json')).toEqual([2, '', expect.stringContaining('nowhere.json')])
}, 120_000)
