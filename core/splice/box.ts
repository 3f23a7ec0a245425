import {
  commonOf,
  endKey,
  entries,
  getOrThrow,
  netsOf,
  outputsOf,
  terminalEnd,
  wiringOf,
  type DeviceId,
  type PlaceId,
  type Site,
  type Splice,
  type SpliceId,
} from '../site'
import {
  carried,
  holdPointOf,
  limitsOf,
  misfitOf,
  STRIP_mm,
  type Connector,
  type ConnectorKind,
  type HoldPoint,
  type Misfit,
} from './connector'
import { seenOf, type Seen } from './conductor'
import { planJoint, type JointPlan } from './joint'

/** One connector as it is on record. */
export interface Hold {
  readonly splice: SpliceId
  readonly record: Splice
  readonly strip_mm: number | null
  readonly holdPoint: HoldPoint
  /** Why its connector does not take what it holds. */
  readonly misfit: Misfit | null
}

/** How a joint could be made anew. */
export interface Way {
  readonly way: 'one' | 'chain' | 'pigtail'
  readonly plan: JointPlan
}

/** A side of a decoder away from its path: one of its outputs, counted from 1, or the common of its coils. */
export interface Behind {
  readonly decoder: DeviceId
  readonly tag: string
  readonly output: number | null
}

/** Conductors that are one node in a box, in one connector or in several linked by jumpers. */
export interface BoxJoint {
  readonly id: SpliceId
  readonly holds: readonly Hold[]
  /** What meets here, jumpers left out. */
  readonly ends: readonly Seen[]
  readonly serves: 'common' | 'lead' | 'other'
  /** The terminal that the joint is joined to, as on the door, where it is one. */
  readonly terminal: string | null
  /** The decoder whose output or coils’ common the joint hangs on, where it is behind one. */
  readonly behind: Behind | null
  /** Valves with a lead in the joint. */
  readonly devices: readonly DeviceId[]
  readonly ways: readonly Way[]
}

/** Whether somebody has made this joint: then a plan leaves it alone. */
export const isMade = (splice: Splice): boolean => splice.made !== null || splice.ticks.length > 0

/**
 * The joints of a box by what they join: commons first, then leads in the order of their terminals. Caps and landings
 * are no joints.
 */
export function boxJoints(site: Site, place: PlaceId): BoxJoint[] {
  const groups = new Map<string, { splices: [SpliceId, Splice][] }>()
  const nets = netsOf(wiringOf(site))
  const jumperOf = jumperNodes(site, place)
  for (const [id, splice] of entries(site.splices)) {
    if (splice.place !== place || splice.connector === 'cap' || splice.connector === 'terminal') continue
    const key = jumperOf(id)
    groups.set(key, { splices: [...(groups.get(key)?.splices ?? []), [id, splice]] })
  }
  const commonNets = new Set<string>()
  const terminalNets = new Map<string, string>()
  const wiring = wiringOf(site)
  for (const [controller, c] of entries(site.controllers)) {
    const common = commonOf(site, controller)
    for (const [terminal, t] of entries(c.terminals)) {
      const net = nets.of(wiring.pointOf(terminalEnd(controller, terminal)))
      if (terminal === common) commonNets.add(net)
      else if (!terminalNets.has(net)) terminalNets.set(net, `${c.tag}:${t.tag}`)
    }
  }
  const behind = new Map<string, Behind>()
  for (const { decoder, port } of outputsOf(site)) {
    const tag = getOrThrow(site.devices, decoder).tag ?? decoder
    const netAt = (name: string) => nets.of(wiring.pointOf({ kind: 'port', device: decoder, port: name }))
    behind.set(netAt('common'), { decoder, tag, output: null })
    behind.set(netAt(port), { decoder, tag, output: Number(port.slice('out_'.length)) })
  }
  const order = { common: 0, lead: 1, other: 2 }
  return [...groups.values()]
    .map(({ splices }): BoxJoint => {
      const ends = splices
        .flatMap(([, s]) => s.ends)
        .map((e) => seenOf(site, e))
        .filter((s) => s.way !== 'jumper')
      const net = nets.of(wiring.pointOf(splices[0]![1].ends[0]!))
      const serves = commonNets.has(net) ? 'common' : terminalNets.has(net) ? 'lead' : 'other'
      return {
        id: splices[0]![0],
        holds: splices.map(([id, record]) => holdOf(site, id, record)),
        ends,
        serves,
        terminal: serves === 'lead' ? terminalNets.get(net)! : null,
        behind: serves === 'other' ? (behind.get(net) ?? null) : null,
        devices: [...new Set(ends.flatMap((s) => (s.end.kind === 'port' ? [s.end.device] : [])))],
        ways: waysOf(ends, carried(site.settings)),
      }
    })
    .sort(
      (a, b) =>
        order[a.serves] - order[b.serves] ||
        (a.terminal ?? a.id).localeCompare(b.terminal ?? b.id, 'en', { numeric: true }),
    )
}

