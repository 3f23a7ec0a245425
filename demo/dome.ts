import type { Facts } from '../core/record'
import { genericSystem } from '../core/path'
import type { DeviceId, Draft } from '../core/site'

/**
 * The dome: a switched two-wire path with two ways out and three branches. The second way out is an old multi-core
 * whose cores were joined into two legs. One arrestor is missing, one rod reads too much, one coil’s joint leaks to
 * earth, and two decoders were given one number.
 */

const SPOTS: Readonly<Record<string, [number, number]>> = {
  D: [126, 92],
  D1: [131, 93],
  D2: [170, 100],
  D3: [212, 112],
  D4: [256, 130],
  D5: [300, 150],
  D6: [176, 64],
  D7: [196, 30],
  D8: [232, 8],
  D9: [268, 104],
  D10: [296, 82],
  D11: [124, 98],
  D12: [140, 138],
  D13: [156, 182],
  D14: [190, 222],
  D15: [102, 152],
  D16: [66, 166],
}
interface PathRun {
  readonly cable: string
  readonly name: string
  readonly stops: readonly (readonly [box: string, at_m: number])[]
  readonly legs: readonly [readonly string[], readonly string[]]
  readonly area_mm2: number
}
const NEW: PathRun['legs'] = [['red'], ['blue']]
const RUNS: readonly PathRun[] = [
  {
    cable: 'K5',
    name: 'Dome path',
    stops: [
      ['D', 0],
      ['D1', 6],
      ['D2', 47],
      ['D3', 91],
      ['D4', 139],
      ['D5', 182],
    ],
    legs: NEW,
    area_mm2: 2.5,
  },
  {
    cable: 'K6',
    name: 'South branch',
    stops: [
      ['D2', 0],
      ['D6', 37],
      ['D7', 77],
      ['D8', 120],
    ],
    legs: NEW,
    area_mm2: 1.5,
  },
  {
    cable: 'K7',
    name: 'Lookout branch',
    stops: [
      ['D4', 0],
      ['D9', 29],
      ['D10', 66],
    ],
    legs: NEW,
    area_mm2: 1.5,
  },
  {
    cable: 'K8',
    name: 'Old terrace cable, converted',
    stops: [
      ['D', 0],
      ['D11', 7],
      ['D12', 51],
      ['D13', 98],
      ['D14', 151],
    ],
    legs: [
      ['white', 'red'],
      ['blue', 'green'],
    ],
    area_mm2: 0.75,
  },
  {
    cable: 'K9',
    name: 'Orchard branch',
    stops: [
      ['D12', 0],
      ['D15', 42],
      ['D16', 78],
    ],
    legs: NEW,
    area_mm2: 1.5,
  },
]
/** Decoders by box: the number, its outputs, and what each output waters. D15’s was programmed like the one in D6. */
const DECODERS: readonly (readonly [box: string, address: number, names: readonly string[], meant?: number])[] = [
  ['D2', 1, ['Dome gate bed']],
  ['D3', 2, ['Terrace lawn, east', 'Terrace lawn, west']],
  ['D3', 4, ['Terrace steps']],
  ['D4', 5, ['Rose ring, inner', 'Rose ring, outer']],
  ['D5', 7, ['East hedge']],
  ['D5', 8, ['East wall', 'Viewing bank']],
  ['D6', 10, ['South bed 1']],
  ['D7', 11, ['South bed 2', 'South bed 3']],
  ['D7', 13, ['South slope']],
  ['D8', 14, ['Pond edge', 'Pond lawn']],
  ['D8', 16, ['Pump garden']],
  ['D9', 17, ['Lookout bed']],
  ['D10', 18, ['Lookout lawn', 'Lookout hedge']],
  ['D10', 20, ['Telescope ring']],
  ['D13', 22, ['Old terrace, middle', 'Old terrace, wall']],
  ['D14', 25, ['Old terrace, lower', 'Ferns']],
  ['D14', 27, ['Apiary strip']],
  ['D15', 21, ['Orchard gate']],
  ['D15', 10, ['Orchard 1'], 28],
  ['D16', 29, ['Orchard 2', 'Orchard 3']],
  ['D16', 31, ['Orchard lane']],
  ['D16', 24, ['Herb bed']],
]
/** Boxes with an arrestor and its rod. D14, at an end, has none. */
const ARRESTORS = ['D1', 'D2', 'D5', 'D8', 'D10', 'D11', 'D16']
/** The day the dome’s path was laid. */
export const LAID = { value: '2015-05-20', how: 'reported' }
const CONVERTED = { value: '2018-03-14', how: 'seen' }

const coresOf = ({ legs }: PathRun) => legs.flat()
/** Ends of a leg at a box: what comes in and what goes on, of every run that has a stop there. */
const endsAt = (box: string, leg: 0 | 1) =>
  RUNS.flatMap((run) => {
    const at = run.stops.findIndex(([stop]) => stop === box)
    if (at < 0) return []
    return run.legs[leg].flatMap((core) => [
      ...(at > 0 ? [`${run.cable}.${core}<`] : []),
      ...(at < run.stops.length - 1 ? [`${run.cable}.${core}>`] : []),
    ])
  })

