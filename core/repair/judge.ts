import { coded } from '../refusal'
import {
  brokenInvariants,
  entries,
  getOrThrow,
  type ControllerId,
  type DeviceId,
  type Site,
  type StationId,
} from '../site'
import { wrongIn } from '../splice'
import type { Damage } from './damage'
import type { RepairAsk, Tried, WhyNot } from './repair'
import { failing } from './works'

/** What a part that was found bad does to a controller: the stations it stops, and all valves that work without it. */
export function harmOf(
  site: Site,
  controller: ControllerId,
  damage: Damage,
): { readonly stopped: readonly StationId[]; readonly working: ReadonlySet<DeviceId> } {
  const before = failing({ site, dead: [], noSupply: null, ways: [] }, controller)
  const working = entries(site.stations).flatMap(([id, s]) =>
    s.controller === controller && !before.has(id) ? s.valves : [],
  )
  return {
    stopped: [...failing(damage, controller).keys()].filter((id) => !before.has(id)),
    working: new Set(working),
  }
}

const ruleKeys = (site: Site): ReadonlyMap<string, number> => {
  const counts = new Map<string, number>()
  for (const { code, place } of wrongIn(site)) counts.set(`${code} ${place}`, (counts.get(`${code} ${place}`) ?? 0) + 1)
  return counts
}

/**
 * Why a repair is none, by the circuit engine on the property with it and by the rules of boxes; null where every valve
 * that worked before does so again.
 * @param working the valves that worked by the record
 */
export function whyNot(ask: RepairAsk, tried: Tried, working: ReadonlySet<DeviceId>): WhyNot | null {
  const { site } = tried.after
  const [broken] = brokenInvariants(site)
  if (broken) return coded('record_broken', broken.path, { code: broken.code })
  if (tried.unheld.length > 0) return coded('no_connector', [], { box: getOrThrow(site.places, tried.unheld[0]!).tag })
  const fails = failing(tried.after, ask.controller, new Set(tried.bypassed))
  for (const valve of working) {
    const owner = Object.entries(site.stations).find(([, s]) => s.valves.includes(valve))
    if (!owner) return coded('valve_lost', [], { device: getOrThrow(site.devices, valve).tag ?? valve })
    const fail = fails.get(owner[0] as StationId)
    if (fail) return fail
  }
  const before = ruleKeys(ask.site)
  for (const [key, count] of ruleKeys(site))
    if (count > (before.get(key) ?? 0)) {
      const [rule, place] = key.split(' ')
      return coded('rules_broken', [], { rule: rule!, box: getOrThrow(site.places, place as never).tag })
    }
  return null
}