/** Names the node of a splice: splices of the box that jumpers link have one name. */
function jumperNodes(site: Site, place: PlaceId): (id: SpliceId) => string {
  const at = new Map<string, SpliceId>()
  for (const [id, s] of entries(site.splices)) if (s.place === place) for (const e of s.ends) at.set(endKey(e), id)
  const up = new Map<string, string>()
  const top = (id: string): string => {
    const above = up.get(id)
    return above === undefined ? id : top(above)
  }
  for (const [cable, c] of entries(site.cables)) {
    if (c.kind !== 'jumper' || c.stops[0]!.place !== place) continue
    for (const core of Object.keys(c.cores)) {
      const [from, to] = [
        at.get(endKey({ kind: 'core', cable, core, stop: c.stops[0]!.id, side: 'leaves' } as never)),
        at.get(endKey({ kind: 'core', cable, core, stop: c.stops.at(-1)!.id, side: 'arrives' } as never)),
      ]
      if (from !== undefined && to !== undefined && top(from) !== top(to)) up.set(top(to), top(from))
    }
  }
  return top
}

function holdOf(site: Site, splice: SpliceId, record: Splice): Hold {
  const limits = limitsOf(site.settings, record.connector)
  return {
    splice,
    record,
    strip_mm: STRIP_mm[record.connector],
    holdPoint: holdPointOf(record.connector),
    misfit:
      limits &&
      misfitOf(
        limits,
        record.ends.map((e) => seenOf(site, e).area_mm2),
      ),
  }
}

/**
 * How these ends could be joined with what is carried: in one connector or in the fewest; where that is another kind
 * than the preferred one, also with the preferred kind in a chain, thick conductors brought down to it by a pigtail.
 */
export function waysOf(ends: readonly Seen[], connectors: readonly Connector[]): Way[] {
  const conductors = ends.map((s) => ({ key: endKey(s.end), area_mm2: s.area_mm2 }))
  const sizes = conductors.map((c) => c.area_mm2)
  if (conductors.length < 2) return []
  const ways: Way[] = []
  const add = (plan: JointPlan | null, way?: Way['way']) => {
    if (plan && !ways.some((w) => sameKinds(w.plan, plan)))
      ways.push({ way: way ?? (plan.made.length === 1 ? 'one' : 'chain'), plan })
  }
  add(planJoint(conductors, connectors, sizes))
  const [first] = connectors
  if (first && conductors.every((c) => misfitOf(first, [c.area_mm2, c.area_mm2])?.code !== 'too_thick'))
    add(planJoint(conductors, [first], sizes))
  else if (first) add(pigtailed(conductors, first, connectors), 'pigtail')
  return ways
}

const sameKinds = (a: JointPlan, b: JointPlan) =>
  a.made
    .map((m) => m.connector.kind)
    .sort()
    .join() ===
  b.made
    .map((m) => m.connector.kind)
    .sort()
    .join()

/** Thick conductors in connectors that take them, with one thin pigtail that goes on into the preferred kind. */
function pigtailed(
  conductors: readonly { key: string; area_mm2: number }[],
  first: Connector,
  connectors: readonly Connector[],
): JointPlan | null {
  const thick = conductors.filter((c) => c.area_mm2 > first.thickest_mm2)
  const thin = conductors.filter((c) => c.area_mm2 <= first.thickest_mm2)
  if (thin.length < 2) return null
  const tail_mm2 = Math.max(...thin.map((c) => c.area_mm2))
  const tail = { key: '', area_mm2: tail_mm2 }
  const [big, small] = [
    planJoint([...thick, tail], connectors, [tail_mm2]),
    planJoint([...thin, tail], [first], [tail_mm2]),
  ]
  if (!big || !small) return null
  const number = big.jumpers + small.jumpers
  const graft = (plan: JointPlan, past: number): Made[] =>
    plan.made.map((m) => ({
      ...m,
      holds: m.holds.filter((k) => k !== ''),
      jumpers: [...m.jumpers.map((j) => j + past), ...(m.holds.includes('') ? [number] : [])],
    }))
  return { made: [...graft(big, 0), ...graft(small, big.jumpers)], jumpers: number + 1, jumper_mm2: tail_mm2 }
}
type Made = JointPlan['made'][number]

/**
 * Connectors by kind for the van, for what is still to be made in some boxes: as on record where that holds, else by
 * the first way.
 */
export function connectorsForVan(site: Site, ...places: readonly PlaceId[]): { kind: ConnectorKind; count: number }[] {
  const counts = new Map<ConnectorKind, number>()
  const count = (kind: ConnectorKind) => counts.set(kind, (counts.get(kind) ?? 0) + 1)
  for (const joint of places.flatMap((place) => boxJoints(site, place))) {
    if (joint.holds.every((h) => isMade(h.record))) continue
    const keep = joint.holds.every((h) => h.record.connector !== 'unknown' && h.misfit === null)
    if (keep || joint.ways.length === 0) for (const h of joint.holds) count(h.record.connector)
    else for (const m of joint.ways[0]!.plan.made) count(m.connector.kind)
  }
  for (const s of Object.values(site.splices))
    if (places.includes(s.place) && s.connector === 'cap' && !isMade(s)) count('cap')
  return [...counts].map(([kind, n]) => ({ kind, count: n })).sort((a, b) => (a.kind < b.kind ? -1 : 1))
}

/**
 * Whether a connector of the kind may stay where it is: nothing bare anywhere, nothing dry but indoors in a cabinet.
 */
export const mayStay = (site: Site, place: PlaceId, kind: ConnectorKind): boolean =>
  kind !== 'bare_twist' && (kind !== 'dry_nut' || getOrThrow(site.places, place).kind === 'cabinet')
