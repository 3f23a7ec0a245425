import { done, FIND_KINDS, isEnd, rise, SPREADS_m, type FindKind, type Supposed } from './finds'
import { dot, fitPath, LOG_BIAS, type PathFit, type PathLog } from './path-fit'
import { logShown, spanOf, WAND_NOISE_ratio, type Span90, type WandReading } from './reading'

/** Something that was met along a path: where, what it is, and how sure that it is anything. */
export interface Find {
  readonly along_m: Span90
  readonly kind: FindKind
  readonly p: number
}

/**
 * How seldom each is met, as a logarithm for one metre, with what a place and a size that are not known beforehand
 * cost: so that among hundreds of readings of a sound wire hardly one is taken for a find.
 */
const SELDOM: Readonly<Record<FindKind, number>> = { local: -7.2, step: -8.2, end: -6, spread_end: -8.5 }
/** Finds are farther apart than this. */
const APART_m = 2
/** Places that are looked at, and then more closely. */
const [STEP_m, FINE_m, AROUND_m] = [0.1, 0.025, 0.5]
/** Candidates that are fitted in full. */
const MOST_CLOSE = 4
const MOST_FINDS = 40
/** Fewer readings are no walk. */
const FEWEST = 8

const worthOf = (path: PathLog, finds: readonly Supposed[]) =>
  fitPath(path, finds).logLikelihood + finds.reduce((sum, f) => sum + SELDOM[f.kind], 0)

/**
 * What was met along a path, from readings of a wand above it: the fading signal is fitted, the find that tells most is
 * put in, and all are moved, exchanged and taken out until nothing is gained. Gains are divided out.
 */
export function findsAlong(readings: readonly WandReading[]): Find[] {
  const sorted = [...readings].sort((a, b) => a.along_m - b.along_m)
  const log = logShown(sorted)
  if (readings.length < FEWEST || !log) return []
  const along_m = sorted.map((r) => r.along_m)
  const best = floorsOf(log)
    .map(({ floor, seldom }): Told => {
      const told = settledFloor({ along_m, log, floor }, pursued({ along_m, log, floor }))
      return { ...told, worth: told.worth + seldom }
    })
    .reduce((top, now) => (now.worth > top.worth ? now : top))
  return best.finds
    .flatMap((_, i) => (isClear(best.path, best.finds, i) ? [described(best.path, best.finds, i)] : []))
    .sort((a, b) => a.along_m.mid - b.along_m.mid)
}

interface Told {
  readonly path: PathLog
  readonly finds: readonly Supposed[]
  readonly worth: number
}

/** Readings so near to each other, as logarithms, are of one level. */
const NEAR_FLOOR = 0.25

/** By how much a floor may lie elsewhere than the least readings say. */
const FLOOR_MOVES = [0, -0.05, -0.1, -0.18, 0.05] as const

/** How seldom a walk shows no floor, as a logarithm. */
const NO_FLOOR = -8

/** Floors that may be: what was shown where least was, and far below it. */
function floorsOf(log: readonly number[]): { readonly floor: number; readonly seldom: number }[] {
  const wide = Math.min(8, log.length)
  const means = log.slice(wide - 1).map((_, i) => log.slice(i, i + wide).reduce((a, b) => a + b, 0) / wide)
  let floor = Math.min(...means)
  // The least of many windows lies below what they have in the middle: all that is near it is taken together.
  for (let turn = 0; turn < 4; turn++) {
    const near = log.filter((v) => Math.abs(v - floor) < NEAR_FLOOR)
    if (near.length > 0) floor = near.reduce((a, b) => a + b, 0) / near.length
  }
  // A walk that never comes near the floor is the rarer one: a fading signal and a step explain much.
  return [
    { floor: floor + LOG_BIAS, seldom: 0 },
    { floor: floor - 1.5, seldom: NO_FLOOR },
  ]
}

/** Where the floor lies best with what was found, and what is then still found: a fading signal near it hides it. */
function settledFloor(path: PathLog, found: Supposed[]): Told {
  const floors = FLOOR_MOVES.map((by) => {
    const moved = { ...path, floor: path.floor + by }
    return { moved, worth: worthOf(moved, found) }
  })
  const { moved, worth } = floors.reduce((best, now) => (now.worth > best.worth ? now : best))
  return { path: moved, ...improved(moved, found, worth) }
}

function pursued(path: PathLog): Supposed[] {
  let finds: Supposed[] = []
  let worth = worthOf(path, finds)
  for (let turn = 0; turn < MOST_FINDS; turn++) {
    const fit = fitPath(path, finds)
    const added = candidates(path, fit, finds)
      .map((c) => [...finds, c])
      .map((f) => ({ finds: f, worth: worthOf(path, f) }))
      .sort((a, b) => b.worth - a.worth)[0]
    if (!added || added.worth <= worth) {
      const settled = improved(path, finds, worth)
      if (settled.worth <= worth + 1e-6) return finds
      ;({ finds, worth } = settled)
      continue
    }
    ;({ finds, worth } = improved(path, added.finds, added.worth))
  }
  return finds
}

