import { partKey } from '../../record'
import type { HuntContext } from '../context'
import {
  CAUSES,
  circumstanceFactor,
  FAMILIES,
  QUIET,
  USUAL_ODDS,
  type Cause,
  type Circumstances,
  type Family,
  type OddsBasis,
} from '../odds'
import { placesOf } from '../where'
import { cabinetFaults } from './cabinet'
import { coilFaults } from './coils'
import type { Catalogue, Fault, FaultHypothesis } from './fault'
import { withState } from './in-state'
import { jointFaults } from './joints'
import { UNSEEN_LEAKS, type LeakSizes } from './leaks'
import { misjoinedFaults } from './misjoined'
import { runFaults } from './runs'
import { touchFaults } from './touches'
import { unlistedFaults } from './unlisted'

/** What a catalogue goes by besides the wiring; what is left out is as usual. */
export interface CatalogueOptions {
  readonly odds?: OddsBasis
  readonly circumstances?: Circumstances
  /** The day by which joints and coils have their age. */
  readonly today?: string | null
  readonly leaks?: LeakSizes
  /** Something is said to fail in some states only. */
  readonly inStates?: boolean
}

/**
 * Every single fault of a controller's wiring and hydraulics, with its odds. Parts that hang on nothing have none:
 * they cannot show.
 */
export function catalogueOf(context: HuntContext, options: CatalogueOptions = {}): Catalogue {
  const { odds: basis = USUAL_ODDS, circumstances = QUIET, today = null, leaks = UNSEEN_LEAKS } = options
  const always = [
    ...runFaults(context, basis, leaks),
    ...touchFaults(context, basis),
    ...jointFaults(context, basis, leaks, today),
    ...coilFaults(context, basis, today),
    ...misjoinedFaults(context),
    ...cabinetFaults(context),
    ...unlistedFaults(context),
  ]
  const listed = (options.inStates ? withState(always) : always).map((e) => ({
    ...e,
    times: circumstanceFactor(basis, circumstances, e.family, e.cause, placesOf(context.site, e.where)),
  }))
  const whole = new Map<string, number>()
  for (const e of listed) {
    const k = `${e.family} ${e.cause}`
    whole.set(k, (whole.get(k) ?? 0) + e.weight)
  }
  // What a property does not have leaves its odds to the rest of its family.
  const familyCauses = (f: Family) =>
    CAUSES.filter((c) => (whole.get(`${f} ${c}`) ?? 0) > 0).map((c) => [c, causeWeight(basis, f, c)] as const)
  const causeShare = new Map<string, number>(
    FAMILIES.flatMap((f) => {
      const list = familyCauses(f)
      const sum = list.reduce((s, [, w]) => s + w, 0)
      return list.map(([c, w]) => [`${f} ${c}`, sum > 0 ? w / sum : 0] as const)
    }),
  )
  const present = FAMILIES.filter((f) => familyCauses(f).length > 0)
  const familySum = present.reduce((s, f) => s + basis.families[f], 0)
  const variants: FaultHypothesis[] = []
  const faults = listed.map((e, index): Fault => {
    const k = `${e.family} ${e.cause}`
    const shares = e.cells.reduce((s, c) => s + (c.share ?? 1), 0)
    const own = e.cells.map((c, i): FaultHypothesis => ({
      index: variants.length + i,
      fault: index,
      mods: c.mods,
      shifted: c.shifted ?? [],
      share: (c.share ?? 1) / shares,
      ohm: c.ohm ?? null,
      sd_ohm: c.sd_ohm ?? c.leak?.sd_ohm ?? null,
      along: c.along ?? null,
      leak: c.leak ?? null,
    }))
    variants.push(...own)
    return {
      index,
      where: e.where,
      key: partKey(e.where),
      cause: e.cause,
      family: e.family,
      variants: own,
      besides: e.besides ?? [],
      links: (e.besides ?? []).length > 0,
      at: e.at ?? null,
      elements: e.elements,
      withState: e.withState ?? false,
      prior: (basis.families[e.family] / familySum) * causeShare.get(k)! * (e.weight / whole.get(k)!) * e.times,
    }
  })
  // What befell the property raises its kind of trouble against the others, and all still add up to one.
  const sum = faults.reduce((s, f) => s + f.prior, 0)
  return {
    faults: faults.map((f) => ({ ...f, prior: f.prior / sum })),
    variants,
    keys: [...new Set(faults.map((f) => f.key))],
  }
}

const causeWeight = (basis: OddsBasis, family: Family, cause: Cause): number =>
  (basis.causes[family] as Partial<Record<Cause, number>>)[cause] ?? 0
