export { quotesIn, sightingsQuoted } from './standing'
export type { QuoteState, Sent, SightingQuoted } from './standing'
