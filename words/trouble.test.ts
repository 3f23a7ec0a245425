import { quarryLake } from '../demo/quarry-lake'
import { placesOf, type Cause } from '../core/hunt'
import { gaugeText, printFigure } from '../core/quantity'
import type { Part, WiringState } from '../core/record'
import { terminalAt, type CableId, type SpliceId } from '../core/site'
import type { Speaker } from './index'
import { translateHere } from './speaker'
import { sayTrouble } from './trouble'

const speaker: Speaker = {
  t: translateHere,
  gauge: gaugeText,
  wire: terminalAt,
  figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }),
}
const site = quarryLake()
const K1 = 'K1' as CableId

type Told = readonly [where: object, p: number, cause: Cause, ohm?: number, states?: readonly WiringState[]]
const told = (...parts: Told[]) =>
  sayTrouble(
    {
      parts: parts.map(([where, p, cause, ohm = null, states = []], n) => ({
        key: String(n),
        where: where as Part,
        places: placesOf(site, where as Part),
        p,
        causes: [{ cause, p: 1 }],
        likeliest: { cause, at: null, along: null, ohm, states },
      })),
    },
    site,
    speaker,
  )
const joint = (splice: string) => ({ kind: 'joint', splice: splice as SpliceId })
const run = (core: string, from: string, to: string) => ({ kind: 'run', cable: K1, core, from, to })
const coil = (device: string) => ({ kind: 'coil', device })

test.each<readonly [says: string, parts: readonly Told[]]>([
  [
    'The common is cut between B4 and B5, or open at a joint there.',
    [
      [joint('B5-j74'), 0.36, 'open'],
      [joint('B4-j73'), 0.34, 'open'],
      [run('white', 'B4', 'B5'), 0.3, 'open'],
    ],
  ],
  ['The common is open in B4.', [[joint('B4-j73'), 0.99, 'open']]],
  [
    'The common has a poor joint between B4 and B5.',
    [
      [run('white', 'B4', 'B5'), 0.5, 'series'],
      [joint('B4-j73'), 0.4, 'series'],
    ],
  ],
  [
    'Gate hedge is open: its coil in B2, its joint in B2 or the common’s joint in B2.',
    [
      [coil('V3'), 0.4, 'coil_open'],
      [joint('B2-j12'), 0.3, 'open'],
      [joint('B2-j71'), 0.25, 'open'],
    ],
  ],
  [
    'Picnic shelf 1 reads high through its joint in B4 or its lead between A and B4.',
    [
      [joint('B4-j28'), 0.5, 'series'],
      [run('grey', 'A', 'B4'), 0.4, 'series'],
    ],
  ],
  [
    'Picnic shelf 1 reads 25.0 Ω high through its joint in B4 or the common’s joint in B4.',
    [
      [joint('B4-j28'), 0.5, 'series', 25],
      [joint('B4-j73'), 0.4, 'series', 25.4],
    ],
  ],
  [
    'Picnic shelf 1 reads 60.0 Ω high through its joint in B4 or the common’s joint in B4. It shows only when wet.',
    [
      [joint('B4-j28'), 0.5, 'series', 60, ['wet']],
      [joint('B4-j73'), 0.4, 'series', 60.4, ['wet']],
    ],
  ],
  ['The coil of Far willows in B11: shorted turns.', [[coil('V18'), 0.98, 'coil_part']]],
  [
    'The coil of Gate hedge in B2 or the coil of Picnic shelf 1 in B4: open winding.',
    [
      [coil('V3'), 0.5, 'coil_open'],
      [coil('V7'), 0.45, 'coil_open'],
    ],
  ],
  [
    'The coil of Gate hedge in B2, the coil of Ticket lawn in B2, the coil of Entrance bed in B2, the coil of Picnic shelf 1 in B4 or another part.',
    [
      [coil('V3'), 0.2, 'coil_open'],
      [coil('V2'), 0.19, 'coil_part'],
      [coil('V1'), 0.18, 'coil_dc'],
      [coil('V7'), 0.17, 'coil_short'],
      [coil('V8'), 0.16, 'coil_open'],
      [coil('V9'), 0.15, 'coil_open'],
    ],
  ],
])('%s', (says, parts) => {
  expect(told(...parts)).toBe(says)
})
