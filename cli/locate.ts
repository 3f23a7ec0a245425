import type * as z from 'zod'
import type { Property } from '../core/formats'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { entries } from '../core/site'
import { boxEvidence, findsAlong, marksOf, searchArea, traceSoFar } from '../core/trace'
import type { locateOutput } from './output'

type Out = z.infer<typeof locateOutput>

/** Where a lost box may be, from everything on record that speaks of it. */
export function locate({ site, facts }: Property, tag: string | undefined): Outcome<Out> {
  const found = entries(site.places).find(([, p]) => p.tag === tag)
  if (tag === undefined || !found) return refused(refusal('which_box', ['--box'], { tag: tag ?? '' }))
  const evidence = boxEvidence(site, facts, found[0], (job) =>
    findsAlong(traceSoFar(site, facts.jobs[job]!.traces!, marksOf(facts, job)).along),
  )
  const area = searchArea(evidence)
  if (!area) return refused(refusal('nothing_speaks', ['--box'], { tag }))
  const { cell_m, cells, spot, half_m2, most_m2, probes } = area
  return accepted({
    verb: 'locate',
    box: tag,
    spot: { ...spot },
    cell_m,
    half_m2,
    most_m2,
    cells: cells.map(({ at, p, held }) => ({ ...at, p, held })),
    probes: probes.map(({ at, p }) => ({ ...at, p })),
    evidence: {
      drawn: evidence.drawn !== null,
      strays: evidence.strays_m.length,
      paced: evidence.paced.length,
      line: evidence.line.length,
      met: evidence.met.length,
      probed: evidence.probed.length,
    },
  })
}

/** The same as lines for a person: where first, and how large the search is. */
export const locateLines = ({ box, spot, half_m2, most_m2, probes }: Out): string[] => [
  `${box}: likeliest at ${spot.x_m.toFixed(2)} m east, ${spot.y_m.toFixed(2)} m north`,
  `half the chance on ${half_m2.toFixed(1)} m², nine tenths on ${most_m2.toFixed(1)} m²`,
  ...probes
    .slice(0, 12)
    .map((p, i) => `${i + 1}. ${p.x_m.toFixed(2)}, ${p.y_m.toFixed(2)} (${(p.p * 100).toFixed(1)} %)`),
]
