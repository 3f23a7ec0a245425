import { refusal, type Refusal } from '../refusal'
import {
  entries,
  getOrThrow,
  stationsByNumber,
  type Command,
  type Controller,
  type ControllerId,
  type Site,
  type TerminalId,
} from '../site'

/** A bay with what the controller makes of it. */
export interface SeenBay {
  readonly tag: string
  readonly stations: number
  readonly kind: 'stations' | 'decoders' | 'empty'
  readonly seen: boolean
  readonly from: number | null
  readonly to: number | null
}
export interface ModuleCount {
  readonly bays: readonly SeenBay[]
  /** Stations that the controller sees from its base and modules; null where the base was not counted. */
  readonly counted: number | null
  /** Station terminals on record. */
  readonly onRecord: number
  readonly broken: readonly Refusal[]
}

/**
 * What a controller sees of its modules. Bays are read in order: what comes after an empty bay is not seen, and where a
 * decoder module makes it a hybrid, conventional stations come first and the path after them.
 */
export function modulesOf(site: Site, controller: ControllerId): ModuleCount {
  const record = getOrThrow(site.controllers, controller)
  const broken: Refusal[] = []
  const path = ['controllers', controller, 'bays']
  let next = (record.fixedStations ?? 0) + 1
  const [gap, decoder] = [
    record.bays.findIndex((b) => b.module === null),
    record.bays.findIndex((b) => b.module?.kind === 'decoders'),
  ]
  const bays = record.bays.map(({ tag, module }, i): SeenBay => {
    if (module === null) return { tag, stations: 0, kind: 'empty', seen: true, from: null, to: null }
    const seen = gap < 0 || i < gap
    if (!seen) broken.push(refusal('bay_skipped', [...path, i], { bay: tag, empty: record.bays[gap]!.tag }))
    if (decoder >= 0 && i > decoder && module.kind === 'stations')
      broken.push(refusal('stations_after_decoders', [...path, i], { bay: tag, decoders: record.bays[decoder]!.tag }))
    const from = seen ? next : null
    if (seen) next += module.stations
    return { tag, stations: module.stations, kind: module.kind, seen, from, to: seen ? next - 1 : null }
  })
  const onRecord = Object.values(record.terminals).filter((t) => t.role === 'station').length
  const counted = record.fixedStations === null && record.bays.length === 0 ? null : next - 1
  const conventional =
    counted === null
      ? null
      : counted - bays.filter((b) => b.seen && b.kind === 'decoders').reduce((n, b) => n + b.stations, 0)
  if (conventional !== null && conventional !== onRecord)
    broken.push(
      refusal('terminals_miscounted', ['controllers', controller, 'terminals'], {
        controller: record.tag,
        counted: conventional,
        onRecord,
      }),
    )
  if (record.bays.some((b) => b.module?.kind === 'decoders') && record.kind === 'conventional')
    broken.push(refusal('decoders_make_hybrid', ['controllers', controller, 'kind'], { controller: record.tag }))
  const numbers = stationsByNumber(site, controller).length
  if (record.mostStations !== null && onRecord + numbers > record.mostStations)
    broken.push(
      refusal('too_many_stations', ['controllers', controller, 'mostStations'], {
        controller: record.tag,
        count: onRecord + numbers,
        most: record.mostStations,
      }),
    )
  return { bays, counted, onRecord, broken }
}

/**
 * The commands that bring the station terminals to the count of base and modules; terminals in use are never taken
 * away.
 */
export function terminalsToCount(site: Site, controller: ControllerId): Command[] {
  const record = getOrThrow(site.controllers, controller)
  const { bays, counted } = modulesOf(site, controller)
  if (counted === null) return []
  const wanted = counted - bays.filter((b) => b.seen && b.kind === 'decoders').reduce((n, b) => n + b.stations, 0)
  const used = new Set<TerminalId>([
    ...Object.values(site.stations)
      .filter((s) => s.controller === controller)
      .map((s) => s.terminal),
    ...Object.values(site.programs)
      .filter((p) => p.controller === controller)
      .flatMap((p) => p.runs.map((r) => r.terminal)),
    ...Object.values(site.splices).flatMap((s) =>
      s.ends.flatMap((e) => (e.kind === 'terminal' && e.controller === controller ? [e.terminal] : [])),
    ),
  ])
  const numbers = Array.from({ length: wanted }, (_, i) => String(i + 1))
  const terminals: Record<string, Controller['terminals'][TerminalId]> = {}
  for (const [id, t] of entries(record.terminals))
    if (t.role !== 'station' || numbers.includes(t.tag) || used.has(id)) terminals[id] = t
  for (const n of numbers)
    if (!Object.values(terminals).some((t) => t!.tag === n))
      terminals[freeId(terminals, n)] = { tag: n, role: 'station', label: '', order: 10 + Number(n) }
  return [{ do: 'set', in: 'controllers', id: controller, field: 'terminals', value: terminals }]
}

const freeId = (terminals: object, wanted: string): string =>
  Object.hasOwn(terminals, wanted) ? freeId(terminals, `${wanted}x`) : wanted
