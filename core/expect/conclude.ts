import type { Fault } from '../circuit'
import type { Meter, OhmsTest, OhmsValue } from '../record'
import { commonOf, type PlaceId, type TerminalId } from '../site'
import { classesOf, type ElementClass } from './element-classes'
import { predict, type Expectation } from './predict'
import { nodeAt, sceneWith, type Scene } from './scene'
import type { FaultSide, Suspect } from './suspect'
import { corrected_ohm, secondCoil, shortOn, within, type Baseline } from './verdict'

/** One reading of a sweep, by its place in the list given, with what its thread read before where that is known. */
export interface SweepReading {
  readonly test: OhmsTest
  readonly value: OhmsValue
  readonly meter: Meter
  readonly baseline?: Baseline | null
}

/**
 * One explanation of some of the readings. `explains` are places in the list of observations; `doubtful` where the
 * record alone would pass each of them, and only what was read before says otherwise.
 */
export type Conclusion = Diagnosis & {
  readonly doubtful: boolean
  /** Explanations of another kind that fit the same readings as well, at most one a kind. */
  readonly or: readonly Diagnosis[]
}

/**
 * One way to explain some readings. Its suspects are all the places at which such a fault would explain them equally
 * well.
 */
export type Diagnosis = { readonly explains: readonly number[] } & (
  | {
      readonly kind: 'open' | 'resistive'
      readonly where: FaultSide
      readonly suspects: readonly Suspect[]
      readonly excess_ohm: number | null
    }
  | { readonly kind: 'coil_part'; readonly suspects: readonly Suspect[]; readonly fraction: number }
  | { readonly kind: 'second_coil' }
  /** Lead and common touch, `distance_m` out at the most; at the coil when all of the wire is in the reading. */
  | {
      readonly kind: 'short'
      readonly distance_m: number
      readonly atCoil: boolean
      readonly between: readonly [PlaceId, PlaceId]
    }
  | { readonly kind: 'leads_joined'; readonly terminals: readonly [TerminalId, TerminalId] }
  | { readonly kind: 'lead_moved'; readonly terminals: readonly [TerminalId, TerminalId] }
  /** `sure` where the likelihood of the exchange is ten times that of the record; else running both has to tell. */
  | { readonly kind: 'swapped'; readonly terminals: readonly [TerminalId, TerminalId]; readonly sure: boolean }
  /** No single fault at a place on record gives this reading. */
  | { readonly kind: 'unexplained' }
)

/** The readings of a sweep taken together. */
export interface JointConclusion {
  readonly conclusions: readonly Conclusion[]
  /** More than one fault is needed, or the record is wrong somewhere: the open readings fit no single break. */
  readonly severalOrWrong: boolean
}

/** A fault that might be, and what every reading would then be. `null` leaves a reading as it was. */
interface Candidate {
  readonly conclusion: (explains: number[]) => Diagnosis
  readonly faults: readonly Fault[]
  /** The most readings it can explain: those it moves at all. */
  readonly moves: ReadonlySet<number>
  /** Readings it answers by itself, not through the network: of leads that lie on other terminals than recorded. */
  readonly instead?: ReadonlyMap<number, Expectation>
  /** It says something of all it moves together, and nothing where it explains only some of them. */
  readonly whole?: boolean
}

/**
 * Explains the readings that the record does not, by what each candidate fault would make every reading be. A candidate
 * counts where it moves misfits into their band and takes no reading that fits out of it; the one that explains most is
 * taken, its equals become its suspects, and the rest is explained with it in place. Nothing is assumed of the wiring:
 * trees, meshes and parallel cores go the same way.
 */
export function conclude(scene: Scene, observations: readonly SweepReading[]): JointConclusion {
  const conclusions: Conclusion[] = []
  const settled = new Map<number, Expectation>()
  // A reading once explained stays so: a later fault may move it a little, and each round must leave fewer to explain.
  const explained = new Set<number>()
  const recorded = observations.map((o) => predict(scene, o.test, o.meter))
  const doubtful = (explains: readonly number[]) => explains.every((i) => agrees(recorded[i]!, observations[i]!))
  const foresee: Foresee = (then, i) =>
    besideBefore(scene, recorded[i]!, predict(then, observations[i]!.test, observations[i]!.meter), observations[i]!)
  let now = scene
  for (;;) {
    const expected = observations.map((_, i) => settled.get(i) ?? foresee(now, i))
    const misfits = new Set(
      observations.flatMap((o, i) =>
        explained.has(i) || agrees(expected[i]!, o) || !judgeable(expected[i]!) ? [] : [i],
      ),
    )
    if (misfits.size === 0) break
    const best = bestOf(now, observations, expected, misfits, foresee)
    if (!best) {
      conclusions.push({ kind: 'unexplained', explains: [...misfits], doubtful: doubtful([...misfits]), or: [] })
      break
    }
    const [first] = best
    conclusions.push({ ...together(best), doubtful: doubtful(first.explains) })
    for (const i of first.explains) explained.add(i)
    for (const [i, e] of first.candidate.instead ?? []) settled.set(i, e)
    now = sceneWith(now, first.candidate.faults)
  }
  const opens = conclusions.filter(
    (c) =>
      (c.kind === 'open' || c.kind === 'unexplained') && c.explains.some((i) => observations[i]!.value.kind === 'open'),
  )
  return { conclusions, severalOrWrong: opens.length > 1 || (opens.length === 1 && opens[0]!.kind === 'unexplained') }
}

