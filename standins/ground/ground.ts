import { lookUp, type Cable, type CableId, type Place, type PlaceId, type Point, type Site } from '../../core/site'
import { normal } from '../chance'

/**
 * How a wand is held: where, which way its carrier faces (clockwise from north), how high, how
 * far it leans to the right.
 */
export interface Pose {
  readonly at: Point
  readonly heading_deg: number
  readonly height_m: number
  readonly tilt_deg: number
  readonly mode: 'null' | 'peak'
  readonly gain: number
}

/** A property’s ground as it really is: nobody’s drawing is quite right. */
export interface Ground {
  /** What a wand shows of a tone on a cable. */
  readonly shown: (cable: CableId, pose: Pose) => number
  /** Whether a rod comes down on a lid. */
  readonly isLid: (at: Point) => boolean
  /** Where a place really is; null of one that was never drawn. */
  readonly really: (place: PlaceId) => Point | null
}

/** How far a lost box lies from its drawing, and a bend from its own, m, one standard deviation of each axis. */
const [LOST_m, BENT_m] = [1.3, 0.5]
/** Between its bends a trench swings by so much, about once in so many metres. */
const [SWINGS_m, EVERY_m] = [0.25, 18]
const [SHALLOW_m, DEEP_m, ROLLS_m] = [0.28, 0.55, 31]
/** The tone: as strong as that over a line a metre deep, and how it fades along the wire. */
const [STRENGTH, FADES_m] = [25, 140]
/** A wand never shows less than this part of what it shows at the beginning. */
const FLOOR_ratio = 0.1
const NOISE_ratio = 0.08
/** A battery fades by so much with every reading. */
const BATTERY_ratio = 2e-5
const LID_m = 0.15
const [RISE_ratio, RISE_WIDE_m, SPREAD_m] = [1 / 3, 0.8, 0.9]
const DENSE_m = 0.2
/**
 * Four grounds in ten have a fence beside a stretch of every cable: so far aside, so high, two fifths
 * of the tone go along it.
 */
const FENCE = { seldom: 0.4, from_m: 12, long_m: 10, aside_m: 1.8, height_m: 0.5, part: 0.4 } as const

const apart_m = (a: Point, b: Point) => Math.hypot(a.x_m - b.x_m, a.y_m - b.y_m)
/**
 * Ground under a site: lost boxes lie elsewhere, trenches swing, a cable rises and dips; the same for the same chance.
 */
export function groundOf(site: Site, random: () => number): Ground {
  const scattered = (at: Point, by_m: number): Point => ({
    x_m: at.x_m + by_m * normal(random),
    y_m: at.y_m + by_m * normal(random),
  })
  const spots = new Map<string, Point>()
  for (const [id, place] of Object.entries(site.places as Record<string, Place>)) {
    const drawn = (place.foundAt ?? place.position)?.value
    if (drawn) spots.set(id, place.found === 'found' ? drawn : scattered(drawn, LOST_m))
  }
  const really = (place: PlaceId) => spots.get(place) ?? null
  const seed = random() * 1000
  const lines = new Map<CableId, Line | null>()
  let reads = 0
  const lineFor = (id: CableId) => {
    if (!lines.has(id)) {
      const cable = lookUp(site.cables, id)
      lines.set(id, cable ? laid(site, cable, really, (p) => scattered(p, BENT_m), seed) : null)
    }
    return lines.get(id)!
  }
  return {
    really,
    isLid: (at) => [...spots.values()].some((spot) => apart_m(at, spot) <= LID_m),
    shown: (id, pose) => {
      const line = lineFor(id)
      if (!line) return 0
      const battery = Math.max(0.5, 1 - BATTERY_ratio * reads++)
      const floor = FLOOR_ratio * (STRENGTH / SHALLOW_m)
      const signal = Math.max(battery * STRENGTH * pickedUp(line, pose, seed), floor)
      return Math.max(0, pose.gain * signal * (1 + NOISE_ratio * normal(random)))
    },
  }
}

/** A cable in the ground: dense points with how far along it they lie, and what lies along it. */
interface Line {
  readonly points: readonly (Point & { readonly along_m: number })[]
  readonly joints_m: readonly number[]
  readonly end_m: number
  /** Where it is cut, for whom the tone ends. */
  readonly cut_m: number | null
  readonly fence: { readonly from_m: number; readonly aside_m: number } | null
}

