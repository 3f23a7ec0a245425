import { effectScope, nextTick, shallowReactive, shallowRef } from 'vue'
import { climateOf } from '../../core/circuit'
import { sceneOf } from '../../core/expect'
import type { HuntStep } from '../../core/hunt'
import { COMMON_METER, noFacts, withFact, type FactBody, type Facts } from '../../core/record'
import { Draft, type ControllerId, type TerminalId } from '../../core/site'
import { stopHuntWorker } from './huntWorker'
import { useHunt } from './useHunt'

/** A worker that answers when it is told to, with the steps it was given. */
const asked: { steps: HuntStep[]; answer: (report: unknown) => void; fail: (why: Error) => void }[] = []
jest.mock('./huntWorker', () => ({
  huntWorker: () => ({
    stand: (_: unknown, steps: HuntStep[]) =>
      new Promise((answer, fail) => {
        asked.push({ steps, answer, fail })
      }),
  }),
  stopHuntWorker: jest.fn(),
}))
const site = new Draft('Court').place('A', 'cabinet').controller('A', 'A', 4).site()
const property = shallowReactive({
  site,
  facts: noFacts(),
  sceneAt: () => sceneOf(site, climateOf(site, 20, 20)),
  pastBefore: () => new Map(),
})
jest.mock('../stores/property', () => ({ useProperty: () => property }))

const A = 'A' as ControllerId
const [VISIT, HUNT] = ['0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b10', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b11'] as const
const reading = (n: number) => `0198f2a0-4b7e-7c31-9d52-6a1f0c3e5c0${n}`
const at = (minute: number) => `2026-04-11T10:0${minute}:00.000Z`
const add = (id: string, body: FactBody): void => {
  const next = withFact(property.facts, id, body)
  if (!next.ok) throw new Error(JSON.stringify(next.refusals))
  property.facts = next.value
}
const volts = (n: number, volt: number): void =>
  add(reading(n), {
    kind: 'reading',
    fact: {
      job: HUNT,
      at: at(n),
      author: 'Jo',
      revision: 0,
      test: { kind: 'volts', at: { kind: 'terminal', controller: A, terminal: `${n}` as TerminalId } },
      off: 'none',
      meter: COMMON_METER,
      ground_C: 20,
      value: { kind: 'volt', volt },
    },
  })
const settle = async () => {
  for (let n = 0; n < 8; n++) await nextTick()
}

/** A hunt that is under way, and what the page follows of it. */
async function hunt() {
  asked.length = 0
  property.facts = noFacts() as Facts
  add(VISIT, { kind: 'visit', fact: { at: at(0), author: 'Jo', people: [] } })
  add(HUNT, {
    kind: 'job',
    fact: {
      visit: VISIT,
      kind: 'hunt',
      at: at(0),
      author: 'Jo',
      title: 'Hunt',
      controller: A,
      meter: COMMON_METER,
      ground_C: 20,
      coil_C: 20,
    },
  } as FactBody)
  const holding = shallowRef(false)
  const options = {
    from: null,
    helper: false,
    odds: null,
    circumstances: { digging: [], flooding: [], rodents: [], lightning: false, othersWork: false },
  }
  const scope = effectScope()
  const shown = scope.run(() =>
    useHunt(
      () => HUNT,
      () => holding.value,
      () => options,
    ),
  )!
  await settle()
  return { ...shown, holding, scope }
}
const report = (name: string) => ({ name })

test('readings that come in while one is weighed are weighed next, all at once; an answer that is late is not shown', async () => {
  const { report: shown, working, scope } = await hunt()
  volts(1, 26)
  await settle()
  volts(2, 25)
  volts(3, 24)
  await settle()
  expect([asked.length, working.value]).toEqual([1, true])
  asked[0]!.answer(report('first'))
  await settle()
  expect([asked.length, shown.value]).toEqual([2, null])
  expect(asked[1]!.steps.map((s) => ('value' in s && s.value.kind === 'volt' ? s.value.volt : null))).toEqual([
    26, 25, 24,
  ])
  asked[1]!.answer(report('second'))
  await settle()
  expect([shown.value, working.value]).toEqual([report('second'), false])
  scope.stop()
})

test('readings and repairs go in the order of their moments, and what was struck out falls away', async () => {
  const { scope } = await hunt()
  volts(1, 26)
  volts(3, 24)
  add(reading(8), {
    kind: 'finding',
    fact: {
      job: HUNT,
      at: at(2),
      author: 'Jo',
      where: { kind: 'supply', controller: A },
      says: 'the supply',
      belief: 1,
      how: '',
    },
  } as FactBody)
  add(reading(9), { kind: 'strikeOut', fact: { reading: reading(3), at: at(4), author: 'Jo', reason: 'slip' } })
  await settle()
  asked[0]!.answer(null)
  await settle()
  expect(asked.at(-1)!.steps.map((s) => ('mended' in s ? s.mended.kind : s.test.kind))).toEqual(['volts', 'supply'])
  expect(asked.at(-1)!.steps.map((s) => 'mended' in s)).toEqual([false, true])
  scope.stop()
})

test('a weighing is stopped and taken up again; one that fails says why; while symptoms are kept nothing is said', async () => {
  const { report: shown, working, stopped, failed, stop, weigh, holding, scope } = await hunt()
  // Before anything is read there is nothing to weigh.
  expect([working.value, asked.length]).toEqual([false, 0])
  volts(2, 25)
  await settle()
  stop()
  await settle()
  expect([working.value, stopped.value, shown.value]).toEqual([false, true, null])
  expect(jest.mocked(stopHuntWorker)).toHaveBeenCalledTimes(1)
  void weigh()
  await settle()
  asked.at(-1)!.fail(new Error('no memory'))
  await settle()
  expect([working.value, stopped.value, failed.value]).toEqual([false, false, 'Error: no memory'])
  volts(1, 26)
  await settle()
  asked.at(-1)!.answer(report('weighed'))
  await settle()
  expect([shown.value, failed.value]).toEqual([report('weighed'), ''])
  holding.value = true
  await settle()
  expect(shown.value).toBeNull()
  scope.stop()
})
