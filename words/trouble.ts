import type { Cause, HuntReport, PartReport, TroubleReport } from '../core/hunt'
import type { Part } from '../core/record'
import type { Site } from '../core/site'
import { namesOf, sayCause, sayPart, wireOf } from './part'
import { say, type Speaker } from './say'

/** Parts that hold so much of one trouble say what it is; of more than these only that there are others. */
const [MOSTLY, MOST_SAID] = [0.8, 4]
/** A cause is told where it holds so much of what is told of. */
const ONE_CAUSE = 0.6

/** Causes that come to the same for whoever looks at the thread from its terminal. */
const KIND: Partial<Record<Cause, string>> = { coil_open: 'open', sensor_open: 'open', misjoined: 'open' }

/** The parts of a trouble that say what it is, the likeliest first, and whether there are others. */
function toldOf({ parts }: Pick<TroubleReport, 'parts'>): { told: readonly PartReport[]; others: boolean } {
  const whole = parts.reduce((s, x) => s + x.p, 0)
  let held = 0
  const told = parts.filter((_, n) => {
    if (n > 0 && (held >= MOSTLY * whole || n >= MOST_SAID)) return false
    held += parts[n]!.p
    return true
  })
  return { told, others: held < MOSTLY * whole }
}

/** What most likely ails some parts: the kind of cause, and a cause of it; null where it is too open. */
function causeOf(told: readonly PartReport[]): { kind: string; cause: Cause } | null {
  const sums = new Map<string, { cause: Cause; p: number }>()
  for (const part of told)
    for (const { cause, p } of part.causes) {
      const kind = KIND[cause] ?? cause
      const sum = sums.get(kind) ?? { cause, p: 0 }
      sums.set(kind, { ...sum, p: sum.p + part.p * p })
    }
  const whole = [...sums.values()].reduce((s, x) => s + x.p, 0)
  const best = [...sums].reduce<[string, { cause: Cause; p: number }] | null>(
    (m, e) => (m && m[1].p >= e[1].p ? m : e),
    null,
  )
  // What is not listed has no cause to tell of.
  return best && best[0] !== 'unlisted' && best[1].p >= ONE_CAUSE * whole
    ? { kind: best[0], cause: best[1].cause }
    : null
}

/**
 * One thing that is wrong, in a sentence: "The common is cut between B4 and B5, or open at a joint there.", "Gate
 * hedge is open: its coil in B2, its joint in B2 or the common’s joint in B2."; and in which states alone it shows.
 */
export function sayTrouble(trouble: Pick<TroubleReport, 'parts'>, site: Site, speaker: Speaker): string {
  const states = trouble.parts[0]?.likeliest?.states ?? []
  const says = sayWhole(trouble, site, speaker)
  if (states.length === 0) return says
  const names = states.map((state) => say({ code: `trouble.in_${state}`, params: {} }, speaker))
  return say({ code: 'trouble.only', params: { says, states: listText(names, false, speaker) } }, speaker)
}
function sayWhole(trouble: Pick<TroubleReport, 'parts'>, site: Site, speaker: Speaker): string {
  const { told, others } = toldOf(trouble)
  const cause = causeOf(told)
  const common = onCommon(told, site, speaker)
  const text = (code: string, params: Record<string, string | number>) =>
    capital(say({ code: `trouble.${code}`, params }, speaker))
  const ohm = cause?.kind === 'series' ? ohmOf(told) : null
  if (common && !others && (cause?.kind === 'open' || cause?.kind === 'series'))
    return text(`common_${cause.kind}_${common.length > 1 ? 'between' : 'in'}`, {
      from: common[0]!,
      to: common.at(-1)!,
    })
  const owner = told.length > 1 ? ownerOf(told, site, speaker) : null
  const names = told.map((x) => (owner === null ? sayPart(x.where, site, speaker) : sayOwn(x, site, speaker)))
  const parts = listText(names, others, speaker)
  if (owner !== null && ohm !== null) return text('own_series_by', { name: owner, parts, more_ohm: ohm })
  if (owner !== null && (cause?.kind === 'open' || cause?.kind === 'series'))
    return text(`own_${cause.kind}`, { name: owner, parts })
  if (owner !== null) return text(cause ? 'own' : 'own_plain', { name: owner, parts, cause: causeText(cause, speaker) })
  return text(cause ? 'parts' : 'parts_plain', { parts, cause: causeText(cause, speaker) })
}
/** The ohms by which parts in series read high, where they come to the same. */
function ohmOf(told: readonly PartReport[]): number | null {
  const ohms = told.flatMap(({ likeliest }) => (likeliest?.cause === 'series' ? (likeliest.ohm ?? []) : []))
  if (ohms.length < told.length) return null
  const [least, most] = [Math.min(...ohms), Math.max(...ohms)]
  return most - least <= SAME_ohm + SAME_ratio * least ? ohms[0]! : null
}
const [SAME_ohm, SAME_ratio] = [0.5, 0.1]

