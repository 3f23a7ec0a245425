import type { CoilKind, Site, Stop } from '../site'
import {
  bounded,
  entries,
  getOrThrow,
  SOUND,
  type Cable,
  type CableId,
  type CoilKindId,
  type ControllerId,
} from '../site'

/** A property as it would be. Fields left out stay as they are. */
export interface WhatIf {
  /** How much farther from everything the controller stands, m; nearer where below zero. */
  readonly moved_m?: number
  /** More stations in one more box, so far beyond the farthest. */
  readonly added?: { readonly count: number; readonly beyond_m: number }
  readonly together?: number
  /** Every station's coil as this kind. */
  readonly coil?: CoilKind
  readonly rating_VA?: number
  readonly mains_Hz?: 50 | 60
  readonly hottest_C?: number
  readonly masterFirst?: boolean
}

/** The site with the changes in it; nothing is stored, the site given is not changed. */
export function asIf(site: Site, what: WhatIf): Site {
  const { moved_m, together, mains_Hz, hottest_C, rating_VA, masterFirst, coil, added } = what
  let next: Site = {
    ...site,
    settings: {
      ...site.settings,
      mains_Hz: mains_Hz ?? site.settings.mains_Hz,
      sizing: {
        ...site.settings.sizing,
        together: together ?? site.settings.sizing.together,
        hottest_C: hottest_C ?? site.settings.sizing.hottest_C,
      },
    },
    controllers: mapped(site.controllers, (c) => ({
      ...c,
      masterFirst: masterFirst ?? c.masterFirst,
      transformer: rating_VA === undefined ? c.transformer : { open_V: c.transformer?.open_V ?? null, rating_VA },
    })),
  }
  if (coil) {
    const stationCoils = new Set(Object.values(site.stations).flatMap((s) => s.valves))
    next = {
      ...next,
      coilKinds: { ...next.coilKinds, ['as_if' as CoilKindId]: coil },
      devices: mapped(next.devices, (d, id) =>
        stationCoils.has(id) ? { ...d, coilKind: 'as_if' as typeof d.coilKind } : d,
      ),
    }
  }
  if (added && added.count > 0) next = withStations(next, added.count, added.beyond_m)
  return moved_m
    ? { ...next, cables: mapped(next.cables, (c) => ({ ...c, stops: moved(next, c.stops, moved_m) })) }
    : next
}

const mapped = <K extends string, T>(records: Readonly<Record<K, T>>, change: (record: T, id: K) => T): Record<K, T> =>
  Object.fromEntries(entries(records).map(([id, record]) => [id, change(record, id)])) as Record<K, T>

/** A cable that begins at a cabinet keeps its beginning; everything on it lies so much farther. Never less than 1 m. */
function moved(site: Site, stops: readonly Stop[], by_m: number): Stop[] {
  const home = Object.values(site.controllers).some((c) => c.place === stops[0]!.place)
  const first = stops[1] && bounded(stops[1].at_m)
  const by = first ? Math.max(by_m, 1 - first.low) : by_m
  const shift = (at: number) => at + by
  return stops.map((stop, i): Stop => {
    if (!home || i === 0 || stop.at_m === null) return stop
    return {
      ...stop,
      at_m:
        'value' in stop.at_m
          ? { ...stop.at_m, value: shift(stop.at_m.value) }
          : { ...stop.at_m, low: shift(stop.at_m.low), high: shift(stop.at_m.high) },
    }
  })
}

/**
 * More stations like the farthest: each with a lead of its own from the cabinet, the common carried on to a new box.
 * They need no free terminals here; whether the controller has them is another question.
 */
