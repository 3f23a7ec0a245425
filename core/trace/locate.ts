import { apart_m } from '../map'
import type { Point } from '../site'
import { BEARING_deg, PACE_m, PACE_ratio } from './pace'

/** What speaks of where a box is. Distances in metres. */
export interface BoxEvidence {
  /** Where it is drawn. */
  readonly drawn: Point | null
  /** How far other boxes of the property turned up from where they were drawn. */
  readonly strays_m: readonly number[]
  /** Steps from boxes that are known, with a direction clockwise from north where one was kept. */
  readonly paced: readonly { readonly from: Point; readonly distance_m: number; readonly bearing_deg: number | null }[]
  /** Where the tone says that the line lies, in its order. */
  readonly line: readonly { readonly at: Point; readonly within_m: number }[]
  /** What was met along the tone that a box may be: an end that spreads, a local rise, each as likely as it is. */
  readonly met: readonly { readonly at: Point; readonly within_m: number; readonly p: number }[]
  readonly probed: readonly { readonly at: Point; readonly hit: boolean }[]
}

/** Where a box may be: the likeliest spot, the areas that hold it, and where to probe, the best first. */
export interface SearchArea {
  readonly cell_m: number
  /** Spots by how likely they are, with the part of a whole that they and all before them hold. */
  readonly cells: readonly { readonly at: Point; readonly p: number; readonly held: number }[]
  readonly spot: Point
  readonly half_m2: number
  readonly most_m2: number
  readonly probes: readonly { readonly at: Point; readonly p: number }[]
}

/**
 * A box strays so far from its drawing where nothing is known of the property, m, one standard deviation of each axis,
 * and as many boxes as that weighs: our own figure, for drawings made with a tape.
 */
const [STRAY_m, STRAY_WEIGHT] = [1.5, 1.5]
/**
 * How far a box’s middle lies from its wires, and how far a line may turn off in every metre beyond where it was found.
 */
const [BESIDE_m, TURNS_ratio] = [0.15, 0.25]
/**
 * Between two crossings it may turn, and does where a box is: off the straight by a part of the way to the nearer one.
 */
const BOWS_ratio = 0.35
/** Where something is met along the line, the box is within so much. */
const MET_m = 0.3
/** A statement that is wrong altogether happens so often. */
const SLIP = 0.04
/** A rod finds a lid that it comes down on, but for one time in so many. */
const [LID_m, MISSED] = [0.15, 0.05]
const [COARSE, FINE, NEGLIGIBLE] = [61, 121, 14]
const MOST_PROBES = 400
/** Of the chance: what a metre on foot costs against a probe. */
const WALK_ratio = 0.05

const square = (x: number) => x * x
/** A normal likelihood with a part that is a slip, in logarithms; `wide` is how likely anything is then. */
const robust = (off: number, wide: number) => Math.log((1 - SLIP) * Math.exp(-square(off) / 2) + SLIP * wide)

/**
 * The logarithm of how likely a spot is, but for a constant. How far drawings stray is not known beforehand: it
 * is summed out over what other boxes strayed (a normal scatter of unknown width under its conjugate prior, so
 * Student’s t in two dimensions).
 */