const causeText = (cause: { cause: Cause } | null, speaker: Speaker) => (cause ? sayCause(cause.cause, speaker) : '')
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

function listText(names: readonly string[], others: boolean, speaker: Speaker): string {
  if (others) return say({ code: 'trouble.or_else', params: { parts: names.join(', ') } }, speaker)
  return names.length === 1
    ? names[0]!
    : say({ code: 'trouble.or', params: { parts: names.slice(0, -1).join(', '), last: names.at(-1)! } }, speaker)
}

/**
 * The boxes of a stretch of common that all of these parts lie on: one, or the two ends of a run with or without its
 * joints; null where they are anything else.
 */
function onCommon(told: readonly PartReport[], site: Site, speaker: Speaker): string[] | null {
  const tags = (x: PartReport) => x.places.map((p) => namesOf(site, speaker).box(p))
  const isCommon = ({ where }: PartReport) =>
    (where.kind === 'run' || where.kind === 'joint') && wireOf(where, site, speaker).common
  if (!told.every(isCommon)) return null
  const runs = told.filter((x) => x.where.kind === 'run').map(tags)
  const [along = [...new Set(told.flatMap(tags))]] = runs
  return runs.length <= 1 && along.length <= 2 && told.every((x) => tags(x).every((tag) => along.includes(tag)))
    ? along
    : null
}

/** Whose thread all of these parts are of, where one is; the common’s joint in a box of theirs goes with them. */
function ownerOf(told: readonly PartReport[], site: Site, speaker: Speaker): string | null {
  const own = told.map((x) => ({ ...x, name: nameOf(x.where, site, speaker) }))
  const [name, ...others] = new Set(own.flatMap((x) => x.name ?? []))
  if (name === undefined || others.length > 0) return null
  const places = new Set(own.flatMap((x) => (x.name === null ? [] : x.places)))
  return own.every((x) => x.name !== null || (x.where.kind === 'joint' && x.places.every((p) => places.has(p))))
    ? name
    : null
}

/** Whose a part is, by the zone’s name; null for what several share. */
function nameOf(where: Part, site: Site, speaker: Speaker): string | null {
  switch (where.kind) {
    case 'coil':
    case 'valve':
      return namesOf(site, speaker).valve(where.device)
    case 'thread':
      return namesOf(site, speaker).station(where.controller, where.terminal)
    case 'run':
    case 'joint': {
      const { common, name } = wireOf(where, site, speaker)
      return common ? null : name
    }
    default:
      return null
  }
}

/** A part beside the name of whose it is: "its coil in B2". */
function sayOwn({ where, places }: PartReport, site: Site, speaker: Speaker): string {
  const says = sayPart(where, site, speaker)
  const name = nameOf(where, site, speaker)
  if (name === null) return says
  const box = (place: string) => namesOf(site, speaker).box(place)
  const own = (code: string, params: Record<string, string>) => say({ code: `trouble.its_${code}`, params }, speaker)
  switch (where.kind) {
    case 'coil':
    case 'valve':
      return own(where.kind, { box: box(site.devices[where.device]!.place) })
    case 'thread':
      return own('thread', {})
    case 'joint':
      return own('joint', { box: box(site.splices[where.splice]!.place) })
    case 'run': {
      const [from, to] = places.map(box)
      return own('run', { from: from!, to: to! })
    }
    default:
      return says
  }
}

/** How many things are wrong, and how likely it is that all of these are. */
export function sayCount({ troubles }: HuntReport, speaker: Speaker): string {
  const wrong = troubles.filter((x) => x.wrong)
  return say(
    { code: 'hunt.count', params: { count: wrong.length, p_ratio: wrong.reduce((p, x) => p * x.p, 1) } },
    speaker,
  )
}
