import { quarryLake } from '../../demo/quarry-lake'
import { noFacts, partKey, type Facts, type Part, type PriceList } from '../record'
import { USUAL_FIGURES } from '../repair'
import type { DeviceId, PlaceId } from '../site'
import { draftItems, draftLines, draftParts, dueOn, isQuantity, type DraftPart, type OwnLine } from '.'

const SITE = { ...quarryLake(), defects: {} }
const COIL: Part = { kind: 'coil', device: 'V18' as DeviceId }
const OTHER: Part = { kind: 'coil', device: 'V3' as DeviceId }
const DUE = dueOn(SITE, '2027-05-01', USUAL_FIGURES, [COIL, OTHER])
const KEY = partKey(COIL)
const LIST = {
  prices: [
    { code: 'head', name: 'Spray head', unit: 'piece' },
    { code: 'check', name: 'Wet check', unit: 'h' },
  ],
} as unknown as PriceList
const says = { repair: (_: Part, code: string) => `mended by ${code}`, sighting: (id: string) => id && `seen ${id}` }

function facts(change: (made: Facts) => void = () => {}): Facts {
  const made = noFacts()
  made.sightings.leak = {
    ...{ at: '2027-04-30T08:00:00Z', author: 'Sam', on: { kind: 'box', place: 'B3' as PlaceId } },
    ...{ what: 'leak', severity: 'wastes', note: '' },
  }
  change(made)
  return made
}
/** A quote of the coil was sent, and answered where something was accepted or declined. */
const sent = (accepted: readonly string[] | null) =>
  facts((made) => {
    made.quotes.q = {
      ...{ at: '2027-05-01T08:00:00Z', author: 'Ann', until: null, note: '', lines: [], prices: LIST },
      items: [{ key: KEY, of: { kind: 'repair', where: COIL, option: 'coil' }, says: 'The coil', usual_min: 20 }],
    }
    if (accepted === null) return
    made.quoteTurns.t = {
      ...{ at: '2027-05-02T08:00:00Z', author: 'Ann', quote: 'q' },
      to: { kind: 'answered', accepted: [...accepted], name: 'Owner', signature: null },
    }
  })
const chosen = (parts: readonly DraftPart[]) => parts.map((p) => [p.key, p.chosen?.code ?? null, p.isQuoted])

test('each part has the first repair that is possible, the one that was chosen, or none where somebody wants none', () => {
  const usual = DUE.map((d) => [partKey(d.where), d.options.find((o) => o.possible)!.code, false])
  expect(chosen(draftParts(SITE, facts(), DUE, {}))).toEqual(usual)
  expect(chosen(draftParts(SITE, facts(), DUE, { [KEY]: 'whole_valve' }))[0]).toEqual([KEY, 'whole_valve', false])
  expect(chosen(draftParts(SITE, facts(), DUE, { [KEY]: null }))[0]).toEqual([KEY, null, false])
  // A repair that is possible no more is not kept.
  expect(chosen(draftParts(SITE, facts(), DUE, { [KEY]: 'module' }))[0]).toEqual(usual[0])
})

test('what waits for an answer or was accepted is not quoted twice, unless somebody asks for it; what was declined is', () => {
  const first = (made: Facts, asked = {}) => chosen(draftParts(SITE, made, DUE, asked))[0]!.slice(1)
  expect(first(sent(null))).toEqual([null, true])
  expect(first(sent([KEY]))).toEqual([null, true])
  expect(first(sent(null), { [KEY]: 'coil' })).toEqual(['coil', true])
  expect(first(sent([]))).toEqual(['coil', false])
})

test('a part that is on record no more has no name, and no line', () => {
  const { V18: _, ...devices } = SITE.devices as Record<string, never>
  const parts = draftParts({ ...SITE, devices } as typeof SITE, facts(), DUE, {})
  expect(parts.map((p) => p.key)).toEqual([partKey(OTHER)])
})

test('lines that somebody wrote stand where what they are for was seen, by figures as they are kept; hours by the minute', () => {
  const own: OwnLine[] = [
    { id: 'l1', sighting: 'leak', code: 'head', quantity: ' 2,5 ' },
    { id: 'l2', sighting: 'leak', code: 'check', quantity: '30' },
    { id: 'l3', sighting: null, code: 'unknown', quantity: '1' },
    { id: 'l4', sighting: 'gone', code: 'head', quantity: '1' },
  ]
  const lines = draftLines(SITE, facts(), [], own, LIST)
  const written = lines.filter((l) => l.key.startsWith('l'))
  expect(written.map((l) => [l.item, l.place, l.unit, l.quantity])).toEqual([
    ['leak', 'B3', 'piece', '2.5'],
    ['leak', 'B3', 'min', '30'],
    ['l3', null, 'piece', '1'],
    ['gone', null, 'piece', '1'],
  ])
  // Somebody goes to B3 for it, and is called out.
  expect(lines.slice(0, 2).map((l) => l.key)).toEqual(['call out', 'walk'])
  // A finding with two lines is accepted as one; what nobody has words for is told by its price.
  const items = draftItems([], own, lines, LIST, { ...says, sighting: (id) => (id === 'gone' ? '' : `seen ${id}`) })
  expect(items.map((i) => [i.key, i.of.kind, i.says])).toEqual([
    ['leak', 'sighting', 'seen leak'],
    ['l3', 'line', 'unknown'],
    ['gone', 'sighting', 'Spray head'],
  ])
})

test('every item of a draft has lines of its own, and every line is an item’s or the whole’s', () => {
  const parts = draftParts(SITE, facts(), DUE, {})
  const own: OwnLine[] = [{ id: 'l1', sighting: 'leak', code: 'head', quantity: '1' }]
  const lines = draftLines(SITE, facts(), parts, own, LIST, (code) => (code === 'coil' ? 2 : 1))
  const items = draftItems(parts, own, lines, LIST, says)
  expect(items.map((i) => i.key)).toEqual([KEY, partKey(OTHER), 'leak'])
  const of = new Set(lines.map((l) => l.item))
  expect([...of].sort()).toEqual([...items.map((i) => i.key), null].sort())
  // The company’s own works took twice as long; what is usual is kept beside.
  const work = lines.find((l) => l.item === KEY && l.code === 'work')!
  expect(Number(work.quantity)).toBeCloseTo(2 * items[0]!.usual_min!, 0)
})

test('a quantity is a figure with a point or a comma', () => {
  expect(['3', '2.5', ' 2,5 ', '0.000001'].map(isQuantity)).toEqual([true, true, true, true])
  expect(['', '-1', 'two', '1.2.3', '1e3', '1234567890'].map(isQuantity)).toEqual(Array(6).fill(false))
})
