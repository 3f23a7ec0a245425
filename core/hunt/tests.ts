import { testKindOf, testKinds, type FieldTest, type Setup, type TestOn } from '../record'
import { entries, getOrThrow, terminalEnd, type End, type PlaceId, type SpliceId, type TerminalId } from '../site'
import { apart_m, whereIs } from '../map'
import { coilJoints } from './coil-joints'
import type { HuntContext } from './context'

/** What must be so before a test is made: a terminal on, a jumper from a lead to C, a joint undone; leads on or off. */
export interface Needs {
  readonly leads: Setup['leads']
  readonly set: { readonly kind: NonNullable<Setup['set']>; readonly terminal: TerminalId } | null
  readonly undone: SpliceId | null
}

/** A test that can be made, and where. */
export interface Candidate {
  readonly test: FieldTest
  readonly place: PlaceId
  readonly needs: Needs
}

/** What things take, minutes, and the pace of a walk. Every figure can be changed. */
export interface Costs {
  readonly first_min: number
  readonly further_min: number
  readonly walk_mPerS: number
  readonly open_min: number
  readonly undo_min: number
  readonly lost_min: number
}
export const USUAL_COSTS: Costs = {
  first_min: 1,
  further_min: 0.25,
  walk_mPerS: 1.2,
  open_min: 3,
  undo_min: 4,
  lost_min: 20,
}

/**
 * Where the crew stands and what is open and set. `helper`: somebody at the cabinet switches and sets jumpers on
 * call.
 */
export interface Crew {
  readonly place: PlaceId
  readonly opened: ReadonlySet<PlaceId>
  readonly undone: ReadonlySet<SpliceId>
  readonly set: Needs['set']
  /** Whether something was read since the crew came here. */
  readonly atWork: boolean
  readonly helper: boolean
}
export const crewAt = (place: PlaceId, helper = false): Crew => ({
  place,
  opened: new Set([place]),
  undone: new Set(),
  set: null,
  atWork: false,
  helper,
})

/** Every test of a controller's wiring that a crew with a meter can make, at the cabinet and in the boxes. */
export function candidatesOf(
  context: HuntContext,
  tools: { readonly tester: boolean; readonly tracer: boolean; readonly meter: boolean } = {
    tester: false,
    tracer: false,
    meter: true,
  },
): Candidate[] {
  const { site, controller, common, terminals } = context
  const cabinet = getOrThrow(site.controllers, controller).place
  const end = (t: TerminalId) => terminalEnd(controller, t) as Extract<End, { kind: 'terminal' }>
  const found: Candidate[] = []
  const offer = (place: PlaceId, test: FieldTest, terminal: TerminalId | null, undone: SpliceId | null = null) => {
    const { tool, setup } = testKindOf(test.kind)
    const set = setup.set && terminal !== null ? { kind: setup.set, terminal } : null
    if (tool === null || tools[tool]) found.push({ test, place, needs: { leads: setup.leads, set, undone } })
  }
  const here = (test: FieldTest) => offer(cabinet, test, null)
  here({ kind: 'supply', controller })
  for (const t of terminals) {
    here({ kind: 'ohms', from: end(t), to: end(common) })
    here({ kind: 'volts', at: end(t) })
  }
  // Two leads against each other, round the run to C: neighbours on the door are enough to tell a common from its
  // leads.
  terminals.forEach((t, i) => {
    const next = terminals[i + 1]
    if (next) here({ kind: 'ohms', from: end(t), to: end(next) })
  })
  for (const t of [common, ...terminals]) here({ kind: 'ohms', from: end(t), to: { kind: 'earth', place: cabinet } })
  for (const t of terminals) {
    here({ kind: 'tester_coil', at: end(t) })
    here({ kind: 'tester_power', at: end(t) })
  }
  terminals.forEach((t, i) => {
    const other = terminals[i === 0 ? 1 : i - 1]
    if (other) here({ kind: 'swap_test', at: end(t), onto: end(other) })
    here({ kind: 'tone', at: end(t) })
  })
  for (const [id, splice] of entries(site.splices)) {
    if (splice.connector === 'terminal' || splice.ends.length < 2) continue
    const node = context.node(`joint ${id}`)
    const element =
      node === null ? -1 : context.meterState.powered.parts.findIndex(({ of }) => of.kind === 'leg' && of.splice === id)
    if (element >= 0 && context.within(element))
      for (const kind of testKinds.filter((k) => testKindOf(k).on === 'joint'))
        offer(splice.place, { kind, splice: id } as TestOn<'joint'>, null, testKindOf(kind).setup.undone && id)
  }
  for (const [device, element] of context.coilElement) {
    const terminal = context.terminalOf(device)
    if (terminal === null || !context.within(element)) continue
    const { place, kind: deviceKind } = getOrThrow(site.devices, device)
    if (deviceKind === 'relay') continue
    const joints = coilJoints(context, device)
    for (const kind of testKinds.filter((k) => testKindOf(k).on === 'coil')) {
      const { undone } = testKindOf(kind).setup
      const splice = undone && joints[undone === 'common' ? 'home' : 'lead']?.splice
      if (undone === null || splice) offer(place, { kind, device } as TestOn<'coil'>, terminal, splice ?? null)
    }
  }
  return found
}

