import { v7 } from 'uuid'
import { COMMON_METER, meter, type Meter } from '../../core/record'

const KEYS = { device: 'field-thread.device', author: 'field-thread.author', meter: 'field-thread.meter' } as const

function stored(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}
function store(key: string, value: string): void {
  try {
    localStorage.setItem(key, value)
  } catch {
    /* a device that keeps nothing still works; it asks again next time */
  }
}

/** This browser's own name in the journal, made once. */
export function deviceId(): string {
  const known = stored(KEYS.device)
  if (known) return known
  const made = v7()
  store(KEYS.device, made)
  return made
}

export const authorName = (): string => stored(KEYS.author) ?? ''
export const rememberAuthor = (name: string): void => store(KEYS.author, name)

/** The meter described last on this device, else an everyday one. */
export function lastMeter(): Meter {
  try {
    const parsed = meter.safeParse(JSON.parse(stored(KEYS.meter) ?? 'null'))
    return parsed.success ? parsed.data : COMMON_METER
  } catch {
    return COMMON_METER
  }
}
export const rememberMeter = (described: Meter): void => store(KEYS.meter, JSON.stringify(described))

/** The odds that the company’s hunts go by, as last heard; nothing where they are the usual ones. */
export const oddsText = (): string | null => stored('field-thread.odds')
export function keepOdds(text: string | null): void {
  if (text !== null) return store('field-thread.odds', text)
  try {
    localStorage.removeItem('field-thread.odds')
  } catch {
    /* nothing was kept */
  }
}

/** What was being typed when the page went away. */
export const draftOf = (job: string): string | null => stored(`field-thread.draft.${job}`)
export const keepDraft = (job: string, text: string): void => store(`field-thread.draft.${job}`, text)

/** Where the crew stands and what the season brought, for a job's hunt. */
export function huntOptionsOf(job: string): unknown {
  try {
    return JSON.parse(stored(`field-thread.hunt.${job}`) ?? 'null')
  } catch {
    return null
  }
}
export const keepHuntOptions = (job: string, options: unknown): void =>
  store(`field-thread.hunt.${job}`, JSON.stringify(options))

/** When the time of a step began to run, ms; null where it does not run. */
export function timerOf(step: string): number | null {
  const begun = Number(stored(`field-thread.timer.${step}`) ?? NaN)
  return Number.isFinite(begun) ? begun : null
}
export const beginTimer = (step: string, at: number): void => store(`field-thread.timer.${step}`, String(at))

/** Somebody’s own step, m; null where it was never measured. */
export function pace_m(): number | null {
  const kept = Number(stored('field-thread.pace') ?? NaN)
  return Number.isFinite(kept) && kept > 0 ? kept : null
}
export const keepPace = (length_m: number): void => store('field-thread.pace', String(length_m))

/** The resistors that this person carries, as they were written. */
export const stockText = (): string => stored('field-thread.stock') ?? ''
export const keepStock = (text: string): void => store('field-thread.stock', text)

/** The company’s price list as this device keeps it; null where there is none. */
export const pricesText = (): string | null => stored('field-thread.prices')
export const keepPrices = (text: string): void => store('field-thread.prices', text)
/** What is chosen for the quote of a property, until it is sent. */
export const quoteDraft = (property: string): string | null => stored(`field-thread.quote.${property}`)
export const keepQuoteDraft = (property: string, draft: string): void => store(`field-thread.quote.${property}`, draft)
