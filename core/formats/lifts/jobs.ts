import { part, type FactKind, type Part } from '../../record'
import { lookUp, type Site } from '../../site'

/** A fact on its way from one version to another; nothing of it is certain yet. */
export interface Lifted {
  readonly kind: FactKind
  readonly id: string
  readonly fact: unknown
}

/** What facts written before there were jobs are read by. */
export interface BeforeJobs {
  /** The site whose lists their findings speak of; null where it cannot be read. */
  readonly site: Site | null
  /** Whether a visit was spent on a hunt: it did not say so itself. */
  readonly isHunt: (visit: string) => boolean
}

export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null

/** A visit was one piece of work: it becomes a stay and the job in it, both under its id. */
export function liftVisit({ id, fact }: Lifted, { isHunt }: BeforeJobs): readonly Lifted[] {
  if (!isRecord(fact)) return [{ kind: 'visit', id, fact }]
  return [
    { kind: 'visit', id, fact: { at: fact.at, author: fact.author, people: [] } },
    { kind: 'job', id, fact: { ...fact, visit: id, kind: isHunt(id) ? 'hunt' : 'sweep' } },
  ]
}

/** What hung on a visit hangs on its job; a finding says its part by ids. */
export function liftWithin({ kind, id, fact }: Lifted, { site }: BeforeJobs): Lifted {
  if (!isRecord(fact) || !('visit' in fact)) return { kind, id, fact }
  const { visit, ...rest } = fact
  if (kind !== 'finding' || typeof rest.part !== 'string') return { kind, id, fact: { ...rest, job: visit } }
  const { part: key, ...said } = rest
  return { kind, id, fact: { ...said, job: visit, where: partOfKey(key as string, site) } }
}

/**
 * The part that an old key names: its words were the kind and its ids, and of a stretch the places of its ends in the
 * cable's list. Null where the record has no such part any more, or the key was never one.
 */
export function partOfKey(key: string, site: Site | null): Part | null {
  const [kind, ...ids] = key.split(' ')
  const fields = FIELDS[kind ?? '']
  if (!fields || fields.length !== ids.length) return null
  const named = Object.fromEntries(fields.map((field, i) => [field, ids[i]]))
  const stops = site ? lookUp(site.cables, String(named.cable))?.stops : undefined
  const stretch = fields.includes('from')
    ? { from: stops?.[Number(named.from)]?.id, to: stops?.[Number(named.to)]?.id }
    : {}
  const parsed = part.safeParse({ kind, ...named, ...stretch })
  return parsed.success ? parsed.data : null
}

const FIELDS: Readonly<Record<string, readonly string[] | undefined>> = {
  joint: ['splice'],
  run: ['cable', 'core', 'from', 'to'],
  touch: ['cable', 'core', 'other', 'from', 'to'],
  coil: ['device'],
  valve: ['device'],
  pair: ['controller', 'one', 'two'],
  terminal: ['controller', 'terminal'],
  supply: ['controller'],
  sensor: ['controller'],
  water: ['controller'],
}

const HUNT_TESTS: ReadonlySet<unknown> = new Set([
  ...['water', 'swap_test', 'tone', 'coil_ohms', 'coil_volts', 'loop_lead', 'loop_common', 'lead_earth'],
  ...['lead_through', 'common_earth', 'energise', 'by_hand', 'look', 'remake'],
])

/** The visit that an old fact shows to have been spent on a hunt, or null. */
export function huntShownBy(kind: FactKind, fact: unknown): string | null {
  if (!isRecord(fact) || typeof fact.visit !== 'string') return null
  const isOfHunt = kind === 'finding' || (kind === 'reading' && isRecord(fact.test) && HUNT_TESTS.has(fact.test.kind))
  return isOfHunt ? fact.visit : null
}
