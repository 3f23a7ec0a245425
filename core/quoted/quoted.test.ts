import fc from 'fast-check'
import { plainTotals } from '../../tests/drawn-prices'
import { sentTotals } from '../quote'
import {
  factsSchema,
  kindOf,
  noFacts,
  withFact,
  type FactBody,
  type Facts,
  type PriceList,
  type SentQuote,
} from '../record'
import { sightingsIn } from '../sightings'
import type { PlaceId } from '../site'
import { quotesIn } from '.'

const PRICES: PriceList = {
  ...{ currency: 'XTS', decimals: 2, tax: 'on_top', rounding: 'half_up', roundTo: '0.05' },
  taxes: [{ code: 'std', name: 'Standard', percent: '7.7' }],
  prices: [
    { code: 'work', name: 'Work', unit: 'h', price: '71.5', markup_pct: '0', tax: 'std' },
    { code: 'head', name: 'Head', unit: 'piece', price: '3.33', markup_pct: '15', tax: null },
  ],
}
const SEEN = ['s1', 's2', 's3']
const moment = (minute: number) => new Date(Date.UTC(2027, 4, 1) + minute * 60_000).toISOString()

/** What one of two editors does, with the minute on their own clock. */
type Deed =
  | { do: 'see'; seen: number }
  | { do: 'send'; items: number[]; minutes: number }
  | { do: 'answer'; quote: number; accepted: number[] }
  | { do: 'withdraw' | 'open'; quote: number }
  | { do: 'turn'; seen: number; to: 'open' | 'done' | 'declined' | 'struck' }
const seen = fc.nat({ max: SEEN.length - 1 })
const some = fc.uniqueArray(seen, { minLength: 1 })
const deed: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({ do: fc.constant('see' as const), seen }),
  fc.record({ do: fc.constant('send' as const), items: some, minutes: fc.nat({ max: 300 }) }),
  fc.record({ do: fc.constant('answer' as const), quote: fc.nat({ max: 4 }), accepted: fc.uniqueArray(seen) }),
  fc.record({ do: fc.constantFrom('withdraw' as const, 'open' as const), quote: fc.nat({ max: 4 }) }),
  fc.record({
    do: fc.constant('turn' as const),
    seen,
    to: fc.constantFrom('open' as const, 'done' as const, 'declined' as const, 'struck' as const),
  }),
)
const deeds = fc.array(fc.tuple(deed, fc.nat({ max: 40 })), { maxLength: 25 })

const quoteFor = (at: string, items: number[], minutes: number): SentQuote => ({
  ...{ at, author: 'Ann', until: null, note: '', prices: PRICES },
  items: items.map((i) => ({
    key: SEEN[i]!,
    of: { kind: 'sighting', sighting: SEEN[i]! },
    says: `Finding ${i}`,
    usual_min: null,
  })),
  lines: [
    { key: 'walk', item: null, place: null, code: 'work', unit: 'min', quantity: '10' },
    ...items.map((i) => ({
      ...{ key: `l${i}`, item: SEEN[i]!, place: `B${i}`, code: 'work' },
      ...{ unit: 'min' as const, quantity: String(minutes + i) },
    })),
  ],
})

/** The facts that the deeds make, in the order done; what hangs on no quote yet is none. */
function madeBy(done: readonly (readonly [Deed, number])[]): [string, FactBody][] {
  let quotes = 0
  const noted = new Set<number>()
  return done.flatMap(([d, minute], n): [string, FactBody][] => {
    const now = { at: moment(minute), author: 'Ann' }
    const turn = (quote: number, to: object) =>
      quote < quotes ? [[`t${n}`, { kind: 'quoteTurn', fact: { ...now, quote: `q${quote}`, to } } as FactBody]] : []
    switch (d.do) {
      case 'see':
        if (noted.has(d.seen)) return []
        noted.add(d.seen)
        return [
          [
            SEEN[d.seen]!,
            {
              kind: 'sighting',
              fact: {
                ...now,
                on: { kind: 'box', place: 'B1' as PlaceId },
                what: 'leak',

                severity: 'wastes',
                note: '',
              },
            },
          ],
        ]
      case 'send':
        return [[`q${quotes++}`, { kind: 'quote', fact: quoteFor(now.at, d.items, d.minutes) }]]
      case 'answer':
        return turn(d.quote, {
          kind: 'answered',
          accepted: d.accepted.map((i) => SEEN[i]!),
          name: 'Owner',
          signature: null,
        }) as [string, FactBody][]
      case 'withdraw':
        return turn(d.quote, { kind: 'withdrawn', why: '' }) as [string, FactBody][]
      case 'open':
        return turn(d.quote, { kind: 'open' }) as [string, FactBody][]
      case 'turn':
        return [[`t${n}`, { kind: 'sightingTurn', fact: { ...now, sighting: SEEN[d.seen]!, to: d.to, why: '' } }]]
    }
  })
}

