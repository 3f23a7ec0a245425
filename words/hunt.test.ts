import { demoProperty, quarryLake } from '../demo/quarry-lake'
import { candidatesOf, CAUSES, huntContextOf, huntOf, reportOf, type HuntReport } from '../core/hunt'
import { gaugeText, printFigure } from '../core/quantity'
import { COMMON_METER, testKinds, type FieldTest, type Part, type ReadingValue } from '../core/record'
import {
  Draft,
  entries,
  terminalAt,
  terminalEnd,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type SpliceId,
  type StopId,
  type TerminalId,
} from '../core/site'
import type { Speaker } from './index'
import { sayAnswer, sayCare, sayHow, sayOutcome, sayStand, sayTelling, sayTest, sayValue } from './hunt'
import { sayCause, sayPart } from './part'
import { translateHere } from './speaker'

const speaker: Speaker = {
  t: translateHere,
  gauge: gaugeText,
  wire: terminalAt,
  figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }),
}
const site = quarryLake()
const A = 'A' as ControllerId
const at = (t: string) => terminalEnd(A, t) as Extract<ReturnType<typeof terminalEnd>, { kind: 'terminal' }>
/** No code, no gap, no undefined: a sentence or a phrase that a person can read. */
const isWhole = (text: string) => {
  expect(text).not.toMatch(/[{}]|undefined|NaN|\b(part|hunt|huntTest|huntHow|huntCare|huntAnswer|cause)\.[a-z_]+/)
  expect(text.trim().length).toBeGreaterThan(1)
}

test('every test that a crew can make has its title, how it is clipped and its caution, in whole words', () => {
  const kinds = new Set<string>()
  for (const [controller] of entries(site.controllers)) {
    const context = huntContextOf(site, controller)
    if (!context) continue
    for (const { test, needs } of candidatesOf(context, { tester: true, tracer: true, meter: true })) {
      kinds.add(test.kind)
      for (const text of [
        sayTest(test, site, speaker),
        sayHow(test, site, speaker),
        sayCare({ test, needs }, true, speaker),
        sayCare({ test, needs }, false, speaker),
      ])
        isWhole(text)
    }
  }
  const told = ['water', 'click', 'coil_beside']
  for (const kind of testKinds) if (!told.includes(kind)) expect(kinds).toContain(kind)
  expect(sayTest({ kind: 'coil_beside', device: 'V3' as DeviceId, live: at('4') }, site, speaker)).toBe(
    'Volts across the coil of Gate hedge while 4 is on',
  )
})

test('the caution fits the work: power on, joints undone, rods, water behind a coil', () => {
  const care = (test: FieldTest, needs: Parameters<typeof sayCare>[0]['needs'], atCabinet = false) =>
    sayCare({ test, needs }, atCabinet, speaker)
  const V3 = 'V3' as DeviceId
  expect(
    care(
      { kind: 'coil_volts', device: V3 },
      { leads: 'on', set: { kind: 'on', terminal: '3' as TerminalId }, undone: null },
    ),
  ).toMatch(/Power is on/)
  expect(care({ kind: 'coil_ohms', device: V3 }, { leads: 'any', set: null, undone: 'x' as SpliceId })).toMatch(
    /before a joint is opened/,
  )
  expect(care({ kind: 'by_hand', device: V3 }, { leads: 'any', set: null, undone: null })).toMatch(/pressure/)
  expect(
    care(
      { kind: 'ohms', from: at('3'), to: { kind: 'earth', place: 'A' as never } },
      { leads: 'off', set: null, undone: null },
      true,
    ),
  ).toMatch(/buried services/)
  expect(care({ kind: 'ohms', from: at('3'), to: at('C') }, { leads: 'off', set: null, undone: null }, true)).toMatch(
    /Power off/,
  )
})

