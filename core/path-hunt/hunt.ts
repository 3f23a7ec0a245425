import { knownPath, type KnownPath } from '../path'
import { isParted, type PathTest, type PathValue } from '../record'
import { accepted, type Outcome } from '../refusal'
import type { PathAt, PlaceId, Site } from '../site'
import { pathCandidates, walkingOn, type PathCandidate } from './candidates'
import { partKey, pathFaults, placesOf, type PathFault } from './faults'
import { predictorOf, type Predict } from './predict'
import { fit } from './shown'
import { partsOf, rowFor, told_bits, type Row } from './told'

/** A reading of the path. */
export interface PathRead {
  readonly test: PathTest
  readonly value: PathValue
}
/** A fault, null for none that was thought of, with its chance by all that was read. */
export interface Weighed {
  readonly fault: PathFault | null
  readonly p: number
}
/** Something to be mended at one spot, of whatever size or kind: the likeliest first. */
export interface PathSuspect {
  readonly key: string
  readonly p: number
  /** The likeliest of its faults. */
  readonly fault: PathFault
  readonly places: readonly PlaceId[]
}
/** A test that is worth making: what it tells, and what it takes with the walk to it. */
export interface PathAdvice {
  readonly candidate: PathCandidate
  readonly bits: number
  readonly minutes: number
}

/** A path made ready to be searched. */
export interface PathHunt {
  readonly path: KnownPath
  readonly candidates: readonly PathCandidate[]
  readonly predict: Predict
  readonly walking: (from: PlaceId, to: PlaceId) => number
  readonly weigh: (read: readonly PathRead[]) => Weighed[]
  /** Tests by what they tell a minute from where one stands, the best first. */
  readonly next: (weighed: readonly Weighed[], here: PlaceId, read: readonly PathRead[]) => PathAdvice[]
}

/** As sure as this of where the fault is, one goes there. */
export const SURE = 0.9
/** Nothing wrong that this knows of, against the sum of the odds of all that may be. */
const NOTHING = 0.1
/** Faults below this are left out when tests are weighed against each other. */
const SEEN_FROM = 1e-4
/** Minutes to read one more length that is apart already. */
const FURTHER_min = 1

/** Makes a path ready. Refused where its profile lacks a figure that volts hang on. */
export function pathHuntOf(site: Site, at: PathAt): Outcome<PathHunt> {
  const known = knownPath(at)
  if (!known.ok) return known
  const path = known.value
  const faults = pathFaults(site, path)
  const keyOf = (test: PathTest) => JSON.stringify(test)
  const predict = predictorOf(site, path)
  const candidates = pathCandidates(site, path).filter(({ test }) => predict(null, test) !== null)
  const total = faults.reduce((sum, f) => sum + f.odds, 0)
  const prior: Weighed[] = [
    { fault: null, p: NOTHING },
    ...faults.map((fault) => ({ fault, p: ((1 - NOTHING) * fault.odds) / total })),
  ]
  const weigh = (read: readonly PathRead[]): Weighed[] => {
    // Of one test the last reading counts.
    const last = [...new Map(read.map((r) => [keyOf(r.test), r])).values()]
    const raised = prior.map(({ fault, p }) => ({
      fault,
      p: last.reduce((product, { test, value }) => {
        const expected = predict(fault, test)
        return expected ? product * fit(test, expected, value) : product
      }, p),
    }))
    const sum = raised.reduce((s, w) => s + w.p, 0)
    return raised.map(({ fault, p }) => ({ fault, p: p / sum })).sort((a, b) => b.p - a.p)
  }
  const walking = walkingOn(site, path)
  const rows = new Map<PathCandidate, Row>()
  const rowOf = (candidate: PathCandidate): Row => {
    if (!rows.has(candidate))
      rows.set(
        candidate,
        rowFor(prior, (fault) => predict(fault, candidate.test)),
      )
    return rows.get(candidate)!
  }
  const parts = partsOf(prior)
  const placeIn = new Map(prior.map(({ fault }, i) => [fault, i] as const))
  const next = (weighed: readonly Weighed[], here: PlaceId, read: readonly PathRead[]): PathAdvice[] => {
    const p = new Float64Array(prior.length)
    for (const w of weighed) if (w.p >= SEEN_FROM) p[placeIn.get(w.fault)!] = w.p
    const done = new Set(read.map((r) => keyOf(r.test)))
    // A joint that was undone for the last reading is undone for the next one too.
    const last = read.at(-1)?.test
    const isUndone = last !== undefined && isParted(last) && last.place === here
    return candidates
      .filter(({ test }) => !done.has(keyOf(test)))
      .flatMap((candidate): PathAdvice[] => {
        const bits = told_bits(rowOf(candidate), p, parts)
        const own = isUndone && isParted(candidate.test) && candidate.place === here
        const minutes = (own ? FURTHER_min : candidate.minutes) + walking(here, candidate.place)
        return bits > 1e-3 ? [{ candidate, bits, minutes }] : []
      })
      .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
  }
  return accepted({ path, candidates, predict, walking, weigh, next })
}

/** What is weighed, by the part that is to be mended: the likeliest first. `none` keeps its own chance out of it. */
export function suspectsOf(weighed: readonly Weighed[]): PathSuspect[] {
  const parts = new Map<string, { p: number; fault: PathFault; places: Map<PlaceId, number> }>()
  for (const { fault, p } of weighed) {
    if (!fault) continue
    const key = partKey(fault)
    const part = parts.get(key) ?? parts.set(key, { p: 0, fault, places: new Map() }).get(key)!
    part.p += p
    for (const place of placesOf(fault.where)) part.places.set(place, (part.places.get(place) ?? 0) + p)
  }
  return [...parts]
    .map(([key, { p, fault, places }]) => ({ key, p, fault, places: likeliest(places) }))
    .sort((a, b) => b.p - a.p)
}

/** Where to go: a place, or the two ends of a length, with the chance that the fault is found there. */
export interface PathAim {
  readonly places: readonly PlaceId[]
  readonly p: number
}

/** The place, or the length from either end, that most likely has the fault; one place goes before two. */
export function aimOf(weighed: readonly Weighed[]): PathAim | null {
  const odds = new Map<PlaceId, number>()
  for (const { fault, p } of weighed)
    for (const place of fault ? placesOf(fault.where) : []) odds.set(place, (odds.get(place) ?? 0) + p)
  const [place] = likeliest(odds)
  const [part] = suspectsOf(weighed)
  if (place === undefined || !part) return null
  const one = { places: [place], p: odds.get(place)! }
  return part.p > one.p + FURTHER_END ? { places: part.places, p: part.p } : one
}
/** So much more sure a second end must make it. */
const FURTHER_END = 0.1

const likeliest = (odds: ReadonlyMap<PlaceId, number>): PlaceId[] =>
  [...odds].sort((a, b) => b[1] - a[1]).map(([place]) => place)
