import { climateOf, type Fault } from '../core/circuit'
import { sceneOf, sceneWith, sweepTerminals, terminalTest, predict } from '../core/expect'
import type { Property } from '../core/formats'
import {
  COMMON_METER,
  noFacts,
  type CabinetTest,
  type Facts,
  type Meter,
  type Reading,
  type ReadingValue,
} from '../core/record'
import { Draft, terminalEnd, type ControllerId, type End, type PlaceId, type Site, type TerminalId } from '../core/site'
import { dome, domeFacts, LAID as DOME_LAID } from './dome'
import { DEMO_ID } from './id'

/** The day the slipway run and what hangs on it were laid. */
const SLIPWAY = { value: '2017-04-03', how: 'seen' }

const GATEHOUSE = 'A' as ControllerId
const BOATHOUSE = 'S' as ControllerId

const LEADS: [terminal: string, colour: string, box: string, name: string, zone: string][] = [
  ['1', 'red', 'B2', 'Entrance bed', 'Gatehouse beds'],
  ['2', 'yellow', 'B2', 'Ticket lawn', 'Gatehouse beds'],
  ['3', 'blue', 'B2', 'Gate hedge', 'Gatehouse beds'],
  ['4', 'green', 'B3', 'Car park islands', 'Gatehouse beds'],
  ['5', 'brown', 'B3', 'Dome walk, left', 'Dome terrace'],
  ['6', 'violet', 'B3', 'Dome walk, right', 'Dome terrace'],
  ['7', 'grey', 'B4', 'Picnic shelf 1', 'Picnic shelf'],
  ['8', 'pink', 'B4', 'Picnic shelf 2', 'Picnic shelf'],
  ['9', 'red/white', 'B5', 'Moss steps, upper', 'Moss steps'],
  ['10', 'yellow/white', 'B5', 'Moss steps, lower', 'Moss steps'],
  ['11', 'blue/white', 'B6', 'Quarry rim', 'Moss steps'],
  ['12', 'green/white', 'B7', 'Rim lookout', 'Moss steps'],
]
const SINGLES: [terminal: string, colour: string, box: string, name: string, zone: string][] = [
  ['13', 'red', 'B8', 'Bank lawn, north', 'Boathouse bank'],
  ['14', 'red', 'B8', 'Bank lawn, south', 'Boathouse bank'],
  ['15', 'red', 'B9', 'Slipway bed', 'Boathouse bank'],
  ['16', 'red', 'B9', 'Reed border', 'Boathouse bank'],
  ['17', 'red', 'B10', 'Jetty planters', 'Boathouse bank'],
  ['18', 'red', 'B11', 'Far willows', 'Boathouse bank'],
]
const MAIN_RUN: [string, number][] = [
  ['A', 0],
  ['B1', 14],
  ['B2', 46],
  ['B3', 77],
  ['B4', 120],
  ['B5', 168],
  ['B6', 204],
  ['B7', 240],
]
const BANK_RUN: [string, number][] = [
  ['A', 0],
  ['B8', 35],
  ['B9', 88],
  ['B10', 150],
  ['B11', 212],
]
/** Metres east and north of the gatehouse door, as drawn; and where two boxes turned up instead. */
const DRAWN: Readonly<Record<string, [number, number]>> = {
  A: [0, 0],
  B1: [12, 5],
  B2: [40, 18],
  B3: [66, 32],
  B4: [96, 60],
  B5: [98, 106],
  B6: [70, 126],
  B7: [36, 132],
  B8: [-30, 14],
  B9: [-58, 56],
  B10: [-64, 112],
  B11: [-30, 152],
  S: [-92, 172],
  S1: [-74, 184],
  S2: [-48, 192],
  S3: [-8, 186],
}
const FOUND: Readonly<Record<string, [number, number]>> = { B4: [97.5, 58.8], B9: [-57.2, 57.9] }
/** The bends of the runs, by the stop they follow. */
const BENDS: Readonly<Record<string, Record<string, [number, number][]>>> = {
  K1: { B3: [[84, 36]], B4: [[108, 84]], B5: [[90, 122]] },
  G2: { A: [[-14, 2]], B8: [[-52, 28]], B10: [[-52, 140]] },
  K3: { S2: [[-30, 196]] },
}
const MARKS = [
  { kind: 'sleeve', from_m: 20, to_m: 31, note: 'Under the drive' },
  { kind: 'hazard', from_m: 128, to_m: 150, note: 'Gas main beside the path' },
]
const at = ([x_m, y_m]: [number, number]) => ({ x_m, y_m })
const drawn = (tag: string) => ({
  ...(DRAWN[tag] ? { position: { value: at(DRAWN[tag]), how: 'reported' } } : {}),
  ...(FOUND[tag]
    ? { foundAt: { value: at(FOUND[tag]), how: 'seen', on: '2026-04-11' }, lid: 'Round, 20 cm, green' }
    : {}),
})
const bent = (cable: string) => ({
  bends: Object.fromEntries(Object.entries(BENDS[cable] ?? {}).map(([stop, points]) => [stop, points.map(at)])),
})

