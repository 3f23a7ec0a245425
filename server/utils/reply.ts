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

export const refusedBody = (refusals: readonly Refusal[]): RefusedBody => ({
  refusals,
  sentences: refusals.map((r) => sayRefusal(r, SI)),
})

/** Answers with a status and the refusals. */
export function refuse(event: H3Event, status: number, refusals: readonly Refusal[]): RefusedBody {
  setResponseStatus(event, status)
  return refusedBody(refusals)
}

/** Records are never to be kept by a cache. */
export const fresh = (event: H3Event) => setResponseHeader(event, 'cache-control', 'no-store')
