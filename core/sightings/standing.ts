import { sightingsQuoted } from '../quoted'
import {
  partKey,
  SEVERITIES,
  SIGHTING_STATES,
  workTarget,
  type Facts,
  type Part,
  type Severity,
  type Sighted,
  type Sighting,
  type SightingState,
  type SightingTurn,
  type StepDone,
  type WorkTarget,
} from '../record'

/** What each thing usually risks; whoever sees it may say otherwise. */
export const USUAL_SEVERITY: Readonly<Record<Sighted, Severity>> = {
  head_broken: 'wastes',
  head_tilted: 'later',
  leak: 'wastes',
  weeping_valve: 'wastes',
  lid_proud: 'danger',
  lid_sunken: 'later',
  wet_box: 'later',
  lost_box: 'later',
  taped_joint: 'stops',
  cut_spare: 'later',
  missing_link: 'stops',
  other: 'later',
  named: 'stops',
}

/** What readings find by themselves risks: a thread that reads a fault stops its zone, a joint that creeps will. */
export const READ_SEVERITY = { fault: 'stops', creeping: 'later' } as const satisfies Record<string, Severity>

/** Something that was seen, and how it stands. */
export interface Standing {
  readonly id: string
  readonly seen: Sighting
  readonly state: SightingState
  /** By whom and why it was brought there; null of one that stands as it was seen, or as a quote left it. */
  readonly turn: SightingTurn | null
}

/** Parts that a hunt named and that are to be mended still, the worst first. */
export const partsNamed = (facts: Facts): Part[] =>
  sightingsIn(facts).flatMap(({ seen, state }) =>
    seen.part === undefined || state === 'done' || state === 'declined' ? [] : [seen.part],
  )

/** A zone on a wet check, and what of its answers is something to be mended. */
const WALK = 'wet_check'
const OF_ANSWERS: Readonly<Record<string, Sighted>> = {
  head_broken: 'head_broken',
  head_tilted: 'head_tilted',
  leaks: 'leak',
  box_or_lid: 'wet_box',
}

/**
 * Everything that was seen and not struck out, with what a wet check saw among it: open before settled, the worst
 * first, then the newest.
 */
export function sightingsIn(facts: Facts): Standing[] {
  const turns = new Map<string, { readonly to: SightingState; readonly turn: SightingTurn | null }>()
  const byHand = Object.entries(facts.sightingTurns).map(([id, turn]): [string, Turned] => [id, { ...turn, turn }])
  const byQuote = sightingsQuoted(facts).map((q): [string, Turned] => [q.id, { ...q, turn: null }])
  for (const turned of byTime([...byQuote, ...mendedByHunts(facts), ...byHand])) turns.set(turned.sighting, turned)
  const rank = (s: Standing) => [SIGHTING_STATES.indexOf(s.state), SEVERITIES.indexOf(s.seen.severity)] as const
  return [...Object.entries(facts.sightings), ...seenOnWalks(facts)]
    .map(([id, seen]): Standing => {
      const { to, turn } = turns.get(id) ?? { to: 'open', turn: null }
      return { id, seen, state: to, turn }
    })
    .filter((s) => s.state !== 'struck')
    .sort((a, b) => {
      const [[stateA, worstA], [stateB, worstB]] = [rank(a), rank(b)]
      return stateA - stateB || worstA - worstB || b.seen.at.localeCompare(a.seen.at) || a.id.localeCompare(b.id)
    })
}

/** A change of how something stands, by hand or by a quote. */
interface Turned {
  readonly at: string
  readonly sighting: string
  readonly to: SightingState
  readonly turn: SightingTurn | null
}

const byTime = <T extends { readonly at: string }>(list: [string, T][]): T[] =>
  list.sort(([a, x], [b, y]) => Date.parse(x.at) - Date.parse(y.at) || a.localeCompare(b)).map(([, x]) => x)

/** Parts that were named once and mended in a hunt since. */
const mendedByHunts = (facts: Facts): [string, Turned][] =>
  Object.entries(facts.findings).flatMap(([id, { at, where }]) =>
    where === null
      ? []
      : Object.entries(facts.sightings).flatMap(([sighting, { part, at: named }]): [string, Turned][] =>
          part !== undefined && partKey(part) === partKey(where) && Date.parse(named) <= Date.parse(at)
            ? [[id, { at, sighting, to: 'done', turn: null }]]
            : [],
        ),
  )

/**
 * What the answers of wet checks saw, by the ids of their steps; an answer that was changed or
 * taken back counts no more.
 */
function seenOnWalks(facts: Facts): [string, Sighting][] {
  const latest = new Map<string, [string, StepDone]>()
  for (const [id, done] of Object.entries(facts.steps)) {
    const follows = facts.jobs[done.job]?.follows
    if (!follows || (follows.own?.from ?? follows.id) !== WALK) continue
    const key = `${done.job} ${done.step}`
    const was = latest.get(key)
    if (!was || Date.parse(was[1].at) <= Date.parse(done.at)) latest.set(key, [id, done])
  }
  return [...latest.values()].flatMap(([id, { at, author, step, answer }]): [string, Sighting][] => {
    const what = answer.kind === 'chosen' ? OF_ANSWERS[answer.option] : undefined
    const on = zoneOf(step)
    return what && on ? [[id, { at, author, on, what, severity: USUAL_SEVERITY[what], note: '' }]] : []
  })
}

/** The thing that a zone’s step is for: its screw, or its valve where it has a number on a path. */
function zoneOf(step: string): WorkTarget | null {
  const [name, item] = step.split('@')
  const [kind, first, second] = (item ?? '').split(' ')
  if (name !== 'zone') return null
  const on = kind === 'terminal' ? { kind, controller: first, terminal: second } : { kind, device: first }
  return workTarget.safeParse(on).data ?? null
}
