import { capLoose, commandsBetween, create, cutAt, freeId, heal, join, jointOf, part, set, type Work } from '../plan'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import {
  applyBatch,
  byTag,
  checkSite,
  endKey,
  entries,
  getOrThrow,
  portsOf,
  sameJson,
  type CableId,
  type Command,
  type CoreId,
  type DeviceId,
  type End,
  type PlaceId,
  type Site,
  type SpliceId,
  type StopId,
  type Finding,
} from '../site'
import { limitsOf, misfitOf, type ConnectorKind } from './connector'
import { seenOf, type Seen } from './conductor'
import { brokenRules, type Breach } from './rules'

/** An end in a box with the joint that holds it, or null. */
export interface EndHere {
  readonly seen: Seen
  readonly splice: SpliceId | null
  readonly capped: boolean
}

/** Everything that ends in a place: cores cut or ending there, leads of devices, terminals of its controllers. */
export function endsAt(site: Site, place: PlaceId): EndHere[] {
  const ends: End[] = []
  for (const [cable, c] of entries(site.cables))
    if (c.kind !== 'jumper')
      c.stops.forEach((stop, i) => {
        if (stop.place !== place) return
        for (const [core, record] of entries(c.cores).sort(([, a], [, b]) => a.order - b.order)) {
          const inner = i > 0 && i < c.stops.length - 1
          if (inner && !record.cutAt.includes(stop.id)) continue
          for (const side of inner
            ? (['arrives', 'leaves'] as const)
            : i === 0
              ? (['leaves'] as const)
              : (['arrives'] as const))
            ends.push({ kind: 'core', cable, core, stop: stop.id, side })
        }
      })
  for (const [device, d] of entries(site.devices))
    if (d.place === place) for (const port of portsOf(d)) ends.push({ kind: 'port', device, port })
  for (const [controller, c] of entries(site.controllers))
    if (c.place === place)
      for (const [terminal] of entries(c.terminals).sort(([, a], [, b]) => a.order - b.order))
        ends.push({ kind: 'terminal', controller, terminal })
  const holder = new Map(
    entries(site.splices).flatMap(([id, s]) =>
      s.ends.map((e) => [endKey(e), { id, capped: s.connector === 'cap' }] as const),
    ),
  )
  return ends.map((end) => {
    const held = holder.get(endKey(end))
    return { seen: seenOf(site, end), splice: held?.id ?? null, capped: held?.capped ?? false }
  })
}

/**
 * The commands that join ends in a box as they are found or made; they leave whatever held them. One end alone gets a
 * cap.
 */
export function joinCommands(
  site: Site,
  place: PlaceId,
  ends: readonly End[],
  connector: ConnectorKind,
): Outcome<Command[]> {
  const lands = ends.some((e) => e.kind === 'terminal')
  const kind: ConnectorKind = lands
    ? 'terminal'
    : ends.length === 1
      ? 'cap'
      : connector === 'cap' || connector === 'terminal'
        ? 'unknown'
        : connector
  const limits = limitsOf(site.settings, kind)
  const misfit =
    limits &&
    misfitOf(
      limits,
      ends.map((e) => seenOf(site, e).area_mm2),
    )
  if (misfit)
    return refused(
      refusal(`connector_${misfit.code}`, ['splices', 'connector'], {
        connector: kind,
        is: Math.round(misfit.is * 100) / 100,
        limit: misfit.limit,
        count: 0,
        jumpers: 0,
      }),
    )
  const coil = ends.find(
    (e, i) => e.kind === 'port' && ends.some((o, j) => j > i && o.kind === 'port' && o.device === e.device),
  )
  if (coil) return refused(refusal('both_leads', ['splices', 'ends'], { valve: seenOf(site, coil).from }))
  const work: Work = { site }
  const terminal = ends.find((e) => e.kind === 'terminal')
  if (terminal && jointOf(site, terminal) !== null) join(work, place, [terminal, ...ends.filter((e) => e !== terminal)])
  else {
    for (const e of ends) part(work, e)
    create(work, 'splices', freeId(work.site, 'splices', `${getOrThrow(site.places, place).tag}-j`), {
      place,
      connector: kind,
      ends: [...ends],
    })
  }
  return accepted(commandsBetween(site, work.site))
}

/** The commands that take ends out of their joints: they lie loose then. */
export function looseCommands(site: Site, ends: readonly End[]): Command[] {
  const work: Work = { site }
  for (const e of ends) part(work, e)
  return commandsBetween(site, work.site)
}

