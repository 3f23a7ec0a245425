import { setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { gaugeText, printFigure } from '../../core/quantity'
import { terminalAt } from '../../core/site'
import type { Refusal } from '../../core/refusal'
import { sayRefusal, type Speaker } from '../../words'
import { translateHere } from '../../words/speaker'

const SI: Speaker = {
  t: translateHere,
  gauge: gaugeText,
  wire: terminalAt,
  figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }),
}

/** What every refused request gets: the codes for programs, the sentences for people. */
export interface RefusedBody {
  readonly refusals: readonly Refusal[]
  readonly sentences: readonly string[]
}

/** As many reasons as help, and of what was sent no more than shows what is meant. */
const MOST_REFUSALS = 20
const MOST_LETTERS = 160
const clipped = <T>(value: T): T =>
  typeof value === 'string' && value.length > MOST_LETTERS ? (`${value.slice(0, MOST_LETTERS)}…` as T) : value

export function refusedBody(all: readonly Refusal[], most = MOST_REFUSALS): RefusedBody {
  const refusals = all.slice(0, Math.min(most, MOST_REFUSALS)).map(({ code, path, params }) => ({
    code,
    path: path.slice(0, 12).map(clipped),
    params: Object.fromEntries(Object.entries(params).map(([name, value]) => [name, clipped(value)])),
  }))
  return { refusals, sentences: refusals.map((r) => sayRefusal(r, SI)) }
}

/** Answers with a status and the refusals. */
export function refuse(event: H3Event, status: number, refusals: readonly Refusal[]): RefusedBody {
  setResponseStatus(event, status)
  return refusedBody(refusals)
}

/** Records are never to be kept by a cache. */
export const fresh = (event: H3Event) => setResponseHeader(event, 'cache-control', 'no-store')
