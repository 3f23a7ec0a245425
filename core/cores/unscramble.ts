/** One of the two ends of the cable. */
export type EndOf = 'first' | 'second'
const other = (end: EndOf): EndOf => (end === 'first' ? 'second' : 'first')

/**
 * Cores joined into groups at one end, and the groups that continuity shows at the other. Ends are numbered from 0 as
 * they lie at each end; every end is in exactly one group of its side.
 */
export interface Walk {
  readonly joinedAt: EndOf
  readonly joined: readonly (readonly number[])[]
  readonly seen: readonly (readonly number[])[]
}

/** The two ends of one conductor. */
export interface Matched {
  readonly first: number
  readonly second: number
}

/** What is known of a cable after its walks. */
export interface Unscrambled {
  /** Which end is which; none of them is a guess. */
  readonly named: readonly Matched[]
  /** The core that is broken, by what is known of it; null where none has to be. */
  readonly broken: { readonly first: number | null; readonly second: number | null } | null
  /** Ends that are not told apart yet, in lots that may be each other’s. */
  readonly unnamed: { readonly first: readonly number[]; readonly second: readonly number[] }
  /** Nothing that is known can be so: something was joined or read otherwise than it was written. */
  readonly impossible: boolean
}

/** What may be so: no core is broken, or this one is. */
type Supposed = Matched | null

/** Groups of a side without one end. */
const without = (groups: readonly (readonly number[])[], gone: number | null) =>
  gone === null ? groups : groups.map((g) => g.filter((i) => i !== gone)).filter((g) => g.length > 0)

/** The partitions of a side, as what is joined or seen there says; a broken core’s end is no part of any. */
const partitionsAt = (walks: readonly Walk[], end: EndOf, gone: number | null) =>
  walks.map((w) => without(w.joinedAt === end ? w.joined : w.seen, gone))

/**
 * Colours by which ends can be told apart: an end’s colour with the colours of all it is grouped with, over and over
 * until nothing new comes of it (colour refinement). Two ends of one conductor always have one colour.
 */
function colours(count: number, walks: readonly Walk[], known: readonly Matched[], supposed: Supposed): ColouredEnds {
  const sides = (['first', 'second'] as const).map((end) => {
    const start = new Array<number>(count).fill(0)
    known.forEach((m, i) => {
      start[m[end]] = i + 1
    })
    return { gone: supposed?.[end] ?? null, parts: partitionsAt(walks, end, supposed?.[end] ?? null), now: start }
  })
  for (let kinds = 0; ;) {
    const names = new Map<string, number>()
    const name = (key: string) => {
      if (!names.has(key)) names.set(key, names.size)
      return names.get(key)!
    }
    for (const side of sides) {
      const groupNames = side.parts.map((groups) => {
        const of = new Array<string>(count).fill('')
        for (const group of groups) {
          const key = group
            .map((i) => side.now[i]!)
            .sort((a, b) => a - b)
            .join(' ')
          for (const i of group) of[i] = key
        }
        return of
      })
      side.now = side.now.map((colour, i) =>
        i === side.gone ? -1 : name([colour, ...groupNames.map((of) => of[i]!)].join('|')),
      )
    }
    if (names.size === kinds) break
    kinds = names.size
  }
  return { first: sides[0]!.now, second: sides[1]!.now }
}
interface ColouredEnds {
  readonly first: readonly number[]
  readonly second: readonly number[]
}

/** Ends by colour; null where the two sides do not have as many of each, so that what was supposed cannot be. */
function matching({ first, second }: ColouredEnds): Map<number, Lot> | null {
  const byColour = new Map<number, { first: number[]; second: number[] }>()
  for (const [end, list] of [
    ['first', first],
    ['second', second],
  ] as const)
    list.forEach((colour, i) => {
      if (colour < 0) return
      const lot = byColour.get(colour) ?? { first: [], second: [] }
      byColour.set(colour, lot)
      lot[end].push(i)
    })
  return [...byColour.values()].every((lot) => lot.first.length === lot.second.length) ? byColour : null
}

/** Ends that showed continuity with nobody whenever they were looked at from the other end. */
function alone(walks: readonly Walk[], end: EndOf, count: number): number[] {
  const looked = walks.filter((w) => w.joinedAt === other(end))
  return Array.from({ length: count }, (_, i) => i).filter((i) =>
    looked.every((w) => w.seen.some((g) => g.length === 1 && g[0] === i)),
  )
}

/** One way in which everything that was seen can be so. */
interface View {
  readonly supposed: Supposed
  readonly lots: ReadonlyMap<number, Lot>
}
interface Lot {
  readonly first: readonly number[]
  readonly second: readonly number[]
}

