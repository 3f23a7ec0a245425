import { groupPlan, groupsFor, tableWith } from './group-plan'
import { MOST_TRIED, mostTelling } from './telling'
import { unscramble, type EndOf, type Matched, type Unscrambled, type Walk } from './unscramble'

/** Two ends of one side that showed continuity before anything was joined. */
export type Touching = readonly [number, number]

/**
 * A cable whose cores are to be told apart, as far as it has come. Its ends are numbered from 0
 * as they lie at either side.
 */
export interface UnknownCable {
  readonly cores: number
  /** A conductor that is known goes along: its ends have the number `cores` on both sides. */
  readonly helped: boolean
  /** What the bare cores showed against each other; null until it was tried. */
  readonly bare: { readonly first: Touching | null; readonly second: Touching | null } | null
  readonly walks: readonly Walk[]
}

/** Whether so many cores want a known conductor as one more. */
export const wantsKnown = (cores: number): boolean => groupPlan(cores).known > 0

/** What is joined next, and at which end. */
export interface Joining {
  readonly at: EndOf
  /** Every end of that side in its group; a group of one is left loose. */
  readonly groups: readonly (readonly number[])[]
}

/** What is known of the cable’s cores; the two that touch are named as a pair, whichever of them is which. */
export interface CoresKnown extends Unscrambled {
  readonly touching: { readonly first: Touching; readonly second: Touching } | null
  /**
   * Two cores showed continuity at one end and none at the other: one of the two trials was
   * misread, or a core is broken.
   */
  readonly touchingOnce: boolean
}

/** The conductors that are told apart: without a pair that touches, unless it goes along as the one that is known. */
interface Conductors {
  readonly first: readonly number[]
  readonly second: readonly number[]
  readonly known: readonly Matched[]
}

function conductorsOf({ cores, helped, bare }: UnknownCable): Conductors {
  const all = Array.from({ length: cores }, (_, i) => i)
  const [first, second] = [bare?.first ?? null, bare?.second ?? null]
  if (!first || !second) {
    const known = helped ? [{ first: cores, second: cores }] : []
    return { first: [...all, ...known.map((k) => k.first)], second: [...all, ...known.map((k) => k.second)], known }
  }
  const rest = cores - 2
  const pair: Matched = { first: first[0], second: second[0] }
  const goesAlong = rest > 1 && wantsKnown(rest)
  const of = (end: EndOf, touching: Touching) =>
    all.filter((i) => !touching.includes(i) || (goesAlong && i === pair[end]))
  return { first: of('first', first), second: of('second', second), known: goesAlong ? [pair] : [] }
}

/** The same walks by places in the lists of conductors, so that ends are numbered without gaps. */
function numbered({ first, second, known }: Conductors, walks: readonly Walk[]) {
  const places = { first: new Map(first.map((e, i) => [e, i])), second: new Map(second.map((e, i) => [e, i])) }
  const moved = (end: EndOf, groups: Walk['joined']) =>
    groups.map((g) => g.flatMap((e) => places[end].get(e) ?? [])).filter((g) => g.length > 0)
  return {
    known: known.map((m) => ({ first: places.first.get(m.first)!, second: places.second.get(m.second)! })),
    walks: walks.map((w) => ({
      joinedAt: w.joinedAt,
      joined: moved(w.joinedAt, w.joined),
      seen: moved(w.joinedAt === 'first' ? 'second' : 'first', w.seen),
    })),
  }
}

/** Which core is which, as far as the walks tell. */
export function coresKnown(cable: UnknownCable): CoresKnown {
  const conductors = conductorsOf(cable)
  const { known, walks } = numbered(conductors, cable.walks)
  const found = unscramble(conductors.first.length, walks, known)
  const [first, second] = [cable.bare?.first ?? null, cable.bare?.second ?? null]
  const isOwn = ({ first: end }: Matched) => !conductors.known.some((k) => k.first === end)
  return {
    named: found.named
      .map((m) => ({ first: conductors.first[m.first]!, second: conductors.second[m.second]! }))
      .filter(isOwn),
    broken: found.broken && {
      first: found.broken.first === null ? null : conductors.first[found.broken.first]!,
      second: found.broken.second === null ? null : conductors.second[found.broken.second]!,
    },
    unnamed: {
      first: found.unnamed.first.map((i) => conductors.first[i]!),
      second: found.unnamed.second.map((i) => conductors.second[i]!),
    },
    impossible: found.impossible,
    touching: first && second ? { first, second } : null,
    touchingOnce: (first === null) !== (second === null),
  }
}

/** More walks than these help nobody: something is read otherwise than it is. */
const MOST_WALKS = 6

