import { SCHEMA_VERSION } from '../record'
import { accepted, refusal, refused, type Outcome } from '../refusal'

export const FORMAT_NAME = 'field-thread-property'

/** Lifts a file of an older version by one step. Entry n makes version n + 1 of version n. */
const STEPS: Readonly<Record<number, (file: Record<string, unknown>) => Record<string, unknown>>> = {
  // Figures for sizing and material came in, all with defaults.
  1: (file) => ({ ...file, version: 2 }),
  // Routes, bays, ticks of joints, pictures under the map; again all with defaults.
  2: (file) => ({ ...file, version: 3 }),
  // Tests of a hunt and its findings; the findings may be left out.
  3: (file) => ({ ...file, version: 4 }),
}

/** A file of any version we ever wrote, as the present version; unknown formats and newer versions are refused. */
export function upgrade(value: unknown): Outcome<unknown> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return refused(refusal('not_our_file'))
  let file = value as Record<string, unknown>
  if (file.format !== FORMAT_NAME) return refused(refusal('not_our_file', ['format'], { format: FORMAT_NAME }))
  if (typeof file.version !== 'number' || !Number.isInteger(file.version) || file.version < 1)
    return refused(refusal('bad_version', ['version'], { latest: SCHEMA_VERSION }))
  if (file.version > SCHEMA_VERSION)
    return refused(refusal('newer_file', ['version'], { version: file.version, latest: SCHEMA_VERSION }))
  for (let version = file.version; version < SCHEMA_VERSION; version++) file = STEPS[version]!(file)
  return accepted(file)
}
