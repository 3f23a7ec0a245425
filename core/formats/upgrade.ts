import { SCHEMA_VERSION, type FactKind } from '../record'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import { isRecord, liftVisit, liftWithin, type BeforeJobs, type Lifted } from './lifts/jobs'

export const FORMAT_NAME = 'field-thread-property'

/** What makes version n + 1 of version n, by the part of a record; what a version left as it was is left out. */
interface Lift {
  readonly site?: (site: unknown) => unknown
  /** One fact may become several. */
  readonly fact?: (fact: Lifted, beside: BeforeJobs) => readonly Lifted[]
}

const LIFTS: Readonly<Record<number, Lift>> = {
  // Figures for sizing and material came in, all with defaults.
  1: {},
  // Routes, bays, ticks of joints, pictures under the map; again all with defaults.
  2: {},
  // Tests of a hunt and its findings; the findings may be left out.
  3: {},
  // A visit holds jobs; findings name their part by ids instead of places in a list.
  4: { fact: (fact, beside) => (fact.kind === 'visit' ? liftVisit(fact, beside) : [liftWithin(fact, beside)]) },
  // Defects that are left as they are; a hunt that takes a sweep’s readings, the state of a
  // reading. All may be left out.
  5: {},
  // Jobs that follow a procedure, the answers to its steps, temporary states. All may be left out.
  6: {},
  // Jobs that tell cores apart or follow a buried line, and what is marked in them. All may be left out.
  7: {},
}

/** Every version from one to the one before the present. */
const versionsFrom = (version: number) =>
  Array.from({ length: Math.max(0, SCHEMA_VERSION - version) }, (_, i) => version + i)

/** A site as a version wrote it, as the present one would; still to be checked against the schema. */
export const liftSite = (version: number, site: unknown): unknown =>
  versionsFrom(version).reduce((now, v) => LIFTS[v]!.site?.(now) ?? now, site)

/**
 * A fact as a version wrote it, as the present one would: one or several, still to be checked.
 * @param beside what of the property the old fact is read by
 */
export const liftFact = (
  version: number,
  kind: FactKind,
  id: string,
  fact: unknown,
  beside: BeforeJobs,
): readonly Lifted[] =>
  versionsFrom(version).reduce<readonly Lifted[]>(
    (now, v) => now.flatMap((f) => LIFTS[v]!.fact?.(f, beside) ?? [f]),
    [{ kind, id, fact }],
  )

/** A message as an earlier page wrote it, as messages of the present: one, or several under its id. */
export function liftMessage(message: unknown, beside: BeforeJobs): readonly unknown[] {
  if (!isRecord(message)) return [message]
  const { body, schema } = message
  if (!isEarlier(schema)) return [message]
  const now = { ...message, schema: SCHEMA_VERSION }
  if (!isRecord(body) || !('fact' in body)) return [now]
  const facts = liftFact(schema, body.kind as FactKind, String(message.id), body.fact, beside)
  return facts.map(({ kind, fact }) => ({ ...now, body: { kind, fact } }))
}

const isEarlier = (version: unknown): version is number =>
  Number.isInteger(version) && (version as number) >= 1 && (version as number) < SCHEMA_VERSION

/** The version a file says it is of; unknown formats and newer versions are refused. */
export function fileVersion(format: unknown, version: unknown): Outcome<number> {
  if (format !== FORMAT_NAME) return refused(refusal('not_our_file', ['format'], { format: FORMAT_NAME }))
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refused(refusal('bad_version', ['version'], { latest: SCHEMA_VERSION }))
  if (version > SCHEMA_VERSION) return refused(refusal('newer_file', ['version'], { version, latest: SCHEMA_VERSION }))
  return accepted(version)
}
