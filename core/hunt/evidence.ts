import type { Beliefs, Explanation, Observation } from './beliefs'
import type { Catalogue } from './catalogue'
import type { Posterior } from './inference'
import { logSum } from './normal'

/** Of an island's explanations, so many that name a part and so many that do not. */
const WEIGHED = 40
/** A reading that moves the log of a part's odds by less than this tells nothing, nats. */
const TELLING_NATS = 0.5

/**
 * The reading with the greatest weight of evidence for the likeliest part: by how much the log of its odds would fall
 * without that reading (I. J. Good, Probability and the Weighing of Evidence, 1950). Null where none speaks for it.
 */
export function strongestEvidence(
  posterior: Posterior,
  beliefs: Beliefs,
  catalogue: Catalogue,
): { readonly key: string; readonly reading: Observation; readonly nats: number } | null {
  const key = [...beliefs.parts].reduce((m, e) => (e[1] > m[1] ? e : m), ['', 0] as readonly [string, number])[0]
  const has = (e: Explanation) => e.faults.some((v) => catalogue.faults[v.fault]!.key === key)
  const told = [...beliefs.islands].sort((a, b) => held(b, has) - held(a, has))[0] ?? []
  const [for_, against] = [told.filter(has), told.filter((e) => !has(e))].map((list) => list.slice(0, WEIGHED))
  if (!for_!.length || !against!.length) return null
  const weighed = [...for_!, ...against!]
  const logOdds = (logs: readonly number[]) => logSum(logs.slice(0, for_!.length)) - logSum(logs.slice(for_!.length))
  const all = weighed.map((e) => Math.log(e.p))
  const best = posterior
    .eachUnder(weighed.map((e) => e.faults))
    .map(({ reading, logs }) => ({ key, reading, nats: logOdds(all) - logOdds(all.map((p, i) => p - logs[i]!)) }))
    .reduce(
      (m, e) => (m && m.nats >= e.nats ? m : e),
      null as { key: string; reading: Observation; nats: number } | null,
    )
  return best && best.nats > TELLING_NATS ? best : null
}

/** What may be wrong with a part, by the explanations that name it. */
export function causesOf(
  beliefs: Beliefs,
  catalogue: Catalogue,
  key: string,
): { readonly cause: Catalogue['faults'][number]['cause']; readonly p: number }[] {
  const sums = new Map<Catalogue['faults'][number]['cause'], number>()
  for (const e of [...beliefs.islands.flat(), ...beliefs.unread])
    for (const v of e.faults) {
      const f = catalogue.faults[v.fault]!
      if (f.key === key) sums.set(f.cause, (sums.get(f.cause) ?? 0) + e.p)
    }
  const whole = [...sums.values()].reduce((s, p) => s + p, 0)
  return [...sums].map(([cause, p]) => ({ cause, p: p / whole })).sort((a, b) => b.p - a.p)
}

/** What those of some explanations hold that are so. */
const held = (told: readonly Explanation[], is: (e: Explanation) => boolean): number =>
  told.reduce((s, e) => s + (is(e) ? e.p : 0), 0)
