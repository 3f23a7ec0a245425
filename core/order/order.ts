import { expectSweep, sceneOf, type Expected } from '../expect'
import { threadsThrough } from '../history'
import { apart_m, roundOnFoot, whereIs } from '../map'
import { controllerFor, isOnRecord, proceduresOn } from '../procedure'
import type { Sent } from '../quoted'
import {
  COMMON_METER,
  partKey,
  targetOfPart,
  type Part,
  type Procedure,
  type QuotedItem,
  type WorkTarget,
} from '../record'
import { knownBad } from '../repair'
import { entries, getOrThrow, type ControllerId, type PlaceId, type Site } from '../site'

/** What is read at the cabinet after a repair: a thread, and what its ohms are then. */
export interface ToRead {
  readonly controller: ControllerId
  readonly expected: Expected
}
/** Something of an order that is done at one place. */
export interface OrderItem {
  readonly item: QuotedItem
  /** As quoted. */
  readonly minutes: number
  /** How it is done, where a procedure says so, and on what. */
  readonly by: { readonly procedure: Procedure; readonly on: WorkTarget } | null
  readonly toRead: readonly ToRead[]
  /** Whether the record has the part as bad: the repair is to be written into it. */
  readonly isBad: boolean
}
/** A place on the way; null for what belongs to none. */
export interface OrderStop {
  readonly place: PlaceId | null
  readonly items: readonly OrderItem[]
}
/** Something that goes into the van, as much as was quoted: the reserve is in it. */
export interface OrderPart {
  readonly code: string
  readonly name: string
  readonly unit: string
  readonly quantity: number
}
/** What a crew does of a quote that was accepted: the places in the order of walking, and what goes into the van. */
export interface WorkOrder {
  readonly stops: readonly OrderStop[]
  readonly walk_m: number
  readonly minutes: number
  readonly parts: readonly OrderPart[]
}

/** Procedures by what is done; of several the first that can be done there. */
const DONE_BY: Readonly<Record<string, readonly string[]>> = {
  remake_joint: ['remake'],
  spare_core: ['spare_swap'],
  other_terminal: ['land_lead'],
  swap_back: ['land_lead'],
  module: ['module'],
  sequencer: ['sequencer'],
  two_wire: ['convert'],
  coil: ['coil_change'],
}

/** The work that was accepted and is not done yet. */
export function workOrder(site: Site, { quote, accepted, done }: Sent): WorkOrder {
  const left = quote.items.filter((i) => accepted.has(i.key) && !done.has(i.key))
  const keys = new Set(left.map((i) => i.key))
  const lines = quote.lines.filter((l) => l.item !== null && keys.has(l.item))
  const byTag = new Map(entries(site.places).map(([id, p]) => [p.tag, id]))
  const placeOfItem = (key: string): PlaceId | null => {
    const tag = lines.find((l) => l.item === key && l.place !== null)?.place
    return (tag != null && byTag.get(tag)) || null
  }
  const bad = knownBad(site)
  const items = left.map((item): OrderItem & { place: PlaceId | null } => {
    const own = lines.filter((l) => l.item === item.key && l.unit === 'min')
    const known = item.of.kind === 'repair' ? bad.find((k) => partKey(k.where) === item.key) : undefined
    return {
      item,
      place: placeOfItem(item.key),
      minutes: own.reduce((sum, l) => sum + Number(l.quantity), 0),
      by: item.of.kind === 'repair' ? doneBy(site, item.of.where, item.of.option) : null,
      toRead: known ? toReadAfter(known.without, known.where) : [],
      isBad: known !== undefined,
    }
  })
  const { places, walk_m } = onFoot(site, [...new Set(items.flatMap((i) => i.place ?? []))])
  const stops = [...places, null].map((place) => ({
    place,
    items: items.filter((i) => i.place === place).map(({ place: _place, ...item }) => item),
  }))
  return {
    stops: stops.filter((s) => s.items.length > 0),
    walk_m,
    minutes: items.reduce((sum, i) => sum + i.minutes, 0),
    parts: partsOf(quote.prices.prices, lines),
  }
}

/** The procedure by which a repair of a part is done, and on what; null where none says so. */
export function doneBy(site: Site, where: Part, option: string): OrderItem['by'] {
  const on = targetOfPart(where)
  if (!isOnRecord(site, on)) return null
  const procedure = proceduresOn(site, on).find((p) => DONE_BY[option]?.includes(p.id))
  return procedure ? { procedure, on } : null
}

/** What the threads through a part read once it is mended. */
function toReadAfter(mended: Site, where: Part): ToRead[] {
  const target = targetOfPart(where)
  const controller = isOnRecord(mended, target) ? controllerFor(mended, target) : null
  if (controller === null) return []
  const scene = sceneOf(mended)
  const through = new Set(threadsThrough(scene, controller)(where))
  return expectSweep(scene, controller, COMMON_METER)
    .filter((e) => through.has(e.terminal))
    .map((expected) => ({ controller, expected }))
}

/** Places in the order of walking, from the first cabinet and back to it; those without a spot on the map come last. */
function onFoot(site: Site, places: readonly PlaceId[]): { places: PlaceId[]; walk_m: number } {
  const spot = (place: PlaceId) => whereIs(getOrThrow(site.places, place))
  const cabinet = entries(site.controllers)[0]?.[1].place
  const home = cabinet === undefined ? null : spot(cabinet)
  const known = places.flatMap((place) => {
    const at = spot(place)
    return at ? [{ place, at }] : []
  })
  const lost = places.filter((p) => !known.some((k) => k.place === p))
  if (!home || known.length === 0) return { places: [...places], walk_m: 0 }
  const order = roundOnFoot(
    home,
    known.map((k) => k.at),
  ).map((i) => known[i]!)
  const way = [home, ...order.map((k) => k.at), home]
  const walk_m = way.slice(1).reduce((sum, p, i) => sum + apart_m(way[i]!, p), 0)
  return { places: [...order.map((k) => k.place), ...lost], walk_m }
}

function partsOf(
  prices: readonly { readonly code: string; readonly name: string }[],
  lines: readonly { readonly code: string; readonly unit: string; readonly quantity: string }[],
): OrderPart[] {
  const parts = new Map<string, OrderPart>()
  for (const { code, unit, quantity } of lines) {
    if (unit === 'min' || unit === 'visit') continue
    const before = parts.get(code)?.quantity ?? 0
    const name = prices.find((p) => p.code === code)?.name ?? code
    parts.set(code, { code, name, unit, quantity: before + Number(quantity) })
  }
  return [...parts.values()]
}