function withStations(site: Site, count: number, beyond_m: number): Site {
  const far = farthest(site)
  if (!far) return site
  const { stationId, cable, at_m, controller, place } = far
  const model = getOrThrow(site.stations, stationId)
  const valve = getOrThrow(site.devices, model.valves[0]!)
  const next = structuredClone(site) as Site
  const box = newId('box')
  next.places[box] = { ...getOrThrow(site.places, place), tag: 'as_if' as never }
  const like = getOrThrow(site.cables, cable)
  const home = getOrThrow(site.controllers, controller).place
  next.cables[newId('common')] = singleCore(like, [place, at_m], [box, at_m + beyond_m])
  // The common is carried on from the joint that holds the farthest valve's common side.
  const tap = entries(next.splices).find(
    ([, s]) =>
      s.place === place &&
      s.ends.some((e) => e.kind === 'port' && e.device === model.valves[0] && e.port === far.commonPort),
  )
  if (tap) tap[1].ends.push(endOf(newId('common'), 'leaves') as never)
  const taps: unknown[] = [endOf(newId('common'), 'arrives')]
  for (let n = 1; n <= count; n++) {
    const [lead, valveId, terminal] = [newId(`lead_${n}`), newId(`valve_${n}`), newId(`t${n}`)]
    next.cables[lead] = singleCore(like, [home, 0], [box, at_m + beyond_m])
    next.devices[valveId] = { ...valve, tag: null, place: box } as never
    next.controllers[controller]!.terminals[terminal] = {
      tag: `as_if_${n}`,
      role: 'station',
      label: '',
      order: 5000 + n,
    } as never
    next.stations[newId(`station_${n}`)] = { ...model, terminal, name: `+${n}`, valves: [valveId] } as never
    const screw = { kind: 'terminal', controller, terminal }
    next.splices[newId(`landing_${n}`)] = jointOf([screw, endOf(lead, 'leaves')], home, 'terminal')
    const port = { kind: 'port', device: valveId, port: 'a' }
    next.splices[newId(`joint_${n}`)] = jointOf([endOf(lead, 'arrives'), port], box)
    taps.push({ kind: 'port', device: valveId, port: 'b' })
  }
  next.splices[newId('tap')] = jointOf(taps, box)
  return next
}

const newId = (name: string) => `as_if_${name}` as never
/** A single conductor of a cable's gauge between two places, each with its metre mark. */
const singleCore = (like: Cable, from: readonly [string, number], to: readonly [string, number]): Cable => ({
  ...structuredClone(like),
  tag: null,
  kind: 'single',
  marks: [],
  bends: {},
  filler: '',
  cores: {
    ['c' as never]: {
      colour: null,
      colourAt: {},
      pinned: null,
      gauge: null,
      cutAt: [],
      conditions: {},
      condition: SOUND,
      order: 0,
    },
  },
  stops: (
    [
      ['s', from],
      ['e', to],
    ] as const
  ).map(([id, [place, value]]) => ({
    id: id as never,
    place: place as never,
    at_m: { value, how: 'assumed', on: null },
  })),
})
/** The end of such a conductor. */
const endOf = (cable: string, side: 'leaves' | 'arrives') => ({
  kind: 'core',
  cable,
  core: 'c',
  stop: side === 'leaves' ? 's' : 'e',
  side,
})
const jointOf = (ends: readonly unknown[], place: string, connector = 'unknown') =>
  ({ place, connector, ends, made: null, condition: SOUND }) as never

function farthest(site: Site): {
  stationId: never
  cable: CableId
  at_m: number
  controller: ControllerId
  place: string
  commonPort: 'a' | 'b'
} | null {
  let best: ReturnType<typeof farthest> = null
  for (const [stationId, station] of entries(site.stations)) {
    const valve = station.valves[0]
    if (valve === undefined) continue
    for (const splice of Object.values(site.splices)) {
      const lead = splice.ends.find((e) => e.kind === 'core')
      const port = splice.ends.find((e) => e.kind === 'port' && e.device === valve)
      if (splice.ends.length !== 2 || lead?.kind !== 'core' || port?.kind !== 'port') continue
      const stop = getOrThrow(site.cables, lead.cable).stops.find((s) => s.id === lead.stop)
      const at = stop ? bounded(stop.at_m)?.value : undefined
      if (at !== undefined && (best === null || at > best.at_m))
        best = {
          stationId: stationId as never,
          cable: lead.cable,
          at_m: at,
          controller: station.controller,
          place: splice.place,
          commonPort: port.port === 'a' ? 'b' : 'a',
        }
    }
  }
  return best
}
