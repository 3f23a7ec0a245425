import { whereIs } from '../map'
import type { Facts, Marked, Tracing } from '../record'
import { lookUp, type Point, type Site } from '../site'
import { crossingOf, furtherOn, type Crossing } from './across'
import type { WandReading } from './reading'
import { beside, wayOf, type Way } from './way'

/** A mark with its id and when it was made. */
export interface MarkedAt<K extends Marked['kind'] = Marked['kind']> {
  readonly id: string
  readonly at: string
  readonly marked: Extract<Marked, { kind: K }>
}

/** The marks of a trace in the order in which they were made, without what was taken back. */
export function marksOf(facts: Facts, job: string): readonly MarkedAt[] {
  const own = Object.entries(facts.marks)
    .filter(([, m]) => m.job === job)
    .sort(([a, x], [b, y]) => x.at.localeCompare(y.at) || a.localeCompare(b))
  const back = new Set(own.flatMap(([, { marked }]) => (marked.kind === 'back' ? [marked.mark] : [])))
  return own.flatMap(([id, { at, marked }]) => (marked.kind === 'back' || back.has(id) ? [] : [{ id, at, marked }]))
}
export const marksOfKind = <K extends Marked['kind']>(marks: readonly MarkedAt[], kind: K): readonly MarkedAt<K>[] =>
  marks.filter((m) => m.marked.kind === kind) as unknown as MarkedAt<K>[]

/** A section across the line: where along the way, what was read there, and what that says. */
export interface Section {
  readonly name: string
  readonly along_m: number
  readonly readings: readonly WandReading[]
  readonly crossing: Crossing | null
}

/** A trace as far as it has come. */
export interface TraceSoFar {
  readonly way: Way | null
  /** Readings along the way. */
  readonly along: readonly WandReading[]
  readonly sections: readonly Section[]
  /** Where the line was found, in the order of the way, and within how many metres. */
  readonly line: readonly {
    readonly at: Point
    readonly along_m: number
    readonly within_m: number
    readonly name: string
  }[]
}

const crossings = new WeakMap<Extract<Marked, { kind: 'wand' }>, { key: string; crossing: Crossing | null }>()

/** What is known of a section; worked out once for the readings it has. */
function crossingOnce(readings: readonly Extract<Marked, { kind: 'wand' }>[], key: string): Crossing | null {
  const last = readings.at(-1)!
  const known = crossings.get(last)
  if (known?.key === key) return known.crossing
  // A line that lies beyond its end is no place of it.
  const crossing = furtherOn(readings) === null ? crossingOf(readings) : null
  crossings.set(last, { key, crossing })
  return crossing
}

/** So far beyond the last place where it was crossed a line is taken to go on as it did. */
const GOES_ON_m = 6

/**
 * How far to the right of the drawn way the line lies at a place along it: between the places where it was crossed
 * evenly from one to the next, beyond them a little further as it went. 0 where it was not crossed.
 */
export function acrossAt(sections: readonly Section[], along_m: number): number {
  const crossed = sections
    .flatMap((s) => (s.crossing ? [{ along_m: s.along_m, across_m: s.crossing.across_m.mid }] : []))
    .sort((a, b) => a.along_m - b.along_m)
  const [first, last] = [crossed[0], crossed.at(-1)]
  if (!first || !last) return 0
  const i = crossed.findIndex((c) => c.along_m >= along_m)
  const [a, b] =
    i > 0 ? [crossed[i - 1]!, crossed[i]!] : i === 0 ? [first, crossed[1] ?? first] : [crossed.at(-2) ?? last, last]
  const long_m = b.along_m - a.along_m
  if (long_m === 0) return a.across_m
  const near_m = Math.min(last.along_m + GOES_ON_m, Math.max(first.along_m - GOES_ON_m, along_m))
  return a.across_m + ((b.across_m - a.across_m) * (near_m - a.along_m)) / long_m
}

/** Where a trace stands, from its marks. */
export function traceSoFar(site: Site, traces: Tracing, marks: readonly MarkedAt[]): TraceSoFar {
  const flags = marksOfKind(marks, 'way').map((m) => m.marked.at)
  const way = wayOf(site, traces, flags)
  const wand = marksOfKind(marks, 'wand')
  const along = wand.filter((m) => m.marked.section === null).map((m) => m.marked)
  const names = [...new Set(wand.flatMap((m) => m.marked.section ?? []))]
  const sections = names.map((name): Section => {
    const own = wand.filter((m) => m.marked.section === name)
    const readings = own.map((m) => m.marked)
    const crossing = crossingOnce(readings, own.map((m) => m.id).join())
    return { name, along_m: readings[0]!.along_m, readings, crossing }
  })
  const line = !way
    ? []
    : sections
        .flatMap(({ name, along_m, crossing }) =>
          crossing
            ? [
                {
                  name,
                  along_m,
                  at: beside(way.points, along_m, crossing.across_m.mid),
                  within_m: (crossing.across_m.high - crossing.across_m.low) / 2,
                },
              ]
            : [],
        )
        .sort((a, b) => a.along_m - b.along_m)
  return { way, along, sections, line }
}

/** Where a place is, by its id; null where it is not drawn. */
export const spotOf = (site: Site, place: string): Point | null => {
  const found = lookUp(site.places, place as never)
  return found ? whereIs(found) : null
}
