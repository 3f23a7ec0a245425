import { demoProperty } from '../../demo/quarry-lake'
import type { Facts, SentQuote } from '../record'
import type { Site } from '../site'
import { attentionOf, threadsOn, wordsOf } from '.'

const { site, facts } = demoProperty()
function attention(of: Site, from: Facts) {
  const looking = threadsOn(of, from)
  let next = looking.next()
  let steps = 0
  while (!next.done) {
    steps++
    next = looking.next()
  }
  return { ...attentionOf(of, from, next.value), steps, threads: next.value }
}

test('the demo in spring: threads that read a fault, one that creeps, with days that hold until the record changes', () => {
  const found = attention(site, facts)
  expect(found.threads.faults.map((t) => `${t.controller} ${t.terminal}`)).toEqual([
    ...['A 9', 'A 10', 'A 11', 'A 12', 'A 18'],
    ...['S 2', 'S 3'],
  ])
  expect(found.creeping).toBe(1)
  expect(found.creepsOn).toMatch(/^2026-/)
  // Others are let in between two threads.
  expect(found.steps).toBeGreaterThan(10)
  expect(found).toMatchObject({ visits: 6, visitDue: '2027-04-12', findings: 0, quotes: 0, temporary: 0 })
  expect(attention({ ...site, settings: { ...site.settings, visitEvery_months: null } }, facts).visitDue).toBeNull()
})

test('what is left for a while, seen and quoted asks for somebody; a visit on the last of a month is due on a last', () => {
  const left = { what: 'Master valve bridged', place: null, since: '2027-01-01' }
  const of = {
    ...site,
    temporaryStates: {
      a: { ...left, until: '2027-03-01' },
      b: { ...left, until: '2027-02-01' },
      c: { ...left, until: null },
    },
    settings: { ...site.settings, visitEvery_months: 6 },
  } as Site
  const from = structuredClone(facts)
  from.visits.late = { at: '2026-08-31T10:00:00Z', author: 'Ann', people: [] }
  from.sightings.lid = {
    ...{
      at: '2026-08-31T10:00:00Z',
      author: 'Ann',
      what: 'lid_proud',

      severity: 'danger',
      note: 'by the pear tree',
    },
    on: { kind: 'box', place: Object.keys(site.places)[1] as never },
  }
  const quote: SentQuote = {
    ...{ at: '2026-09-02T08:00:00Z', author: 'Ann', until: null, note: '' },
    items: [{ key: 'lid', of: { kind: 'sighting', sighting: 'lid' }, says: 'Lid', usual_min: null }],
    lines: [{ key: 'l', item: 'lid', place: null, code: 'work', unit: 'min', quantity: '5' }],
    prices: {
      ...{ currency: 'XTS', decimals: 2, tax: 'on_top', rounding: 'half_up', roundTo: null, taxes: [] },
      prices: [{ code: 'work', name: 'Work', unit: 'h', price: '60', markup_pct: '0', tax: null }],
    },
  }
  from.quotes.q = quote
  expect(attention(of, from)).toMatchObject({
    ...{ temporary: 3, temporaryUntil: '2027-02-01', findings: 1, quotes: 1, quotedOn: '2026-09-02' },
    ...{ lastVisit: '2026-08-31T10:00:00Z', visitDue: '2027-02-28' },
  })
  const words = wordsOf(of, from)
  for (const text of ['quarry lake', 'b4', 'ticket lawn', 'lid proud', 'by the pear tree', 'master valve bridged'])
    expect(words).toContain(text)
})
