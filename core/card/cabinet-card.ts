import { doorOf, unlandedAt } from '../cabinet'
import { expectedAt } from '../procedure'
import { terminalTest, type Scene } from '../expect'
import { baselineOf, pastOfTest, type PastByTest, type SceneAt } from '../history'
import { COMMON_METER, type Facts } from '../record'
import {
  byTag,
  entries,
  getOrThrow,
  lookUp,
  pointAt,
  stationAt,
  type ControllerId,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../site'

/** A line of the card on a cabinet’s door. */
export interface CardLine {
  readonly terminal: TerminalId
  readonly label: string
  readonly role: 'common' | 'station' | 'master' | 'sensor' | 'path' | 'other'
  readonly name: string
  readonly zone: string
  /** Cable and colour of each conductor under the screw; null where nobody noted a colour. */
  readonly conductors: readonly { readonly from: string; readonly colour: string | null }[]
  /** Boxes with its valves. */
  readonly boxes: readonly string[]
  /** What it read when it was last taken as well, and on which day. */
  readonly baseline: { readonly ohm: number; readonly at: string } | null
  /** What it should read by the record, at the property’s usual ground; null where that cannot be said. */
  readonly expected_ohm: number | null
}

/** The card on a cabinet’s door: what twenty years later somebody will want to know there. */
export interface CabinetCard {
  readonly property: string
  readonly contractor: string
  readonly controller: { readonly tag: string; readonly name: string; readonly place: PlaceId }
  readonly lines: readonly CardLine[]
  /** Conductors in the cabinet that are under no screw. */
  readonly spares: readonly { readonly from: string; readonly colour: string | null; readonly state: string }[]
  readonly master: { readonly name: string; readonly box: string } | null
  readonly temporary: readonly { readonly what: string; readonly since: string }[]
  readonly ground_C: number
}

/** What the card and other prints are worked out from. */
export interface CardSources {
  readonly scene: Scene
  readonly sceneAt: SceneAt
  readonly past: PastByTest
  readonly facts: Facts
}

export function cabinetCard(site: Site, controller: ControllerId, sources: CardSources): CabinetCard {
  const record = getOrThrow(site.controllers, controller)
  const point = Object.values(site.pointsOfConnection).find((p) => p.terminal?.controller === controller)
  const master = point?.masterValve ? getOrThrow(site.devices, point.masterValve) : null
  return {
    property: site.about.name,
    contractor: site.about.contractor,
    controller: { tag: record.tag, name: record.name, place: record.place },
    lines: doorOf(site, controller)
      .filter((t) => t.landed.length > 0 || t.name !== '')
      .map((t): CardLine => ({
        terminal: t.terminal,
        label: t.label || t.tag,
        role: t.role,
        name: t.name,
        zone: stationAt(site, { controller, terminal: t.terminal })?.[1].zone ?? '',
        conductors: t.landed.map(({ from, colour }) => ({ from, colour })),
        boxes: boxesOf(site, controller, t.terminal),
        ...ohmsOf(site, controller, t.terminal, t.role, sources),
      })),
    spares: unlandedAt(site, record.place).map(({ seen, state }) => ({
      from: seen.from,
      colour: seen.colour,
      state,
    })),
    master: master && { name: master.name || point!.name, box: getOrThrow(site.places, master.place).tag },
    temporary: entries(site.temporaryStates)
      .map(([, { what, since }]) => ({ what, since }))
      .sort((a, b) => a.since.localeCompare(b.since)),
    ground_C: site.settings.ground_C,
  }
}

function boxesOf(site: Site, controller: ControllerId, terminal: TerminalId): string[] {
  const point = pointAt(site, { controller, terminal })?.[1]
  const valves = stationAt(site, { controller, terminal })?.[1].valves ?? [point?.masterValve ?? []].flat()
  const places = valves.flatMap((v) => lookUp(site.devices, v)?.place ?? [])
  return [...new Set(places.map((p) => getOrThrow(site.places, p).tag))].sort(byTag)
}

function ohmsOf(
  site: Site,
  controller: ControllerId,
  terminal: TerminalId,
  role: CardLine['role'],
  { scene, sceneAt, past, facts }: CardSources,
): Pick<CardLine, 'baseline' | 'expected_ohm'> {
  const test = role === 'station' || role === 'master' ? terminalTest(site, controller, terminal) : null
  if (!test) return { baseline: null, expected_ohm: null }
  const expected = expectedAt(scene, test, COMMON_METER)
  const kept = baselineOf(scene, sceneAt, test, COMMON_METER, pastOfTest(past, test))
  const value = kept && facts.readings[kept.reading]?.value
  return {
    baseline: value?.kind === 'ohm' ? { ohm: value.ohm, at: kept!.at } : null,
    expected_ohm: expected?.kind === 'ohms' ? expected.expected_ohm : null,
  }
}
