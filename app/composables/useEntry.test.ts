import { nextTick, shallowRef } from 'vue'
import { expectSweep, sceneOf } from '../../core/expect'
import { COMMON_METER, type Logged, type MessageBody } from '../../core/record'
import { climateOf } from '../../core/circuit'
import { Draft, type ControllerId } from '../../core/site'
import { useEntry } from './useEntry'
import type { SweepRow } from './useSweep'

const drafts = new Map<string, string>()
const recorded: MessageBody[] = []
let keptBy: (body: MessageBody) => void = () => undefined
jest.mock('../lib/device', () => ({
  draftOf: (job: string) => drafts.get(job) ?? null,
  keepDraft: (job: string, text: string) => drafts.set(job, text),
}))
jest.mock('vue-i18n', () => ({ useI18n: () => ({ t: (key: string) => key }) }))
jest.mock('../stores/property', () => ({
  useProperty: () => ({
    facts: { jobs: { sweep: { author: 'Jo', meter: COMMON_METER, ground_C: 20 } } },
    held: { revision: 4 },
    record: async (body: MessageBody) => {
      recorded.push(body)
      keptBy(body)
    },
  }),
}))

const A = 'A' as ControllerId
const site = new Draft('Court')
  .place('A', 'cabinet')
  .place('B1')
  .controller('A', 'A', 2)
  .coilKind('k', 33)
  .cable('K', {
    gauge: { awg: 18 },
    stops: [
      ['A', 0],
      ['B1', 40],
    ],
    cores: ['white', 'red', 'blue'],
  })
  .valve('V1', 'B1', 'k')
  .valve('V2', 'B1', 'k')
  .station('A:1', 'One', ['V1'])
  .station('A:2', 'Two', ['V2'])
  .join('A', ['A:C', 'K.white>'])
  .join('A', ['A:1', 'K.red>'])
  .join('A', ['A:2', 'K.blue>'])
  .join('B1', ['K.white<', 'V1.b', 'V2.b'])
  .join('B1', ['K.red<', 'V1.a'])
  .join('B1', ['K.blue<', 'V2.a'])
  .site()

/** A sweep of a small property; what is recorded comes back in its rows and its log, as it does from the store. */
function sweep() {
  drafts.clear()
  recorded.length = 0
  const log = shallowRef<readonly Logged[]>([])
  const expected = expectSweep(sceneOf(site, climateOf(site, 20, 20)), A, COMMON_METER)
  const rowOf = (e: (typeof expected)[number]): SweepRow => {
    const { test } = e
    const standing = log.value.find((l) => l.struck === null && JSON.stringify(l.reading.test) === JSON.stringify(test))
    return {
      terminal: e.terminal,
      tag: e.terminal,
      name: '',
      expected: e,
      baseline: null,
      logged: standing ?? null,
      judged: null,
      state: 'none',
    }
  }
  keptBy = (body) => {
    if (body.kind === 'reading')
      log.value = [...log.value, { id: `r${log.value.length}`, reading: body.fact, struck: null } as Logged]
    if (body.kind === 'strikeOut')
      log.value = log.value.map((l) => (l.id === body.fact.reading ? { ...l, struck: body.fact.reason } : l) as Logged)
  }
  const entry = useEntry(
    () => 'sweep',
    () => expected.map(rowOf),
    () => log.value,
    () => COMMON_METER,
  )
  entry.resume()
  return { entry, log, tags: expected.map((e) => e.terminal) }
}
const key = (press: string, more: Partial<KeyboardEvent> = {}) =>
  ({ key: press, preventDefault: () => undefined, ...more }) as KeyboardEvent

test('what is typed is kept by Enter with all that belongs to it, and the cursor goes on; nonsense is asked about', async () => {
  const { entry, tags } = sweep()
  expect(entry.at.value).toBe(tags[0])
  entry.text.value = 'thirty'
  await nextTick()
  await entry.keep()
  expect([entry.complaint.value, recorded, entry.at.value]).toEqual(['sweep.notFigure', [], tags[0]])
  entry.text.value = '34.6'
  await nextTick()
  expect(entry.complaint.value).toBe('')
  await entry.keep()
  expect(recorded).toMatchObject([
    {
      kind: 'reading',
      fact: { job: 'sweep', author: 'Jo', revision: 4, ground_C: 20, value: { kind: 'ohm', ohm: 34.6 } },
    },
  ])
  expect([entry.at.value, entry.text.value]).toEqual([tags[1], ''])
  entry.onKey(key('o'))
  await nextTick()
  expect(recorded.at(-1)).toMatchObject({ kind: 'reading', fact: { value: { kind: 'open' } } })
})

test('a reading of a terminal that has one strikes the earlier out; undo strikes out the last and returns to it', async () => {
  const { entry, log, tags } = sweep()
  await entry.keep('34.6')
  entry.move(tags[0]!)
  await entry.keep('35.1')
  expect(log.value.map((l) => l.struck)).toEqual(['sweep.again', null])
  await entry.keep('33.9')
  entry.onKey(key('z', { ctrlKey: true }))
  await new Promise((done) => setTimeout(done))
  expect(log.value.map((l) => l.struck)).toEqual(['sweep.again', null, 'sweep.undoReason'])
  expect(entry.at.value).toBe(tags[1])
})

test('a sweep goes on where it was left: half a figure as it was typed, else the first terminal without a reading', async () => {
  const { entry, tags } = sweep()
  await entry.keep('34.6')
  entry.text.value = '3'
  await nextTick()
  entry.at.value = null
  await nextTick()
  drafts.set('sweep', `${tags[1]}\n3`)
  entry.resume()
  expect([entry.at.value, entry.text.value]).toEqual([tags[1], '3'])
  drafts.clear()
  entry.resume()
  expect([entry.at.value, entry.text.value, entry.left.value]).toEqual([tags[1], '', tags.length - 1])
})