function logChance(at: Point, { drawn, strays_m, paced, line, met, probed }: BoxEvidence): number {
  let log = 0
  if (drawn) {
    const a = 1 + STRAY_WEIGHT + strays_m.length
    const b = STRAY_WEIGHT * square(STRAY_m) + strays_m.reduce((sum, s) => sum + square(s) / 2, 0)
    log -= (a + 1) * Math.log(1 + square(apart_m(at, drawn)) / (2 * b))
  }
  for (const { from, distance_m, bearing_deg } of paced) {
    const away_m = apart_m(at, from)
    log += robust((away_m - distance_m) / (PACE_m + PACE_ratio * distance_m), 0.05)
    if (bearing_deg === null) continue
    const bearing = (Math.atan2(at.x_m - from.x_m, at.y_m - from.y_m) * 180) / Math.PI
    const off = ((((bearing - bearing_deg) % 360) + 540) % 360) - 180
    log += robust(off / BEARING_deg, 0.05)
  }
  if (line.length > 1) {
    const near = nearest(at, line)
    const within_m = Math.hypot(near.within_m / 1.645, BESIDE_m) + TURNS_ratio * near.beyond_m
    log += robust(near.off_m / within_m, 0.02) - Math.log(within_m)
  }
  if (met.length > 0) {
    const wide = 1 / (Math.PI * square(6))
    const sum = met.reduce((all, m) => {
      const s_m = Math.hypot(m.within_m / 1.645, MET_m)
      return all + (m.p / met.length) * (Math.exp(-square(apart_m(at, m.at) / s_m) / 2) / (2 * Math.PI * square(s_m)))
    }, 0)
    const rest = 1 - met.reduce((all, m) => all + m.p / met.length, 0)
    log += Math.log(sum + Math.max(rest, SLIP) * wide)
  }
  for (const probe of probed) {
    const isOn = apart_m(at, probe.at) <= LID_m
    if (probe.hit) log -= square(apart_m(at, probe.at) / LID_m) / 2
    else if (isOn) log += Math.log(MISSED)
  }
  return log
}

/** How far a spot lies from a line, how well the line is known there, and how far beyond what was found of it. */
function nearest(at: Point, line: BoxEvidence['line']): { off_m: number; within_m: number; beyond_m: number } {
  let best = { off_m: Infinity, within_m: 0, beyond_m: 0 }
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!]
    const long_m = apart_m(a.at, b.at)
    if (long_m === 0) continue
    const [x, y] = [(b.at.x_m - a.at.x_m) / long_m, (b.at.y_m - a.at.y_m) / long_m]
    const along_m = (at.x_m - a.at.x_m) * x + (at.y_m - a.at.y_m) * y
    const isFirst = i === 1 && along_m < 0
    const isLast = i === line.length - 1 && along_m > long_m
    const on_m = isFirst || isLast ? along_m : Math.min(long_m, Math.max(0, along_m))
    const off_m = Math.hypot(at.x_m - a.at.x_m - x * on_m, at.y_m - a.at.y_m - y * on_m)
    // Between two places where it was found the line is known less well than at them.
    const between_m = BOWS_ratio * Math.max(0, Math.min(on_m, long_m - on_m))
    const beyond_m = isFirst ? -along_m : isLast ? along_m - long_m : 0
    if (off_m < best.off_m) best = { off_m, within_m: Math.max(a.within_m, b.within_m) + between_m, beyond_m }
  }
  return best
}

interface Window {
  readonly x: readonly [number, number]
  readonly y: readonly [number, number]
}

/** Everywhere that the evidence speaks of, with room about it. */
function firstWindow({ drawn, strays_m, paced, line, met, probed }: BoxEvidence): Window | null {
  const stray_m = Math.max(STRAY_m, ...strays_m) * 5
  const spots = [
    ...(drawn ? [{ at: drawn, room_m: stray_m }] : []),
    ...met.map(({ at }) => ({ at, room_m: 3 })),
    ...probed.filter((p) => p.hit).map(({ at }) => ({ at, room_m: 1 })),
    ...(drawn
      ? []
      : [
          ...paced.map((p) => ({ at: p.from, room_m: p.distance_m * 1.2 })),
          ...line.map(({ at }) => ({ at, room_m: 5 })),
        ]),
  ]
  if (spots.length === 0) return null
  return {
    x: [Math.min(...spots.map((s) => s.at.x_m - s.room_m)), Math.max(...spots.map((s) => s.at.x_m + s.room_m))],
    y: [Math.min(...spots.map((s) => s.at.y_m - s.room_m)), Math.max(...spots.map((s) => s.at.y_m + s.room_m))],
  }
}

/**
 * All that speaks of a lost box as one area: every spot is weighed by the drawing with what drawings of this
 * property are out by, by steps, by the tone’s line and what was met along it, and by the probes so far. Null
 * where nothing speaks.
 */
