import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type * as z from 'zod'
import { huntOutput, simulateOutput } from './output'
import { thread } from '../tests/shell'

const ROOT = join(__dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'thread-hunt-'))
afterAll(() => rmSync(folder, { recursive: true }))
const DEMO = join(ROOT, 'demo/quarry-lake.json')
const file = (name: string, text: string): string => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}
/** Readings of the demo's Gatehouse with faults in the ground, at the cabinet. */
const readings = async (faults: readonly string[]): Promise<string> => {
  const { out } = await thread(
    'simulate',
    DEMO,
    '--controller',
    'A',
    ...faults.flatMap((f) => ['--fault', f]),
    '--seed',
    '5',
    '--power',
    '--json',
  )
  return file('readings.csv', simulateOutput.parse(JSON.parse(out)).csv)
}
const hunt = async (csv: string, ...more: string[]): Promise<z.infer<typeof huntOutput>> => {
  const { out, err } = await thread('hunt', DEMO, csv, '--json', ...more)
  if (out === '') throw new Error(err)
  return huntOutput.parse(JSON.parse(out))
}

test.each([
  { faults: ['coil-part V18 0.45'], key: 'coil V18', cause: 'coil_part' },
  { faults: ['swap A:2 A:3'], key: 'pair A 2 3', cause: 'swapped' },
])(
  'from the cabinet alone the part is named, with its cause and the reading that tells it: $key',
  async ({ faults, key, cause }) => {
    const told = await hunt(await readings(faults))
    expect([told.end, told.parts[0]!.key, told.parts[0]!.causes[0]!.cause, told.strained, told.next]).toEqual([
      'named',
      key,
      cause,
      false,
      null,
    ])
    expect(told.says).toMatch(/^It is .+\. Belief (> )?\d+ %\.$/)
    expect(told.parts[0]!.p).toBeGreaterThan(0.98)
  },
)

test('what the cabinet cannot part goes on to the box: the likely parts, the test that parts them, how and with what care, and what each answer would mean', async () => {
  const told = await hunt(await readings(['joint-open V3.a']))
  expect(told.end).toBe('open')
  expect(
    told.parts
      .slice(0, 4)
      .map((p) => p.key)
      .sort(),
  ).toEqual(expect.arrayContaining(['coil V3', 'run K1 blue A B2']))
  expect(told.parts.slice(0, 4).every((p) => p.places.includes('B2'))).toBe(true)
  expect([told.next!.place, told.next!.minutes > 4, told.next!.bits > 0.3]).toEqual(['B2', true, true])
  expect(told.next!.outcomes.reduce((s, o) => s + o.p, 0)).toBeCloseTo(1, 1)
  for (const text of [told.next!.says, told.next!.how, told.next!.care, ...told.next!.outcomes.map((o) => o.says)])
    expect(text.length).toBeGreaterThan(5)
})

test('lines of the other controller are left and counted; two controllers at once are refused', async () => {
  const two = file('two.csv', 'terminal,reading\nA:3,34.1\nS:1,33.0\n')
  expect((await hunt(two, '--controller', 'A')).left).toEqual([3])
  expect(await thread('hunt', DEMO, two)).toMatchObject({
    status: 2,
    out: '',
    err: expect.stringContaining('more than one controller') as string,
  })
})

test('bad input is refused in a sentence, and nothing is half said', async () => {
  for (const [csv, says] of [
    ['terminal,test,reading\nV99,coil_ohms,33\n', 'no valve “V99”'],
    ['terminal,test,reading\nV3.z,look,sound\n', 'no joint “V3.z”'],
    ['terminal,test,reading\nA:3,look,maybe\n', 'no joint'],
    ['reading\n33\n', 'no column “terminal”'],
  ] as const)
    expect([csv, await thread('hunt', DEMO, file('bad.csv', csv))]).toEqual([
      csv,
      { status: 2, out: '', err: expect.stringContaining(says) as string },
    ])
  expect((await thread('hunt', DEMO)).status).toBe(2)
  expect((await thread('simulate', DEMO, '--fault', 'joint-open K1/white@B9<')).err).toMatch(
    /is no fault of this property/,
  )
})
