import type { Sighted } from '../record'
import { entries, getOrThrow, type PlaceId, type Site } from '../site'
import { brokenRules, type BreachCode } from '../splice'
import type { RepairFigures } from './figures'

export type NearbyCode = 'rule' | 'joint_as_old' | 'coil_old' | 'seen'

/** Something at a place that is open for a repair, and what it saves to do it in the same visit. */
export interface Nearby {
  readonly code: NearbyCode
  readonly place: PlaceId
  readonly params: Readonly<Record<string, string | number>>
  readonly rule: BreachCode | null
  readonly minutes: number
  /** Minutes of a visit of its own that it saves. */
  readonly saves_min: number
}

/** Something that was seen at a place, and is to be mended still. */
export interface SeenAt {
  readonly place: PlaceId
  readonly what: Sighted
}

/** Coils beyond this many years are offered for change while their box is open. */
const OLD_years = 15
/** Joints made within a year of the one that failed are of its age. */
const SAME_years = 1
const YEAR_ms = 365.25 * 86_400_000

/**
 * What else is due at the places of a repair: rules of boxes that are broken there, joints as old as the one that is
 * made anew, coils past their years, what somebody saw there. What saves most for its minutes comes first.
 * @param failed when the joint was made that has failed, where it is a joint and the day is known
 */
export function nearby(
  site: Site,
  places: readonly PlaceId[],
  failed: string | null,
  today: string,
  f: RepairFigures,
  seen: readonly SeenAt[] = [],
): Nearby[] {
  const here = new Set(places)
  const saves_min = f.visit_min + f.place_min + f.retest_min
  const years = (from: string, to: string) => Math.abs(Date.parse(to) - Date.parse(from)) / YEAR_ms
  const item = (place: PlaceId, minutes: number, more: Pick<Nearby, 'code' | 'params'> & Partial<Nearby>): Nearby => ({
    rule: null,
    place,
    minutes,
    saves_min,
    ...more,
  })
  const rules = brokenRules(site).flatMap((r): Nearby[] =>
    here.has(r.place) ? [item(r.place, f.joint_min, { code: 'rule', params: r.params, rule: r.code })] : [],
  )
  const joints = [...here].flatMap((place): Nearby[] => {
    const count = entries(site.splices).filter(
      ([, s]) =>
        s.place === place &&
        s.connector !== 'terminal' &&
        s.connector !== 'cap' &&
        s.made !== null &&
        failed !== null &&
        years(s.made.value, failed) <= SAME_years,
    ).length
    return count > 1
      ? [
          item(place, (count - 1) * f.joint_min, {
            code: 'joint_as_old',
            params: { count: count - 1, box: getOrThrow(site.places, place).tag, since: failed!.slice(0, 4) },
          }),
        ]
      : []
  })
  const coils = entries(site.devices).flatMap(([id, d]): Nearby[] =>
    d.kind === 'coil' && here.has(d.place) && d.installed !== null && years(d.installed.value, today) >= OLD_years
      ? [
          item(d.place, f.coil_min, {
            code: 'coil_old',
            params: { device: d.tag ?? id, years: Math.floor(years(d.installed.value, today)) },
          }),
        ]
      : [],
  )
  const byEye = seen.flatMap(({ place, what }): Nearby[] =>
    here.has(place)
      ? [item(place, f.seen_min, { code: 'seen', params: { what, box: getOrThrow(site.places, place).tag } })]
      : [],
  )
  return [...rules, ...joints, ...coils, ...byEye].sort((a, b) => b.saves_min / b.minutes - a.saves_min / a.minutes)
}
