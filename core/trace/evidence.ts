import { stray_m } from '../map'
import type { Facts, Tracing } from '../record'
import { getOrThrow, lookUp, type PlaceId, type Site } from '../site'
import type { Find } from './along'
import type { FindKind } from './finds'
import type { BoxEvidence } from './locate'
import { acrossAt, marksOf, marksOfKind, spotOf, traceSoFar } from './session'
import { beside } from './way'

/**
 * How often what is met along a wire is in a box: valves always are, splices and branches mostly, a break is where a
 * spade was, or is a valve that was read too far aside. Our own figures.
 */
const BOXED_ratio: Readonly<Record<FindKind, number>> = { spread_end: 0.95, local: 0.85, step: 0.7, end: 0.5 }

/** The jobs in which a box is looked for, in no order. */
const jobsFor = (facts: Facts, box: PlaceId): readonly (readonly [string, Tracing])[] =>
  Object.entries(facts.jobs).flatMap(([id, { traces }]) => (traces?.box === box ? [[id, traces] as const] : []))

/**
 * Everything on record that speaks of where a box is: its drawing and how other boxes strayed from theirs, steps, and
 * what the wand found in every trace that looks for it.
 * @param findsOf what was met along the readings of a job
 */
export function boxEvidence(
  site: Site,
  facts: Facts,
  box: PlaceId,
  findsOf: (job: string) => readonly Find[],
): BoxEvidence {
  const jobs = jobsFor(facts, box).map(([id, traces]) => {
    const marks = marksOf(facts, id)
    return { id, marks, trace: traceSoFar(site, traces, marks) }
  })
  return {
    drawn: lookUp(site.places, box)?.position?.value ?? null,
    strays_m: Object.keys(site.places).flatMap((id) => stray_m(getOrThrow(site.places, id as PlaceId)) ?? []),
    paced: jobs.flatMap(({ marks }) =>
      marksOfKind(marks, 'paced').flatMap(({ marked: { from, distance_m, bearing_deg } }) => {
        const at = spotOf(site, from)
        return at ? [{ from: at, distance_m, bearing_deg }] : []
      }),
    ),
    line: jobs.flatMap(({ trace }) => trace.line),
    met: jobs.flatMap(({ id, trace: { way, sections } }) =>
      way
        ? findsOf(id).map(({ kind, along_m, p }) => ({
            at: beside(way.points, along_m.mid, acrossAt(sections, along_m.mid)),
            within_m: (along_m.high - along_m.low) / 2,
            p: p * BOXED_ratio[kind],
          }))
        : [],
    ),
    probed: jobs.flatMap(({ marks }) => marksOfKind(marks, 'probe').map(({ marked: { at, hit } }) => ({ at, hit }))),
  }
}
