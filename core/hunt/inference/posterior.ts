import type { Beliefs, Observation } from '../beliefs'
import type { HuntContext } from '../context'
import type { Predictor } from '../memoize'
import type { Catalogue, Faults } from '../catalogue'
import type { CoilPriors } from '../weigh'
import { countWeights } from './count'
import { distinctByPart } from './distinct'
import { explanationsOf, unreadOf } from './explanations'
import { modelOf, showsOf, type Model, type ShowsBy } from './classes'
import { ONE_MORE } from './group'
import { Ground } from './ground'
import { islandsOf, type Case, type Island } from './island'
import { addTo, constant, dot, orOneMore, othersOf, times, withoutOne, zero, type Polynomial } from './polynomial'
import { Roughly } from './roughly'
import { sceneOf, type Scene } from './scene'
import { threadsWith } from './scope'
import { GroupStock } from './stock'
import { fitUnder, logOf } from './units'

/** An island's explanations that are likely beside the first, so many at most. */
const [LIKELY, MOST_LIKELY] = [0.05, 6]

/**
 * The belief in every fault after some readings, for any number of faults: given the faults that several threads
 * share, each thread's own are summed up by themselves, by their number; sets of shared ones are looked at from the
 * likeliest on.
 */
export class Posterior {
  private readonly taken: Observation[] = []
  private readonly shows: ShowsBy
  private readonly roughly: Roughly
  private readonly stock = new GroupStock()
  readonly threads: Model['threads']
  private supply_V: number | null = null

  constructor(
    private readonly context: HuntContext,
    readonly catalogue: Catalogue,
    readonly predictor: Predictor,
    readonly coils: CoilPriors,
    private readonly nominal_V: number,
    private readonly count: readonly number[],
  ) {
    this.shows = showsOf({ catalogue, predictor, coils })
    this.threads = threadsWith(context, catalogue.faults)
    this.roughly = new Roughly(context, this)
  }

  /** Adds a reading; one whose test says nothing here is left out. */
  add(reading: Observation): void {
    if (this.predictor.base(reading.test) === null) return
    if (reading.test.kind === 'supply' && reading.value.kind === 'volt') this.supply_V = reading.value.volt
    this.taken.push(reading)
  }

  beliefs(): Beliefs {
    const model = this.model()
    const scene = sceneOf(this.context, model, this.stock, this.taken)
    const weights = weightsOf(model, this.count)
    const ground = new Ground(scene, oneMoreOf(weights), this.stock)
    const held = believedIn(scene, islandsOf(ground, weights), weights)
    const straight = Math.exp(scene.groups.reduce((s, g) => s + unslippedIn(model, g.readings), 0))
    return {
      ...held,
      nothing: held.nothing * straight,
      misread: held.nothing * (1 - straight),
      ...this.strainOf(model, held.islands),
    }
  }

  /** The log-likelihood of each reading by itself under each of some explanations, nats. */
  eachUnder(explanations: readonly Faults[]): { readonly reading: Observation; readonly logs: readonly number[] }[] {
    const model = this.model()
    return this.taken.map((reading) => ({
      reading,
      logs: explanations.map((faults) => logOf(model, [reading], faults)),
    }))
  }

  /** How far the worst reading lies off under the likeliest explanation, or one of an island's that is likely too. */
  private strainOf(model: Model, islands: Beliefs['islands']): Pick<Beliefs, 'strain' | 'worst'> {
    const first = islands.map((told) => told[0]?.faults ?? [])
    const others = islands.flatMap((told, k) =>
      told
        .slice(1, MOST_LIKELY)
        .flatMap((e) => (e.p < LIKELY ? [] : [first.flatMap((f, i) => (i === k ? e.faults : f))])),
    )
    const missed = (reading: Observation, faults: Faults) => {
      const { log, best } = fitUnder(model, [reading], faults)
      return log - best
    }
    return this.taken.reduce<Pick<Beliefs, 'strain' | 'worst'>>(
      (so, reading) => {
        const now = missed(reading, first.flat())
        if (now >= so.strain) return so
        const strain = others.reduce((most, faults) => Math.max(most, missed(reading, faults)), now)
        return strain < so.strain ? { strain, worst: reading } : so
      },
      { strain: 0, worst: null },
    )
  }

  private model(): Model {
    const supply_V = { read: this.supply_V, nominal: this.nominal_V }
    const standing = this.roughly.standing(this.taken, supply_V)
    return modelOf(this, supply_V, (test) => this.shows(test, standing), this.threads)
  }
}

/** How likely it is that none of some readings slipped, if nothing is wrong, nats. */
function unslippedIn(model: Model, readings: readonly Observation[]): number {
  const { log, straight } = fitUnder(model, readings, [])
  return Math.min(0, straight - log)
}

