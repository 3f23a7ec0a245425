import * as z from 'zod'
import { readPricesCsv } from '../../core/formats'
import { priceList, type PriceList } from '../../core/record'
import { fetchCompanyRecord, putCompanyRecord } from './api'
import { keepPrices, pricesText } from './device'

/** The price list as this device has it: the revision it came from, and whether it waits to be sent. */
export interface PricesHere {
  readonly revision: number
  readonly list: PriceList | null
  readonly waits: boolean
}
const here = z.object({ revision: z.int(), list: priceList.nullable(), waits: z.boolean() })
const NONE: PricesHere = { revision: 0, list: null, waits: false }

/** As kept on this device; an earlier page kept it as CSV, for itself. */
export function pricesHere(): PricesHere {
  const text = pricesText()
  if (text === null) return NONE
  try {
    return here.parse(JSON.parse(text))
  } catch {
    const read = readPricesCsv(text)
    return read.ok ? { revision: 0, list: read.value, waits: true } : NONE
  }
}
const kept = (now: PricesHere): PricesHere => {
  keepPrices(JSON.stringify(now))
  return now
}

/** What became of a look at the server: what stands now, whether it was reached, and whether ours gave way. */
export interface PricesAsked {
  readonly now: PricesHere
  readonly reached: boolean
  /** Somebody else’s list was there first; ours was let go. */
  readonly gaveWay: boolean
}

/** One look at the server after the other: two lists opened at once are two changes, the later on the earlier. */
let turn: Promise<unknown> = Promise.resolve()

/** Sends what waits, else takes what the company has. A list of somebody else’s that came first stands. */
export function agreedPrices(): Promise<PricesAsked> {
  const next = turn.then(ask)
  turn = next.catch(() => undefined)
  return next
}

async function ask(): Promise<PricesAsked> {
  const mine = pricesHere()
  if (mine.waits && mine.list) {
    const reply = await putCompanyRecord('prices', mine.revision, mine.list)
    if (reply.kind === 'ok') {
      const { revision } = reply.value
      // Another list may have been opened while this one was on its way: it waits for its own turn.
      const now = pricesHere()
      const isSame = JSON.stringify(now.list) === JSON.stringify(mine.list)
      return { now: kept({ ...now, revision, waits: !isSame }), reached: true, gaveWay: false }
    }
    if (reply.kind !== 'refused') return { now: pricesHere(), reached: false, gaveWay: false }
  }
  const theirs = await fetchCompanyRecord('prices', priceList)
  const now = pricesHere()
  if (theirs.kind !== 'ok') return { now, reached: false, gaveWay: false }
  const { revision, record } = theirs.value
  // What was opened while the server was asked waits for its turn.
  if (now.waits && !mine.waits) return { now: kept({ ...now, revision }), reached: true, gaveWay: false }
  return { now: kept({ revision, list: record, waits: false }), reached: true, gaveWay: mine.waits }
}

/** Puts a list in place of the one that is there, here and for the company. */
export function takePrices(list: PriceList): Promise<PricesAsked> {
  kept({ revision: pricesHere().revision, list, waits: true })
  return agreedPrices()
}
