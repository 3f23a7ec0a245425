import { coded, pathText, type Coded } from '../refusal'
import { placeOfDefect } from './defect-place'
import { endKey } from './end-key'
import { commonOf, hangingOn, netsOf, type Hanging } from './nets'
import { byTag, entries, getOrThrow, lookUp } from './look-up'
import { gaugeOf } from './stretch'
import { terminalEnd, wiringOf, type Wiring } from './wiring'
import type { ControllerId, DeviceId, TerminalId } from './ids'
import type { Site } from './site'

/**
 * Something worth a look in a site that is otherwise in order. `wrong` will stop a valve; `doubt` may; `gap` is
 * missing knowledge.
 */
export interface Finding extends Coded<FindingCode> {
  readonly weight: 'wrong' | 'doubt' | 'gap'
}
export type FindingCode =
  | 'no_common'
  | 'lead_on_common'
  | 'nobody_meant'
  | 'dc_coil_on_ac'
  | 'swapped_pair'
  | 'valve_elsewhere'
  | 'valve_not_wired'
  | 'extra_valve'
  | 'no_valve_named'
  | 'known_open'
  | 'known_suspect'
  | 'known_grip'
  | 'known_series'
  | 'known_touch'
  | 'known_leak'
  | 'known_bare'
  | 'defect_moot'
  | 'box_lost'
  | 'coil_unknown'
  | 'length_unknown'
  | 'gauge_unknown'
  | 'common_colour_on_lead'
  | 'ends_unjoined'

const finding = (weight: Finding['weight'], ...rest: Parameters<typeof coded<FindingCode>>): Finding => ({
  ...coded(...rest),
  weight,
})

/** Where intent and wiring differ, where the wiring cannot work, and what is not known. The worst first. */
export function checkSite(site: Site): Finding[] {
  const wiring = wiringOf(site)
  const findings = [
    ...entries(site.controllers).flatMap(([id]) => checkController(site, wiring, id)),
    ...checkParts(site),
    ...checkCables(site),
    ...checkDefects(site),
  ]
  const rank = { wrong: 0, doubt: 1, gap: 2 }
  return findings.sort((a, b) => rank[a.weight] - rank[b.weight] || byTag(pathText(a.path), pathText(b.path)))
}

interface Meant {
  readonly label: string
  readonly path: readonly string[]
  readonly valves: readonly DeviceId[]
}

/** What each terminal of a controller is meant to run, by its stations and points of connection. */
function meantFor(site: Site, controller: ControllerId): Map<TerminalId, Meant> {
  const meant = new Map<TerminalId, Meant>()
  for (const [id, s] of entries(site.stations))
    if (s.controller === controller && s.address === null)
      meant.set(s.terminal, { label: label(site, controller, s.terminal), path: ['stations', id], valves: s.valves })
  for (const [id, p] of entries(site.pointsOfConnection)) {
    if (p.terminal?.controller !== controller) continue
    const { terminal } = p.terminal
    const valves = [p.masterValve, p.pumpRelay].filter((d) => d !== null)
    meant.set(terminal, {
      label: label(site, controller, terminal),
      path: ['pointsOfConnection', id],
      valves: [...(meant.get(terminal)?.valves ?? []), ...valves],
    })
  }
  return meant
}

const label = (site: Site, controller: ControllerId, terminal: TerminalId) =>
  `${site.controllers[controller]!.tag}:${site.controllers[controller]!.terminals[terminal]!.tag}`

