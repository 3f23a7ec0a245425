import type { CoreTried, Facts, Sorting } from '../record'
import { coresKnown, nextJoining, wantsKnown, type Touching, type UnknownCable } from './cable'
import type { Method } from './methods'
import { bestTags, STOCK_ohm, tagOf, tagRead, USUAL_TAGS, type TagConditions } from './tags'
import type { EndOf, Matched, Walk } from './unscramble'

/** Which core is which so far, by whatever way it was found. */
export interface CoresFound {
  readonly named: readonly Matched[]
  /** Cores that are broken, by what is known of their ends. */
  readonly broken: readonly { readonly first: number | null; readonly second: number | null }[]
  /** Two that are one conductor somewhere on the way, by their ends. */
  readonly touching: { readonly first: Touching; readonly second: Touching } | null
  readonly unnamed: { readonly first: readonly number[]; readonly second: readonly number[] }
  /** Why nothing is said of some: what was seen cannot all be so, or a pair showed at one side alone. */
  readonly doubts: readonly ('impossible' | 'touching_once' | 'two_at_one')[]
}

/** Something that is to be done at an end of the cable; ends are numbered from 0. */
export type SessionStep =
  | { readonly do: 'method' }
  | { readonly do: 'off' | 'bare'; readonly at: EndOf }
  | { readonly do: 'join'; readonly at: EndOf; readonly walk: number; readonly groups: Walk['joined'] }
  | { readonly do: 'see'; readonly at: EndOf; readonly walk: number; readonly ends: readonly number[] }
  /** With a helper: one end asks, the other puts the tone on and says so, the first listens. */
  | { readonly do: 'call' | 'put' | 'hear'; readonly at: EndOf; readonly core: number }
  | {
      readonly do: 'hang'
      readonly at: EndOf
      readonly tags: readonly { readonly core: number; readonly ohm: number }[]
    }
  | { readonly do: 'read'; readonly at: EndOf; readonly ends: readonly number[] }

/** Where the telling apart of a cable’s cores stands. */
export interface CoresSession {
  readonly method: Method | null
  /** A conductor that is known goes along, as the last. */
  readonly helped: boolean
  readonly looks: Readonly<Record<EndOf, readonly string[]>>
  /** What can be done now, at either end; nothing is left where it is empty. */
  readonly steps: readonly SessionStep[]
  readonly found: CoresFound
}

/** One thing tried, with its id. */
interface Trial {
  readonly id: string
  readonly tried: CoreTried
}

/** What was tried in a job in the order of doing, without what was taken back. */
export function trialsOf(facts: Facts, job: string): readonly Trial[] {
  const own = Object.entries(facts.coreTrials)
    .filter(([, t]) => t.job === job)
    .sort(([a, x], [b, y]) => x.at.localeCompare(y.at) || a.localeCompare(b))
  const back = new Set(own.flatMap(([, { tried }]) => (tried.kind === 'back' ? [tried.trial] : [])))
  return own.flatMap(([id, { tried }]) => (back.has(id) || tried.kind === 'back' ? [] : [{ id, tried }]))
}

type Of<K extends CoreTried['kind']> = Extract<CoreTried, { kind: K }>
const allOf = <K extends CoreTried['kind']>(trials: readonly Trial[], kind: K): Of<K>[] =>
  trials.flatMap(({ tried }) => (tried.kind === kind ? [tried as Of<K>] : []))

/** The resistors at hand, and what they are read with. */
export interface TagKit {
  readonly stock_ohm: readonly number[]
  readonly conditions: TagConditions
}
const USUAL_KIT: TagKit = { stock_ohm: STOCK_ohm, conditions: USUAL_TAGS }