const SPARES = ['brown/white', 'violet/white', 'grey/white']

/**
 * Quarry Lake Observatory's gatehouse: 18 stations, a master valve with a pump relay, a multi-core run and a run of
 * singles.
 */
export function quarryLake(): Site {
  const draft = new Draft('Quarry Lake Observatory')
    .about('contractor', 'Lantern Grounds')
    .about('origin', { latitude_deg: -47.5, longitude_deg: -120.25 })
    .setting('market', 'metric')
    .setting('units', { length: 'm', temperature: 'C' })
    .setting('ground_C', 14)
    .setting('timeZone', 'Etc/GMT+8')
    .place('A', 'cabinet', { name: 'Gatehouse, inside the door', ...drawn('A') })
    .controller('A', 'A', 18, {
      name: 'Gatehouse',
      transformer: { rating_VA: 40 },
      fixedStations: 6,
      indoor: true,
      commonHolds: 2,
      sensor: { closedBy: 'sensor', dry: 'closed', note: 'Rain sensor on the gutter' },
      bays: ['1', '2'].map((tag) => ({ tag, module: { kind: 'stations', stations: 6, label: 'Six-station module' } })),
      remotePort: { feed_1: 'red', feed_2: 'black', signal: 'blue' },
      scheduling: {
        mostMinutes: 99,
        mostStarts: 4,
        mostPrograms: 4,
        window_s: { opens: clock(20), closes: clock(7) },
      },
    })
    .coilKind('standard', 33, { name: 'Standard AC coil', inrush_A: 0.4, holding_A: 0.23 })
    .coilKind('low-draw', 52, { name: 'Low-draw AC coil', inrush_A: 0.25, holding_A: 0.19 })
    .coilKind('relay', 180, { name: 'Low-draw relay coil', inrush_A: 0.1, holding_A: 0.06 })
  for (const [tag] of [...MAIN_RUN.slice(1), ...BANK_RUN.slice(1)])
    draft.place(tag, 'valve_box', {
      ...drawn(tag),
      ...(tag === 'B10' ? { found: 'lost', name: 'Under the jetty turf' } : {}),
    })

  // The multi-core run: leads of 1.0 mm², a common of 1.5 mm², three spares to the last box.
  const cores = ['white', 'orange', ...LEADS.map(([, colour]) => colour), ...SPARES]
  draft
    .cable(
      'K1',
      { gauge: { area_mm2: 1 }, stops: MAIN_RUN, cores: cores.map((c) => `${c.replace('/', '-')}=${c}`) },
      {
        name: 'Main run',
        installed: { value: '2009-05-12', how: 'reported' },
        ...bent('K1'),
        marks: MARKS,
        filler: 'natural string',
      },
    )
    .core('K1', 'white', { gauge: { value: { area_mm2: 1.5 }, how: 'seen' } })
  draft
    .valve('MV', 'B1', 'low-draw', { name: 'Master valve' })
    .device('PR', 'relay', 'A', 'relay', { name: 'Pump start relay' })
    .join('A', ['A:MV', 'K1.orange>', 'PR.a'])
    .join('B1', ['K1.orange<', 'MV.a'])
    .pointOfConnection('lake', {
      name: 'Lake pump house',
      masterValve: 'MV',
      pumpRelay: 'PR',
      terminal: { controller: 'A', terminal: 'MV' },
      most_Lmin: 90,
    })
  for (const [terminal, colour, box, name, zone] of LEADS) {
    const core = `K1.${colour.replace('/', '-')}`
    draft
      .valve(`V${terminal}`, box, 'standard')
      .station(`A:${terminal}`, name, [`V${terminal}`], {
        zone,
        pointOfConnection: 'lake',
        flow_Lmin: flowOf(terminal),
      })
      .join('A', [`A:${terminal}`, `${core}>`])
      .join(box, [`${core}<`, `V${terminal}.a`])
    if (box !== 'B7') draft.join(box, [`${core}>`]).join('B7', [`${core}<`])
  }
  // Past its own box every used core goes on to the end as a spare length, capped on both sides.
  draft.join('B1', ['K1.orange>']).join('B7', ['K1.orange<'])
  for (const spare of SPARES)
    draft.join('A', [`K1.${spare.replace('/', '-')}>`]).join('B7', [`K1.${spare.replace('/', '-')}<`])

  // The run of singles along the bank: one lead each, a common of 2.5 mm².
  draft.cable(
    'G2',
    { gauge: { area_mm2: 2.5 }, kind: 'single', stops: BANK_RUN, cores: ['white'] },
    { name: 'Bank common', ...bent('G2') },
  )
  for (const [terminal, colour, box, name, zone] of SINGLES) {
    const stops = BANK_RUN.slice(0, BANK_RUN.findIndex(([tag]) => tag === box) + 1)
    draft
      .cable(`L${terminal}`, { gauge: { area_mm2: 1 }, kind: 'single', stops, cores: [colour] })
      .valve(`V${terminal}`, box, 'standard')
      .station(`A:${terminal}`, name, [`V${terminal}`], {
        zone,
        pointOfConnection: 'lake',
        flow_Lmin: flowOf(terminal),
      })
      .join('A', [`A:${terminal}`, `L${terminal}.${colour}>`])
      .join(box, [`L${terminal}.${colour}<`, `V${terminal}.a`])
  }
  draft.join('A', ['A:C', 'K1.white>', 'PR.b', 'G2.white>'])
  for (const run of [
    { cable: 'K1', boxes: MAIN_RUN },
    { cable: 'G2', boxes: BANK_RUN },
  ]) {
    run.boxes.slice(1).forEach(([box], i, all) => {
      const coils = [
        ...(box === 'B1' ? ['MV'] : []),
        ...[...LEADS, ...SINGLES].filter(([, , b]) => b === box).map(([t]) => `V${t}`),
      ]
      draft.join(
        box,
        [`${run.cable}.white<`, ...coils.map((c) => `${c}.b`), ...(i < all.length - 1 ? [`${run.cable}.white>`] : [])],
        'nut_and_gel_tube',
      )
    })
  }
  return dated(boathousePrograms(gatehousePrograms(dome(boathouse(draft)))).site())
}

