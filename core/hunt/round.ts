import type { PlaceId } from '../site'
import type { Pace } from './next'
import { minutesOf, type Candidate, type Crew } from './tests'

/** Something to do on a round: a test to make, or null where a part is to be mended. */
export interface Errand {
  /** The trouble it is for, by its place in the list. */
  readonly trouble: number
  readonly place: PlaceId
  readonly test: Candidate | null
  /** How much hangs on it: the zones that its trouble has to do with, by how likely it is. */
  readonly worth: number
}
/** A place on the round, the errands there, and the minutes until they are done; mending itself is not counted. */
export interface Stop {
  readonly place: PlaceId
  readonly errands: readonly Errand[]
  readonly minutes: number
}
/** Which place is next: the one that is nearest on foot, or the one on whose errands most hangs. */
export type RoundOrder = 'nearest' | 'worst'

/** All errands in one walk, a place after the other, from where the crew stands. */
export function roundOf(pace: Pace, crew: Crew, errands: readonly Errand[], order: RoundOrder): Stop[] {
  const stops: Stop[] = []
  let left = errands
  let now = crew
  while (left.length > 0) {
    const at = now.place
    const places = [...new Set(left.map((e) => e.place))]
    const cost = (place: PlaceId) =>
      order === 'nearest' || place === at
        ? pace.walking(at, place)
        : -Math.max(...left.filter((e) => e.place === place).map((e) => e.worth))
    const place: PlaceId = places.reduce((best, p) => (cost(p) < cost(best) ? p : best))
    const here = left.filter((e) => e.place === place)
    left = left.filter((e) => e.place !== place)
    const mends = here.some((e) => e.test === null)
    const tests = here.flatMap((e) => e.test ?? [])
    let minutes = 0
    if (mends) {
      minutes += pace.walking(at, place) / pace.costs.walk_mPerS / 60
      now = { ...now, place, atWork: now.atWork && place === at }
    }
    for (const test of tests) {
      const step = minutesOf(pace.context, pace.costs, pace.walking, now, test)
      minutes += step.minutes
      now = step.then
    }
    stops.push({ place, errands: here, minutes })
  }
  return stops
}
