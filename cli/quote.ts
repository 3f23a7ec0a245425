import type * as z from 'zod'
import { readPricesCsv, type Property } from '../core/formats'
import { cabinetsFor, dueOn, quoteLines, quoteOf } from '../core/quote'
import { USUAL_FIGURES } from '../core/repair'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { partsNamed } from '../core/sightings'
import type { Speaker } from '../words'
import { sayPart } from '../words/part'
import { sayRepair, sayWhyNot } from '../words/repair'
import type { Arguments } from './flags'
import type { quoteOutput } from './output'

type Out = z.infer<typeof quoteOutput>
const SOME_DAY = '2027-01-01'

/**
 * What the record knows to be bad, and what hunts named, each by the first repair that is possible, priced by a
 * company's list. What no repair mends is told beside.
 */
export function quoteIn(
  { site, facts }: Property,
  prices: string | null,
  flags: Arguments['flags'],
  speaker: Speaker,
): Outcome<Out> {
  if (prices === null) return refused(refusal('no_prices', ['--prices']))
  const list = readPricesCsv(prices)
  if (!list.ok) return list
  const looked = dueOn(site, flags.from ?? SOME_DAY, USUAL_FIGURES, partsNamed(facts)).map(
    ({ where, controller, options }) => {
      const part = sayPart(where, site, speaker)
      return { where, controller, part, options, option: options.find((o) => o.possible) ?? null }
    },
  )
  const repairs = looked.flatMap(({ where, option }) => (option?.possible ? [{ where, option }] : []))
  const [home, ...others] = cabinetsFor(
    site,
    looked.filter((l) => l.option !== null),
  )
  const cabinets = others.map(([, c]) => c.place)
  const quote = quoteOf(home ? quoteLines(site, home[0], repairs, cabinets) : [], list.value)
  if (!quote.ok) return quote
  return accepted({
    verb: 'quote',
    property: site.about.name,
    repairs: looked.flatMap(({ part, option }) =>
      option?.possible ? [{ part, says: sayRepair(option.code, speaker) }] : [],
    ),
    without: looked.flatMap(({ part, options, option }) => {
      if (option) return []
      const [first] = options
      return [{ part, why: first && !first.possible ? sayWhyNot(first.why, speaker) : '' }]
    }),
    ...quote.value,
    lines: quote.value.lines.map((l) => ({ ...l })),
    groups: quote.value.groups.map((g) => ({ ...g })),
    taxes: quote.value.taxes.map((t) => ({ ...t })),
    roundings: quote.value.roundings.map((r) => ({ ...r })),
  })
}

/** The same as lines for a person. */
export const quoteText = (q: Out): string[] => [
  ...q.repairs.map((r) => `${r.part}: ${r.says}`),
  ...q.without.map((r) => `${r.part}: not quoted. ${r.why}`),
  ...q.lines.map(
    (l) =>
      `  ${(l.place ?? '').padEnd(6)} ${l.quantity.padStart(8)} ${l.unit.padEnd(5)} ${l.name.padEnd(28)} ${l.amount}`,
  ),
  `  net ${q.net} ${q.currency}`,
  ...q.taxes.map((t) => `  ${t.name} ${t.percent} % of ${t.of}: ${t.amount}`),
  `  total ${q.total} ${q.currency}`,
]
