import { expose } from 'comlink'
import {
  aimOf,
  meantBy,
  pathHuntOf,
  suspectsOf,
  type PathAdvice,
  type PathAim,
  type PathHunt,
  type PathRead,
  type PathSuspect,
} from '../../core/path-hunt'
import type { PathTest, PathValue } from '../../core/record'
import { pathOf, type ControllerId, type PlaceId, type Site } from '../../core/site'

/** What the readings say, and what to read next. */
export interface PathFound {
  readonly suspects: readonly PathSuspect[]
  /** The chance that nothing is wrong that is known of. */
  readonly sound: number
  readonly aim: PathAim | null
  readonly advice: readonly (PathAdvice & { readonly expected: PathValue | undefined })[]
  /** What a sound path shows in the tests asked about, by their place in the list. */
  readonly expected: readonly (PathValue | undefined)[]
}

const [MOST_SUSPECTS, MOST_ADVICE] = [6, 5]
let made: { readonly of: string; readonly hunt: PathHunt } | null = null

const work = {
  /** Null where the profile of the path’s system does not say enough. The site comes as text: it is parsed once. */
  weigh(
    site: string,
    controller: ControllerId,
    read: readonly PathRead[],
    here: PlaceId,
    about: readonly PathTest[],
  ): PathFound | null {
    const of = `${controller} ${site}`
    if (made?.of !== of) {
      const parsed = JSON.parse(site) as Site
      const path = pathOf(parsed, controller)
      const hunt = path && pathHuntOf(parsed, path)
      if (!hunt?.ok) return null
      made = { of, hunt: hunt.value }
    }
    const { hunt } = made
    const weighed = hunt.weigh(read)
    const expected = (test: PathTest): PathValue | undefined => {
      const shown = hunt.predict(null, test)
      return shown ? meantBy(test, shown) : undefined
    }
    return {
      suspects: suspectsOf(weighed).slice(0, MOST_SUSPECTS),
      sound: weighed.find((w) => w.fault === null)?.p ?? 0,
      aim: aimOf(weighed),
      advice: hunt
        .next(weighed, here, read)
        .slice(0, MOST_ADVICE)
        .map((a) => ({ ...a, expected: expected(a.candidate.test) })),
      expected: about.map(expected),
    }
  },
}
export type PathHuntWork = typeof work

expose(work)