test('parts go by the names people know them by', () => {
  const context = huntOf(site, A, { meter: COMMON_METER })!
  const seen = new Map<Part['kind'], string>()
  for (const f of context.catalogue.faults) {
    const text = sayPart(f.where, site, speaker)
    isWhole(text)
    if (!seen.has(f.where.kind)) seen.set(f.where.kind, text)
  }
  expect([...seen.keys()].sort()).toEqual([
    'coil',
    'joint',
    'pair',
    'run',
    'sensor',
    'supply',
    'terminal',
    'thread',
    'touch',
    'valve',
    'water',
  ])
  const joint = entries(site.splices).find(([, s]) =>
    s.ends.some((e) => e.kind === 'port' && e.device === 'V3' && e.port === 'a'),
  )![0]
  expect(sayPart({ kind: 'joint', splice: joint }, site, speaker)).toBe('the joint of Gate hedge in B2')
  expect(sayPart({ kind: 'pair', controller: A, one: '2' as TerminalId, two: '3' as TerminalId }, site, speaker)).toBe(
    'the leads of Ticket lawn and Gate hedge',
  )
  expect(sayPart({ kind: 'valve', device: 'V3' as DeviceId }, site, speaker)).toBe(
    'the valve of Gate hedge in B2, not its wiring',
  )
  for (const cause of CAUSES) isWhole(sayCause(cause, speaker))
})

test('a lead that is jointed on its way, and a common, keep their names beyond the joint', () => {
  const draft = new Draft('On')
    .place('A', 'cabinet')
    .place('B1')
    .place('B2')
    .coilKind('k', 33, { inrush_A: 0.38, holding_A: 0.22 })
    .controller('A', 'A', 2)
    .valve('V1', 'B2', 'k')
    .station('A:1', 'Far lawn', ['V1'])
    .cable('K1', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 40],
      ],
      cores: ['white', 'red'],
    })
    .cable('K2', {
      gauge: { awg: 18 },
      stops: [
        ['B1', 0],
        ['B2', 30],
      ],
      cores: ['black', 'blue', 'green'],
    })
    .join('A', ['A:1', 'K1.red>'])
    .join('A', ['A:C', 'K1.white>'])
    .join('B1', ['K1.red<', 'K2.blue>'])
    .join('B1', ['K1.white<', 'K2.black>'])
    .join('B2', ['K2.blue<', 'V1.a'])
    .join('B2', ['K2.black<', 'V1.b'])
  const on = draft.site()
  const joint = (held: string) =>
    entries(on.splices).find(
      ([, s]) =>
        s.ends.length === 2 &&
        s.ends.every((e) => e.kind === 'core') &&
        s.ends.some((e) => e.kind === 'core' && e.core === held),
    )![0]
  const says = (where: Part) => sayPart(where, on, speaker)
  const stretch = { cable: 'K2' as CableId, from: 'B1' as StopId, to: 'B2' as StopId }
  const run = (core: string): Part => ({ kind: 'run', core: core as CoreId, ...stretch })
  expect([says(run('blue')), says(run('black')), says(run('green'))]).toEqual([
    'the lead of Far lawn between B1 and B2',
    'the common between B1 and B2',
    'green of K2 between B1 and B2',
  ])
  expect([says({ kind: 'joint', splice: joint('blue') }), says({ kind: 'joint', splice: joint('black') })]).toEqual([
    'the joint of Far lawn in B1',
    'the common’s joint in B1',
  ])
  expect(says({ kind: 'touch', core: 'blue' as CoreId, other: 'green' as CoreId, ...stretch })).toBe(
    'Far lawn against green between B1 and B2',
  )
})