/**
 * The last box of the main run was opened this spring and is to be made anew; every other joint is as old as its run.
 */
function dated(site: Site): Site {
  const made = (place: string) => ({
    value: place.startsWith('S') ? SLIPWAY.value : place.startsWith('D') ? DOME_LAID.value : '2009-05-12',
    how: 'reported' as const,
    on: null,
  })
  const splices = Object.fromEntries(
    Object.entries(site.splices).map(([id, s]) => [
      id,
      s.connector === 'terminal' || s.connector === 'cap' || s.place === 'B7' ? s : { ...s, made: made(s.place) },
    ]),
  )
  return { ...site, splices }
}

/** Heads of the beds and the bank take 38 to 62 L/min; what drips, 12. */
const flowOf = (terminal: string): number =>
  ['3', '17', '18'].includes(terminal) ? 12 : [38, 46, 54, 62][Number(terminal) % 4]!

const clock = (hours: number, minutes = 0) => hours * 3600 + minutes * 60
/** Summer is in January there. */
const BY_MONTH = [120, 115, 95, 70, 40, 20, 20, 25, 45, 70, 95, 115]

/** The gatehouse's door: beds three nights a week, what drips on two, the bank on even days. */
function gatehousePrograms(draft: Draft): Draft {
  const beds = ['1', '2', '4', '5', '6', '7', '8', '9', '10', '11', '12']
  return draft
    .program(
      'A',
      'A',
      beds.map((station, i) => [station, [8, 12, 10][i % 3]!]),
      {
        starts_s: [clock(21), null, null, null],
        days: { kind: 'weekdays', on: [0, 2, 4] },
        seasonal_pct: BY_MONTH,
      },
    )
    .program(
      'A',
      'B',
      [
        ['3', 35],
        ['17', 25],
        ['18', 60],
      ],
      { starts_s: [clock(22), null], days: { kind: 'weekdays', on: [0, 3] } },
    )
    .program(
      'A',
      'C',
      ['13', '14', '15', '16'].map((station) => [station, 14]),
      {
        starts_s: [clock(4, 15)],
        days: { kind: 'even' },
        seasonal_pct: BY_MONTH,
      },
    )
}