/**
 * Metres between places on foot: straight across where both are on the map, else along the trench by the distance of
 * each from the cabinet, back to where their ways part.
 */
export type Walking = (from: PlaceId, to: PlaceId) => number
export function walkingOf(context: HuntContext): Walking {
  const { site } = context
  const ways = new Map<PlaceId, Map<PlaceId, number>>()
  const add = (a: PlaceId, b: PlaceId, m: number) => {
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      const row = ways.get(x) ?? ways.set(x, new Map()).get(x)!
      row.set(y, Math.min(row.get(y) ?? Infinity, m))
    }
  }
  context.meterState.powered.parts.forEach(({ of }) => {
    if (of.kind !== 'stretch') return
    const { stops } = getOrThrow(site.cables, of.cable)
    const at = (i: number) => {
      const s = stops[i]!.at_m
      return s === null ? null : 'value' in s ? s.value : (s.low + s.high) / 2
    }
    const [a, b] = [at(of.from), at(of.to)]
    add(stops[of.from]!.place, stops[of.to]!.place, a === null || b === null ? 50 : Math.max(0, b - a))
  })
  const from = new Map<PlaceId, Map<PlaceId, number>>()
  const distances = (start: PlaceId): Map<PlaceId, number> => {
    if (from.has(start)) return from.get(start)!
    const best = new Map<PlaceId, number>([[start, 0]])
    const queue = new Set([start])
    while (queue.size > 0) {
      const here = [...queue].reduce((a, b) => (best.get(a)! <= best.get(b)! ? a : b))
      queue.delete(here)
      for (const [next, m] of ways.get(here) ?? [])
        if (best.get(here)! + m < (best.get(next) ?? Infinity)) {
          best.set(next, best.get(here)! + m)
          queue.add(next)
        }
    }
    from.set(start, best)
    return best
  }
  return (a, b) => {
    if (a === b) return 0
    const [p, q] = [whereIs(getOrThrow(site.places, a)), whereIs(getOrThrow(site.places, b))]
    if (p && q) return apart_m(p, q)
    return distances(a).get(b) ?? 50
  }
}

/** Minutes until a test is read, and how the crew stands then. */
export function minutesOf(
  context: HuntContext,
  costs: Costs,
  walking: Walking,
  crew: Crew,
  { place, needs }: Candidate,
): { minutes: number; then: Crew } {
  const { site } = context
  const cabinet = getOrThrow(site.controllers, context.controller).place
  const walk = (a: PlaceId, b: PlaceId) => walking(a, b) / costs.walk_mPerS / 60
  const same = needs.set === null || (crew.set?.kind === needs.set.kind && crew.set.terminal === needs.set.terminal)
  let minutes = 0
  let at = crew.place
  if (!same && !crew.helper && at !== cabinet) {
    minutes += walk(at, cabinet)
    at = cabinet
  }
  if (!same) minutes += costs.further_min
  minutes += walk(at, place)
  const moved = at !== place || place !== crew.place
  if (place !== cabinet && !crew.opened.has(place))
    minutes += costs.open_min + (getOrThrow(site.places, place).found === 'lost' ? costs.lost_min : 0)
  if (needs.undone !== null && !crew.undone.has(needs.undone)) minutes += costs.undo_min
  minutes += moved || !crew.atWork ? costs.first_min : costs.further_min
  return {
    minutes,
    then: {
      ...crew,
      place,
      atWork: true,
      set: needs.set ?? crew.set,
      opened: crew.opened.has(place) ? crew.opened : new Set([...crew.opened, place]),
      undone:
        needs.undone === null || crew.undone.has(needs.undone) ? crew.undone : new Set([...crew.undone, needs.undone]),
    },
  }
}
