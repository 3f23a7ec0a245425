import { USUAL_COSTS } from '../core/hunt'
import { layoutOf } from '../core/path'
import { aimOf, pathHuntOf, SURE, type PathRead } from '../core/path-hunt'
import type { PathAt, PlaceId, Site } from '../core/site'
import { drawPathFault, pathFieldOf, type RealPathFault } from '../standins'

/** How a search of a drawn path went, minutes to the box at the fault, and by opening box after box outward. */
export interface PathHunted {
  readonly truth: RealPathFault
  readonly tests: readonly PathRead[]
  readonly minutes: number
  readonly wrong: number
  readonly outward_min: number
}

const MOST_TESTS = 90

/** Searches the path with one drawn fault in it as the application advises, from its controller. */
export function huntPath(site: Site, path: PathAt, seed: number): PathHunted {
  const truth = drawPathFault(site, path, seed)
  const field = pathFieldOf(site, path, truth, seed + 1)
  const made = pathHuntOf(site, path)
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  const hunt = made.value
  const home = layoutOf(site, path).spots[0]!.place
  const read: PathRead[] = []
  let here = home
  let [minutes, wrong] = [0, 0]
  let tried: readonly PlaceId[] = []
  const isThere = (places: readonly PlaceId[]) =>
    places.some((place, i) => {
      minutes += hunt.walking(here, place) + (i > 0 ? READ_min[truth.kind] : 0)
      here = place
      return truth.places.includes(place)
    })
  for (;;) {
    const weighed = hunt.weigh(read)
    const aim = aimOf(weighed)
    const advice = read.length < MOST_TESTS ? hunt.next(weighed, here, read)[0] : undefined
    const isNew = aim !== null && aim.places.some((p) => !tried.includes(p))
    if (aim && isNew && (aim.p >= SURE || !advice)) {
      if (isThere(aim.places)) break
      wrong++
      minutes += READ_min[truth.kind]
      tried = [...tried, ...aim.places]
    } else if (advice) {
      minutes += advice.minutes
      here = advice.candidate.place
      read.push({ test: advice.candidate.test, value: field.answer(advice.candidate.test) })
    } else {
      // Nothing is left to be told: the boxes that are left, one after another.
      minutes += outward_min(site, path, truth, hunt.walking)
      break
    }
  }
  return { truth, tests: read, minutes, wrong, outward_min: outward_min(site, path, truth, hunt.walking) }
}

/**
 * What tells in an open box whether the fault is there, minutes: volts past a joint, the path parted and read, a
 * decoder’s lamp and number, a coil off its leads.
 */
const READ_min: Readonly<Record<RealPathFault['kind'], number>> = {
  cut: 1,
  loose: 1,
  touch: 5,
  earth: 5,
  shorted: 5,
  dead: 1.5,
  number: 1.5,
  coil_open: 3,
  coil_shorted: 3,
  coil_earth: 3,
}

/**
 * Box after box from the controller outward, each opened and what the fault needs read there, until its own is open.
 * Which kind of fault it is, this crew is told beforehand.
 */
function outward_min(
  site: Site,
  path: PathAt,
  truth: RealPathFault,
  walking: (from: PlaceId, to: PlaceId) => number,
): number {
  const layout = layoutOf(site, path)
  const [home, ...boxes] = [...new Set(layout.outward.map((spot) => layout.spots[spot]!.place))]
  let here = home!
  let minutes = 0
  for (const box of boxes) {
    minutes += walking(here, box)
    here = box
    if (truth.places.includes(box)) return minutes
    minutes += READ_min[truth.kind]
  }
  // A coil in a box of its own, behind the last: on to it.
  return minutes + USUAL_COSTS.open_min
}
