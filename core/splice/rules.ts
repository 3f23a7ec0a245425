import { coded, pathText, type Coded } from '../refusal'
import {
  deviceName,
  byTag,
  commonOf,
  endKey,
  entries,
  hangingOn,
  lookUp,
  getOrThrow,
  wiringOf,
  type End,
  type PlaceId,
  type Site,
} from '../site'
import { isMade, mayStay } from './box'
import { censusOf } from './census'
import { limitsOf, misfitOf } from './connector'
import { seenOf } from './conductor'

/** A rule that the wiring on record breaks, and where. The mend is in the sentence of its code. */
export interface Breach extends Coded<BreachCode> {
  readonly weight: 'wrong' | 'doubt'
  readonly place: PlaceId
}

export type BreachCode =
  | 'bare_in_box'
  | 'dry_in_box'
  | 'holds_too_many'
  | 'holds_too_few'
  | 'holds_too_thick'
  | 'holds_too_thin'
  | 'holds_too_full'
  | 'connector_unknown'
  | 'spare_open'
  | 'two_alike'
  | 'unlike_ends'
  | 'filler'
  | 'filler_by_pale_core'
  | 'leads_unlike'
  | 'common_crowded'

const breach = (place: PlaceId, weight: Breach['weight'], ...rest: Parameters<typeof coded<BreachCode>>): Breach => ({
  ...coded(...rest),
  weight,
  place,
})
/** Figures in sentences: two decimals tell 1.5 mm² from 2.08 mm². */
const short = (x: number) => Math.round(x * 100) / 100
const same = (a: string | null, b: string | null) =>
  a !== null && b !== null && a.trim().toLowerCase() === b.trim().toLowerCase()

/** Everything in the boxes and cabinets that breaks a rule, the wrong before the doubtful. */
export function brokenRules(site: Site): Breach[] {
  const breaches = [
    ...brokenConnectors(site),
    ...openSpares(site),
    ...colourConflicts(site),
    ...unlikeLeads(site),
    ...crowdedCommons(site),
  ]
  return breaches.sort(
    (a, b) => (a.weight === b.weight ? 0 : a.weight === 'wrong' ? -1 : 1) || byTag(pathText(a.path), pathText(b.path)),
  )
}

/** What is wrong alone, without what is doubtful. */
export const wrongIn = (site: Site): Breach[] =>
  [...brokenConnectors(site), ...colourConflicts(site)].filter((b) => b.weight === 'wrong')

/** No connector holds more, or thicker, than it is made for; nothing dry or bare stays in a box. */
function brokenConnectors(site: Site): Breach[] {
  return entries(site.splices).flatMap(([id, splice]): Breach[] => {
    const at = getOrThrow(site.places, splice.place).tag
    const path = ['splices', id, 'connector']
    if (!mayStay(site, splice.place, splice.connector))
      return [
        breach(splice.place, 'wrong', splice.connector === 'bare_twist' ? 'bare_in_box' : 'dry_in_box', path, { at }),
      ]
    const limits = limitsOf(site.settings, splice.connector)
    const misfit =
      limits &&
      misfitOf(
        limits,
        splice.ends.map((e) => seenOf(site, e).area_mm2),
      )
    if (misfit)
      return [
        breach(splice.place, 'wrong', `holds_${misfit.code}`, path, {
          at,
          connector: splice.connector,
          is: short(misfit.is),
          limit: short(misfit.limit),
        }),
      ]
    return splice.connector === 'unknown' && isMade(splice)
      ? [breach(splice.place, 'doubt', 'connector_unknown', path, { at })]
      : []
  })
}

/** A spare is capped at both of its ends: one that is capped at one and open at the other lets water in. */
function openSpares(site: Site): Breach[] {
  return entries(site.places).flatMap(([place, { tag }]) => {
    const open = censusOf(site, place).filter((c) => c.loose.length > 0 && c.terminal === null)
    const byCable = new Map<string, typeof open>()
    for (const c of open) byCable.set(c.cable, [...(byCable.get(c.cable) ?? []), c])
    return [...byCable].map(([cable, cores]) =>
      breach(place, 'doubt', 'spare_open', ['cables', cable], {
        at: tag,
        cable: cores[0]!.cableTag,
        count: cores.reduce((n, c) => n + c.loose.length, 0),
      }),
    )
  })
}

