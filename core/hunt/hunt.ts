import { testKey, type FieldTest, type Meter, type Part } from '../record'
import { must, type ControllerId, type DeviceId, type PlaceId, type Site } from '../site'
import { climateOf, type Climate } from '../circuit'
import { corrected_ohm } from '../expect'
import { Weighing, type Beliefs, type Taken } from './beliefs'
import { foresightOf, TRUNCATED } from './foresee'
import { groundOf, type Ground } from './ground'
import { materialOnly } from './material'
import type { Pruning } from './pair-bounds'
import { nextTest, prospectsOf, type Advice } from './next'
import { QUIET, USUAL_ODDS, type Circumstances, type OddsBasis } from './odds'
import type { Foresight } from './recall'
import { mostTelling } from './telling'
import {
  arriving,
  candidatesOf,
  minutesOf,
  USUAL_COSTS,
  walkingOf,
  type Candidate,
  type Costs,
  type Crew,
  type Walking,
} from './tests'
import { catalogueOf, type Catalogue } from './variants'
import { coilPriorFrom, type CoilPrior } from './weigh'
import { holdsPart } from './where'

/** A part is named when it is at fault with this belief; nothing is, when nothing is. */
export const NAMED = 0.98

/** The worst reading of the best explanation lies so far off, in nats, that the record itself is in doubt: once in some 4000 readings by chance. */
export const STRAINED = -8.3

/** How a hunt stands: a part is named, nothing is wrong in the wiring, or something is still to be measured; undecided when no test tells any more. */
export type Stand =
  | { readonly kind: 'named'; readonly key: string; readonly p: number }
  | { readonly kind: 'nothing'; readonly p: number }
  | { readonly kind: 'open'; readonly next: Advice }
  | { readonly kind: 'undecided' }

/** An earlier good reading of a terminal to common, at the temperature of now. */
export interface Known {
  readonly test: FieldTest
  readonly ohm: number
}

export interface HuntOptions {
  readonly climate?: Climate
  readonly meter: Meter
  readonly odds?: OddsBasis
  readonly circumstances?: Circumstances
  readonly costs?: Costs
  readonly today?: string | null
  readonly known?: readonly Known[]
  readonly helper?: boolean
  /** How far pairs of faults are worked out; `EVERYTHING` takes long. */
  readonly pruning?: Pruning
  readonly tools?: { readonly tester: boolean; readonly tracer: boolean; readonly meter: boolean }
  /** Where the crew stands at first; at the cabinet where not said. */
  readonly from?: PlaceId
}

/** A hunt for faults on one controller: what is believed after the readings so far, and what to measure next. */
export interface Hunt {
  readonly ground: Ground
  readonly catalogue: Catalogue
  readonly foresight: Foresight
  readonly candidates: readonly Candidate[]
  readonly walking: Walking
  readonly take: (reading: Taken) => void
  readonly beliefs: () => Beliefs
  /** The reading that speaks most for the likeliest part. */
  readonly telling: () => ReturnType<typeof mostTelling>
  readonly stand: () => Stand
  readonly crew: () => Crew
  readonly minutes: () => number
  /** A part was mended: readings that its fault had touched no longer count, and one fault fewer is left to find. */
  readonly mended: (part: Part) => void
  /** The part under a key of its catalogue. */
  readonly part: (key: string) => Part
}

