import type { Beliefs, Explanation, Observation } from './beliefs'
import type { Posterior } from './inference'
import type { Catalogue } from './variants'

/**
 * The reading that speaks most for the likeliest part against the likeliest explanation without it; null where none
 * does.
 */
export function strongestEvidence(
  posterior: Posterior,
  beliefs: Beliefs,
  catalogue: Catalogue,
): { readonly key: string; readonly reading: Observation; readonly nats: number } | null {
  const key = [...beliefs.parts].reduce((m, e) => (e[1] > m[1] ? e : m), ['', 0] as readonly [string, number])[0]
  const has = (e: Explanation) => e.faults.some((v) => catalogue.faults[v.fault]!.key === key)
  const told = [...beliefs.islands].sort((a, b) => held(b, has) - held(a, has))[0] ?? []
  const [with_, without] = [told.find(has), told.find((e) => !has(e))]
  if (!with_ || !without) return null
  const best = posterior
    .eachFor(with_.faults, without.faults)
    .reduce((m, e) => (e.nats > m.nats ? e : m), { reading: null as Observation | null, nats: 0.5 })
  return best.reading && { key, reading: best.reading, nats: best.nats }
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
