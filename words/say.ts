import type { Gauge } from '../core/quantity'
import type { Refusal } from '../core/refusal'
import type { Statement } from '../core/expect'
import type { End, Leaving, Site, TerminalOf } from '../core/site'

/** Looks a message up and fills it in; the screen's and the shell's are different libraries with this one shape. */
export type Translate = (key: string, params: Record<string, string | number>, count?: number) => string

/** A way of speaking: the language's messages, and figures in the reader's units by the ending of their names. */
export interface Speaker {
  readonly t: Translate
  readonly figure: (name: string, value: string | number) => string
  readonly gauge: (gauge: Gauge) => string
  /** The terminal whose wire a core or an end is. */
  readonly wire: (site: Site, at: End | Leaving) => TerminalOf | null
}

/** One sentence: the field, the problem, the mend. */
export function sayRefusal(r: Refusal, speaker: Speaker): string {
  const named: Record<string, string> =
    typeof r.params.connector === 'string' ? { connector: speaker.t(`connector.${r.params.connector}`, {}) } : {}
  return say({ code: `refusal.${r.code}`, params: { ...r.params, ...named, where: whereText(r.path) } }, speaker)
}

/** Where in a document, as `splices.s3.ends[2]`; `The file` for the whole of it. */
function whereText(path: Refusal['path']): string {
  const text = path.map((step, i) => (typeof step === 'number' ? `[${step}]` : i === 0 ? step : `.${step}`)).join('')
  return text === '' ? 'The whole' : text
}

/** Any statement under a section of the messages. */
export function say({ code, params }: Statement, { t, figure }: Speaker): string {
  const printed = Object.fromEntries(Object.entries(params).map(([name, value]) => [name, figure(name, value)]))
  return t(code, printed, typeof params.count === 'number' ? params.count : undefined)
}