export function searchArea(evidence: BoxEvidence): SearchArea | null {
  const first = firstWindow(evidence)
  if (!first) return null
  let window: Window = first
  for (const _ of [0, 1]) window = narrowed(weighed(evidence, window, COARSE))
  const grid = weighed(evidence, window, FINE)
  const best = Math.max(...grid.cells.map((c) => c.log))
  const weights = grid.cells.map(({ at, log }) => ({ at, weight: Math.exp(log - best) }))
  const whole = weights.reduce((sum, c) => sum + c.weight, 0)
  let held = 0
  const cells = weights
    .sort((a, b) => b.weight - a.weight)
    .map(({ at, weight }) => ({ at, p: weight / whole, held: (held += weight / whole) }))
    .filter((c) => c.held - c.p < 0.999)
  const area_m2 = (part: number) => cells.filter((c) => c.held - c.p < part).length * square(grid.cell_m)
  return {
    cell_m: grid.cell_m,
    cells,
    spot: cells[0]!.at,
    half_m2: area_m2(0.5),
    most_m2: area_m2(0.9),
    probes: probeOrder(cells, grid.cell_m),
  }
}

interface Grid {
  readonly cell_m: number
  readonly cells: readonly { readonly at: Point; readonly log: number }[]
}

/** A square grid of so many steps on its longer side. */
function weighed(evidence: BoxEvidence, { x, y }: Window, steps: number): Grid {
  const cell_m = Math.max(x[1] - x[0], y[1] - y[0], 0.5) / steps
  const count = (range: readonly [number, number]) => Math.max(1, Math.ceil((range[1] - range[0]) / cell_m))
  const cells: { at: Point; log: number }[] = []
  for (let j = 0; j < count(y); j++)
    for (let i = 0; i < count(x); i++) {
      const at = { x_m: x[0] + (i + 0.5) * cell_m, y_m: y[0] + (j + 0.5) * cell_m }
      cells.push({ at, log: logChance(at, evidence) })
    }
  return { cell_m, cells }
}

/** The part of a window that weighs anything. */
function narrowed({ cell_m, cells }: Grid): Window {
  const best = Math.max(...cells.map((c) => c.log))
  const left = cells.filter((c) => c.log > best - NEGLIGIBLE / 2).map((c) => c.at)
  return {
    x: [Math.min(...left.map((p) => p.x_m)) - cell_m, Math.max(...left.map((p) => p.x_m)) + cell_m],
    y: [Math.min(...left.map((p) => p.y_m)) - cell_m, Math.max(...left.map((p) => p.y_m)) + cell_m],
  }
}

/**
 * Where to probe: spots so far apart that a lid between them is not missed, by their chance for the effort, the way
 * from one to the next counted.
 */
function probeOrder(cells: SearchArea['cells'], cell_m: number): SearchArea['probes'] {
  const step_m = Math.max(LID_m * Math.sqrt(3), cell_m)
  const row_m = (step_m * Math.sqrt(3)) / 2
  const spots = new Map<string, { at: Point; p: number }>()
  for (const { at, p } of cells) {
    const row = Math.round(at.y_m / row_m)
    const shift = row % 2 === 0 ? 0 : step_m / 2
    const column = Math.round((at.x_m - shift) / step_m)
    const key = `${row} ${column}`
    const spot = spots.get(key) ?? { at: { x_m: column * step_m + shift, y_m: row * row_m }, p: 0 }
    spot.p += p
    spots.set(key, spot)
  }
  const left = [...spots.values()].sort((a, b) => b.p - a.p).slice(0, MOST_PROBES)
  const order: { at: Point; p: number }[] = []
  while (left.length > 0) {
    const from = order.at(-1)?.at ?? left[0]!.at
    const worth = left.map((s) => s.p / (1 + WALK_ratio * apart_m(from, s.at)))
    const [next] = left.splice(worth.indexOf(Math.max(...worth)), 1)
    order.push(next!)
  }
  return order
}