/** Null for a controller without a common terminal. */
export function huntOf(site: Site, controller: ControllerId, options: HuntOptions): Hunt | null {
  const climate = options.climate ?? climateOf(site)
  const ground = groundOf(site, controller, climate)
  if (!ground) return null
  const odds = options.odds ?? USUAL_ODDS
  const costs = options.costs ?? USUAL_COSTS
  const { meter } = options
  const every = catalogueOf(ground, odds, options.circumstances ?? QUIET, options.today ?? null)
  const foresight = foresightOf(ground, every, meter)
  const candidates = candidatesOf(ground, options.tools)
  const walking = walkingOf(ground)
  const coils = priorsFrom(ground, foresight, options.known ?? [])
  const catalogue = materialOnly(ground, every, foresight, coils)

  const parts = Object.fromEntries(catalogue.faults.map((f) => [f.key, f.where]))

  let readings: Taken[] = []
  const mendedKeys = new Set<string>()
  let repairs = 0
  let count = odds.count
  let crew = arriving(options.from ?? must(site.controllers, controller).place, options.helper)
  let minutes = 0
  let weighing: Weighing | null = null
  let held: Beliefs | null = null
  /** Built when it is asked for: of many readings in a row it is weighed once. */
  function weighed(): Weighing {
    if (weighing) return weighing
    // What was mended is not at fault again.
    const left: Catalogue = {
      ...catalogue,
      faults: catalogue.faults.map((f) => (mendedKeys.has(f.key) ? { ...f, prior: 0 } : f)),
    }
    weighing = new Weighing(left, foresight, coils, site.settings.V_open_V, count, options.pruning)
    for (const r of readings) weighing.add(r)
    return weighing
  }
  const take = (reading: Taken): void => {
    const corrected: Taken =
      reading.value.kind === 'ohm'
        ? { ...reading, value: { kind: 'ohm', ohm: corrected_ohm(reading.value.ohm, meter) } }
        : reading
    // Of the same test the last reading counts.
    const key = testKey(reading.test)
    const again = readings.some((r) => testKey(r.test) === key)
    readings = [...readings.filter((r) => testKey(r.test) !== key), corrected]
    if (again) weighing = null
    else weighing?.add(corrected)
    held = null
    const candidate = candidates.find((c) => testKey(c.test) === key)
    if (candidate) {
      const step = minutesOf(ground, costs, walking, crew, candidate)
      minutes += step.minutes
      crew = step.then
    }
  }
  const beliefs = () => (held ??= weighed().beliefs())
  return {
    ground,
    catalogue,
    foresight,
    candidates,
    walking,
    take,
    beliefs,
    part: (key) => must(parts, key),
    crew: () => crew,
    minutes: () => minutes,
    telling: () => mostTelling(weighed(), beliefs(), catalogue),
    stand: () => {
      const b = beliefs()
      const [key, p] = [...b.parts].reduce((m, e) => (e[1] > m[1] ? e : m), ['', 0] as readonly [string, number])
      if (p >= NAMED) return { kind: 'named', key, p }
      if (b.nothing >= NAMED) return { kind: 'nothing', p: b.nothing }
      const next = nextTest(
        { ground, costs, walking },
        crew,
        prospectsOf(catalogue, foresight, b, candidates, new Set(readings.map((r) => testKey(r.test)))),
      )
      return next ? { kind: 'open', next } : { kind: 'undecided' }
    },
    mended: (part) => {
      const faults = catalogue.faults.filter((f) => holdsPart(site, part, f.where))
      for (const f of faults) mendedKeys.add(f.key)
      repairs++
      readings = readings.filter((r) => !faults.some((f) => foresight.touches(r.test, f)))
      // One is found: it was alone, or one of two. Either of two may be the one found first, so that counts twice.
      count = repairs === 1 ? { none: odds.count.one, one: 2 * odds.count.two, two: 0 } : { none: 1, one: 0.02, two: 0 }
      crew = { ...crew, undone: new Set() }
      weighing = null
      held = null
    },
  }
}

function priorsFrom(ground: Ground, foresight: Foresight, known: readonly Known[]): (device: DeviceId) => CoilPrior {
  const tolerance = ground.site.settings.coilTolerance_ratio
  const usual: CoilPrior = { mean: 0, sd: (tolerance / 2) * TRUNCATED }
  const made = new Map<DeviceId, CoilPrior>()
  for (const { test, ohm } of known) {
    const seen = foresight.base(test)
    if (seen?.kind !== 'ohms') continue
    for (const [device] of seen.coils) made.set(device, coilPriorFrom(seen, device, ohm, tolerance))
  }
  return (device) => made.get(device) ?? usual
}