const added = (facts: Facts, [id, body]: [string, FactBody]): Facts => {
  const with_ = withFact(facts, id, body)
  if (!with_.ok) throw new Error(with_.refusals[0]!.code)
  return with_.value
}
/** Owners before what hangs on them; otherwise any order, as from two devices. */
const shuffled = (made: [string, FactBody][], by: number): [string, FactBody][] =>
  [...made]
    .map((m, i) => [m, (i * 7919 + by * 104729) % 1009] as const)
    .sort(
      ([a, x], [b, y]) => Number(kindOf(a[1].kind).owner !== null) - Number(kindOf(b[1].kind).owner !== null) || x - y,
    )
    .map(([m]) => m)

test('whatever two editors send, answer, withdraw and strike out, in whatever order it comes in: no orphan, no false total', () => {
  fc.assert(
    fc.property(deeds, fc.nat(), (done, by) => {
      const made = madeBy(done)
      const facts = made.reduce(added, noFacts())
      expect(factsSchema.parse(facts)).toEqual(facts)
      const there = shuffled(made, by).reduce(added, noFacts())
      const quotes = quotesIn(facts)
      expect(quotesIn(there)).toEqual(quotes)
      expect(sightingsIn(there)).toEqual(sightingsIn(facts))
      for (const { quote, state, accepted } of quotes) {
        const keys = quote.items.map((i) => i.key)
        expect([...accepted].every((k) => keys.includes(k))).toBe(true)
        expect(accepted.size > 0).toBe(state === 'accepted')
        const whole = sentTotals(quote)
        const part = sentTotals(quote, accepted)
        if (!whole.ok || !part.ok) throw new Error('a quote that was sent has its prices')
        const lines = quote.lines.filter((l) => accepted.size > 0 && (l.item === null || accepted.has(l.item)))
        expect(part.value.total).toBe(plainTotals(lines, PRICES)[2])
        expect(Number(part.value.total)).toBeLessThanOrEqual(Number(whole.value.total))
      }
      // What stands on record as quoted or accepted stands so by some quote that was not withdrawn.
      for (const { id, state } of sightingsIn(facts)) {
        const holding = quotes.filter((q) => q.state !== 'withdrawn' && q.quote.items.some((i) => i.key === id))
        if (state === 'quoted') expect(holding.length).toBeGreaterThan(0)
        if (state === 'accepted') expect(holding.some((q) => q.accepted.has(id))).toBe(true)
      }
    }),
    { numRuns: 300 },
  )
})

test('an answer, a change of mind, a quote withdrawn: each leaves findings as they stand by what is left', () => {
  const state = (...done: [Deed, number][]) =>
    sightingsIn(madeBy(done).reduce(added, noFacts())).map((s) => `${s.id} ${s.state}`)
  const begun: [Deed, number][] = [
    [{ do: 'see', seen: 0 }, 1],
    [{ do: 'see', seen: 1 }, 1],
    [{ do: 'send', items: [0, 1], minutes: 30 }, 2],
  ]
  expect(state(...begun)).toEqual(['s1 quoted', 's2 quoted'])
  const answered: [Deed, number][] = [...begun, [{ do: 'answer', quote: 0, accepted: [1] }, 3]]
  expect(state(...answered)).toEqual(['s2 accepted', 's1 declined'])
  expect(state(...answered, [{ do: 'turn', seen: 1, to: 'done' }, 5])).toEqual(['s1 declined', 's2 done'])
  expect(state(...answered, [{ do: 'withdraw', quote: 0 }, 6])).toEqual(['s1 open', 's2 open'])
  // Answered again: the later answer counts, though it came in first.
  expect(state([{ do: 'answer', quote: 0, accepted: [] }, 9], ...answered)).toEqual(['s2 accepted', 's1 declined'])
})