function checkController(site: Site, wiring: Wiring, controller: ControllerId): Finding[] {
  const here = site.controllers[controller]!
  const path = ['controllers', controller]
  const common = commonOf(site, controller)
  if (common === null)
    return here.kind === 'two_wire'
      ? []
      : [finding('wrong', 'no_common', [...path, 'terminals'], { controller: here.tag })]
  const found: Finding[] = []
  const nets = netsOf(wiring)
  const netAt = (terminal: TerminalId) => nets.of(wiring.pointOf(terminalEnd(controller, terminal)))
  const hanging = hangingOn(site, wiring, controller)
  const meant = meantFor(site, controller)
  const onTerminal = new Map<DeviceId, TerminalId>()
  for (const [terminal, h] of hanging) for (const device of h.coils) onTerminal.set(device, terminal)

  for (const [terminal, t] of entries(here.terminals)) {
    const at = hanging.get(terminal)!
    const lead = label(site, controller, terminal)
    if (terminal !== common && at.landed && netAt(terminal) === netAt(common))
      found.push(finding('wrong', 'lead_on_common', [...path, 'terminals', terminal], { terminal: lead }))
    const extra = meant.has(terminal) || terminal === common ? [] : at.coils
    if (extra.length > 0)
      found.push(
        finding('doubt', 'nobody_meant', [...path, 'terminals', terminal], {
          terminal: lead,
          valves: names(site, extra),
        }),
      )
    if (t.role === 'station')
      for (const d of at.coils) {
        const kind = lookUp(site.coilKinds, site.devices[d]!.coilKind ?? '')
        if (kind?.current === 'dc_latching')
          found.push(
            finding('wrong', 'dc_coil_on_ac', ['devices', d, 'coilKind'], { valve: names(site, [d]), terminal: lead }),
          )
      }
  }
  const told = new Set<TerminalId>()
  for (const [terminal, m] of meant) {
    if (told.has(terminal)) continue
    const other = swappedWith(terminal, m, meant, hanging)
    if (other) {
      told.add(other)
      found.push(finding('wrong', 'swapped_pair', m.path, { terminal: m.label, other: meant.get(other)!.label }))
      continue
    }
    found.push(...compare(site, m, hanging.get(terminal)!, onTerminal, controller))
  }
  return found
}

/** The terminal whose intended valves hang here while this one's hang there, or null. */
function swappedWith(
  terminal: TerminalId,
  m: Meant,
  meant: Map<TerminalId, Meant>,
  hanging: ReadonlyMap<TerminalId, Hanging>,
): TerminalId | null {
  const same = (a: readonly DeviceId[], b: readonly DeviceId[]) =>
    a.length > 0 && a.length === b.length && a.every((d) => b.includes(d))
  for (const [other, o] of meant)
    if (other !== terminal && same(m.valves, hanging.get(other)!.coils) && same(o.valves, hanging.get(terminal)!.coils))
      return other
  return null
}

function compare(
  site: Site,
  m: Meant,
  at: Hanging,
  onTerminal: ReadonlyMap<DeviceId, TerminalId>,
  controller: ControllerId,
): Finding[] {
  const found: Finding[] = []
  if (at.switchedBy.length > 0) return []
  for (const valve of m.valves) {
    if (at.coils.includes(valve)) continue
    const elsewhere = onTerminal.get(valve)
    if (elsewhere)
      found.push(
        finding('wrong', 'valve_elsewhere', m.path, {
          terminal: m.label,
          valve: names(site, [valve]),
          other: label(site, controller, elsewhere),
        }),
      )
    else found.push(finding('gap', 'valve_not_wired', m.path, { terminal: m.label, valve: names(site, [valve]) }))
  }
  const extra = at.coils.filter((d) => !m.valves.includes(d))
  if (extra.length > 0)
    found.push(finding('doubt', 'extra_valve', m.path, { terminal: m.label, valves: names(site, extra) }))
  if (m.valves.length === 0 && at.coils.length === 0)
    found.push(finding('gap', 'no_valve_named', m.path, { terminal: m.label }))
  return found
}

const names = (site: Site, devices: readonly DeviceId[]) =>
  devices.map((d) => site.devices[d]!.tag ?? (site.devices[d]!.name || d)).join(', ')