/**
 * Two cores alike in one jacket, a core that looks otherwise at its other end, a filler beside a core of its colour.
 */
function colourConflicts(site: Site): Breach[] {
  return entries(site.cables).flatMap(([id, cable]): Breach[] => {
    if (cable.kind === 'jumper') return []
    const found: Breach[] = []
    const name = cable.tag ?? (cable.name || id)
    const home = cable.stops[0]!.place
    const seen = new Map<string, string>()
    for (const [core, { colour, colourAt }] of entries(cable.cores).sort(([, a], [, b]) => a.order - b.order)) {
      const own = colour?.value.trim().toLowerCase() ?? null
      if (own !== null && seen.has(own))
        found.push(
          breach(home, 'doubt', 'two_alike', ['cables', id, 'cores', core, 'colour'], { cable: name, colour: own }),
        )
      if (own !== null) seen.set(own, core)
      for (const stop of cable.stops) {
        const there = colourAt[stop.id]
        if (there !== undefined && own !== null && !same(there, own))
          found.push(
            breach(stop.place, 'wrong', 'unlike_ends', ['cables', id, 'cores', core, 'colourAt'], {
              cable: name,
              colour: own,
              other: there,
              at: getOrThrow(site.places, stop.place).tag,
            }),
          )
      }
    }
    const filler = cable.filler.trim().toLowerCase()
    if (filler !== '')
      found.push(
        breach(
          home,
          'doubt',
          [...seen.keys()].some((c) => pale(c)) ? 'filler_by_pale_core' : 'filler',
          ['cables', id, 'filler'],
          { cable: name, filler, cores: Object.keys(cable.cores).length },
        ),
      )
    return found
  })
}

const pale = (colour: string) =>
  ['white', 'ivory', 'cream', 'natural', 'clear', 'beige', 'light'].some((c) => colour.includes(c))

/** A coil with two leads of unlike colour may be a latching one for direct current. */
function unlikeLeads(site: Site): Breach[] {
  const onAc = new Set(
    entries(site.controllers).flatMap(([c]) =>
      [...hangingOn(site, wiringOf(site), c).values()].flatMap((h) => h.coils),
    ),
  )
  return entries(site.devices).flatMap(([id, d]): Breach[] => {
    const [a, b] = [d.leads.a ?? null, d.leads.b ?? null]
    if (d.kind !== 'coil' || a === null || b === null || same(a, b)) return []
    const kind = d.coilKind === null ? null : lookUp(site.coilKinds, d.coilKind)
    if (kind?.current === 'ac' || !onAc.has(id)) return []
    return [
      breach(d.place, 'doubt', 'leads_unlike', ['devices', id, 'leads'], {
        valve: deviceName(site, id),
        a,
        b,
        at: getOrThrow(site.places, d.place).tag,
      }),
    ]
  })
}

/** No more conductors under C than its clamp is made for: the others join one tail. */
function crowdedCommons(site: Site): Breach[] {
  return entries(site.controllers).flatMap(([id, controller]): Breach[] => {
    const common = commonOf(site, id)
    if (common === null) return []
    const key = endKey({ kind: 'terminal', controller: id, terminal: common } as End)
    const landing = Object.values(site.splices).find((s) => s.ends.some((e) => endKey(e) === key))
    const landed = landing ? landing.ends.length - 1 : 0
    return landed > controller.commonHolds
      ? [
          breach(controller.place, 'doubt', 'common_crowded', ['controllers', id, 'commonHolds'], {
            controller: controller.tag,
            count: landed,
            holds: controller.commonHolds,
          }),
        ]
      : []
  })
}