/** What a reading should be with the faults of a scene in place. */
type Foresee = (then: Scene, observation: number) => Expectation

/**
 * An expectation drawn in to what the thread read before. What its coil was off the record it stays off, less where a
 * fault leaves less of it in the reading; how far a fault moves the reading is known as well as a coil is.
 */
function besideBefore(scene: Scene, recorded: Expectation, e: Expectation, { baseline }: SweepReading): Expectation {
  if (!baseline || e.kind !== 'ohms' || recorded.kind !== 'ohms') return e
  const off = (baseline.corrected_ohm - recorded.expected_ohm) * Math.min(1, e.expected_ohm / recorded.expected_ohm)
  const own = (e.high_ohm - e.low_ohm) / 2
  const apart = Math.min(
    own,
    Math.hypot(
      (baseline.high_ohm - baseline.low_ohm) / 2,
      scene.site.settings.coilTolerance_ratio * (e.expected_ohm - recorded.expected_ohm),
    ),
  )
  const expected_ohm = e.expected_ohm + off
  return { ...e, expected_ohm, low_ohm: Math.max(0, expected_ohm - apart), high_ohm: expected_ohm + apart }
}

const judgeable = (e: Expectation) => e.kind === 'ohms' || e.kind === 'bounds'

/** Whether a reading is what is expected: in the band, or open where no current can pass. */
function agrees(e: Expectation, { value, meter }: SweepReading): boolean {
  if (value.kind === 'open')
    return e.kind === 'open' || ((e.kind === 'ohms' || e.kind === 'bounds') && e.low_ohm > meter.highest_ohm)
  return within(e, corrected_ohm(value.ohm, meter))
}

interface Tried {
  readonly candidate: Candidate
  readonly explains: number[]
  readonly against: number
}

/**
 * Tries candidates, those that move the most misfits first, and stops where none left can do as well. All that do
 * best, in their order.
 */
function bestOf(
  scene: Scene,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
  foresee: Foresee,
): readonly [Tried, ...Tried[]] | null {
  let best: [Tried, ...Tried[]] | null = null
  const reach = (c: Candidate) => [...c.moves].filter((i) => misfits.has(i)).length
  const candidates = candidatesFor(scene, observations, expected, misfits).sort((a, b) => reach(b) - reach(a))
  for (const candidate of candidates) {
    if (best && reach(candidate) < best[0].explains.length) break
    const found = explainedBy(scene, observations, expected, misfits, candidate, foresee)
    const better: number = found
      ? best
        ? found.explains.length - best[0].explains.length || best[0].against - found.against
        : 1
      : -1
    if (better > 0) best = [found!]
    else if (better === 0) best!.push(found!)
  }
  return best
}

/**
 * Equals as one conclusion: of the first one's kind all the places, of the others one each. A whole jacket stands for
 * itself.
 */
function together(ties: readonly [Tried, ...Tried[]]): Diagnosis & { or: Diagnosis[] } {
  const same = ties
    .filter((t) => t.explains.join() === ties[0].explains.join())
    .map((t) => t.candidate.conclusion(t.explains))
  const first = same[0]!
  const others = new Map(
    same
      .filter((e) => e.kind !== first.kind)
      .reverse()
      .map((e) => [e.kind, e]),
  )
  if (first.kind !== 'open' && first.kind !== 'resistive') return { ...first, or: [...others.values()].reverse() }
  const alike = same.filter((e) => e.kind === first.kind && e.where !== 'several') as (typeof first)[]
  const merged = first.where === 'several' ? [first] : alike
  const suspects = new Map(merged.flatMap((e) => e.suspects).map((s) => [JSON.stringify(s), s]))
  const where = merged.every((e) => e.where === 'common') ? 'common' : first.where === 'several' ? 'several' : 'thread'
  return { ...first, where, suspects: [...suspects.values()], or: [...others.values()].reverse() }
}

/**
 * The misfits that a candidate explains, and how many others it speaks against; null where it would take a reading
 * that fits out of its band.
 */
