import { commandsBetween, create, freeId, setDistance, type Work } from '../plan'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import {
  entries,
  getOrThrow,
  type CableId,
  type Command,
  type Place,
  type PlaceId,
  type Point,
  type Site,
  type StopId,
  type WayMark,
} from '../site'
import { drawnDistances_m } from './route'

/** Positions are kept to the millimetre: nobody places a box closer, and feet come back as they were typed. */
export const rounded = ({ x_m, y_m }: Point): Point => ({
  x_m: Math.round(x_m * 1000) / 1000,
  y_m: Math.round(y_m * 1000) / 1000,
})

/** The commands that put a place on the map: as drawn, or as found (it then counts as found). */
export function placeCommands(site: Site, place: PlaceId, at: Point, as: 'drawn' | 'found', today: string): Command[] {
  const record = getOrThrow(site.places, place)
  if (as === 'drawn')
    return [
      {
        do: 'set',
        in: 'places',
        id: place,
        field: 'position',
        value: { value: rounded(at), how: 'assumed', on: null },
      },
    ]
  const commands: Command[] = [
    { do: 'set', in: 'places', id: place, field: 'foundAt', value: { value: rounded(at), how: 'seen', on: today } },
  ]
  return record.found === 'found'
    ? commands
    : [...commands, { do: 'set', in: 'places', id: place, field: 'found', value: 'found' }]
}

/** The commands that draw a new box, with the next free tag. */
export function newPlaceCommands(site: Site, at: Point, kind: Place['kind']): { commands: Command[]; id: string } {
  const tags = new Set(Object.values(site.places).map((p) => p.tag))
  const letter = kind === 'cabinet' ? 'C' : kind === 'junction_box' ? 'J' : 'B'
  let n = 1
  while (tags.has(`${letter}${n}`)) n++
  const id = freeId(site, 'places', `${letter}${n}`)
  return {
    id,
    commands: [
      {
        do: 'create',
        in: 'places',
        id,
        record: { tag: `${letter}${n}`, kind, found: 'expected', position: { value: rounded(at), how: 'assumed' } },
      },
    ],
  }
}

/** The commands that set the bends between a stop and the next. */
export function bendCommands(site: Site, cable: CableId, stop: StopId, bends: readonly Point[]): Command[] {
  const { [stop]: _old, ...rest } = getOrThrow(site.cables, cable).bends
  return [{ do: 'set', in: 'cables', id: cable, field: 'bends', value: { ...rest, [stop]: bends.map(rounded) } }]
}

/**
 * The commands that take every distance of a run from its drawing, on the leads beside it too. Stops that cannot be
 * drawn keep theirs.
 */
export function lengthsFromDrawing(site: Site, cable: CableId): Outcome<Command[]> {
  const drawn = drawnDistances_m(site, getOrThrow(site.cables, cable))
  if (drawn.filter((d) => d !== null).length < 2)
    return refused(refusal('not_drawn', ['cables', cable], { cable: getOrThrow(site.cables, cable).tag ?? cable }))
  const work: Work = { site }
  const { stops } = getOrThrow(site.cables, cable)
  stops.forEach((stop, i) => {
    if (i > 0 && drawn[i] !== null) setDistance(work, cable, stop.place, Math.round(drawn[i]! * 10) / 10)
  })
  return accepted(commandsBetween(site, work.site))
}

/** The commands that note a sleeve or a hazard along a cable. */
export function markCommands(cable: CableId, marks: readonly WayMark[]): Command[] {
  return [{ do: 'set', in: 'cables', id: cable, field: 'marks', value: [...marks].sort((a, b) => a.from_m - b.from_m) }]
}

/** The commands that lay a new cable through places in order, its bends between them. */
export function drawCable(
  work: Work,
  tag: string | null,
  stops: readonly PlaceId[],
  bends: readonly (readonly Point[])[],
): CableId {
  const id = freeId(work.site, 'cables', tag ?? 'route') as CableId
  const records = stops.map((place, i) => ({
    id: i === 0 ? 'home' : `s${i}`,
    place,
    at_m: i === 0 ? { value: 0, how: 'assumed' as const } : null,
  }))
  create(work, 'cables', id, {
    tag,
    kind: 'multicore',
    stops: records,
    cores: {},
    bends: Object.fromEntries(bends.flatMap((b, i) => (b.length > 0 ? [[records[i]!.id, b.map(rounded)]] : []))),
  })
  return id
}

/** The commands that take a place off the property; one where something stands, ends or passes is refused. */
export function removePlaceCommands(site: Site, place: PlaceId): Outcome<Command[]> {
  const used =
    [...Object.values(site.devices), ...Object.values(site.controllers), ...Object.values(site.splices)].some(
      (r) => r.place === place,
    ) || Object.values(site.cables).some((c) => c.stops.some((s) => s.place === place))
  return used
    ? refused(refusal('place_in_use', ['places', place], { at: getOrThrow(site.places, place).tag }))
    : accepted([{ do: 'remove', in: 'places', id: place }])
}

/**
 * The commands that take a cable off the property with the caps on its ends; one that is joined anywhere is refused.
 */
export function removeCableCommands(site: Site, cable: CableId): Outcome<Command[]> {
  const on = entries(site.splices).filter(([, s]) => s.ends.some((e) => e.kind === 'core' && e.cable === cable))
  if (on.some(([, s]) => s.connector !== 'cap'))
    return refused(refusal('cable_in_use', ['cables', cable], { cable: getOrThrow(site.cables, cable).tag ?? cable }))
  return accepted([
    ...on.map(([id]): Command => ({ do: 'remove', in: 'splices', id })),
    { do: 'remove', in: 'cables', id: cable },
  ])
}
