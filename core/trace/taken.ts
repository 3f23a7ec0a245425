import { apart_m, length_m } from '../map'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import {
  applyBatch,
  getOrThrow,
  setField,
  stopPositions_m,
  type CableId,
  type Command,
  type Point,
  type Site,
} from '../site'
import type { TraceSoFar } from './session'

/** A leg as it was traced: between which stops, its points, and its length as it was and as it is. */
export interface TracedLeg {
  readonly stop: string
  readonly bends: readonly Point[]
  readonly length_m: number
}

/**
 * The traced line as a change of the record: the bends of every leg that was found at two places or more, and how far
 * along the jacket its far stop lies, as seen on the day. Refused where no leg was found so often.
 */
export function tracedCommands(
  site: Site,
  cable: CableId,
  { way, line }: Pick<TraceSoFar, 'way' | 'line'>,
  today: string,
): Outcome<{ readonly commands: readonly Command[]; readonly legs: readonly TracedLeg[] }> {
  const legs = (way?.stops ?? []).slice(0, -1).flatMap((from, i): (TracedLeg & { to: string })[] => {
    const to = way!.stops[i + 1]!
    const inside = line.filter((p) => p.along_m > from.along_m && p.along_m < to.along_m)
    if (inside.length < 2) return []
    const bends = inside.map(({ at }) => ({ x_m: round(at.x_m), y_m: round(at.y_m) }))
    const [start, end] = [spotAlong(way!, from.along_m), spotAlong(way!, to.along_m)]
    return [{ stop: from.stop, to: to.stop, bends, length_m: length_m([start, ...bends, end]) }]
  })
  if (legs.length === 0) return refused(refusal('too_little_traced', ['cables', cable]))
  const record = getOrThrow(site.cables, cable)
  const known = stopPositions_m(record).map((p) => p.value)
  // What lies beyond a traced leg moves by as much as that one grew.
  let grown_m = 0
  const stops = record.stops.map((stop, i) => {
    const leg = legs.find((l) => l.to === stop.id)
    if (leg && i > 0) grown_m += leg.length_m - (known[i]! - known[i - 1]!)
    if (grown_m === 0 || (!leg && stop.at_m === null)) return stop
    const value = Math.max(0, round(known[i]! + grown_m))
    return { ...stop, at_m: { value, how: leg ? ('seen' as const) : ('assumed' as const), on: leg ? today : null } }
  })
  const bends = { ...record.bends, ...Object.fromEntries(legs.map((leg) => [leg.stop, [...leg.bends]])) }
  const commands = [setField('cables', cable, 'bends', bends), setField('cables', cable, 'stops', stops as never)]
  const applied = applyBatch(site, commands)
  return applied.ok ? accepted({ commands, legs }) : applied
}

const round = (x: number) => Math.round(x * 100) / 100

/** The corner of a way that lies at a distance along it: a stop. */
function spotAlong({ points }: { readonly points: readonly Point[] }, along_m: number): Point {
  let reached_m = 0
  for (let i = 1; i < points.length; i++) {
    if (Math.abs(reached_m - along_m) < 1e-6) return points[i - 1]!
    reached_m += apart_m(points[i - 1]!, points[i]!)
  }
  return points.at(-1)!
}
