import type { Gauge } from '../core/quantity'
import type { Refusal } from '../core/refusal'
import type { Statement } from '../core/expect'
import { fieldsEn } from './fields-en'
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
  return say(
    { code: `refusal.${r.code}`, params: { ...r.params, ...named, where: whereText(r.path, speaker) } },
    speaker,
  )
}

/** What a document and a message are wrapped in: nobody who reads a sentence has put it there. */
const WRAPPINGS: ReadonlySet<unknown> = new Set(['site', 'body', 'fact'])
/** The collections, each with a word for one of its things. */
const THINGS: ReadonlySet<unknown> = new Set([
  ...[
    'places',
    'controllers',
    'coilKinds',
    'devices',
    'cables',
    'splices',
    'stations',
    'pointsOfConnection',
    'underlays',
    'defects',
    'temporaryStates',
    'systems',
    'programs',
  ],
  ...[
    'visits',
    'jobs',
    'readings',
    'strikeOuts',
    'cautions',
    'closings',
    'acceptances',
    'findings',
    'steps',
    'photos',
    'photoNotes',
    'kits',
    'coreTrials',
    'earthReadings',
    'pathReadings',
    'sequencerTurns',
    'sightings',
    'sightingTurns',
    'quotes',
    'quoteTurns',
    'worksDone',
    'marks',
  ],
])

const FIELDS: ReadonlySet<string> = new Set(Object.keys(fieldsEn))
/** A step of a path in words; what is no field of ours (an id, a port) is said as it is written. */
const stepText = (step: string | number, t: Translate): string =>
  typeof step === 'number' ? t('thing.number', { n: step + 1 }) : FIELDS.has(step) ? t(`field.${step}`, {}) : step

/** Where in a document, as it is said: `Joint s3, ends, number 2`; a line or a row of a list as `Line 9, station`. */
export function whereText(path: Refusal['path'], { t }: Pick<Speaker, 't'>): string {
  const inner = path.slice(path.findIndex((step) => !WRAPPINGS.has(step)))
  const [first, second, ...rest] = path.every((step) => WRAPPINGS.has(step)) ? [] : inner
  if (first === undefined) return t('thing.whole', {})
  const steps =
    THINGS.has(first) && typeof second === 'string'
      ? [t(`thing.${first}`, { id: second }), ...rest]
      : [first === 'about' ? t('thing.about', {}) : first, ...(second === undefined ? [] : [second]), ...rest]
  const text = steps.map((step) => stepText(step, t)).join(', ')
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** Any statement under a section of the messages. */
export function say({ code, params }: Statement, { t, figure }: Speaker): string {
  const printed = Object.fromEntries(Object.entries(params).map(([name, value]) => [name, figure(name, value)]))
  return t(code, printed, typeof params.count === 'number' ? params.count : undefined)
}
