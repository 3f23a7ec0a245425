import { effectScope, nextTick, shallowReactive, shallowRef } from 'vue'
import type { PartReport } from '../../core/hunt'
import { COMMON_METER, noFacts, type Facts, type MessageBody, type Part, type WiringState } from '../../core/record'
import { terminalEnd, type ControllerId, type DeviceId, type End, type TerminalId } from '../../core/site'
import { twoBoxes } from '../../tests/two-boxes'
import type { HuntReading } from './useHunt'
import { useHuntAnswers } from './useHuntAnswers'
import type { HuntZone } from './useHuntZones'

const A = 'A' as ControllerId
const site = twoBoxes()
const job = { author: 'Jo', meter: COMMON_METER, ground_C: 20 }
/** What is written: each thing waits until it is let through, as behind a slow disk. */
const written: MessageBody[] = []
let door: () => Promise<void> = () => Promise.resolve()
const property = shallowReactive({
  site,
  held: { revision: 7 },
  facts: { ...noFacts(), jobs: { hunt: job } } as unknown as Facts,
  record: async (body: MessageBody) => {
    await door()
    written.push(body)
  },
})
jest.mock('../stores/property', () => ({ useProperty: () => property }))
jest.mock('../../words/part', () => ({ sayPart: (part: Part) => `the ${part.kind}` }))

const at = (terminal: string) => terminalEnd(A, terminal) as Extract<End, { kind: 'terminal' }>
const zone = (n: number, dry: boolean | null): HuntZone => ({
  terminal: `${n}` as TerminalId,
  tag: `${n}`,
  name: `Bed ${n}`,
  dry,
  sequencer: null,
})
function answers(zones: HuntZone[]) {
  written.length = 0
  door = () => Promise.resolve()
  const keeping = shallowRef(false)
  const readings = shallowRef<HuntReading[]>([])
  const failing = shallowRef<ReadonlySet<WiringState>>(new Set())
  const made = effectScope().run(() =>
    useHuntAnswers(
      () => 'hunt',
      keeping,
      { readings, failing },
      {
        controller: () => A,
        zones: shallowRef(zones),
        waterTest: (terminal) => ({ kind: 'water', at: at(terminal) }),
        valvesOf: (terminal) => [`V${terminal}` as DeviceId],
      },
      shallowRef({} as never),
    ),
  )!
  return { ...made, keeping, readings, failing }
}
const messages = <T extends MessageBody['kind']>(kind: T) =>
  written.flatMap((m) => (m.kind === kind ? [m as Extract<MessageBody, { kind: T }>] : []))
const readingsKept = () => messages('reading').map((m) => m.fact)
const findingsKept = () => messages('finding').map((m) => m.fact)
const told = () =>
  readingsKept().map(({ test, value }) => [
    test.kind === 'water' ? test.at.terminal : test.kind,
    value.kind === 'waters' ? value.valves.join() : value.kind,
  ])

test('which zones stay dry is written where it is news: those that water are told with the rest, what was told is not told again', async () => {
  const { dryTold } = answers([zone(1, null), zone(2, true), zone(3, false), zone(4, true)])
  await dryTold(['1', '2'] as TerminalId[], true)
  expect(told()).toEqual([
    ['1', ''],
    ['4', 'V4'],
  ])
  const few = answers([zone(1, null), zone(2, null)])
  await few.dryTold(['1'] as TerminalId[], false)
  expect(told()).toEqual([['1', '']])
  expect(readingsKept()[0]).toMatchObject({ job: 'hunt', author: 'Jo', revision: 7, ground_C: 20 })
})

test('while the readings of one symptom are kept nothing is said of them; a device that is full ends that too', async () => {
  const { told: tell, keeping } = answers([])
  const during: boolean[] = []
  door = async () => void during.push(keeping.value)
  const symptom = { symptom: 'clicks_no_water', zones: ['1', '2'] as TerminalId[], other: null, state: null } as never
  await tell(symptom)
  expect(told()).toEqual([
    ['1', ''],
    ['click', 'heard'],
    ['2', ''],
    ['click', 'heard'],
  ])
  expect([during, keeping.value]).toEqual([[true, true, true, true], false])
  door = () => Promise.reject(new Error('no room'))
  await expect(tell(symptom)).rejects.toThrow('no room')
  expect(keeping.value).toBe(false)
})

test('what was mended is written once, until something is read after it; what a look found names the valve, or nothing', async () => {
  const { mended, found, readings } = answers([])
  const where = { kind: 'coil', device: 'V1' } as Part
  const part = { where, p: 0.99 } as PartReport
  await mended(undefined)
  await mended(part, 'new coil')
  expect(findingsKept()).toMatchObject([{ where, says: 'the coil', belief: 0.99, how: 'new coil' }])
  const [first] = findingsKept()
  property.facts = { ...property.facts, findings: { f: first! } }
  await mended(part)
  expect(findingsKept()).toHaveLength(1)
  readings.value = [{ id: 'r', taken: false, reading: { at: '2999-01-01T00:00:00.000Z' } as HuntReading['reading'] }]
  await mended(part)
  expect(findingsKept()).toHaveLength(2)
  await found('3' as TerminalId, { valve: true } as never, 'grit under the diaphragm')
  await found('3' as TerminalId, { valve: false } as never, 'a lawn mower')
  expect(
    findingsKept()
      .slice(2)
      .map((f) => f.where),
  ).toEqual([{ kind: 'valve', device: 'V3' }, null])
})

test('the state that readings are taken in stays chosen from one to the next, until another is said to fail', async () => {
  const { read, takenIn, failing } = answers([])
  const supply = { kind: 'supply', controller: A } as const
  await read(supply, { kind: 'volt', volt: 27 })
  failing.value = new Set(['wet'])
  await nextTick()
  await read(supply, { kind: 'volt', volt: 26 })
  takenIn.value = 'dry'
  // The same states, told anew: nothing has changed.
  failing.value = new Set(['wet'])
  await nextTick()
  await read(supply, { kind: 'volt', volt: 25 })
  failing.value = new Set(['hot'])
  await nextTick()
  await read(supply, { kind: 'volt', volt: 24 })
  expect(readingsKept().map((r) => r.state)).toEqual([undefined, 'wet', 'dry', 'hot'])
})