function explainedBy(
  scene: Scene,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
  candidate: Candidate,
  foresee: Foresee,
): Tried | null {
  const after = candidate.faults.length > 0 ? sceneWith(scene, candidate.faults) : scene
  const explains: number[] = []
  let against = 0
  for (const i of candidate.moves) {
    if (!judgeable(expected[i]!)) continue
    const o = observations[i]!
    const then = candidate.instead?.get(i) ?? foresee(after, i)
    const agreed = agrees(then, o)
    if (misfits.has(i) && agreed) explains.push(i)
    else if (!agreed && agrees(expected[i]!, o)) return null
    else if (!agreed && then.kind === 'open') against++ // a reading of ohms where it says that nothing can pass
  }
  return explains.length > 0 && !(candidate.whole && explains.length < candidate.moves.size)
    ? { candidate, explains, against }
    : null
}

function candidatesFor(
  scene: Scene,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
): Candidate[] {
  const classes = classesOf(
    scene,
    observations.map((o) => o.test),
    misfits,
  )
  return [
    ...classes.map(openAt),
    ...classes.filter(isSeries).flatMap((c) => resistiveAt(scene, c, observations, expected, misfits)),
    ...pairCandidates(scene, observations, expected, misfits),
    ...lowCandidates(scene, observations, expected, misfits),
    ...classes.filter(isSeries).flatMap((c) => coilPartAt(scene, c, observations, expected, misfits)),
  ]
}

/** Parts in series, which one resistance can stand in; not the cores of a whole jacket. */
const isSeries = (c: ElementClass) => c.openTogether.length === 1

function openAt(c: ElementClass): Candidate {
  return {
    faults: [{ kind: 'open', elements: c.openTogether }],
    moves: new Set(c.share.keys()),
    conclusion: (explains) => ({ kind: 'open', explains, where: c.where, suspects: c.suspects, excess_ohm: null }),
  }
}

const solved_ohm = (scene: Scene, test: OhmsTest): number =>
  scene.solver.resistance_ohm(nodeAt(scene, test.from)!, nodeAt(scene, test.to)!)

/** A share of the current this near to all of it has no other way round that counts. */
const WHOLE_SHARE = 0.999

/**
 * The ohms that a class would have to gain or lose. One element's ohms x come into a reading as R₀ + s²x / (1 + s²x /
 * (R∞ − R₀)), s its share of the current and R∞ the reading with it open (the form is bilinear in x, its slope at 0
 * is s²); solved for x in each misfit, and averaged with the weight s⁴ of least squares.
 */
function fitted_ohm(
  scene: Scene,
  c: ElementClass,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
  sign: 1 | -1,
): number | null {
  let [top, bottom] = [0, 0]
  let opened: Scene | null = null
  for (const [i, share] of c.share) {
    const [e, o] = [expected[i]!, observations[i]!]
    if (!misfits.has(i) || e.kind !== 'ohms' || o.value.kind !== 'ohm') continue
    const off = corrected_ohm(o.value.ohm, o.meter) - e.expected_ohm
    if (Math.sign(off) !== sign) continue
    if (share < WHOLE_SHARE) opened ??= sceneWith(scene, [{ kind: 'open', elements: c.openTogether }])
    const room = opened && share < WHOLE_SHARE ? 1 - off / (solved_ohm(opened, o.test) - solved_ohm(scene, o.test)) : 1
    if (room <= 0) return null // more than even an open one would make
    top += (share ** 2 * off) / room
    bottom += share ** 4
  }
  return bottom > 0 ? top / bottom : null
}

function resistiveAt(
  scene: Scene,
  c: ElementClass,
  ...given: [readonly SweepReading[], readonly Expectation[], ReadonlySet<number>]
): Candidate[] {
  const ohm = fitted_ohm(scene, c, ...given, 1)
  const suspects = c.suspects.filter((s) => s.kind !== 'coil') // a coil's own turns do not rise
  if (ohm === null || suspects.length === 0) return []
  return [
    {
      faults: [{ kind: 'series', element: c.representative, ohm }],
      moves: new Set(c.share.keys()),
      conclusion: (explains) => ({ kind: 'resistive', explains, where: c.where, suspects, excess_ohm: ohm }),
    },
  ]
}

function coilPartAt(
  scene: Scene,
  c: ElementClass,
  ...given: [readonly SweepReading[], readonly Expectation[], ReadonlySet<number>]
): Candidate[] {
  const coils = c.suspects.filter((s) => s.kind === 'coil')
  const ohm = fitted_ohm(scene, c, ...given, -1)
  if (ohm === null || coils.length !== 1 || c.coil === null || -ohm > c.coil.ohm * 1.1) return []
  const fraction = Math.min(1, -ohm / c.coil.ohm)
  return [
    {
      faults: [{ kind: 'series', element: c.coil.element, ohm: -fraction * c.coil.ohm }],
      moves: new Set(c.share.keys()),
      conclusion: (explains) => ({ kind: 'coil_part', explains, suspects: coils, fraction }),
    },
  ]
}

