import {
  byTag,
  commonOf,
  getOrThrow,
  placeDistances_m,
  walkFrom,
  type ControllerId,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../site'
import type { Conclusion, Diagnosis, JointConclusion, SweepReading } from './conclude'
import type { Suspect } from './suspect'
import type { Scene } from './scene'

/** Something to say: a code and its figures by name. Units are in the names; the edge turns them into the user's. */
export interface Statement {
  readonly code: string
  readonly params: Readonly<Record<string, string | number>>
}

/** A conclusion in words-to-be, with what to do next, and where on the drawing it lies. */
export interface Described {
  readonly conclusion: Conclusion
  readonly says: Statement
  readonly next: Statement
  /** What else would read the same. */
  readonly or: readonly Statement[]
  /** Terminals whose readings it explains. */
  readonly terminals: readonly TerminalId[]
  /** The two boxes, nearest and farthest, between which the fault lies; equal where it lies in one. */
  readonly between: readonly [PlaceId, PlaceId] | null
}

/** Puts the joint conclusion of one controller's sweep into statements, the farthest-reaching first. */
export function describe(
  scene: Scene,
  controller: ControllerId,
  observations: readonly SweepReading[],
  joint: JointConclusion,
): Described[] {
  const distance_m = distancesFrom(scene, controller)
  return joint.conclusions.map((conclusion) => {
    const terminals = terminalsOf(scene.site, controller, conclusion, observations)
    const tags = tagsText(terminals.map((t) => tagOf(scene.site, controller, t)))
    const between = betweenOf(conclusion, distance_m)
    // Open, but the reading is not: one of several ways side by side is missing.
    const branch =
      conclusion.kind === 'open' &&
      conclusion.where === 'thread' &&
      conclusion.explains.some((i) => observations[i]!.value.kind === 'ohm')
    const or = conclusion.or.map((other) => saysOf(scene.site, controller, other, tags, betweenOf(other, distance_m)))
    const told = { conclusion, terminals, between, or }
    return branch
      ? { ...told, ...branchOf(scene.site, controller, conclusion, tags) }
      : {
          ...told,
          says: saysOf(scene.site, controller, conclusion, tags, between),
          next: nextOf(scene.site, controller, conclusion, tags, between),
        }
  })
}

/**
 * The terminals whose leads the explained readings went through; of a fault on one thread, those that all of them
 * did.
 */
function terminalsOf(
  site: Site,
  controller: ControllerId,
  { explains, ...c }: Conclusion,
  observations: readonly SweepReading[],
): TerminalId[] {
  const common = commonOf(site, controller)
  const through = explains.map((i) =>
    [observations[i]!.test.from, observations[i]!.test.to].flatMap((end) =>
      end.kind === 'terminal' && end.terminal !== common ? [end.terminal] : [],
    ),
  )
  const all = [...new Set(through.flat())]
  const shared = all.filter((terminal) => through.every((some) => some.includes(terminal)))
  return 'where' in c && c.where === 'thread' && shared.length > 0 ? shared : all
}

const tagOf = (site: Site, controller: ControllerId, terminal: TerminalId) =>
  getOrThrow(getOrThrow(site.controllers, controller).terminals, terminal).tag

/** Metres of conductor from the controller to each place, along whatever is landed there. */
export function distancesFrom(scene: Scene, controller: ControllerId): Map<PlaceId, number> {
  const terminals = Object.keys(getOrThrow(scene.site.controllers, controller).terminals) as TerminalId[]
  return placeDistances_m(terminals.map((t) => walkFrom(scene.site, scene.network.wiring, controller, t)))
}

/** Tags as people list them: runs of three and more numbers drawn together, `MV, 1, 4–9`. */
export function tagsText(tags: readonly string[]): string {
  const sorted = [...new Set(tags)].sort((a, b) => Number(/^\d/.test(a)) - Number(/^\d/.test(b)) || byTag(a, b))
  const runs: string[][] = []
  for (const tag of sorted) {
    const last = runs.at(-1)
    if (last && /^\d+$/.test(tag) && Number(tag) === Number(last.at(-1)) + 1) last.push(tag)
    else runs.push([tag])
  }
  return runs.flatMap((run) => (run.length > 2 ? [`${run[0]}–${run.at(-1)}`] : run)).join(', ')
}

const betweenOf = (e: Diagnosis, distance_m: ReadonlyMap<PlaceId, number>) =>
  'suspects' in e ? span(e.suspects, distance_m) : e.kind === 'short' ? e.between : null

function span(suspects: readonly Suspect[], distance_m: ReadonlyMap<PlaceId, number>): [PlaceId, PlaceId] | null {
  const places = suspects.flatMap((s) => (s.kind === 'stretch' ? [s.from, s.to] : [s.place]))
  const ordered = [...new Set(places)].sort((a, b) => (distance_m.get(a) ?? Infinity) - (distance_m.get(b) ?? Infinity))
  return ordered.length > 0 ? [ordered[0]!, ordered.at(-1)!] : null
}

const isHome = (site: Site, controller: ControllerId, place: PlaceId) =>
  getOrThrow(site.controllers, controller).place === place

/** A reading that lacks one of its ways: which coil it is, or where the way is interrupted, and how to see it alone. */
function branchOf(
  site: Site,
  controller: ControllerId,
  c: Extract<Diagnosis, { suspects: readonly Suspect[] }>,
  tags: string,
): Pick<Described, 'says' | 'next'> {
  const coils = c.suspects.flatMap((s) => (s.kind === 'coil' ? [getOrThrow(site.devices, s.device)] : []))
  const places = [...new Set(c.suspects.flatMap((s) => (s.kind === 'stretch' ? [s.from, s.to] : [s.place])))]
  const box = coils[0] ? getOrThrow(site.places, coils[0].place).tag : ''
  const params = {
    tags,
    count: c.explains.length,
    part: coils.map((d) => d.name || d.tag || '').join(', '),
    at: places.map((p) => getOrThrow(site.places, p).tag).join(', '),
    from: box,
    to: box,
  }
  const home = coils.length > 0 && coils.every((d) => isHome(site, controller, d.place))
  return {
    says: { code: coils.length > 0 ? 'branch_coil' : 'branch', params },
    next: { code: coils.length === 0 ? 'repeat' : home ? 'read_coil_at_home' : 'read_coil_at_box', params },
  }
}

function saysOf(
  site: Site,
  controller: ControllerId,
  c: Diagnosis,
  tags: string,
  between: readonly [PlaceId, PlaceId] | null,
): Statement {
  const at = between && { from: getOrThrow(site.places, between[0]).tag, to: getOrThrow(site.places, between[1]).tag }
  const count = c.explains.length
  const say = (code: string, params: Statement['params'] = {}): Statement => ({
    code,
    params: { tags, count, ...at, ...params },
  })
  switch (c.kind) {
    case 'open':
    case 'resistive': {
      const where = c.where === 'several' ? 'cable' : c.where
      const spread = !at || at.from === at.to ? 'in' : isHome(site, controller, between![0]) ? 'first' : 'between'
      return say(
        `${c.kind}_${where}${where === 'thread' ? '' : `_${spread}`}`,
        c.excess_ohm === null ? {} : { excess_ohm: c.excess_ohm },
      )
    }
    case 'coil_part':
      return say(c.fraction > 0.97 ? 'coil_shorted' : 'coil_part', { share_ratio: c.fraction })
    case 'short':
      return say(c.atCoil ? 'short_at_coil' : 'short', { distance_m: c.distance_m })
    case 'second_coil':
    case 'unexplained':
      return say(c.kind)
    case 'leads_joined':
    case 'lead_moved':
    case 'swapped': {
      const [one, other] = c.terminals.map((t) => tagOf(site, controller, t)) as [string, string]
      return say(c.kind === 'swapped' && !c.sure ? 'swapped_perhaps' : c.kind, { one, other })
    }
  }
}

/** The measurement that splits the suspects at the least trouble. */
function nextOf(
  site: Site,
  controller: ControllerId,
  c: Diagnosis,
  tags: string,
  between: readonly [PlaceId, PlaceId] | null,
): Statement {
  const at = between && { from: getOrThrow(site.places, between[0]).tag, to: getOrThrow(site.places, between[1]).tag }
  const say = (code: string): Statement => ({ code, params: { tags, ...at } })
  switch (c.kind) {
    case 'open':
    case 'resistive':
      if (c.where === 'thread') return say('read_coil_at_box')
      if (!between) return say('repeat')
      return say(isHome(site, controller, between[0]) ? 'check_home_then_box' : 'open_near_box')
    case 'coil_part':
      return say(readCoil(between, site, controller))
    case 'short':
      return say(c.atCoil ? readCoil(between, site, controller) : 'look_along')
    case 'second_coil':
      return say('look_for_second')
    case 'leads_joined':
    case 'lead_moved':
    case 'swapped':
      return say('look_at_terminals')
    case 'unexplained':
      return say('check_record')
  }
}

const readCoil = (between: readonly [PlaceId, PlaceId] | null, site: Site, controller: ControllerId) =>
  between && isHome(site, controller, between[0]) && between[0] === between[1]
    ? 'read_coil_at_home'
    : 'read_coil_at_box'