function laid(
  site: Site,
  cable: Cable,
  really: (place: PlaceId) => Point | null,
  bent: (at: Point) => Point,
  seed: number,
): Line | null {
  const points: (Point & { along_m: number })[] = []
  const joints_m: number[] = []
  let [along_m, cut_m] = [0, null as number | null]
  for (const [i, stop] of cable.stops.slice(0, -1).entries()) {
    const [from, to] = [really(stop.place), really(cable.stops[i + 1]!.place)]
    if (!from || !to) return null
    const drawn = cable.bends[stop.id] ?? bendsOfOthers(site, stop.place, cable.stops[i + 1]!.place)
    const corners = [from, ...drawn.map(bent), to]
    const isCut = Object.values(cable.cores).every((c) => c.conditions[stop.id]?.state === 'open')
    if (isCut && cut_m === null) cut_m = along_m + apart_m(from, to) / 2
    for (let k = 1; k < corners.length; k++) {
      const [a, b] = [corners[k - 1]!, corners[k]!]
      const long_m = apart_m(a, b)
      for (let s = 0; s < long_m; s += DENSE_m) {
        // It swings between its corners and lies still at them.
        const swing_m =
          SWINGS_m * Math.sin(seed + ((along_m + s) / EVERY_m) * 2 * Math.PI) * Math.sin((Math.PI * s) / long_m)
        const part = s / long_m
        points.push({
          x_m: a.x_m + (b.x_m - a.x_m) * part + ((b.y_m - a.y_m) / long_m) * swing_m,
          y_m: a.y_m + (b.y_m - a.y_m) * part - ((b.x_m - a.x_m) / long_m) * swing_m,
          along_m: along_m + s,
        })
      }
      along_m += long_m
    }
    joints_m.push(along_m)
  }
  const last = really(cable.stops.at(-1)!.place)
  if (last) points.push({ ...last, along_m })
  const fence =
    seed % 1 < FENCE.seldom
      ? { from_m: FENCE.from_m + (seed % 7), aside_m: FENCE.aside_m * (seed % 2 < 1 ? 1 : -1) }
      : null
  return points.length < 2 ? null : { points, joints_m: joints_m.slice(0, -1), end_m: along_m, cut_m, fence }
}

/** Leads share the trench of whoever has bends between the same places. */
const bendsOfOthers = (site: Site, from: PlaceId, to: PlaceId): readonly Point[] => {
  for (const cable of Object.values(site.cables))
    for (const [i, stop] of cable.stops.slice(0, -1).entries()) {
      const bends = cable.bends[stop.id]
      if (stop.place === from && cable.stops[i + 1]!.place === to && bends && bends.length > 0) return bends
    }
  return []
}

/** The level along the wire: it fades, rises at joints, spreads and ends at the last valve, or stops at a cut. */
function level({ joints_m, end_m, cut_m }: Line, along_m: number): number {
  if (cut_m !== null && along_m > cut_m) return 0
  if (along_m > end_m + SPREAD_m / 2) return 0
  const rises = joints_m.reduce((all, at_m) => {
    const off = Math.abs(along_m - at_m)
    return off >= RISE_WIDE_m ? all : all * (1 + (RISE_ratio / 2) * (1 + Math.cos((Math.PI * off) / RISE_WIDE_m)))
  }, 1)
  return Math.exp(-along_m / FADES_m) * rises * (along_m > end_m - SPREAD_m / 2 ? 0.5 : 1)
}

/** Of the field of a long current: the part across it and the one upright, so far aside and so deep. */
const parts = (x: number, h: number) => ({ across: h / (x * x + h * h), upright: x / (x * x + h * h) })

/** The field of a long current at a wand: parts across and upright by how far aside and how deep it runs. */
function pickedUp(line: Line, { at, heading_deg, height_m, tilt_deg, mode }: Pose, seed: number): number {
  let nearest = line.points[0]!
  for (const p of line.points) if (apart_m(p, at) < apart_m(nearest, at)) nearest = p
  // Past the end of the wire one is no longer beside it.
  const i = line.points.indexOf(nearest)
  const before = line.points[Math.max(0, i - 1)]!
  const isPast = i === line.points.length - 1
  const along = { x_m: nearest.x_m - before.x_m, y_m: nearest.y_m - before.y_m }
  const long_m = Math.hypot(along.x_m, along.y_m) || 1
  const past_m = isPast
    ? Math.max(0, ((at.x_m - nearest.x_m) * along.x_m + (at.y_m - nearest.y_m) * along.y_m) / long_m)
    : 0
  const turn = (heading_deg * Math.PI) / 180
  const toRight = (nearest.x_m - at.x_m) * Math.cos(turn) - (nearest.y_m - at.y_m) * Math.sin(turn)
  const aside_m = Math.sqrt(Math.max(0, apart_m(nearest, at) ** 2 - past_m ** 2))
  const x = Math.sign(toRight) * aside_m
  const along_m = nearest.along_m + past_m
  const cover_m =
    (SHALLOW_m + DEEP_m) / 2 + ((DEEP_m - SHALLOW_m) / 2) * Math.sin(seed * 1.7 + (along_m / ROLLS_m) * 2 * Math.PI)
  const h = cover_m + height_m
  const beside = line.fence && along_m > line.fence.from_m && along_m < line.fence.from_m + FENCE.long_m
  const [own, other] = [parts(x, h), beside ? parts(x + line.fence!.aside_m, FENCE.height_m + height_m) : null]
  const across = own.across + FENCE.part * (other?.across ?? 0)
  const upright = own.upright + FENCE.part * (other?.upright ?? 0)
  const lean = (tilt_deg * Math.PI) / 180
  const heard =
    mode === 'peak'
      ? across * Math.cos(lean) - upright * Math.sin(lean)
      : upright * Math.cos(lean) + across * Math.sin(lean)
  return level(line, along_m) * Math.abs(heard)
}
