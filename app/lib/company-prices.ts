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

/** Sends what waits, else takes what the company has. A list of somebody else’s that came first stands. */
export async function agreedPrices(): Promise<PricesAsked> {
  const mine = pricesHere()
  if (mine.waits && mine.list) {
    const reply = await putCompanyRecord('prices', mine.revision, mine.list)
    if (reply.kind === 'ok')
      return { now: kept({ ...mine, revision: reply.value.revision, waits: false }), reached: true, gaveWay: false }
    if (reply.kind !== 'refused') return { now: mine, reached: false, gaveWay: false }
  }
  const theirs = await fetchCompanyRecord('prices', priceList)
  if (theirs.kind !== 'ok') return { now: mine, reached: false, gaveWay: false }
  const { revision, record } = theirs.value
  return { now: kept({ revision, list: record, waits: false }), reached: true, gaveWay: mine.waits }
}

/** Puts a list in place of the one that is there, here and for the company. */
export function takePrices(list: PriceList): Promise<PricesAsked> {
  kept({ revision: pricesHere().revision, list, waits: true })
  return agreedPrices()
}
