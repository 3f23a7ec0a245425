import {
  partKey,
  type Facts,
  type QuotedItem,
  type QuoteTurn,
  type SentQuote,
  type SightingState,
  type WorkDone,
} from '../record'

export type QuoteState = 'open' | 'accepted' | 'declined' | 'withdrawn'

/** A quote as it was sent, and how it stands. */
export interface Sent {
  readonly id: string
  readonly quote: SentQuote
  readonly state: QuoteState
  /** The turn that brought it there; null of one that stands as it was sent. */
  readonly turn: QuoteTurn | null
  /** Keys of the items that were accepted. */
  readonly accepted: ReadonlySet<string>
  /** What was done of the accepted items, by their keys. */
  readonly done: ReadonlyMap<string, WorkDone>
}

/** Every quote that was sent, the latest first. What was accepted and is no item of it counts for nothing. */
export function quotesIn(facts: Facts): Sent[] {
  const turns = latestBy(facts.quoteTurns, (t) => t.quote)
  const works = latestBy(facts.worksDone, (w) => `${w.quote} ${w.item}`)
  return Object.entries(facts.quotes)
    .sort((a, b) => (isLater(a, b) ? -1 : 1))
    .map(([id, quote]): Sent => {
      const turn = turns.get(id) ?? null
      const keys = new Set(quote.items.map((i) => i.key))
      const accepted = new Set(turn?.to.kind === 'answered' ? turn.to.accepted.filter((k) => keys.has(k)) : [])
      const done = [...accepted].flatMap((key): [string, WorkDone][] => {
        const work = works.get(`${id} ${key}`)
        return work && !work.undone ? [[key, work]] : []
      })
      return { id, quote, state: stateOf(turn, accepted), turn, accepted, done: new Map(done) }
    })
}

type Dated = readonly [id: string, { readonly at: string }]
/** Moments are written in any zone; of two at one moment the later id counts, wherever they are read. */
const isLater = ([a, x]: Dated, [b, y]: Dated): boolean =>
  Date.parse(x.at) === Date.parse(y.at) ? a > b : Date.parse(x.at) > Date.parse(y.at)

/** Of the facts that speak of one thing the latest. */
function latestBy<T extends { readonly at: string }>(
  of: Readonly<Record<string, T>>,
  thing: (fact: T) => string,
): Map<string, T> {
  const latest = new Map<string, [string, T]>()
  for (const [id, fact] of Object.entries(of)) {
    const was = latest.get(thing(fact))
    if (!was || isLater([id, fact], was)) latest.set(thing(fact), [id, fact])
  }
  return new Map([...latest].map(([key, [, fact]]) => [key, fact]))
}

function stateOf(turn: QuoteTurn | null, accepted: ReadonlySet<string>): QuoteState {
  if (!turn || turn.to.kind === 'open') return 'open'
  if (turn.to.kind === 'withdrawn') return 'withdrawn'
  return accepted.size > 0 ? 'accepted' : 'declined'
}

/** What a quote makes of something that was seen, and when. */
export interface SightingQuoted {
  readonly at: string
  readonly id: string
  readonly sighting: string
  readonly to: SightingState
}

/**
 * What the quotes that stand make of what was seen: quoted when it was sent, accepted or declined by its answer, done
 * when the work was.
 */
export function sightingsQuoted(facts: Facts): SightingQuoted[] {
  const named = Object.entries(facts.sightings).flatMap(([id, { part }]): [string, string][] =>
    part === undefined ? [] : [[id, partKey(part)]],
  )
  const ofItem = ({ of }: QuotedItem, sent: string): string[] => {
    if (of.kind === 'sighting') return [of.sighting]
    if (of.kind === 'line') return []
    // A quote speaks of what was named before it, not of the same part gone bad again.
    return named.flatMap(([id, key]) =>
      key === partKey(of.where) && Date.parse(facts.sightings[id]!.at) <= Date.parse(sent) ? [id] : [],
    )
  }
  return quotesIn(facts).flatMap(({ id, quote, state, turn, accepted, done }) =>
    state === 'withdrawn'
      ? []
      : quote.items.flatMap((item) =>
          ofItem(item, quote.at).flatMap((sighting): SightingQuoted[] => {
            const sent = { at: quote.at, id, sighting, to: 'quoted' as const }
            if (state === 'open' || !turn) return [sent]
            const work = done.get(item.key)
            return [
              sent,
              { ...sent, at: turn.at, to: accepted.has(item.key) ? 'accepted' : 'declined' },
              ...(work ? [{ ...sent, at: work.at, to: 'done' as const }] : []),
            ]
          }),
        ),
  )
}