function weightsOf({ catalogue, odds, partOf, keyOf }: Model, count: readonly number[]): Polynomial {
  const partOdds = new Float64Array(keyOf.length)
  catalogue.variants.forEach((v) => {
    partOdds[partOf[v.fault]!]! += odds[v.index]!
  })
  return countWeights(count, partOdds)
}

/** What a second fault is worth beside its odds, where two may be. */
const oneMoreOf = (weights: Polynomial): number =>
  weights[1]! > 0 && weights[2]! > 0 ? weights[2]! / weights[1]! : ONE_MORE

/** Sums over all islands: each of them is independent of the others but for the number of all faults. */
function believedIn(
  { model, unfelt, hidden }: Scene,
  islands: readonly Island[],
  weights: Polynomial,
): Omit<Beliefs, 'misread' | 'strain' | 'worst'> {
  const tops = islands.map(({ cases }) => Math.max(...cases.map((c) => c.top)))
  const held = islands.map(({ cases }, i) => {
    const sum = zero()
    for (const c of cases) addTo(sum, c.sum, Math.exp(c.top - tops[i]!))
    return sum
  })
  const beside = [...unfelt.values()].reduce(orOneMore, constant(1))
  const { others, all } = othersOf([...held, beside])
  const total = dot(weights, all)
  /** By key: how likely it is that none of its parts is at fault; islands know nothing of each other. */
  const sound = new Float64Array(model.catalogue.keys.length).fill(1)
  islands.forEach((island, i) => {
    const sums = new Float64Array(sound.length)
    for (const c of island.cases)
      addParts(sums, model, c, (p) => (Math.exp(c.top - tops[i]!) * dot(weights, times(p, others[i]!))) / total)
    sums.forEach((p, key) => (sound[key]! *= 1 - Math.min(1, p)))
  })
  for (const [part, o] of unfelt) {
    const p = zero()
    addTo(p, times(others.at(-1)!, withoutOne(beside, o)), o, 1)
    sound[model.keyOf[part]!]! *= 1 - Math.min(1, dot(weights, p) / total)
  }
  const parts = new Map<string, number>()
  model.catalogue.keys.forEach((key, n) => {
    if (1 - sound[n]! > 1e-6) parts.set(key, 1 - sound[n]!)
  })
  return {
    parts,
    nothing: (weights[0]! * all[0]!) / total,
    islands: islands.map((island, i) =>
      explanationsOf(island, model, tops[i]!, worthBeside(others[i]!, weights, total)),
    ),
    unread: unreadOf(hidden, worthBeside(all, weights, total)[1]!),
  }
}

/** Adds to each key's sum what the sets of a case hold in which it is at fault; `worth`: of a polynomial of sets. */
function addParts(sums: Float64Array, { keyOf }: Model, c: Case, worth: (sets: Polynomial) => number): void {
  const { all, others } = othersOf(c.factors.map((f) => f.sum))
  const shift = c.set.length
  const held = (p: Polynomial, beside: Polynomial, more = 0): number => {
    const shifted = zero()
    addTo(shifted, times(p, beside), 1, shift + more)
    return worth(shifted)
  }
  const whole = held(all, c.beside.sum)
  /** By key: how likely it is that none of its parts is at fault where these sets are. */
  const sound = new Map<number, number>()
  const add = (byKey: ReadonlyMap<number, number>) => {
    for (const [key, p] of byKey) sound.set(key, (sound.get(key) ?? 1) * (1 - Math.min(1, p / whole)))
  }
  const byKey = <T>(parts: Iterable<readonly [number, T]>, worthOf: (of: T) => number) => {
    const found = new Map<number, number>()
    for (const [part, of] of parts) found.set(keyOf[part]!, (found.get(keyOf[part]!) ?? 0) + worthOf(of))
    return found
  }
  if (!(whole > 0)) return
  c.factors.forEach((f, k) => add(byKey(f.byPart, (p) => held(times(p, others[k]!), c.beside.sum))))
  const set = [...distinctByPart(c.set)]
  const odds = set.reduce((s, [, o]) => s + o, 0)
  if (odds > 0) add(byKey(set, (o) => (whole * shift * o) / odds))
  add(byKey(c.beside.parts, (o) => o * held(all, withoutOne(c.beside.sum, o), 1)))
  for (const [key, p] of sound) sums[key]! += whole * (1 - p)
}

/** What a set of k of an island's faults is worth beside its own product, all that the others hold added up. */
function worthBeside(others: Polynomial, weights: Polynomial, total: number): Polynomial {
  const worth = zero()
  for (let k = 0; k < worth.length; k++)
    for (let n = 0; n + k < worth.length; n++) worth[k]! += (weights[n + k]! * others[n]!) / total
  return worth
}