const port = (device: string, name: string) => ({ kind: 'port', device, port: name })

/** Adds the dome to the draft of a property that knows the coil `standard`. */
export function dome(draft: Draft): Draft {
  const drawn = (tag: string) => {
    const [x_m, y_m] = SPOTS[tag]!
    return { position: { value: { x_m, y_m }, how: 'reported' } }
  }
  const screws = Object.fromEntries(['P1', 'P2', 'P3', 'P4'].map((tag, order) => [tag, { tag, role: 'path', order }]))
  draft
    .system('switched', genericSystem('switched', 'Switched path, in general'))
    .place('D', 'cabinet', { name: 'Dome, north door', ...drawn('D') })
    .controller('D', 'D', 0, { name: 'Dome', kind: 'two_wire', system: 'switched', terminals: screws, indoor: true })
  for (const box of Object.keys(SPOTS).slice(1)) draft.place(box, 'valve_box', drawn(box))
  for (const run of RUNS)
    draft.cable(
      run.cable,
      { gauge: { area_mm2: run.area_mm2 }, stops: run.stops.map(([b, m]) => [b, m]), cores: coresOf(run) },
      { name: run.name, installed: run.cable === 'K8' ? CONVERTED : LAID },
    )
  draft
    .join('D', ['D:P1', 'K5.red>'])
    .join('D', ['D:P2', 'K5.blue>'])
    .join('D', ['D:P3', 'K8.white>', 'K8.red>'])
    .join('D', ['D:P4', 'K8.blue>', 'K8.green>'])
    // The joint of this coil’s lead lets water in: it leaks as soon as its own station runs.
    .defect('lookout-leak', { kind: 'leak', end: port('Y17', 'a'), ohm: 900, since: '2026-04-11' })
  const leads = new Map<string, [string[], string[]]>()
  const onLeg = (box: string, ends: readonly [string, string]) => {
    const at = leads.get(box) ?? [[], []]
    at.forEach((list, leg) => list.push(ends[leg]!))
    leads.set(box, at)
  }
  for (const [box, address, names, meant = address] of DECODERS) {
    const tag = `X${meant}`
    draft.device(tag, 'decoder', box, null, {
      address,
      outputs: names.length,
      serial: `DOME-${String(meant).padStart(4, '0')}`,
      leads: { path_1: 'red', path_2: 'blue', common: 'white', out_1: 'brown', out_2: 'yellow' },
      onStake: true,
      installed: box === 'D13' || box === 'D14' ? CONVERTED : LAID,
    })
    onLeg(box, [`${tag}.path_1`, `${tag}.path_2`])
    names.forEach((name, i) => {
      const valve = `Y${meant + i}`
      draft
        .valve(valve, box, 'standard', { installed: LAID })
        .join(box, [`${tag}.out_${i + 1}`, `${valve}.a`])
        .pathStation('D', 'P1', meant + i, name, [valve], { zone: 'Dome terrace' })
    })
    draft.join(box, [`${tag}.common`, ...names.map((_, i) => `Y${meant + i}.b`)])
  }
  for (const box of ARRESTORS) {
    draft
      .device(`E${box}`, 'arrestor', box, null, { tag: `E${box.slice(1)}`, installed: LAID })
      .device(`R${box}`, 'rod', box, null, { tag: `R${box.slice(1)}`, long_m: 2.4, installed: LAID })
    onLeg(box, [`E${box}.path_1`, `E${box}.path_2`])
  }
  for (const box of Object.keys(SPOTS).slice(1))
    for (const leg of [0, 1] as const) {
      const ends = [...endsAt(box, leg), ...(leads.get(box)?.[leg] ?? [])]
      if (ends.length > 1) draft.join(box, ends, 'nut_and_gel_tube')
    }
  return draft
}

/** What the rods read over the years: dry autumns, one of them too much by now. */
export function domeFacts(facts: Facts): void {
  const years: [string, number][] = [
    ['2016-09-10', 0.72],
    ['2020-09-12', 0.84],
    ['2024-09-14', 1],
  ]
  const newest: Readonly<Record<string, number>> = {
    D1: 8.4,
    D2: 9.6,
    D5: 14.2,
    D8: 31,
    D10: 18.6,
    D11: 9.1,
    D16: 12.5,
  }
  for (const [box, ohm] of Object.entries(newest))
    for (const [day, part] of years)
      facts.earthReadings[`rod-${box}-${day}`] = {
        at: `${day}T10:00:00.000Z`,
        author: 'Demo crew',
        earthed: {
          kind: 'read',
          of: `R${box}` as DeviceId,
          ohm: Math.round(ohm * part * 10) / 10,
          soil: 'dry',
          how: 'unbonded',
          instrument: 'Earth tester',
        },
      }
}