test('readings and answers: open, figures with their units, words for ear and eye, zones by name', () => {
  const of = (test: FieldTest, value: ReadingValue) => sayValue(test, value, site, speaker)
  const ohms: FieldTest = { kind: 'ohms', from: at('3'), to: at('C') }
  expect([
    of(ohms, { kind: 'open' }),
    of(ohms, { kind: 'ohm', ohm: 34.6 }),
    of({ kind: 'supply', controller: A }, { kind: 'volt', volt: 26.4 }),
  ]).toEqual(['open', '34.6 Ω', '26.4 V'])
  expect([
    of({ kind: 'water', at: at('3') }, { kind: 'waters', valves: [] }),
    of({ kind: 'water', at: at('3') }, { kind: 'waters', valves: ['V4' as DeviceId, 'V3' as DeviceId] }),
  ]).toEqual(['does not water', 'Car park islands, Gate hedge'])
  expect([
    of({ kind: 'by_hand', device: 'V3' as DeviceId }, { kind: 'flows', flows: false }),
    of({ kind: 'tone', at: at('3') }, { kind: 'tone', lost_m: 31 }),
    of({ kind: 'tone', at: at('3') }, { kind: 'tone', lost_m: null }),
  ]).toEqual(['no water', '31 m', 'heard to the end'])
  expect([
    of({ kind: 'tester_coil', at: at('3') }, { kind: 'lamp', lamp: 'short' }),
    of({ kind: 'tester_power', at: at('3') }, { kind: 'lamp', lamp: 'dark' }),
  ]).toEqual(['coil short', 'dark'])
  const answer = (low: number | null, high: number | null, test: FieldTest = ohms) =>
    sayAnswer(test, { kind: 'figure', low, high }, speaker)
  expect([
    answer(null, 8.3),
    answer(8.3, 41.2),
    answer(1234, null),
    answer(3, 12, { kind: 'supply', controller: A }),
  ]).toEqual(['under 8.3 Ω', '8.3 Ω–41 Ω', '1.2 kΩ or more', '3.0 V–12 V'])
})

test('where a hunt stands is said verdict first: open, named with its cause, nothing, undecided', () => {
  const { facts } = demoProperty()
  const hunt = huntOf(site, A, { meter: COMMON_METER })!
  for (const r of Object.values(facts.readings).filter((x) => x.job === 'spring-2026')) hunt.take(r)
  const report = reportOf(hunt)
  isWhole(sayStand(report, site, speaker))
  expect(sayStand(report, site, speaker)).toMatch(
    /^\d things are wrong \(\d+ %\)\. .*The coil of Far willows in B11: shorted turns\./,
  )
  if (report.telling) expect(sayTelling(report.telling, site, speaker)).toMatch(/^Most telling: /)
  for (const o of report.next?.outcomes ?? []) isWhole(sayOutcome(report.next!.test, o, site, speaker))
  const end = (more: Partial<HuntReport>) => sayStand({ ...report, ...more }, site, speaker)
  const named = { ...report.parts[0]!, p: 0.991, causes: [{ cause: 'coil_part' as const, p: 1 }] }
  expect(end({ end: 'named', named, troubles: report.troubles.slice(0, 1) })).toBe(
    'It is the coil of Far willows in B11: shorted turns. Belief 99 %.',
  )
  // Beside one that is named, what else is wrong is said.
  expect(end({ end: 'named', named })).toBe(sayStand(report, site, speaker))
  expect(end({ end: 'nothing', named: null, nothing: 0.985 })).toBe('Nothing is wrong in the wiring. Belief 99 %.')
  // What rounds to nothing is not told of beside what leads.
  const [one, two] = report.parts as [(typeof report.parts)[number], (typeof report.parts)[number]]
  expect(
    end({
      named: null,
      nothing: 0.9,
      troubles: [],
      parts: [
        { ...one, p: 0.02 },
        { ...two, p: 0.004 },
      ],
    }),
  ).toBe('Likeliest: nothing in the wiring (90 %), the coil of Far willows in B11 (2 %).')
  expect(end({ end: 'undecided', named: null })).toMatch(/No test that is left would tell more\.$/)
  expect(end({ end: 'undecided', named: null, troubles: report.troubles.slice(0, 1) })).toMatch(
    /^No test that is left would tell these apart: /,
  )
})