/** The boathouse's door: every morning, with both valves of the sequencer one behind the other. */
const boathousePrograms = (draft: Draft): Draft =>
  draft.program(
    'S',
    'A',
    [
      ['1', 10],
      ['2', 6],
      ['3', 20],
      ['4', 12],
      ['5', 8],
      ['6', 8],
    ],
    { starts_s: [clock(5), null, null], days: { kind: 'weekdays', on: [0, 1, 2, 3, 4, 5, 6] }, seasonal_pct: BY_MONTH },
  )

/**
 * The boathouse: six stations on one multi-core, the last two jumpered onto one lead that feeds a two-output
 * sequencer.
 */
function boathouse(draft: Draft): Draft {
  draft
    .place('S', 'cabinet', { name: 'Boathouse, back wall', ...drawn('S') })
    .controller('S', 'S', 6, { name: 'Boathouse', transformer: { rating_VA: 30 } })
  for (const box of ['S1', 'S2', 'S3']) draft.place(box, 'valve_box', drawn(box))
  draft.cable(
    'K3',
    {
      gauge: { area_mm2: 0.75 },
      stops: [
        ['S', 0],
        ['S1', 22],
        ['S2', 51],
        ['S3', 95],
      ],
      cores: ['white', 'red', 'yellow', 'blue', 'green', 'brown', 'grey'],
    },
    { name: 'Slipway run', installed: SLIPWAY, ...bent('K3') },
  )
  const valves: [terminal: string, colour: string, box: string, coil: string, name: string][] = [
    ['1', 'red', 'S1', 'standard', 'Boat lawn'],
    ['2', 'yellow', 'S1', 'standard', 'Rope bed'],
    ['3', 'blue', 'S2', 'low-draw', 'Planter row'],
    ['4', 'green', 'S3', 'standard', 'Pontoon grass'],
  ]
  for (const [terminal, colour, box, coil, name] of valves) {
    draft
      .valve(`W${terminal}`, box, coil)
      .station(`S:${terminal}`, name, [`W${terminal}`], { zone: 'Boathouse' })
      .join('S', [`S:${terminal}`, `K3.${colour}>`])
      .join(box, [`K3.${colour}<`, `W${terminal}.a`])
    if (box !== 'S3') draft.join(box, [`K3.${colour}>`]).join('S3', [`K3.${colour}<`])
  }
  draft
    .device('Q1', 'sequencer', 'S3', null, { name: 'Two-output sequencer', outputs: 2, installed: SLIPWAY })
    .valve('W5', 'S3', 'standard', { installed: SLIPWAY })
    .valve('W6', 'S3', 'standard', { installed: SLIPWAY })
    .join('S', ['S:5', 'S:6', 'K3.brown>'])
    .join('S3', ['K3.brown<', 'Q1.in'])
    .join('S3', ['Q1.out_1', 'W5.a'])
    .join('S3', ['Q1.out_2', 'W6.a'])
    .station('S:5', 'Kiosk bed', ['W5'], { zone: 'Boathouse' })
    .station('S:6', 'Ramp edge', ['W6'], { zone: 'Boathouse' })
    .join('S', ['S:C', 'K3.white>'])
    .join('S1', ['K3.white<', 'W1.b', 'W2.b', 'K3.white>'], 'nut_and_gel_tube')
    .join('S2', ['K3.white<', 'W3.b', 'K3.white>'])
    .join('S3', ['K3.white<', 'W4.b', 'W5.b', 'W6.b', 'Q1.common'], 'nut_and_gel_tube')
    .join('S', ['K3.grey>'])
    .join('S3', ['K3.grey<'])
  return draft
}

