import { asIf, type WhatIf } from '../sizing'
import { applyBatch, getOrThrow, pathOf, type ControllerId, type Site } from '../site'
import { layoutOf } from './layout'
import { planPath } from './plan'

/** A box that is on no record; its tag is no tag that anybody gives. */
const MORE_BOX = '+1'

/**
 * The site as it would be, for a path: as for any wiring, but that stations added hang on the path, with a decoder, in
 * one more box so far beyond the farthest. Nothing is stored, the site given is not changed. Where the path has no room
 * for more, as when its numbers are used up, none are added.
 */
export function asIfPath(site: Site, controller: ControllerId, { added, ...what }: WhatIf): Site {
  const next = asIf(site, what)
  const path = pathOf(next, controller)
  if (!added || added.count === 0 || !path) return next
  const { spots, distance_m, outward } = layoutOf(next, path)
  const far = outward.reduce((m, spot) => (distance_m[spot]! > distance_m[m]! ? spot : m), 0)
  const from = far === 0 ? null : getOrThrow(next.places, spots[far]!.place).tag
  const valves = Array.from({ length: added.count }, (_, i) => `+${i + 1}`)
  const commands = planPath(
    next,
    controller,
    [{ line: 1, box: MORE_BOX, length_m: added.beyond_m, valves, from }],
    null,
  )
  const applied = commands.ok ? applyBatch(next, commands.value) : null
  return applied?.ok ? applied.value.site : next
}
