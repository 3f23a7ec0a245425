import { commandsBetween, create, freeId, set, type Work } from '../plan'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import { tag as tagSchema } from '../site/ids'
import { byTag, entries, getOrThrow, type Command, type Point, type PlaceId, type Site } from '../site'
import { drawCable, rounded } from './edit'
import { toLocal, type LatLon, type Origin } from './frame'
import { apart_m, legsOf, whereIs } from './route'

/** Points and lines from elsewhere, in degrees, under the names that they have there. */
export interface Drawn {
  readonly points: readonly { readonly name: string; readonly at: LatLon }[]
  readonly lines: readonly { readonly name: string; readonly at: readonly LatLon[] }[]
}

/**
 * What became of them. Lines are left out that pass fewer than two boxes, points that have no name that can be a tag.
 */
export interface TakenIn {
  readonly commands: Command[]
  readonly moved: number
  readonly added: number
  readonly routed: number
  readonly newCables: number
  readonly left: readonly string[]
}

/** A vertex so near to a box is the box: a hand-held receiver's error. */
const AT_BOX_m = 3

/**
 * Brings points and lines into a property: a point moves the place of its name or adds a box; a line gives the cable
 * of its name its bends, or becomes a cable through the boxes it passes. A property without an origin gets the middle
 * of what comes.
 */
export function takeIn(site: Site, drawn: Drawn): TakenIn {
  const work: Work = { site }
  const all = [...drawn.points.map((p) => p.at), ...drawn.lines.flatMap((l) => l.at)]
  const origin = site.about.origin ?? middle(all)
  const left: string[] = []
  let [moved, added, routed, newCables] = [0, 0, 0, 0]
  for (const { name, at } of drawn.points) {
    const value = { value: rounded(toLocal(origin, at)), how: 'reported' as const, on: null }
    const found = entries(work.site.places).find(([id, p]) => p.tag.toLowerCase() === name.toLowerCase() || id === name)
    if (found) {
      if (
        samePoint(found[1].position?.value ?? null, value.value) ||
        samePoint(found[1].foundAt?.value ?? null, value.value)
      )
        continue
      set(work, 'places', found[0], 'position', value)
      moved++
    } else if (tagSchema.safeParse(name).success) {
      create(work, 'places', freeId(work.site, 'places', name), {
        tag: name,
        kind: 'valve_box',
        found: 'expected',
        position: value,
      })
      added++
    } else left.push(name || '?')
  }
  for (const { name, at } of drawn.lines) {
    const line = at.map((p) => rounded(toLocal(origin, p)))
    const cable = entries(work.site.cables).find(
      ([id, c]) => c.tag?.toLowerCase() === name.toLowerCase() || id === name,
    )
    if (cable) {
      const [id, record] = cable
      const bends = bendsAlong(
        work.site,
        record.stops.map((s) => s.place),
        line,
      )
      if (bends === null) {
        left.push(name)
        continue
      }
      const now = legsOf(work.site, record).map((l) => l.points.slice(1, -1))
      if (
        now.length === bends.length &&
        now.every((leg, i) => leg.length === bends[i]!.length && leg.every((p, j) => samePoint(p, bends[i]![j]!)))
      )
        continue
      set(work, 'cables', id, 'bends', Object.fromEntries(record.stops.slice(0, -1).map((s, i) => [s.id, bends[i]!])))
      routed++
    } else {
      const stops = boxesAlong(work.site, line)
      const bends = stops.length < 2 ? null : bendsAlong(work.site, stops, line)
      if (bends === null) {
        left.push(name || '?')
        continue
      }
      drawCable(work, tagSchema.safeParse(name).success ? name : null, stops, bends)
      newCables++
    }
  }
  const commands = commandsBetween(site, work.site)
  if (site.about.origin === null && commands.length > 0)
    commands.unshift({ do: 'setAbout', field: 'origin', value: origin })
  return { commands, moved, added, routed, newCables, left }
}

/** The commands that lay a new cable along a drawn line, through the boxes it passes; fewer than two are refused. */
export function cableAlong(site: Site, line: readonly Point[]): Outcome<Command[]> {
  const stops = boxesAlong(site, line)
  const bends = stops.length < 2 ? null : bendsAlong(site, stops, line)
  if (bends === null) return refused(refusal('passes_no_boxes', ['cable']))
  const work: Work = { site }
  let n = 1
  while (Object.values(site.cables).some((c) => c.tag === `K${n}`)) n++
  drawCable(work, `K${n}`, stops, bends)
  return accepted(commandsBetween(site, work.site))
}

const samePoint = (a: Point | null, b: Point) => a !== null && apart_m(a, b) < 0.02

function middle(all: readonly LatLon[]): Origin {
  const of = (values: number[]) => Math.round(((Math.min(...values) + Math.max(...values)) / 2) * 1e6) / 1e6
  return all.length === 0
    ? { latitude_deg: 0, longitude_deg: 0 }
    : { latitude_deg: of(all.map((p) => p.latitude_deg)), longitude_deg: of(all.map((p) => p.longitude_deg)) }
}

/** Boxes in the order in which a line passes them. */
function boxesAlong(site: Site, line: readonly Point[]): PlaceId[] {
  const passed = entries(site.places).flatMap(([id, p]) => {
    const at = whereIs(p)
    const i = at === null ? -1 : line.findIndex((q) => apart_m(q, at) <= AT_BOX_m)
    return i < 0 ? [] : [{ id, i, tag: p.tag }]
  })
  return passed.sort((a, b) => a.i - b.i || byTag(a.tag, b.tag)).map((p) => p.id)
}

/**
 * The line's vertices between neighbouring stops; null where it does not pass the stops in order, whichever way it
 * was walked.
 */
function bendsAlong(site: Site, stops: readonly PlaceId[], line: readonly Point[]): Point[][] | null {
  for (const way of [line, [...line].reverse()]) {
    let from = 0
    const at = stops.map((id) => {
      const where = whereIs(getOrThrow(site.places, id))
      const i = where === null || from < 0 ? -1 : way.findIndex((q, j) => j >= from && apart_m(q, where) <= AT_BOX_m)
      from = i
      return i
    })
    if (at.every((i) => i >= 0)) return at.slice(0, -1).map((i, s) => way.slice(i + 1, at[s + 1]))
  }
  return null
}