function checkParts(site: Site): Finding[] {
  const found: Finding[] = []
  const parts = [
    ...entries(site.places).map(([id, p]) => ({ path: ['places', id, 'condition'], part: p, at: p.tag })),
    ...entries(site.devices).map(([id, d]) => ({
      path: ['devices', id, 'condition'],
      part: d,
      at: site.places[d.place]!.tag,
    })),
    ...entries(site.splices).map(([id, s]) => ({
      path: ['splices', id, 'condition'],
      part: s,
      at: site.places[s.place]!.tag,
    })),
    ...entries(site.cables).map(([id, c]) => ({ path: ['cables', id, 'condition'], part: c, at: c.tag ?? id })),
  ]
  for (const { path, part, at } of parts) {
    if (part.condition.state === 'open') found.push(finding('wrong', 'known_open', path, { at }))
    if (part.condition.state === 'suspect') found.push(finding('doubt', 'known_suspect', path, { at }))
  }
  for (const [id, p] of entries(site.places))
    if (p.found === 'lost') found.push(finding('gap', 'box_lost', ['places', id, 'found'], { at: p.tag }))
  for (const [id, d] of entries(site.devices))
    if ((d.kind === 'coil' || d.kind === 'relay') && d.coilKind === null)
      found.push(finding('gap', 'coil_unknown', ['devices', id, 'coilKind'], { valve: names(site, [id]) }))
  return found
}

function checkCables(site: Site): Finding[] {
  const found: Finding[] = []
  const held = new Set(entries(site.splices).flatMap(([, s]) => s.ends.map(endKey)))
  const onLeads = coresOnLeads(site)
  for (const [id, cable] of entries(site.cables)) {
    const path = ['cables', id]
    const tag = cable.tag ?? id
    const unknown = cable.stops.slice(1).filter((s) => s.at_m === null).length
    if (unknown > 0) found.push(finding('gap', 'length_unknown', [...path, 'stops'], { cable: tag, count: unknown }))
    const loose = new Map<string, number>()
    for (const [coreId, core] of entries(cable.cores)) {
      if (gaugeOf(cable, core) === null)
        found.push(finding('gap', 'gauge_unknown', [...path, 'cores', coreId, 'gauge'], { cable: tag }))
      for (const [stop, condition] of entries(core.conditions))
        if (condition.state === 'open')
          found.push(finding('wrong', 'known_open', [...path, 'cores', coreId, 'conditions', stop], { at: tag }))
      cable.stops.forEach((stop, i) => {
        const sides =
          i === 0
            ? ['leaves']
            : i === cable.stops.length - 1
              ? ['arrives']
              : core.cutAt.includes(stop.id)
                ? ['arrives', 'leaves']
                : []
        for (const side of sides) {
          const key = `core ${id} ${coreId} ${stop.id} ${side}`
          if (!held.has(key)) loose.set(stop.place, (loose.get(stop.place) ?? 0) + 1)
        }
      })
      const colour = core.colour?.value.toLowerCase()
      if (colour === site.settings.commonColour.toLowerCase() && onLeads.has(`${id}/${coreId}`))
        found.push(
          finding('doubt', 'common_colour_on_lead', [...path, 'cores', coreId, 'colour'], { cable: tag, colour }),
        )
    }
    for (const [place, count] of loose)
      found.push(
        finding('gap', 'ends_unjoined', path, {
          cable: tag,
          at: site.places[place as keyof typeof site.places]!.tag,
          count,
        }),
      )
  }
  return found
}

function checkDefects(site: Site): Finding[] {
  return entries(site.defects).map(([id, defect]) => {
    const place = placeOfDefect(site, defect)
    const path = ['defects', id]
    if (place === null) return finding('gap', 'defect_moot', path)
    return finding('doubt', `known_${defect.kind}`, path, { at: getOrThrow(site.places, place).tag })
  })
}

/** The cores that serve a station's lead, `cable/core`: joined to a terminal and not to a common. */
function coresOnLeads(site: Site): Set<string> {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const [commons, leads] = [new Set<string>(), new Set<string>()]
  for (const [controller, c] of entries(site.controllers))
    for (const [terminal, t] of entries(c.terminals))
      if (t.role !== 'path')
        (t.role === 'common' ? commons : leads).add(nets.of(wiring.pointOf(terminalEnd(controller, terminal))))
  return new Set(
    wiring.links.flatMap((link) => {
      const net = nets.of(link.a)
      return link.kind === 'stretch' && leads.has(net) && !commons.has(net) ? [`${link.cable}/${link.core}`] : []
    }),
  )
}
