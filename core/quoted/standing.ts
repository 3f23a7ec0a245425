import type { Facts, QuoteTurn, SentQuote, SightingState } from '../record'

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
}

/** Every quote that was sent, the latest first. What was accepted and is no item of it counts for nothing. */
export function quotesIn(facts: Facts): Sent[] {
  const turns = new Map<string, [string, QuoteTurn]>()
  for (const [id, turn] of Object.entries(facts.quoteTurns)) {
    const was = turns.get(turn.quote)
    if (!was || isLater([id, turn], was)) turns.set(turn.quote, [id, turn])
  }
  return Object.entries(facts.quotes)
    .sort((a, b) => (isLater(a, b) ? -1 : 1))
    .map(([id, quote]): Sent => {
      const turn = turns.get(id)?.[1] ?? null
      const keys = new Set(quote.items.map((i) => i.key))
      const accepted = new Set(turn?.to.kind === 'answered' ? turn.to.accepted.filter((k) => keys.has(k)) : [])
      return { id, quote, state: stateOf(turn, accepted), turn, accepted }
    })
}

type Dated = readonly [id: string, { readonly at: string }]
/** Moments are written in any zone; of two at one moment the later id counts, wherever they are read. */
const isLater = ([a, x]: Dated, [b, y]: Dated): boolean =>
  Date.parse(x.at) === Date.parse(y.at) ? a > b : Date.parse(x.at) > Date.parse(y.at)

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

/** What the quotes that stand make of what was seen: quoted when it was sent, accepted or declined by its answer. */
export const sightingsQuoted = (facts: Facts): SightingQuoted[] =>
  quotesIn(facts).flatMap(({ id, quote, state, turn, accepted }) =>
    state === 'withdrawn'
      ? []
      : quote.items.flatMap(({ key, of }): SightingQuoted[] => {
          if (of.kind !== 'sighting') return []
          const sent = { at: quote.at, id, sighting: of.sighting, to: 'quoted' as const }
          if (state === 'open' || !turn) return [sent]
          return [sent, { ...sent, at: turn.at, to: accepted.has(key) ? 'accepted' : 'declined' }]
        }),
  )