/** What may take one reading down by itself: a short on its way, or a second coil side by side with its own. */
function lowCandidates(
  scene: Scene,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
): Candidate[] {
  return [...misfits].flatMap((i) => {
    const [{ test, value, meter }, e] = [observations[i]!, expected[i]!]
    if (value.kind !== 'ohm' || e.kind !== 'ohms') return []
    const ohm = corrected_ohm(value.ohm, meter)
    if (ohm >= e.low_ohm) return []
    const found: Candidate[] = []
    const moves = new Set([i])
    const short = shortOn(scene, test, ohm, meter)
    if (short) {
      const { distance_m, atCoil, at } = short
      found.push({
        faults: [short.fault],
        moves,
        conclusion: (explains) => ({
          kind: 'short',
          explains,
          distance_m,
          atCoil,
          between: [at.fromPlace, at.toPlace],
        }),
      })
    }
    const second = secondCoil(scene, test)
    if (second) found.push({ faults: [second], moves, conclusion: (explains) => ({ kind: 'second_coil', explains }) })
    return found
  })
}

/** Leads of two terminals touching, one lead moved to the other's terminal, or the two exchanged. */
function pairCandidates(
  scene: Scene,
  observations: readonly SweepReading[],
  expected: readonly Expectation[],
  misfits: ReadonlySet<number>,
): Candidate[] {
  const single = [...observations.keys()].filter(
    (i) => isToCommon(scene, observations[i]!.test) && judgeable(expected[i]!),
  )
  const candidates: Candidate[] = []
  for (const i of single)
    for (const j of single) {
      if (i >= j || !misfits.has(i) || !misfits.has(j)) continue
      const [a, b] = [observations[i]!, observations[j]!]
      const terminals = [terminalOf(a.test), terminalOf(b.test)] as const
      const nodes = [nodeAt(scene, a.test.from), nodeAt(scene, b.test.from)]
      const moves = new Set([i, j])
      if (nodes[0] === null || nodes[1] === null) continue
      const bridge: Fault = { kind: 'bridge', a: nodes[0]!, b: nodes[1]!, ohm: 0 }
      if (a.value.kind === 'ohm' && b.value.kind === 'ohm') {
        const sure =
          favour([
            [a, expected[j]!],
            [b, expected[i]!],
          ]) -
            favour([
              [a, expected[i]!],
              [b, expected[j]!],
            ]) >=
          Math.log(SURE_RATIO)
        candidates.push(
          {
            faults: [bridge],
            moves,
            whole: true,
            conclusion: (explains) => ({ kind: 'leads_joined', explains, terminals }),
          },
          {
            faults: [],
            moves,
            whole: true,
            instead: new Map([
              [i, expected[j]!],
              [j, expected[i]!],
            ]),
            conclusion: (explains) => ({ kind: 'swapped', explains, terminals, sure }),
          },
        )
      } else if (a.value.kind !== b.value.kind) {
        const [full, empty] = a.value.kind === 'ohm' ? [i, j] : [j, i]
        const both = predict(sceneWith(scene, [bridge]), observations[full]!.test, a.meter)
        const order = full === i ? terminals : ([terminals[1], terminals[0]] as const)
        candidates.push({
          faults: [],
          moves,
          whole: true,
          instead: new Map<number, Expectation>([
            [full, both],
            [empty, { kind: 'open' }],
          ]),
          conclusion: (explains) => ({ kind: 'lead_moved', explains, terminals: order }),
        })
      }
    }
  return candidates
}

/** A swap is called one only where it is this many times as likely as the record. */
const SURE_RATIO = 10

/** Log likelihood of readings, up to a constant: normal, with the band's edge at two standard errors. */
function favour(pairs: readonly (readonly [SweepReading, Expectation])[]): number {
  return pairs.reduce((total, [o, e]) => {
    if (o.value.kind !== 'ohm' || e.kind !== 'ohms') return total
    const off = corrected_ohm(o.value.ohm, o.meter) - e.expected_ohm
    const sigma = (off < 0 ? e.expected_ohm - e.low_ohm : e.high_ohm - e.expected_ohm) / 2
    return total - (off / sigma) ** 2 / 2 - Math.log(sigma)
  }, 0)
}

/** From a terminal to its controller's common: what one lead alone answers for. */
const isToCommon = ({ site }: Scene, { from, to }: OhmsTest): boolean =>
  from.kind === 'terminal' &&
  to.kind === 'terminal' &&
  from.controller === to.controller &&
  to.terminal === commonOf(site, to.controller)
const terminalOf = (test: OhmsTest): TerminalId => {
  if (test.from.kind !== 'terminal') throw new Error('terminalOf: the test does not start at a terminal')
  return test.from.terminal
}