/** Steady pseudo-random numbers in −1 … 1 for one seed, so that the demo's readings never change (a 32-bit LCG). */
function spread(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return (state / 0xffffffff) * 2 - 1
  }
}

interface Sweep {
  readonly id: string
  readonly controller: ControllerId
  readonly day: string
  readonly title: string
  readonly ground_C: number
  readonly faults: (site: Site) => readonly Fault[]
  readonly exchanged?: Readonly<Record<string, string>>
  readonly checks?: readonly Check[]
}
interface Check {
  readonly id: string
  readonly test: CabinetTest
  readonly value: ReadingValue
}

const METER: Meter = { ...COMMON_METER, name: 'Bench meter' }
const AUTHOR = 'Demo crew'

/**
 * What a meter would have shown: the recorded property with each coil a little off its sheet, the faults, and
 * rounding.
 */
function swept(site: Site, sweep: Sweep, revision: number): Facts {
  const facts = noFacts()
  const { controller, ground_C } = sweep
  const at = (minute: number) => `${sweep.day}T09:${String(minute).padStart(2, '0')}:00.000Z`
  facts.visits[sweep.id] = { at: at(0), author: AUTHOR, people: [] }
  facts.jobs[sweep.id] = {
    visit: sweep.id,
    at: at(0),
    author: AUTHOR,
    kind: 'sweep',
    controller,
    title: sweep.title,
    ground_C,
    coil_C: null,
    meter: METER,
  }
  const as = sceneOf(site, climateOf(site, ground_C))
  const random = spread(20)
  const offSheet = as.network.elements.flatMap((e, element): Fault[] =>
    e.link?.kind === 'coil' ? [{ kind: 'series', element, ohm: e.ohm * 0.02 * random() }] : [],
  )
  const actual = sceneWith(as, [...offSheet, ...sweep.faults(site)])
  const log = (id: string, minute: number, test: CabinetTest, off: Reading['off'], value: ReadingValue) => {
    facts.readings[`${sweep.id}-${id}`] = {
      job: sweep.id,
      at: at(minute),
      author: AUTHOR,
      revision,
      test,
      off,
      meter: METER,
      ground_C,
      value,
    }
  }
  sweepTerminals(site, controller, as.hanging(controller)).forEach((terminal, i) => {
    const lead = (sweep.exchanged?.[terminal] ?? terminal) as TerminalId
    const e = predict(actual, terminalTest(site, controller, lead)!, METER)
    if (e.kind === 'not_readable') return
    log(
      terminal,
      5 + i,
      terminalTest(site, controller, terminal)!,
      'all_leads',
      e.kind === 'ohms' ? { kind: 'ohm', ohm: Math.round(e.expected_ohm * 10) / 10 } : { kind: 'open' },
    )
  })
  sweep.checks?.forEach(({ id, test, value }, i) =>
    log(id, 30 + i, test, test.kind === 'ohms' ? 'all_leads' : 'none', value),
  )
  const cautions = ['schedule_paused', 'power_off', 'leads_off'] as const
  cautions.forEach((code, i) => {
    facts.cautions[`${sweep.id}-${code}`] = { job: sweep.id, at: at(1 + i), author: AUTHOR, code }
  })
  facts.closings[`${sweep.id}-closed`] = { job: sweep.id, at: at(40), author: AUTHOR, dialBack: true }
  return facts
}

/** Element number of a stretch of core or of a coil in the recorded network. */
function elementOf(site: Site, id: string): number {
  const found = sceneOf(site).network.elements.findIndex((e) => e.link?.id === id)
  if (found < 0) throw new Error(`elementOf: no element ${id} in the demo`)
  return found
}

