import { isOnRecord, placeOf } from '../procedure'
import { quotesIn } from '../quoted'
import { partKey, type Facts, type Part, type PriceList, type QuotedItem, type QuoteLine } from '../record'
import { isPartOnRecord, type Possible, type RepairCode } from '../repair'
import { sightingsIn } from '../sightings'
import { entries, getOrThrow, type Controller, type ControllerId, type PlaceId, type Site } from '../site'
import type { Due } from './due'
import { quoteLines } from './lines'
import { itemsWithLines } from './sent'

/** A line that somebody wrote into a quote: for a finding, or for itself. */
export interface OwnLine {
  readonly id: string
  readonly sighting: string | null
  readonly code: string
  /** As it was typed. */
  readonly quantity: string
}

/** A part that is known to be bad, with the repair that is quoted for it; null where none is. */
export interface DraftPart extends Due {
  readonly key: string
  readonly possible: readonly Possible[]
  readonly chosen: Possible | null
  /** It is in a quote that waits for its answer, or in one that was accepted. */
  readonly isQuoted: boolean
}

const QUANTITY = /^\d{1,9}(\.\d{1,6})?$/
/** A quantity as it is kept: with a point, whatever it was typed with. */
const quantityOf = (typed: string): string => typed.trim().replace(',', '.')
/** Whether what was typed is a quantity. */
export const isQuantity = (typed: string): boolean => QUANTITY.test(quantityOf(typed))

/** Keys of what is in a quote that waits for its answer, or was accepted in one. */
const quotedKeys = (facts: Facts): ReadonlySet<string> =>
  new Set(
    quotesIn(facts).flatMap(({ state, quote, accepted }) =>
      state === 'open' ? quote.items.map((i) => i.key) : [...accepted],
    ),
  )

/**
 * What is due, each with the repair that is quoted: as it was chosen, else the first that is possible. What is quoted
 * already is not quoted twice, unless somebody asks for it; what somebody has taken off the record is left out.
 * @param asked by the keys of parts; null is none
 */
export function draftParts(
  site: Site,
  facts: Facts,
  due: readonly Due[],
  asked: Readonly<Record<string, RepairCode | null>>,
): DraftPart[] {
  const quoted = quotedKeys(facts)
  return due
    .filter(({ where }) => isPartOnRecord(site, where))
    .map((one) => {
      const key = partKey(one.where)
      const possible = one.options.flatMap((o) => (o.possible ? [o] : []))
      const wish = asked[key]
      const isQuoted = quoted.has(key)
      const usual = isQuoted && wish === undefined ? null : (possible[0] ?? null)
      const chosen = wish === null ? null : (possible.find((o) => o.code === wish) ?? usual)
      return { ...one, key, possible, chosen, isQuoted }
    })
}

/**
 * The controllers at whose cabinets somebody reads for these parts, in the order of the record: the round begins at the
 * first. Where there are no parts, the first of the property.
 */
export function cabinetsFor(site: Site, parts: readonly Pick<Due, 'controller'>[]): [ControllerId, Controller][] {
  const all = entries(site.controllers)
  const own = all.filter(([id]) => parts.some((p) => p.controller === id))
  return own.length > 0 ? own : all.slice(0, 1)
}

/**
 * The lines of a draft: what its repairs take, with the walk to all of its places, and those that somebody wrote.
 * @param tuned by how much the usual minutes of a repair are multiplied
 */
export function draftLines(
  site: Site,
  facts: Facts,
  parts: readonly DraftPart[],
  own: readonly OwnLine[],
  list: PriceList | null,
  tuned: (code: string) => number = () => 1,
): QuoteLine[] {
  const repairs = parts.flatMap(({ where, chosen }) => (chosen ? [{ where, option: chosen }] : []))
  const seenOn = new Map(sightingsIn(facts).map(({ id, seen }) => [id, seen.on]))
  const placeFor = (sighting: string | null): PlaceId | null => {
    const on = sighting === null ? undefined : seenOn.get(sighting)
    return on && isOnRecord(site, on) ? placeOf(site, on) : null
  }
  const written = own.map((l): QuoteLine => {
    const place = placeFor(l.sighting)
    const unit = list?.prices.find((p) => p.code === l.code)?.unit ?? 'piece'
    return {
      key: l.id,
      item: l.sighting ?? l.id,
      place: place && getOrThrow(site.places, place).tag,
      code: l.code,
      // An hour is quoted by its minutes, as the work of repairs is.
      unit: unit === 'h' ? 'min' : unit,
      quantity: quantityOf(l.quantity),
    }
  })
  const [home, ...others] = cabinetsFor(
    site,
    parts.filter((p) => p.chosen),
  )
  const further = [...others.map(([, c]) => c.place), ...own.flatMap((l) => placeFor(l.sighting) ?? [])]
  return [...(home ? quoteLines(site, home[0], repairs, further, tuned) : []), ...written]
}

/**
 * What of a draft is accepted or declined as one: a repair, a finding with all its lines, or a line by itself; each
 * once, and those alone that some line is for.
 * @param says in the customer's words; an empty one of a finding is told by its line's price
 */
export function draftItems(
  parts: readonly DraftPart[],
  own: readonly OwnLine[],
  lines: readonly QuoteLine[],
  list: PriceList | null,
  says: { readonly repair: (where: Part, code: RepairCode) => string; readonly sighting: (id: string) => string },
): QuotedItem[] {
  const repairs = parts.flatMap(({ key, where, chosen }): QuotedItem[] =>
    chosen
      ? [
          {
            key,
            of: { kind: 'repair', where, option: chosen.code },
            says: says.repair(where, chosen.code),
            usual_min: chosen.minutes,
          },
        ]
      : [],
  )
  const written = own.map(({ id, sighting, code }): QuotedItem => {
    const name = list?.prices.find((p) => p.code === code)?.name ?? code
    return sighting === null
      ? { key: id, of: { kind: 'line' }, says: name, usual_min: null }
      : { key: sighting, of: { kind: 'sighting', sighting }, says: says.sighting(sighting) || name, usual_min: null }
  })
  const all = [...repairs, ...written]
  return itemsWithLines(
    all.filter((item, n) => all.findIndex((other) => other.key === item.key) === n),
    lines,
  )
}
