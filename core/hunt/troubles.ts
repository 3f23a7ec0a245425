import type { Beliefs, Explanation } from './beliefs'
import type { Catalogue } from './catalogue'

/** One thing that is wrong, and the parts that may be it: they shut each other out. */
export interface Trouble {
  /** How likely it is that any of its parts is at fault. */
  readonly p: number
  /** The parts' keys with how likely each is, the likeliest first. */
  readonly parts: readonly (readonly [key: string, p: number])[]
  /** Which island of the beliefs it was found in. */
  readonly island: number
  /** Nothing else was found there. */
  readonly alone: boolean
}

/** Parts less likely than this make no trouble of their own. */
const LEAST = 0.02
/** Two parts shut each other out that are at fault together less than so many times as often as by chance. */
const TOGETHER = 0.5

/**
 * What is wrong, thing by thing, the likeliest first: of what readings explain apart each by itself, and within it
 * parts that are hardly ever at fault together as one trouble. Parts that no reading shows are in none.
 */
export function troublesIn({ islands }: Beliefs, catalogue: Catalogue): Trouble[] {
  return islands
    .flatMap((told, island) => {
      const found = within(told, catalogue)
      return found.map((t) => ({ ...t, island, alone: found.length === 1 }))
    })
    .sort((a, b) => b.p - a.p)
}

function within(told: readonly Explanation[], catalogue: Catalogue): Pick<Trouble, 'p' | 'parts'>[] {
  const whole = told.reduce((s, e) => s + e.p, 0)
  const sets = told.map((e) => ({
    keys: new Set(e.faults.map((v) => catalogue.faults[v.fault]!.key)),
    p: e.p / whole,
  }))
  const likely = (is: (keys: ReadonlySet<string>) => boolean) => sets.reduce((s, e) => s + (is(e.keys) ? e.p : 0), 0)
  const parts = [...new Set(sets.flatMap((e) => [...e.keys]))]
    .map((key) => [key, likely((keys) => keys.has(key))] as const)
    .filter(([, p]) => p >= LEAST)
    .sort((a, b) => b[1] - a[1])
  const found: { parts: (readonly [string, number])[] }[] = []
  for (const part of parts) {
    const [key, p] = part
    const holds = (t: { parts: readonly (readonly [string, number])[] }) => (keys: ReadonlySet<string>) =>
      t.parts.some(([k]) => keys.has(k))
    const shut = found
      .map((t) => {
        const isThere = holds(t)
        return { t, times: likely((keys) => keys.has(key) && isThere(keys)) / (p * likely(isThere)) }
      })
      .filter(({ times }) => times < TOGETHER)
      .sort((a, b) => a.times - b.times)[0]
    if (shut) shut.t.parts.push(part)
    else found.push({ parts: [part] })
  }
  return found.map((t) => ({ parts: t.parts, p: likely((keys) => t.parts.some(([k]) => keys.has(k))) }))
}