/** Where a job stands, from what was tried: derived anew each time, so that two people at two ends see the same. */
export function sessionOf({ cores }: Sorting, trials: readonly Trial[], kit: TagKit = USUAL_KIT): CoresSession {
  const method = allOf(trials, 'method').at(-1)?.method ?? null
  const looks = (end: EndOf) => allOf(trials, 'looks').findLast((t) => t.end === end)?.looks ?? []
  const isOff = (end: EndOf) => allOf(trials, 'off').some((t) => t.end === end)
  const helped = method === 'groups' && wantsKnown(cores)
  const ends = { method, helped, looks: { first: looks('first'), second: looks('second') } }
  const nothing: CoresFound = {
    named: [],
    broken: [],
    touching: null,
    unnamed: { first: upTo(cores), second: upTo(cores) },
    doubts: [],
  }
  if (method === null) return { ...ends, steps: [{ do: 'method' }], found: nothing }
  const off = (['first', 'second'] as const).filter((end) => !isOff(end)).map((at) => ({ do: 'off', at }) as const)
  const { steps, found } =
    method === 'groups'
      ? byGroups(cores, trials)
      : method === 'helper'
        ? byHelper(cores, trials)
        : byTags(cores, trials, kit)
  return { ...ends, steps: off.length > 0 ? off : steps, found }
}

interface Way {
  readonly steps: readonly SessionStep[]
  readonly found: CoresFound
}
const upTo = (count: number): number[] => Array.from({ length: count }, (_, i) => i)

function byGroups(cores: number, trials: readonly Trial[]): Way {
  const bare = (end: EndOf) => allOf(trials, 'bare').findLast((t) => t.end === end)
  const [first, second] = [bare('first'), bare('second')]
  const joined = (walk: number) => allOf(trials, 'joined').findLast((t) => t.walk === walk)
  const seen = (walk: number) => allOf(trials, 'seen').findLast((t) => t.walk === walk)
  const walks: Walk[] = []
  for (let walk = 0; joined(walk) && seen(walk); walk++)
    walks.push({ joinedAt: endOfWalk(walk), joined: joined(walk)!.groups, seen: seen(walk)!.groups })
  const cable: UnknownCable = {
    cores,
    helped: wantsKnown(cores),
    bare: first && second ? { first: first.touching, second: second.touching } : null,
    walks,
  }
  const known = coresKnown(cable)
  const isPaired = (end: EndOf, i: number) => known.touching?.[end].includes(i) ?? false
  const left = (end: EndOf) => known.unnamed[end].filter((i) => i < cores && !isPaired(end, i))
  const isBroken = (end: EndOf, i: number) => known.broken?.[end] === i
  const found: CoresFound = {
    named: known.named.filter((m) => m.first < cores && !isBroken('first', m.first)),
    broken: known.broken ? [known.broken] : [],
    touching: known.touching,
    unnamed: {
      first: left('first').filter((i) => !isBroken('first', i)),
      second: left('second').filter((i) => !isBroken('second', i)),
    },
    doubts: [
      ...(known.impossible ? (['impossible'] as const) : []),
      ...(known.touchingOnce ? (['touching_once'] as const) : []),
    ],
  }
  const missing = (['first', 'second'] as const).filter((end) => !bare(end))
  if (missing.length > 0) return { steps: missing.map((at) => ({ do: 'bare', at })), found }
  const walk = walks.length
  if (joined(walk)) {
    const at = otherEnd(endOfWalk(walk))
    return { steps: [{ do: 'see', at, walk, ends: endsSeen(cable, at, joined(walk)!.groups) }], found }
  }
  const next = nextJoining(cable)
  return { steps: next ? [{ do: 'join', at: next.at, walk, groups: next.groups }] : [], found }
}

/**
 * The ends that are looked at where something was joined at the other side. Two that touch are left out, unless their
 * pair goes along as the conductor that is known.
 */
function endsSeen({ cores, helped, bare }: UnknownCable, at: EndOf, joined: Walk['joined']): number[] {
  if (!bare?.first || !bare.second) return upTo(cores + Number(helped))
  const pair = bare[at]!
  const rest = upTo(cores).filter((i) => !pair.includes(i))
  return joined.flat().length > rest.length ? [...rest, pair[0]] : rest
}

const endOfWalk = (walk: number): EndOf => (walk % 2 === 0 ? 'first' : 'second')
const otherEnd = (end: EndOf): EndOf => (end === 'first' ? 'second' : 'first')

