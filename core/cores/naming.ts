import type { Sorting } from '../record'
import { createRecord, lookUp, setField, type Cable, type Command, type Core, type Site } from '../site'
import type { CoresFound, CoresSession } from './session'
import type { EndOf } from './unscramble'

/** What is written beside cores that are no good, in the reader’s language, and when it was found. */
export interface NamingWords {
  readonly today: string
  readonly broken: string
  readonly touching: string
  /** What an end is called that looks like nothing: its number, as its flag has it. */
  readonly flag: (n: number) => string
  readonly id: () => string
}

/**
 * What was found out as a change of the record, both ends of every core in one batch: its look at the first end as its
 * colour, its look at the second one there. A cable that is not on record begins with it; one that is keeps its cores,
 * taken in their order as the first end’s. Null where it has another number of cores, or does not come to both places.
 */
export function namingCommands(
  site: Site,
  { cable: on, cores: count, first, second }: Sorting,
  { found, looks }: Pick<CoresSession, 'found' | 'looks'>,
  words: NamingWords,
): readonly Command[] | null {
  const known = on === null ? null : (lookUp(site.cables, on) ?? null)
  if (on !== null && !known) return null
  const stops = known?.stops ?? [
    { id: words.id(), place: first, at_m: { value: 0, how: 'seen', on: words.today } },
    { id: words.id(), place: second, at_m: null },
  ]
  const farStop = stops.find((s) => s.place === second)?.id
  const order = known
    ? Object.entries(known.cores).sort(([, a], [, b]) => a.order - b.order)
    : Array.from({ length: count }, (_, i): [string, Partial<Core>] => [`c${i + 1}`, { order: i }])
  if (farStop === undefined || !stops.some((s) => s.place === first) || order.length !== count) return null
  const look = (end: EndOf, i: number) => looks[end][i]?.trim() || words.flag(i + 1)
  const seen = (value: string) => ({ value, how: 'seen' as const, on: words.today })
  const cores = Object.fromEntries(
    order.map(([id, core], i) => {
      const far = found.named.find((m) => m.first === i)
      const near = look('first', i)
      const there = far && look('second', far.second)
      return [
        id,
        {
          ...core,
          colour: seen(near),
          colourAt: { ...core.colourAt, ...(there && there !== near ? { [farStop]: there } : {}) },
          ...conditionOf(found, i, words),
        },
      ]
    }),
  ) as Cable['cores']
  if (on !== null) return [setField('cables', on, 'cores', cores)]
  const made = { tag: freeTag(site), kind: 'multicore' as const, stops, cores, installed: null }
  return [createRecord('cables', words.id(), made as never)]
}

function conditionOf(
  { broken, touching }: CoresFound,
  i: number,
  words: NamingWords,
): Partial<Pick<Core, 'condition'>> {
  if (broken.some((b) => b.first === i)) return { condition: { state: 'open', since: words.today, note: words.broken } }
  return touching?.first.includes(i)
    ? { condition: { state: 'suspect', since: words.today, note: words.touching } }
    : {}
}

/** A tag that no cable has: U1, U2 … */
function freeTag(site: Site): string {
  const taken = new Set(Object.values(site.cables).map((c) => c.tag))
  for (let n = 1; ; n++) if (!taken.has(`U${n}`)) return `U${n}`
}