/** The lead joint of station 5 in B3, gaining ohms from year to year. */
const creeping =
  (ohm: number) =>
  (site: Site): Fault => ({ kind: 'series', element: elementOf(site, legOf(site, 'K1', 'brown', 'B3')), ohm })

function legOf(site: Site, cable: string, core: string, stop: string): string {
  const found = Object.entries(site.splices).find(([, splice]) =>
    splice.ends.some(
      (e) => e.kind === 'core' && e.cable === cable && e.core === core && e.stop === stop && e.side === 'arrives',
    ),
  )
  return `${found![0]}|core ${cable} ${core} ${stop} arrives`
}

const terminal = (controller: ControllerId, tag: string) =>
  terminalEnd(controller, tag) as Extract<End, { kind: 'terminal' }>
const volts = (tag: string, volt: number): Check => ({
  id: `volts-${tag}`,
  test: { kind: 'volts', at: terminal(GATEHOUSE, tag) },
  value: { kind: 'volt', volt },
})

/**
 * Two years of sweeps. This spring the main run's common is cut beyond B4, the coil of station 18 has lost part of its
 * turns, a joint of station 5 creeps up, and at the boathouse two leads were exchanged after the winter.
 */
const SWEEPS: Sweep[] = [
  {
    id: 'autumn-2024',
    controller: GATEHOUSE,
    day: '2024-10-12',
    title: 'Autumn sweep',
    ground_C: 13,
    faults: () => [],
  },
  {
    id: 'spring-2025',
    controller: GATEHOUSE,
    day: '2025-04-05',
    title: 'Spring sweep',
    ground_C: 8,
    faults: (site) => [creeping(0.2)(site)],
  },
  {
    id: 'autumn-2025',
    controller: GATEHOUSE,
    day: '2025-10-18',
    title: 'Autumn baseline',
    ground_C: 14,
    faults: (site) => [creeping(0.5)(site)],
  },
  {
    id: 'spring-2026',
    controller: GATEHOUSE,
    day: '2026-04-11',
    title: 'Spring sweep',
    ground_C: 9,
    faults: (site) => [
      { kind: 'open', elements: [elementOf(site, 'K1/white@B4')] },
      { kind: 'series', element: elementOf(site, 'coil V18'), ohm: -14.4 },
      creeping(1.8)(site),
    ],
    checks: [
      { id: 'supply', test: { kind: 'supply', controller: GATEHOUSE }, value: { kind: 'volt', volt: 26.6 } },
      volts('1', 25.9),
      volts('9', 26.4),
      { id: 'click-9', test: { kind: 'click', at: terminal(GATEHOUSE, '9') }, value: { kind: 'heard', heard: false } },
      {
        id: 'earth-C',
        test: { kind: 'ohms', from: terminal(GATEHOUSE, 'C'), to: { kind: 'earth', place: 'A' as PlaceId } },
        value: { kind: 'ohm', ohm: 4.2e6 },
      },
    ],
  },
  {
    id: 'boathouse-autumn-2025',
    controller: BOATHOUSE,
    day: '2025-10-19',
    title: 'Autumn baseline',
    ground_C: 14,
    faults: () => [],
  },
  {
    id: 'boathouse-spring-2026',
    controller: BOATHOUSE,
    day: '2026-04-12',
    title: 'Spring sweep',
    ground_C: 9,
    faults: () => [],
    exchanged: { 2: '3', 3: '2' },
  },
]

export function demoProperty(): Property {
  const site = quarryLake()
  const facts = noFacts()
  for (const sweep of SWEEPS) {
    const more = swept(site, sweep, 0)
    for (const name of Object.keys(facts) as (keyof Facts)[]) Object.assign(facts[name], more[name])
  }
  domeFacts(facts)
  // Somebody pulled a second cable for stations that were never built: nobody wrote down which core is which.
  facts.jobs['boathouse-cores'] = {
    ...facts.jobs['boathouse-spring-2026']!,
    at: '2026-04-12T10:30:00.000Z',
    kind: 'cores',
    title: '',
    sorts: { first: 'S' as PlaceId, second: 'S3' as PlaceId, cores: 7, cable: null },
  }
  return { id: DEMO_ID, revision: 0, site, facts }
}
