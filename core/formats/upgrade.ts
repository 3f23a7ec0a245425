import { SCHEMA_VERSION, type FactKind } from '../record'
import { accepted, refusal, refused, type Outcome } from '../refusal'

export const FORMAT_NAME = 'field-thread-property'

/** What makes version n + 1 of version n, by the part of a record; what a version left as it was is left out. */
interface Lift {
  readonly site?: (site: unknown) => unknown
  readonly fact?: (kind: FactKind, fact: unknown) => unknown
}

const LIFTS: Readonly<Record<number, Lift>> = {
  // Figures for sizing and material came in, all with defaults.
  1: {},
  // Routes, bays, ticks of joints, pictures under the map; again all with defaults.
  2: {},
  // Tests of a hunt and its findings; the findings may be left out.
  3: {},
}

/** Every version from one to the one before the present. */
const versionsFrom = (version: number) =>
  Array.from({ length: Math.max(0, SCHEMA_VERSION - version) }, (_, i) => version + i)

/** A site as a version wrote it, as the present one would; still to be checked against the schema. */
export const liftSite = (version: number, site: unknown): unknown =>
  versionsFrom(version).reduce((now, v) => LIFTS[v]!.site?.(now) ?? now, site)

/** A fact as a version wrote it, as the present one would. */
export const liftFact = (version: number, kind: FactKind, fact: unknown): unknown =>
  versionsFrom(version).reduce((now, v) => LIFTS[v]!.fact?.(kind, now) ?? now, fact)

/** The version a file says it is of; unknown formats and newer versions are refused. */
export function fileVersion(format: unknown, version: unknown): Outcome<number> {
  if (format !== FORMAT_NAME) return refused(refusal('not_our_file', ['format'], { format: FORMAT_NAME }))
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return refused(refusal('bad_version', ['version'], { latest: SCHEMA_VERSION }))
  if (version > SCHEMA_VERSION) return refused(refusal('newer_file', ['version'], { version, latest: SCHEMA_VERSION }))
  return accepted(version)
}
