import { readFileSync } from 'node:fs'
import { readProperty, readReadingsCsv } from '../formats'
import { COMMON_METER, partKey } from '../record'
import type { ControllerId } from '../site'
import { huntOf, STRAINED } from './hunt'
import { reportOf } from './report'

const METER = { ...COMMON_METER, highest_ohm: 40e6 }

/** A property and readings of it that another simulator made, which shares nothing with this application. */
function reportFor(property: string, log = property) {
  const fixture = (name: string) => readFileSync(`tests/hunts/${name}`, 'utf8')
  const read = readProperty(fixture(`${property}.json`))
  if (!read.ok) throw new Error(JSON.stringify(read))
  const { site } = read.value
  const readings = readReadingsCsv(fixture(`${log}.csv`), site, METER)
  if (!readings.ok) throw new Error(JSON.stringify(readings))
  const hunt = huntOf(site, 'K1' as ControllerId, { meter: METER })!
  for (const r of readings.value) if (hunt.predictor.base(r.test) !== null) hunt.take(r)
  const report = reportOf(hunt)
  return { ...report, strain: hunt.beliefs().strain, first: report.parts.slice(0, 5).map((p) => partKey(p.where)) }
}

/** What is wrong, and what is named: where a joint cannot be told from its wire, what it is about. */
test.each([
  ['shorted-turns', 'coil L6', 'coil_part'],
  ['leak-in-common-joint', 'joint J15', 'leak'],
  ['lead-in-other-joint', 'joint J21', 'misjoined'],
  ['touch-not-neighbours', 'touch W1 c4 c6 s0 s2', 'touch'],
  ['touching-not-neighbours', 'touch W1 c2 c8 s0 s1', 'touch'],
])('one fault of another world is named: %s', (property, key, cause) => {
  const { named, strain } = reportFor(property)
  expect([named?.key, named?.causes[0]?.cause]).toEqual([key, cause])
  expect(strain).toBeGreaterThan(STRAINED)
})

test.each([
  ['six-hundred-ohms', 'six-hundred-ohms', ['joint J61']],
  ['common-open-and-766-ohms', 'common-open-and-766-ohms', ['run W3 c1 s0 s1', 'joint J30']],
  ['shorted-turns-and-open-lead', 'shorted-turns-and-open-lead', ['coil L6', 'run W12 c1 s0 s1']],
  ['leak-and-open-coil', 'leak-and-open-coil', ['coil L2', 'run W1 c7 s0 s3']],
  ['leak-and-joint', 'leak-and-joint-metered', ['joint J17']],
  ['grip-and-relay', 'grip-and-relay-4', ['run W17 c1 s0 s1', 'joint J96']],
])(
  'what the cabinet cannot tell apart is not named, and what is wrong is among the first: %s, %s',
  (property, log, wrong) => {
    const { named, nothing, first } = reportFor(property, log)
    expect(named).toBeNull()
    expect(nothing).toBeLessThan(0.05)
    expect(first).toEqual(expect.arrayContaining(wrong))
  },
)
