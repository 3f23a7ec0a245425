import { walkFrom } from '../../core/site'
import { within } from './drawn'
import { onLeg, onStretch } from './parts'
import { wireAt, type Real, type Screw } from './real'

/** Metres of conductor at which the lead under a screw is cut, heard within a metre; null for a whole one. */
export function toneEnds(real: Real, screw: Screw, noise: () => number): number | null {
  const wire = wireAt(real, screw)
  if (wire === null) return 0
  const cuts = walkFrom(real.site, real.wiring, screw.controller, wire).runs.filter(({ link }) =>
    real.faults.some(
      (f) =>
        (link.kind === 'stretch' && onStretch(f, 'open', link)) ||
        (link.kind === 'leg' && f.kind === 'joint-open' && onLeg(f, link)),
    ),
  )
  const first = cuts.map((r) => (r.from_m + r.to_m) / 2).sort((x, y) => x - y)[0]
  return first === undefined ? null : Math.max(0, Math.round(first + within(1, noise)))
}