/**
 * The commands that cut a core in a box, or let it run through again; the new ends of a cut are capped until they are
 * joined.
 */
export function cutCommands(site: Site, cable: CableId, core: CoreId, stop: StopId, cut: boolean): Command[] {
  const work: Work = { site }
  if (cut) {
    cutAt(work, cable, core, stop)
    capLoose(work, cable)
  } else heal(work, cable, core, stop)
  return commandsBetween(site, work.site)
}

/** The commands that note the colour of a core: its own, or how it looks at one stop where that differs. */
export function colourCommands(
  site: Site,
  cable: CableId,
  core: CoreId,
  stop: StopId | null,
  colour: string,
  today: string,
): Command[] {
  const { cores } = getOrThrow(site.cables, cable)
  const record = getOrThrow(cores, core)
  const written = colour.trim()
  const { [stop ?? ('' as StopId)]: _was, ...others } = record.colourAt
  const next =
    stop === null
      ? { ...record, colour: written === '' ? null : { value: written, how: 'seen' as const, on: today } }
      : {
          ...record,
          colourAt:
            written === '' || written.toLowerCase() === record.colour?.value.toLowerCase()
              ? others
              : { ...record.colourAt, [stop]: written },
        }
  return sameJson(next, record)
    ? []
    : [{ do: 'set', in: 'cables', id: cable, field: 'cores', value: { ...cores, [core]: next } }]
}

export function leadColourCommands(site: Site, device: DeviceId, port: string, colour: string): Command[] {
  const { [port]: _was, ...others } = getOrThrow(site.devices, device).leads
  return [
    {
      do: 'set',
      in: 'devices',
      id: device,
      field: 'leads',
      value: colour.trim() === '' ? others : { ...others, [port]: colour.trim() },
    },
  ]
}

/** The commands that add a valve that stands in a box, under the next free tag. */
export function newValveCommands(site: Site, place: PlaceId): Command[] {
  const tags = new Set(Object.values(site.devices).map((d) => d.tag))
  let n = Object.keys(site.devices).length + 1
  while (tags.has(`V${n}`)) n++
  return [
    {
      do: 'create',
      in: 'devices',
      id: freeId(site, 'devices', `V${n}`),
      record: { kind: 'coil', place, tag: `V${n}` },
    },
  ]
}

/** The commands that add cores to a jacket as its count is found to be. */
export function coreCountCommands(site: Site, cable: CableId, count: number): Outcome<Command[]> {
  const { cores } = getOrThrow(site.cables, cable)
  const have = Object.keys(cores).length
  if (!Number.isInteger(count) || count < have || count > 60)
    return refused(refusal('not_within', ['cores'], { low: have, high: 60 }))
  const work: Work = { site }
  for (let n = have; n < count; n++) {
    const now = getOrThrow(work.site.cables, cable).cores
    let id = `c${n}`
    while (Object.hasOwn(now, id)) id += 'x'
    set(work, 'cables', cable, 'cores', {
      ...now,
      [id]: { order: Math.max(-1, ...Object.values(now).map((c) => c.order)) + 1 },
    })
  }
  return accepted(commandsBetween(site, work.site))
}

/** Something that a change would bring about: a rule broken, or a finding of the wiring's check. */
export type Trouble =
  | (Breach & { readonly section: 'breach' })
  | (Finding & { readonly section: 'finding'; readonly weight: 'wrong' | 'doubt' })

/** What a change would bring about that was not there before: told before a lead is landed. */
export function newTroubles(site: Site, commands: readonly Command[]): Trouble[] {
  const applied = applyBatch(site, commands)
  if (!applied.ok) return []
  const key = (r: Trouble) => JSON.stringify([r.code, r.params])
  const told = (s: Site): Trouble[] => [
    ...brokenRules(s).map((r) => ({ ...r, section: 'breach' as const })),
    ...checkSite(s).flatMap((f) =>
      f.weight === 'gap' ? [] : [{ ...f, weight: f.weight, section: 'finding' as const }],
    ),
  ]
  const before = new Set(told(site).map(key))
  return told(applied.value.site)
    .filter((r) => !before.has(key(r)))
    .sort((a, b) => (a.weight === b.weight ? byTag(a.code, b.code) : a.weight === 'wrong' ? -1 : 1))
}