/** What to join next; null when all is told apart, or nothing more can be. */
export function nextJoining(cable: UnknownCable): Joining | null {
  const conductors = conductorsOf(cable)
  const { walks } = cable
  const at: EndOf = walks.length % 2 === 0 ? 'first' : 'second'
  const known = coresKnown(cable)
  if (known.impossible || conductors.first.length < 2) return null
  if (walks.length === 0) return { at, groups: firstGroups(conductors) }
  // Both walks are made even where the first has told all: a core that is broken may show in the second alone.
  if (walks.length === 1) {
    const { groups, asPlanned } = secondGroups(conductors, seenOf(conductors, walks[0]!))
    return { at, groups: asPlanned ? groups : tried(conductors, walks, at, groups) }
  }
  if (known.unnamed.first.length === 0 || walks.length >= MOST_WALKS || isStuck(cable, known)) return null
  return { at, groups: tried(conductors, walks, at, anchoredGroups(conductors[at], known, at, conductors.known)) }
}

/** Whether the last walk after the two told nothing new. */
function isStuck(cable: UnknownCable, now: CoresKnown): boolean {
  if (cable.walks.length < 3) return false
  const before = coresKnown({ ...cable, walks: cable.walks.slice(0, -1) })
  const told = ({ named, broken }: CoresKnown) =>
    named.length + Number(broken?.first != null) + Number(broken?.second != null)
  return told(now) === told(before)
}

/** The groups that were seen, of those conductors alone that are told apart. */
const seenOf = ({ second }: Conductors, { seen }: Walk): number[][] =>
  seen.map((group) => group.filter((end) => second.includes(end))).filter((group) => group.length > 0)

/** Where few cores are left to lean on, the way of joining that tells most is looked for. */
function tried(conductors: Conductors, walks: readonly Walk[], at: EndOf, groups: number[][]): number[][] {
  const ends = conductors[at]
  if (ends.length > MOST_TRIED) return groups
  const inPlaces = numbered(conductors, walks)
  const places = groups.map((g) => g.map((end) => ends.indexOf(end)))
  return mostTelling(ends.length, inPlaces.walks, inPlaces.known, at, places).map((g) => g.map((i) => ends[i]!))
}

/** Lists of ends by the numbers of their groups. */
const gathered = (ends: readonly number[], groups: readonly number[]): number[][] =>
  [...new Set(groups)].sort((a, b) => a - b).map((g) => ends.filter((_, i) => groups[i] === g))

const firstGroups = ({ first, known }: Conductors): number[][] =>
  gathered(
    first,
    groupPlan(first.length - known.length).cores.map((c) => c.first),
  )

/** At the second end every core of a size gets a group of another size, as the sizes that were seen leave it. */
function secondGroups(
  { first, second, known }: Conductors,
  seen: readonly (readonly number[])[],
): { groups: number[][]; asPlanned: boolean } {
  const sizeOf = new Map(seen.flatMap((group) => group.map((end) => [end, group.length] as const)))
  const ends = second.filter((end) => sizeOf.has(end)).sort((a, b) => sizeOf.get(a)! - sizeOf.get(b)!)
  const rows = new Array<number>(ends.length + 1).fill(0)
  for (const end of ends) rows[sizeOf.get(end)!]!++
  const planned = groupPlan(first.length - known.length).cores
  const asPlanned = rows.every((count, size) => count === countOfSize(planned, size))
  const cells = asPlanned ? cellsOfPlan(planned) : tableWith(rows)
  const columns = ends.map((end, i) => {
    const size = sizeOf.get(end)!
    const place = ends.slice(0, i).filter((e) => sizeOf.get(e) === size).length
    return cells.filter((c) => c.row === size)[place]!.column
  })
  return { groups: gathered(ends, groupsFor(columns)), asPlanned }
}

type Planned = ReturnType<typeof groupPlan>['cores']
const sizeIn = (planned: Planned, key: EndOf, group: number) => planned.filter((c) => c[key] === group).length
const countOfSize = (planned: Planned, size: number) =>
  planned.filter((c) => sizeIn(planned, 'first', c.first) === size).length
const cellsOfPlan = (planned: Planned) =>
  planned.map((c) => ({ row: sizeIn(planned, 'first', c.first), column: sizeIn(planned, 'second', c.second) }))

/**
 * What is not told apart yet, each joined to a core that is: at the other end its mate lies with that one. Where there
 * are not enough of those, several go to one; where there is none, groups of unlike sizes.
 */
function anchoredGroups(
  ends: readonly number[],
  { named, unnamed, broken }: CoresKnown,
  at: EndOf,
  known: readonly Matched[],
): number[][] {
  const loose = unnamed[at]
  const anchors = [...known, ...named].map((m) => m[at]).filter((end) => end !== broken?.[at])
  if (anchors.length === 0) return unlikeGroups(loose)
  const groups = anchors.map((anchor, k) => [anchor, ...loose.filter((_, i) => i % anchors.length === k)])
  const joined = new Set(groups.flat())
  return [...groups, ...ends.filter((end) => !joined.has(end)).map((end) => [end])]
}

/** Groups of one, two, three …, what is left over with the last. */
function unlikeGroups(ends: readonly number[]): number[][] {
  const groups: number[][] = []
  let at = 0
  for (let size = 1; at < ends.length; size++) {
    groups.push(ends.slice(at, at + size))
    at += size
  }
  return groups
}