/** The finds moved a little, exchanged for another kind or taken out, one by one, where that is better. */
function improved(path: PathLog, from: readonly Supposed[], at: number): { finds: Supposed[]; worth: number } {
  let [finds, worth] = [[...from], at]
  for (let i = 0; i < finds.length; i++) {
    const others = finds.filter((_, k) => k !== i)
    const here = finds[i]!
    const ways = [
      others,
      ...[-0.3, -0.2, -0.1, 0.1, 0.2, 0.3].map((by) => [...others, { ...here, at_m: here.at_m + by }]),
      ...FIND_KINDS.filter((kind) => kind !== here.kind && (kind === 'local' || kind === 'step' || !others.some(isEnd)))
        .flatMap((kind) => (kind === 'spread_end' ? SPREADS_m : [0.9]).map((spread_m) => ({ ...here, kind, spread_m })))
        .flatMap((f) => [-0.4, 0, 0.4].map((by) => [...others, { ...f, at_m: f.at_m + by }])),
      ...(here.kind === 'spread_end' ? SPREADS_m.map((spread_m) => [...others, { ...here, spread_m }]) : []),
    ]
    for (const way of ways) {
      const now = worthOf(path, way)
      if (now > worth + 1e-6) [finds, worth] = [way, now]
    }
  }
  return { finds, worth }
}

/** The places where another find would tell most, by what it would take away of what is not told yet. */
function candidates(path: PathLog, fit: PathFit, finds: readonly Supposed[]): Supposed[] {
  const { along_m, log } = path
  const off = fit.live.map((i) => (log[i]! - fit.meant[i]!) / WAND_NOISE_ratio)
  const basis = orthonormal(fit.columns)
  const scored: { readonly find: Supposed; readonly gain: number }[] = []
  const ends = finds.some(isEnd)
  const from = along_m[0]!
  const to = along_m.at(-1)!
  const score = (find: Supposed, gain: number) => scored.push({ find, gain: gain + SELDOM[find.kind] })
  for (let at_m = from + STEP_m; at_m < to; at_m += STEP_m) {
    if (finds.some((f) => Math.abs(f.at_m - at_m) < APART_m)) continue
    const near = { at_m, spread_m: 0.9 }
    const risen = across(
      basis,
      fit.live.map((i) => Math.log(rise(along_m[i]!, at_m)) / WAND_NOISE_ratio),
    )
    score({ ...near, kind: 'local' }, dot(risen, off) - dot(risen, risen) / 2)
    const stepped = across(
      basis,
      fit.live.map((i) => done(along_m[i]!, at_m)),
    )
    const [with_, itself] = [dot(stepped, off), dot(stepped, stepped)]
    // Only down, and by as much as a T takes.
    if (itself > 1e-6) {
      const by = Math.min(-0.15, Math.max(-1, (with_ / itself) * WAND_NOISE_ratio)) / WAND_NOISE_ratio
      score({ ...near, kind: 'step' }, by * with_ - (by * by * itself) / 2)
    }
    if (!ends) {
      let gain = 0
      for (let i = 0; i < log.length; i++) {
        if (along_m[i]! < at_m) continue
        const [now, floored] = [log[i]! - fit.meant[i]!, log[i]! - path.floor]
        gain += (now * now - floored * floored) / (2 * WAND_NOISE_ratio * WAND_NOISE_ratio)
      }
      score({ ...near, kind: 'end' }, gain)
      score({ ...near, at_m: at_m - 0.45, kind: 'spread_end' }, gain)
    }
  }
  return FIND_KINDS.flatMap((kind) =>
    scored
      .filter((s) => s.find.kind === kind)
      .sort((a, b) => b.gain - a.gain)
      .slice(0, MOST_CLOSE)
      .filter((s) => s.gain > -6)
      .map((s) => s.find),
  )
}

/** The columns at right angles to each other, of length one. */
function orthonormal(columns: readonly (readonly number[])[]): number[][] {
  const basis: number[][] = []
  for (const column of columns) {
    const rest = across(basis, column)
    const length = Math.sqrt(dot(rest, rest))
    if (length > 1e-9) basis.push(rest.map((v) => v / length))
  }
  return basis
}

/** What of a column is not told by the basis. */
function across(basis: readonly (readonly number[])[], column: readonly number[]): number[] {
  let rest = [...column]
  for (const b of basis) {
    const part = dot(rest, b)
    rest = rest.map((v, i) => v - part * b[i]!)
  }
  return rest
}

/** A signal must be so many floors, as a logarithm, for anything to be told of it. */
const CLEAR_OF_FLOOR = Math.log(1.7)

/** Whether the signal, were the find not there, would stand clear of the floor at its place. */
function isClear(path: PathLog, finds: readonly Supposed[], at: number): boolean {
  const { meant } = fitPath(
    path,
    finds.filter((_, i) => i !== at),
  )
  const before = path.along_m.findLastIndex((s) => s <= finds[at]!.at_m)
  const { floor } = path
  // What takes the signal away tells of itself by what stood before it.
  const level = Math.max(meant[before] ?? floor, path.log[Math.max(0, before - 4)] ?? floor)
  return level - floor > CLEAR_OF_FLOOR
}

/** A find with its interval, the others as they are: every place nearby is weighed, and what it would be without. */
function described(path: PathLog, finds: readonly Supposed[], at: number): Find {
  const here = finds[at]!
  const others = finds.filter((_, i) => i !== at)
  const places: { at: number; log: number }[] = []
  for (let by = -AROUND_m; by <= AROUND_m; by += FINE_m) {
    const at_m = here.at_m + by
    const spreads = here.kind === 'spread_end' ? SPREADS_m : [here.spread_m]
    for (const spread_m of spreads)
      places.push({ at: at_m, log: fitPath(path, [...others, { ...here, at_m, spread_m }]).logLikelihood })
  }
  const best = Math.max(...places.map((p) => p.log))
  const without = fitPath(path, others).logLikelihood
  return {
    along_m: spanOf(places.map((p) => ({ at: p.at, weight: Math.exp(p.log - best) }))),
    kind: here.kind,
    p: 1 / (1 + Math.exp(without - best - SELDOM[here.kind])),
  }
}
