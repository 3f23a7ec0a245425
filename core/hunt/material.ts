import { terminalEnd, type End } from '../site'
import { blurAt, type Prediction } from './predict'
import type { HuntContext } from './context'
import { normalBelow } from './normal'
import type { Family } from './odds'
import type { Predictor } from './memoize'
import { middleLike, touchesAlike, type Catalogue, type Fault, type FaultHypothesis } from './catalogue'
import type { CoilPriors } from './weigh'

/**
 * A fault that moves no reading at the cabinet by so many deviations, and stops no valve, is none that anybody hunts.
 */
const MATERIAL = 3
/** Past this a cell is noticed, whatever the other terminals read. */
const SURELY = 0.9999
const GRADED = new Set(['series', 'coil_part', 'coil_kind', 'touch'])

/**
 * The catalogue without what nobody would notice: of every fault with a size, the cells whose reading from C to its
 * terminal lies within three deviations of the sound one lose their odds to the others of its family.
 */
export function materialOnly(
  context: HuntContext,
  catalogue: Catalogue,
  predictor: Predictor,
  coils: CoilPriors,
): Catalogue {
  const tests = context.terminals.map(
    (t) =>
      ({
        kind: 'ohms',
        from: terminalEnd(context.controller, t),
        to: terminalEnd(context.controller, context.common),
      }) as { kind: 'ohms'; from: Extract<End, { kind: 'terminal' }>; to: End },
  )
  const bases = tests.map((t) => predictor.base(t))
  const spread = (s: Extract<Prediction, { kind: 'ohms' }>) =>
    Math.hypot(blurAt(s, s.mean), ...s.coils.map(([d, c]) => c * coils(d).sd))
  const alike = touchesAlike(catalogue)
  const known = new Map<number, number>()
  const noticed = (v: FaultHypothesis): number => {
    const standing = alike.get(v.index) ?? v
    const made = known.get(standing.index) ?? noticedAt(standing)
    known.set(standing.index, made)
    return made
  }
  const noticedAt = (v: FaultHypothesis): number => {
    let most = 0
    tests.forEach((test, i) => {
      const base = bases[i]
      if (most > SURELY || base?.kind !== 'ohms' || !predictor.mayAffect(test, catalogue.faults[v.fault]!)) return
      const seen = predictor.under(test, [v])
      if (seen === null) return
      if (seen.kind !== 'ohms') {
        most = 1
        return
      }
      const [off, sd] = [Math.abs(seen.mean - base.mean), spread(base)]
      most = Math.max(most, normalBelow((off - MATERIAL * sd) / Math.max(Math.hypot(...seen.figures), 0.05 * sd)))
    })
    return most
  }
  const faults = catalogue.faults.map((f) => {
    if (!GRADED.has(f.cause)) return f
    // Where conductors touch moves a reading by its wire alone: the middle position of a size stands for all.
    const bySize = new Map<number | null, number>()
    // The sizes that move a reading least come first: past one that is surely noticed, so are all the others.
    const sizes = [...new Set(f.variants.map((v) => v.ohm))].sort((a, b) => (f.cause === 'series' ? a! - b! : b! - a!))
    for (const ohm of sizes)
      bySize.set(
        ohm,
        f.cause !== 'coil_kind' && sizes.some((o) => (bySize.get(o) ?? 0) > SURELY) ? 1 : noticed(middleLike(f, ohm)),
      )
    const shares = f.variants.map((v) => v.share * bySize.get(v.ohm)!)
    const left = shares.reduce((s, x) => s + x, 0)
    // A fault whose every size hides keeps a trace, so that a reading that shows it all the same has a name.
    const kept = Math.max(left, 1e-4)
    return {
      ...f,
      prior: f.prior * kept,
      variants: f.variants.map((v, i) => ({ ...v, share: left < 1e-4 ? v.share : Math.max(1e-6, shares[i]! / left) })),
    }
  })
  // The odds of a family are those of trouble that is noticed: what hides leaves its share to the rest of it.
  const sumBy = (list: readonly Fault[]) => {
    const sums = new Map<Family, number>()
    for (const f of list) sums.set(f.family, (sums.get(f.family) ?? 0) + f.prior)
    return sums
  }
  const [before, after] = [sumBy(catalogue.faults), sumBy(faults)]
  const evened = faults.map((f) => ({
    ...f,
    prior: (f.prior * before.get(f.family)!) / Math.max(after.get(f.family)!, 1e-12),
  }))
  return { faults: evened, variants: evened.flatMap((f) => f.variants), keys: catalogue.keys }
}
