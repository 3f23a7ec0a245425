import { sequencedSite } from '../../tests/sequenced-site'
import { COMMON_METER, noFacts, type Facts, type FieldTest, type ReadingValue, type SequencerTold } from '../record'
import { terminalEnd, type ControllerId, type DeviceId, type End, type TerminalId } from '../site'
import { countOf, entriesOf, eventsIn, neverCame, nextOf, resyncOf, sequencersOf } from '.'

const A = 'A' as ControllerId
const [q] = sequencersOf(sequencedSite(), A)
const at = (terminal: string) => terminalEnd(A, terminal as TerminalId) as Extract<End, { kind: 'terminal' }>
const minute = (n: number) => `2027-05-01T08:${String(n).padStart(2, '0')}:00Z`

/** Readings and what was told of the sequencer, a minute apart in this order. */
function facts(...list: (readonly [FieldTest, ReadingValue] | SequencerTold)[]): Facts {
  const made = noFacts()
  list.forEach((one, i) => {
    if ('kind' in one) made.sequencerTurns[`t${i}`] = { at: minute(i), author: 'Sam', sequencer: q!.device, told: one }
    else
      made.readings[`r${i}`] = {
        ...{ job: 'j', at: minute(i), author: 'Sam', revision: 1, off: 'none', meter: COMMON_METER, ground_C: 20 },
        test: one[0],
        value: one[1],
      } as Facts['readings'][string]
  })
  return made
}
const next = (f: Facts) => nextOf(q!, countOf(q!, eventsIn(f, A, q!))).map((n) => [n.of, n.probability])
const waters = (terminal: string, ...valves: string[]) =>
  [
    { kind: 'water', at: at(terminal) },
    { kind: 'waters', valves: valves as DeviceId[] },
  ] as const
const volts = [
  { kind: 'volts', at: at('5') },
  { kind: 'volt', volt: 24 },
] as const

test('tests that run a screw of it are turns, what watered settles which; other screws are none of its business', () => {
  expect(next(noFacts())).toEqual([
    ['V5', 0.5],
    ['V4', 0.5],
  ])
  expect(next(facts(waters('4', 'V4')))).toEqual([['V5', 1]])
  expect(next(facts(waters('4', 'V4'), volts))).toEqual([['V4', 1]])
  expect(
    next(
      facts(waters('4', 'V4'), [
        { kind: 'volts', at: at('1') },
        { kind: 'volt', volt: 24 },
      ]),
    ),
  ).toEqual([['V5', 1]])
  // Two at once tell of leads that touch, not of the count: a turn all the same.
  expect(next(facts(waters('4', 'V4'), waters('5', 'V4', 'V5')))).toEqual([['V4', 1]])
})

test('what is told counts until it is taken back; the pulses into step follow', () => {
  const told = facts({ kind: 'watered', valve: 'V5' as DeviceId }, { kind: 'turned', times: 3 })
  expect(next(told)).toEqual([['V5', 1]])
  expect(resyncOf(q!, countOf(q!, eventsIn(told, A, q!)))).toMatchObject({
    terminal: '5',
    until: 'V5',
    pulses: [{ of: 1, probability: 1 }],
  })
  const back = facts(
    { kind: 'watered', valve: 'V5' as DeviceId },
    { kind: 'turned', times: 3 },
    { kind: 'back', entry: 't1' },
  )
  expect(next(back)).toEqual([['V4', 1]])
  expect(entriesOf(back, q!).map(([id]) => id)).toEqual(['t0'])
  const unseen = facts({ kind: 'watered', valve: 'V5' as DeviceId }, { kind: 'perhaps', most: 2 })
  expect(next(unseen).map(([of, p]) => [of, Math.round((p as number) * 300)])).toEqual([
    ['V4', 200],
    ['V5', 100],
  ])
})

test('a valve that never comes in two rounds of what was seen is said, one that came is not', () => {
  const saw = (...valves: string[]) =>
    neverCame(q!, eventsIn(facts(...valves.map((v) => ({ kind: 'watered' as const, valve: v as DeviceId }))), A, q!))
  expect(saw('V4', 'V4', 'V4')).toEqual([])
  expect(saw('V4', 'V4', 'V4', 'V4')).toEqual(['V5'])
  expect(saw('V4', 'V4', 'V5', 'V4')).toEqual([])
})
