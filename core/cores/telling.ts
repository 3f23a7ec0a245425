import { steadyChance } from '../chance'
import { guesses, unscramble, wouldShow, type EndOf, type Matched, type Walk } from './unscramble'

/** Cables that are tried in thought, and ways of joining that are tried on them. */
const [GUESSES, WAYS] = [12, 16]
/** Beyond so many cores anchors do as well, and trying takes too long. */
export const MOST_TRIED = 10

/**
 * The way of joining at one end that tells most in the middle, over cables that fit all that was seen: `first` and
 * others drawn at random, each tried on each. Ends are places in a list of `count`.
 */
export function mostTelling(
  count: number,
  walks: readonly Walk[],
  known: readonly Matched[],
  at: EndOf,
  first: readonly (readonly number[])[],
): readonly (readonly number[])[] {
  const random = steadyChance(count * 31 + walks.length)
  const cables = guesses(count, walks, known, GUESSES, random)
  const worth = (joined: readonly (readonly number[])[]) =>
    cables.reduce((sum, cable) => {
      const seen = wouldShow(cable, at, joined)
      const { named, broken } = unscramble(count, [...walks, { joinedAt: at, joined, seen }], known)
      // A broken core is what the walk is for.
      return sum + named.length + count * (Number(broken?.first != null) + Number(broken?.second != null))
    }, 0)
  let best = { joined: first, worth: worth(first) }
  for (let i = 0; i < WAYS; i++) {
    const joined = randomGroups(count, random)
    const now = worth(joined)
    if (now > best.worth) best = { joined, worth: now }
  }
  return best.joined
}

/** Ends in groups of one to four. */
function randomGroups(count: number, random: () => number): number[][] {
  const left = Array.from({ length: count }, (_, i) => i)
  const groups: number[][] = []
  while (left.length > 0) {
    const size = Math.min(left.length, 1 + Math.floor(random() * 4))
    groups.push(Array.from({ length: size }, () => left.splice(Math.floor(random() * left.length), 1)[0]!))
  }
  return groups
}
