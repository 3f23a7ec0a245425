import type { Drawn } from '../map'
import { accepted, refusal, refused, type Outcome } from '../refusal'

/** A property has some hundred boxes and some thousand vertices; a file of more is a survey of something else. */
const MOST_DRAWN = 20_000

/** What was drawn, where it is no more than a property's worth: every point would be held against every box. */
export function withinLimit(drawn: Drawn): Outcome<Drawn> {
  const count = drawn.points.length + drawn.lines.reduce((sum, l) => sum + l.at.length, 0)
  return count > MOST_DRAWN ? refused(refusal('too_many_drawn', [], { count, most: MOST_DRAWN })) : accepted(drawn)
}