/** Every way: no core broken, or any one that never showed continuity with another. */
function viewsOf(count: number, walks: readonly Walk[], known: readonly Matched[]): View[] {
  const suspects = (end: EndOf) => alone(walks, end, count).filter((i) => !known.some((m) => m[end] === i))
  const broken = suspects('first').flatMap((first) => suspects('second').map((second): Supposed => ({ first, second })))
  return [null, ...broken].flatMap((supposed) => {
    const lots = matching(colours(count, walks, known, supposed))
    return lots ? [{ supposed, lots }] : []
  })
}

/**
 * Which core is which, from what was joined and seen. An end is named where everything that may be so (no core broken,
 * or any one of them) says the same of it; of all else nothing is said.
 * @param count cores, those that are known beforehand with them
 * @param known conductors whose both ends are known
 */
export function unscramble(count: number, walks: readonly Walk[], known: readonly Matched[] = []): Unscrambled {
  if (walks.length === 0 && count - known.length > 1) return nothingYet(count, known)
  const views = viewsOf(count, walks, known).map(({ supposed, lots }) => ({
    supposed,
    mates: matesOf(count, lots, supposed),
  }))
  const named = Array.from({ length: count }, (_, first) => first).flatMap((first): Matched[] => {
    const mates = new Set(views.map((v) => v.mates[first] ?? null))
    const [second] = mates
    return mates.size === 1 && second !== undefined && second !== null ? [{ first, second }] : []
  })
  const all = Array.from({ length: count }, (_, i) => i)
  const same = (end: EndOf): number | null => {
    const ends = new Set(views.map((v) => v.supposed?.[end] ?? null))
    return ends.size === 1 ? [...ends][0]! : null
  }
  const isBroken = views.length > 0 && views.every((v) => v.supposed !== null)
  return {
    named,
    broken: isBroken ? { first: same('first'), second: same('second') } : null,
    unnamed: {
      first: all.filter((i) => !named.some((m) => m.first === i)),
      second: all.filter((i) => !named.some((m) => m.second === i)),
    },
    impossible: views.length === 0,
  }
}

/** Before the first walk nothing is told apart. */
function nothingYet(count: number, known: readonly Matched[]): Unscrambled {
  const left = (end: EndOf) =>
    Array.from({ length: count }, (_, i) => i).filter((i) => !known.some((m) => m[end] === i))
  return {
    named: [...known],
    broken: null,
    unnamed: { first: left('first'), second: left('second') },
    impossible: false,
  }
}

/** For every end at the first side its other end, where it can be no other; a broken core’s ends are each other’s. */
function matesOf(count: number, lots: ReadonlyMap<number, Lot>, supposed: Supposed): (number | null)[] {
  const mates = new Array<number | null>(count).fill(null)
  for (const { first, second } of lots.values()) if (first.length === 1) mates[first[0]!] = second[0]!
  if (supposed) mates[supposed.first] = supposed.second
  return mates
}

/** A cable as it may be: the second end of every first one, and the core that is broken, by its first end. */
export interface Guess {
  readonly second: readonly number[]
  readonly broken: number | null
}

/** What continuity would show at the other end of what is joined at one. */
export function wouldShow({ second, broken }: Guess, at: EndOf, joined: readonly (readonly number[])[]): number[][] {
  const there = (end: number) => (at === 'first' ? second[end]! : second.indexOf(end))
  const isCut = (end: number) => (at === 'first' ? end : second.indexOf(end)) === broken
  return joined.flatMap((group) => {
    const whole = group.filter((end) => !isCut(end)).map(there)
    const cut = group.filter(isCut).map((end) => [there(end)])
    return whole.length > 0 ? [whole, ...cut] : cut
  })
}

/** Tries at a guess that fits, before another view is taken. */
const TRIES = 8

/** Up to so many cables that fit all that was seen, drawn at random. */
export function guesses(
  count: number,
  walks: readonly Walk[],
  known: readonly Matched[],
  most: number,
  random: () => number,
): Guess[] {
  const views = viewsOf(count, walks, known)
  const found: Guess[] = []
  for (let i = 0; views.length > 0 && found.length < most && i < most * TRIES; i++) {
    const { supposed, lots } = views[Math.floor(random() * views.length)]!
    const second = new Array<number>(count).fill(-1)
    if (supposed) second[supposed.first] = supposed.second
    for (const lot of lots.values()) {
      const left = [...lot.second]
      for (const end of lot.first) second[end] = left.splice(Math.floor(random() * left.length), 1)[0]!
    }
    const guess = { second, broken: supposed?.first ?? null }
    if (walks.every((w) => sameGroups(wouldShow(guess, w.joinedAt, w.joined), w.seen))) found.push(guess)
  }
  return found
}

const sameGroups = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]): boolean => {
  const key = (groups: readonly (readonly number[])[]) =>
    groups
      .map((g) => [...g].sort((x, y) => x - y).join(' '))
      .sort()
      .join('|')
  return key(a) === key(b)
}