/** Ends of the second side that answered for cores of the first. */
function foundFrom(cores: number, answers: ReadonlyMap<number, number | null>, isAllLooked: boolean): CoresFound {
  const at = [...answers.values()]
  const named = [...answers].flatMap(([first, second]): Matched[] =>
    second !== null && at.filter((s) => s === second).length === 1 ? [{ first, second }] : [],
  )
  const silent = [...answers].filter(([, second]) => second === null).map(([first]) => first)
  const twice = [...new Set(at.filter((s, i) => s !== null && at.indexOf(s) !== i))] as number[]
  const pair = twice.length === 1 ? [...answers].filter(([, s]) => s === twice[0]).map(([first]) => first) : []
  const unnamed = {
    first: upTo(cores).filter((i) => !named.some((m) => m.first === i) && !silent.includes(i)),
    second: upTo(cores).filter((i) => !named.some((m) => m.second === i)),
  }
  const leftOver = unnamed.second.filter((i) => !twice.includes(i))
  // What is left of the second side is the broken one’s, where nothing else can be.
  const isCertain = isAllLooked && silent.length === 1 && leftOver.length === 1 && twice.length === 0
  return {
    named,
    broken: silent.map((first) => ({ first, second: isCertain ? leftOver[0]! : null })),
    touching:
      pair.length === 2 && leftOver.length === 1
        ? { first: [pair[0]!, pair[1]!], second: [twice[0]!, leftOver[0]!] }
        : null,
    unnamed: { ...unnamed, second: isCertain ? [] : unnamed.second },
    doubts: twice.length > 0 ? ['two_at_one'] : [],
  }
}

function byHelper(cores: number, trials: readonly Trial[]): Way {
  const answers = new Map(allOf(trials, 'heard').map((t) => [t.core, t.at]))
  const isAllLooked = answers.size === cores
  const found = foundFrom(cores, answers, isAllLooked)
  const core = upTo(cores).find((i) => !answers.has(i))
  if (core === undefined) return { steps: [], found }
  const called = allOf(trials, 'called').some((t) => t.core === core)
  const got = allOf(trials, 'got').some((t) => t.core === core)
  if (got) return { steps: [{ do: 'hear', at: 'second', core }], found }
  return { steps: [called ? { do: 'put', at: 'first', core } : { do: 'call', at: 'second', core }], found }
}

function byTags(cores: number, trials: readonly Trial[], { stock_ohm, conditions }: TagKit): Way {
  const answers = new Map<number, number | null>()
  const hung = new Map<number, number>()
  const read = new Map<number, number | null>()
  const tried = new Set<number>()
  let isReading = false
  for (const { tried: t } of trials) {
    if (t.kind === 'hung') {
      // Tags that are hung after some were read are those of another round.
      if (isReading) hung.clear()
      if (isReading) read.clear()
      isReading = false
      hung.set(t.core, t.ohm)
      tried.add(t.core)
    } else if (t.kind === 'read') {
      isReading = true
      read.set(t.at, t.ohm)
      const hanging = [...hung.values()].map((ohm) => tagOf(ohm, conditions))
      const tag = t.ohm === null ? null : tagRead(hanging, t.ohm)
      for (const core of hung.keys()) if (answers.get(core) === t.at) answers.delete(core)
      for (const [core, ohm] of hung) if (tag && ohm === tag.ohm) answers.set(core, t.at)
    }
  }
  const named = new Set(answers.values())
  const ends = upTo(cores).filter((i) => !named.has(i))
  const unread = ends.filter((i) => !read.has(i))
  const allRead = hung.size > 0 && unread.length === 0
  for (const core of tried) if (!answers.has(core) && (allRead || !hung.has(core))) answers.set(core, null)
  const left = upTo(cores).filter((i) => !tried.has(i))
  const found = foundFrom(cores, answers, allRead && left.length === 0)
  const isDone = [...hung.keys()].every((core) => typeof answers.get(core) === 'number')
  if (hung.size > 0 && !allRead && !isDone) return { steps: [{ do: 'read', at: 'second', ends: unread }], found }
  if (left.length === 0) return { steps: [], found }
  const own = bestTags(stock_ohm, conditions)
  // Where none of them can be told apart here, what is usual is named, to be fetched.
  const best = own.length > 0 ? own : bestTags(STOCK_ohm, conditions)
  const tags = left.slice(0, best.length).map((core, i) => ({ core, ohm: best[i]!.ohm }))
  return { steps: [{ do: 'hang', at: 'first', tags }], found }
}
