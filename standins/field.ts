import { coilImpedance, type Face } from '../core/circuit'
import { copperFactor, nominal_ohmPerM } from '../core/quantity'
import type { FieldTest, Meter, ReadingValue } from '../core/record'
import { commonOf, endKey, entries, gaugeOf, lookUp, must, stopPositions_m, terminalEnd, UNKNOWN_GAUGE, walkFrom, wiringOf, type ControllerId, type DeviceId, type End, type Link, type Site, type TerminalId } from '../core/site'
import { denseSolver, joined, type Branch, type Z } from './dense'
import type { FieldFault } from './fault'

/** A property as it really is: the recorded one with each part a little off its sheet, and what is wrong in the ground. */
export interface Field { readonly answer: (test: FieldTest, meter: Meter) => ReadingValue }

interface Part { readonly a: string; readonly b: string; readonly ohm: number; readonly device: DeviceId | null; readonly link: Link | null }

/** Half the coil's leads, in ohms: below this a tester's lamp says short; above the other, open. */
const [TESTER_SHORT_ohm, TESTER_OPEN_ohm, TESTER_LIT_V] = [8, 300, 12]
/** Mains wander by so much, ± (2σ). */
const MAINS_ratio = 0.03
/** What is left of a shorted coil, Ω; which part of its chances a loose joint fails. */
const [SHORTED_ohm, LOOSE] = [0.2, 0.5]
/** How often a bad joint shows, and a sound one seems bad: looked at and tugged, or cut out and made anew. */
const SHOWS = { look: { bad: 0.9, sound: 0.02 }, remake: { bad: 0.9998, sound: 0.0005 } } as const
/** Insulation of sound wire to earth, Ω, by powers of ten. */
const INSULATION_ohm = { from: 2e6, to: 4e7 }

/**
 * Draws a real property from its record. Coils, lengths and joints are off by truncated normals with the property's own
 * tolerances at 2σ (times `spread`); the same chance gives the same property, and the same questions in the same order the same
 * answers. `noise` is the chance of the meter, the eye and the ear, where it is to be another; `known` what
 * earlier readings say of coils, as parts of their sheet's ohms.
 */
export function fieldOf(site: Site, faults: readonly FieldFault[], { random, noise = random, ground_C, spread = 1, known }: { readonly random: () => number; readonly noise?: () => number; readonly ground_C: number; readonly spread?: number; readonly known?: ReadonlyMap<DeviceId, number> }): Field {
  const within = (limit: number, chance = random): number => { for (;;) { const x = Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance()); if (Math.abs(x) <= 2) return (limit * x) / 2 } }
  const warm = copperFactor(ground_C)
  const { coilTolerance_ratio, lengthTolerance_ratio, soundSplice_ohm, soundSpliceSpread_ohm, mains_Hz, V_open_V } = site.settings
  const wiring = wiringOf(site)
  const lengths = new Map(Object.keys(site.cables).map((c) => [c, 1 + within(lengthTolerance_ratio * spread)]))
  const joints = new Map(Object.keys(site.splices).map((s) => [s, Math.max(0, soundSplice_ohm + within(soundSpliceSpread_ohm * spread)) / 2]))
  const coils = new Map(Object.keys(site.devices).map((d) => { const drawn = 1 + within(coilTolerance_ratio * spread); return [d, known?.get(d as DeviceId) ?? drawn] as const }))
  const mains = 1 + within(MAINS_ratio)
  const insulation_ohm = INSULATION_ohm.from * (INSULATION_ohm.to / INSULATION_ohm.from) ** random()
  /** Between two rods in moist soil. */
  const soil_ohm = 60 * 15 ** random()
  const supplyDead = (controller: ControllerId) => faults.some((f) => f.kind === 'supply' && f.controller === controller)
  const outputsDead = (controller: ControllerId) => supplyDead(controller) || faults.some((f) => f.kind === 'sensor' && f.controller === controller)

  const at = (f: FieldFault, kinds: readonly string[], cable: string, core: string, from: number) => kinds.includes(f.kind) && 'from' in f && f.cable === cable && f.core === core && f.from === from
  const onEnd = (f: FieldFault, end: End) => 'end' in f && endKey(f.end) === endKey(end)
  const parts: Part[] = []
  for (const link of wiring.links) {
    if (link.broken) continue
    const add = (a: string, b: string, ohm: number, device: DeviceId | null = null) => parts.push({ a, b, ohm, device, link })
    if (link.kind === 'stretch') {
      const cable = must(site.cables, link.cable)
      const positions = stopPositions_m(cable)
      const gauge = gaugeOf(cable, must(cable.cores, link.core)) ?? UNKNOWN_GAUGE[site.settings.market].likely
      const ohm = Math.max(0, positions[link.to]!.value - positions[link.from]!.value) * lengths.get(link.cable)! * nominal_ohmPerM(gauge) * copperFactor(ground_C + cable.warmer_K)
      if (faults.some((f) => at(f, ['open'], link.cable, link.core, link.from))) continue
      const more = faults.reduce((sum, f) => sum + (at(f, ['series'], link.cable, link.core, link.from) && 'ohm' in f ? f.ohm : 0), 0)
      const middle = `middle ${link.id}`
      const halved = faults.some((f) => at(f, ['leak'], link.cable, link.core, link.from) || (f.kind === 'touch' && f.cable === link.cable && f.from === link.from && (f.core === link.core || f.other === link.core)))
      if (halved) { add(link.a, middle, (ohm + more) / 2); add(middle, link.b, (ohm + more) / 2) } else add(link.a, link.b, ohm + more)
      for (const f of faults) {
        if (at(f, ['leak'], link.cable, link.core, link.from) && 'ohm' in f) add(middle, 'earth', f.ohm)
        if (f.kind === 'touch' && f.cable === link.cable && f.from === link.from && f.core === link.core) add(middle, `middle ${wiring.links.find((l) => l.kind === 'stretch' && l.cable === f.cable && l.core === f.other && l.from === f.from)!.id}`, f.ohm)
      }
    } else if (link.kind === 'leg') {
      const on = faults.filter((f) => onEnd(f, link.end))
      if (!on.some((f) => f.kind === 'joint-open')) add(link.a, link.b, joints.get(link.splice)! + on.reduce((sum, f) => sum + (f.kind === 'joint-series' ? f.ohm : 0), 0))
      for (const f of on) if (f.kind === 'joint-leak') add(link.a, 'earth', f.ohm)
    } else if (!faults.some((f) => f.kind === 'coil-open' && f.device === link.device)) add(link.a, link.b, 0, link.device)
  }
  for (const f of faults) if (f.kind === 'doubled') parts.push({ a: wiring.pointOf(terminalEnd(f.controller, f.one)), b: wiring.pointOf(terminalEnd(f.controller, f.two)), ohm: 0, device: null, link: null })
  inOne(parts)
  const node = new Map<string, number>()
  const number = (point: string): number => node.get(point) ?? node.set(point, node.size).get(point)!
  for (const p of parts) { number(p.a); number(p.b) }
  number('earth')
  for (const [controller, c] of entries(site.controllers)) for (const terminal of Object.keys(c.terminals)) number(wiring.pointOf(terminalEnd(controller, terminal)))
  for (const link of wiring.links) if (link.kind !== 'stretch') { number(link.a); number(link.b) }

  const kindOf = (device: DeviceId) => { const { coilKind } = must(site.devices, device); return coilKind === null ? null : must(site.coilKinds, coilKind) }
  /** A coil as it is: its own spread, shorted turns; plain ohms for a meter, impedance under power. */
  function coil(device: DeviceId, face: Face | null): Z {
    const f = faults.find((x) => x.kind.startsWith('coil-') && 'device' in x && x.device === device)
    if (f?.kind === 'coil-short') return { re: SHORTED_ohm, im: 0 }
    if (f?.kind === 'coil-dc') return { re: f.ohm * warm, im: 0 }
    const z = coilImpedance(kindOf(device), face ?? 'inrush', 'optimistic', face === null ? 0 : mains_Hz, ground_C)
    const left = f && 'fraction' in f ? 1 - f.fraction : f?.kind === 'coil-kind' ? f.ohm / (kindOf(device)?.resistance_ohm ?? 33) : 1
    return { re: z.re * coils.get(device)! * left, im: z.im * coils.get(device)! * (f?.kind === 'coil-kind' ? left : left * left) }
  }

  /** What is done for a test: joints undone, a loose joint apart just now, a jumper. */
  interface Done { readonly undone: ReadonlySet<string>; readonly apart: ReadonlySet<string>; readonly jumper: readonly [number, number] | null }
  const NOTHING: ReadonlySet<string> = new Set()
  const looseNow = (): ReadonlySet<string> => { const ends = faults.flatMap((f) => (f.kind === 'joint-loose' && noise() < LOOSE ? [endKey(f.end)] : [])); return ends.length === 0 ? NOTHING : new Set(ends) }
  const branches = (face: (device: DeviceId) => Face | null, done: Done): Branch[] => [
    ...parts.flatMap((p): Branch[] => (p.link?.kind === 'leg' && p.b !== 'earth' && (done.undone.has(p.link.splice) || done.apart.has(endKey(p.link.end))) ? []
      : [{ a: number(p.a), b: number(p.b), z: p.device === null ? { re: p.ohm, im: 0 } : coil(p.device, face(p.device)) }])),
    ...(done.jumper ? [{ a: done.jumper[0], b: done.jumper[1], z: { re: 0, im: 0 } }] : []),
  ]

  /** The wire that really lies under a terminal's screw; null for a bare screw. */
  const wireAt = (controller: ControllerId, terminal: TerminalId): TerminalId | null => {
    for (const f of faults) {
      if ((f.kind !== 'swap' && f.kind !== 'doubled') || f.controller !== controller) continue
      if (f.kind === 'doubled') { if (f.two === terminal) return null } else if (f.one === terminal) return f.two
      else if (f.two === terminal) return f.one
    }
    return terminal
  }
  const screw = (controller: ControllerId, terminal: TerminalId): number | null => { const wire = wireAt(controller, terminal); return wire === null ? null : number(wiring.pointOf(terminalEnd(controller, wire))) }
  const pointOf = (end: End): number | null => (end.kind === 'terminal' ? screw(end.controller, end.terminal) : number(wiring.pointOf(end)))

  const solvers = new Map<string, ReturnType<typeof denseSolver>>()
  function ohms(a: number | null, b: number | null, done: Done): number {
    if (a === null || b === null) return Infinity
    const network = branches(() => null, done)
    if (!joined(node.size, network, a, b)) return Infinity
    const key = [...done.undone, ...done.apart, done.jumper?.join() ?? ''].join(' ')
    if (!solvers.has(key)) solvers.set(key, denseSolver(node.size, network))
    const volts = solvers.get(key)!([{ into: a, outOf: b, amps: { re: 1, im: 0 } }])
    return volts[a]!.re - volts[b]!.re
  }

  /** The terminals that live with a station's: its master's. */
  const masterAt = (controller: ControllerId, terminal: TerminalId) => {
    const station = Object.values(site.stations).find((s) => s.controller === controller && s.terminal === terminal)
    const point = station?.withMaster && station.pointOfConnection ? lookUp(site.pointsOfConnection, station.pointOfConnection) : null
    return point?.terminal ? { terminal: point.terminal.terminal, controller: point.terminal.controller, valve: point.masterValve } : null
  }
  interface Under { readonly across: (a: number, b: number) => number; readonly linked: (a: number, b: number) => boolean; readonly coil_V: ReadonlyMap<DeviceId, number>; readonly held: ReadonlySet<DeviceId> }
  const states = new Map<string, Under>()
  /** The property with a terminal told on and what comes with it, every coil's plunger where it really is. `lead` is the wire it feeds. */
  function powered(controller: ControllerId, terminal: TerminalId, output: TerminalId = terminal): Under | null {
    const common = commonOf(site, controller)
    if (common === null || outputsDead(controller)) return null
    const apart = looseNow()
    const key = `${controller} ${terminal} ${output} ${[...apart].join()}`
    const known = states.get(key)
    if (known) return known
    const [c, hot] = [number(wiring.pointOf(terminalEnd(controller, common))), node.size]
    const source_ohm = (V_open_V - 24) / ((must(site.controllers, controller).transformer?.rating_VA ?? 30) / 24)
    const master = masterAt(controller, terminal)
    const alive = (t: TerminalId) => !faults.some((f) => f.kind === 'terminal' && f.controller === controller && f.terminal === t)
    const on = [...(alive(output) ? [screw(controller, terminal)] : []), ...(master && alive(master.terminal) ? [screw(master.controller, master.terminal)] : [])].filter((n) => n !== null)
    let held = new Set<DeviceId>()
    for (let round = 0; ; round++) {
      const network = [...branches((d) => (held.has(d) ? 'holding' : 'inrush'), { undone: NOTHING, apart, jumper: null }), { a: c, b: hot, z: { re: source_ohm, im: 0 } }, ...on.map((n) => ({ a: n, b: hot, z: { re: 0, im: 0 } }))]
      const volts = denseSolver(node.size + 1, network)([{ into: hot, outOf: c, amps: { re: (V_open_V * mains) / source_ohm, im: 0 } }])
      const across = (a: number, b: number) => Math.hypot(volts[a]!.re - volts[b]!.re, volts[a]!.im - volts[b]!.im)
      const coil_V = new Map(wiring.links.flatMap((l) => (l.kind === 'coil' && !l.broken ? [[l.device, across(number(l.a), number(l.b))] as const] : [])))
      const pulled = new Set([...coil_V].filter(([d, v]) => held.has(d) || (v >= (kindOf(d)?.minimum_V ?? 19) && !faults.some((f) => (f.kind === 'coil-open' || f.kind === 'coil-short' || f.kind === 'coil-dc') && f.device === d))).map(([d]) => d))
      if (pulled.size === held.size || round > 3) {
        const made = { across, linked: (a: number, b: number) => joined(node.size + 1, network, a, b), coil_V, held: pulled }
        states.set(key, made)
        return made
      }
      held = pulled
    }
  }
  const stuck = (kind: 'stuck-shut' | 'stuck-open', device: DeviceId) => faults.some((f) => f.kind === kind && f.device === device)
  const opens = (device: DeviceId, under: Under | null) => !stuck('stuck-shut', device) && (stuck('stuck-open', device) || (under?.held.has(device) ?? false))
  const valvesOf = (controller: ControllerId, terminal: TerminalId): readonly DeviceId[] => {
    const point = Object.values(site.pointsOfConnection).find((p) => p.terminal?.controller === controller && p.terminal.terminal === terminal)
    return Object.values(site.stations).find((s) => s.controller === controller && s.terminal === terminal)?.valves ?? [point?.masterValve, point?.pumpRelay].filter((d) => d != null)
  }
  const terminalOf = (device: DeviceId): { controller: ControllerId; terminal: TerminalId } | null =>
    entries(site.controllers).flatMap(([controller, c]) => (Object.keys(c.terminals) as TerminalId[]).filter((t) => valvesOf(controller, t).includes(device)).map((terminal) => ({ controller, terminal })))[0] ?? null

  /** The joint that holds a coil's lead or its common, the coil's own end there and the core that comes from the cabinet. */
  function jointOf(device: DeviceId, controller: ControllerId, side: 'lead' | 'common') {
    const common = walkFrom(site, wiring, controller, commonOf(site, controller)!)
    const own = (['a', 'b'] as const).map((port): End => ({ kind: 'port', device, port })).find((e) => common.distance_m.has(wiring.pointOf(e)) === (side === 'common'))
    const splice = own && entries(site.splices).find(([, s]) => s.ends.some((e) => endKey(e) === endKey(own)))
    if (!own || !splice) return null
    const walk = side === 'common' ? common : walkFrom(site, wiring, controller, terminalOf(device)!.terminal)
    const core = splice[1].ends.filter((e) => e.kind === 'core').map((e) => wiring.pointOf(e)).sort((x, y) => (walk.distance_m.get(x) ?? Infinity) - (walk.distance_m.get(y) ?? Infinity))[0]
    return core === undefined ? null : { splice: splice[0], port: number(wiring.pointOf(own)), core: number(core), middle: number(`joint ${splice[0]}`) }
  }
  /** Ohms of the tests at a box. */
  function atBox(kind: 'coil_ohms' | 'loop_lead' | 'loop_common' | 'lead_earth' | 'lead_through' | 'common_earth', device: DeviceId): number {
    const own = terminalOf(device)
    const [lead, home] = own ? [jointOf(device, own.controller, 'lead'), jointOf(device, own.controller, 'common')] : [null, null]
    if (!own || !lead || !home) return Infinity
    const common = number(wiring.pointOf(terminalEnd(own.controller, commonOf(site, own.controller)!)))
    const under = screw(own.controller, own.terminal)
    const done = (undone: string, jumper: boolean): Done => ({ undone: new Set([undone]), apart: looseNow(), jumper: jumper && under !== null ? [under, common] : null })
    switch (kind) {
      case 'coil_ohms': return ohms(lead.port, home.port, done(lead.splice, false))
      case 'loop_lead': return ohms(lead.core, home.port, done(lead.splice, true))
      case 'loop_common': return ohms(home.core, lead.middle, done(home.splice, true))
      case 'lead_earth': return ohms(lead.core, number('earth'), done(lead.splice, false))
      case 'lead_through': return Number.isFinite(ohms(lead.core, under, done(lead.splice, false))) ? soil_ohm : Infinity
      case 'common_earth': return ohms(home.core, number('earth'), done(home.splice, false))
    }
  }
  const isBad = (splice: string) => faults.some((f) => 'end' in f && must(site.splices, splice).ends.some((e) => endKey(e) === endKey(f.end)))

  return {
    answer: (test, meter) => {
      const read = (true_: number, digits: number) => Math.round((true_ * (1 + within(meter.accuracy_ratio, noise)) + within(meter.offset_ohm, noise)) / digits) * digits
      const shown = (true_ohm: number, toEarth = false): ReadingValue => {
        const ohm = toEarth ? 1 / (1 / true_ohm + 1 / insulation_ohm) : true_ohm
        if (ohm > meter.highest_ohm) return { kind: 'open' }
        const digits = ohm < 1000 ? 0.1 : 10 ** (Math.floor(Math.log10(ohm)) - 3)
        return { kind: 'ohm', ohm: Number(Math.max(0, read(ohm, digits) + meter.leadZero_ohm).toFixed(1)) }
      }
      const volt = (v: number): ReadingValue => ({ kind: 'volt', volt: Math.round(v * 10) / 10 })
      const heard = (yes: boolean): ReadingValue => ({ kind: 'heard', heard: yes })
      switch (test.kind) {
        case 'ohms': return shown(ohms(pointOf(test.from), pointOf(test.to), { undone: NOTHING, apart: looseNow(), jumper: null }), test.to.kind === 'earth' || test.from.kind === 'earth')
        case 'coil_ohms': case 'loop_lead': case 'loop_common': case 'lead_earth': case 'lead_through': case 'common_earth': return shown(atBox(test.kind, test.device), test.kind.endsWith('_earth'))
        case 'supply': return volt(supplyDead(test.controller) ? 0 : V_open_V * mains)
        case 'volts': return volt(terminalVolts(test.at))
        case 'tester_power': return { kind: 'lamp', lamp: terminalVolts(test.at) >= TESTER_LIT_V ? 'lit' : 'dark' }
        case 'click': case 'swap_test': {
          const under = powered(test.at.controller, test.at.terminal, test.kind === 'click' ? test.at.terminal : test.onto.terminal)
          return heard(valvesOf(test.at.controller, test.at.terminal).some((v) => under?.held.has(v)))
        }
        case 'tester_coil': {
          const common = commonOf(site, test.at.controller)
          const ohm = common === null ? Infinity : ohms(pointOf(test.at), pointOf(terminalEnd(test.at.controller, common)), { undone: NOTHING, apart: looseNow(), jumper: null })
          return { kind: 'lamp', lamp: ohm < TESTER_SHORT_ohm * warm ? 'short' : ohm > TESTER_OPEN_ohm ? 'open' : 'good' }
        }
        case 'coil_volts': {
          const own = terminalOf(test.device)
          const under = own && powered(own.controller, own.terminal)
          const coil = wiring.links.find((l) => l.kind === 'coil' && l.device === test.device)
          // A meter between two points that nothing joins shows none.
          return volt(under && coil && under.linked(number(coil.a), number(coil.b)) ? under.coil_V.get(test.device) ?? 0 : 0)
        }
        case 'water': {
          const { controller, terminal } = test.at
          const under = powered(controller, terminal)
          const master = masterAt(controller, terminal)
          const flowing = !faults.some((f) => f.kind === 'water' && f.controller === controller) && (master === null || master.valve === null || opens(master.valve, under))
          const valves = entries(site.devices).filter(([d, { kind }]) => kind === 'coil' && d !== master?.valve && opens(d, under)).map(([d]) => d)
          return { kind: 'waters', valves: flowing ? valves : [] }
        }
        case 'energise': return heard(!faults.some((f) => (f.kind === 'coil-open' || f.kind === 'coil-short' || f.kind === 'coil-dc') && f.device === test.device))
        case 'by_hand': { const own = terminalOf(test.device); return { kind: 'flows', flows: !stuck('stuck-shut', test.device) && !faults.some((f) => f.kind === 'water' && f.controller === own?.controller) } }
        case 'look': case 'remake': return { kind: 'looked', sound: noise() >= SHOWS[test.kind][isBad(test.splice) ? 'bad' : 'sound'] }
        case 'tone': return { kind: 'tone', lost_m: toneEnds(test.at.controller, test.at.terminal) }
      }
    },
  }

  function terminalVolts({ controller, terminal }: Extract<End, { kind: 'terminal' }>): number {
    const under = powered(controller, terminal)
    if (under === null || faults.some((f) => f.kind === 'terminal' && f.controller === controller && f.terminal === terminal)) return 0
    const at = screw(controller, terminal)
    return at === null ? V_open_V * mains : under.across(at, number(wiring.pointOf(terminalEnd(controller, commonOf(site, controller)!))))
  }

  /** Metres of conductor at which the lead under a screw is cut, heard within a metre; null for a whole one. */
  function toneEnds(controller: ControllerId, terminal: TerminalId): number | null {
    const wire = wireAt(controller, terminal)
    if (wire === null) return 0
    const cuts = walkFrom(site, wiring, controller, wire).runs.filter(({ link }) => (link.kind === 'stretch' && faults.some((f) => at(f, ['open'], link.cable, link.core, link.from)))
      || (link.kind === 'leg' && faults.some((f) => f.kind === 'joint-open' && endKey(f.end) === endKey(link.end))))
    const first = cuts.map((r) => (r.from_m + r.to_m) / 2).sort((x, y) => x - y)[0]
    return first === undefined ? null : Math.max(0, Math.round(first + within(1, noise)))
  }
}

/** Makes neighbouring stretches of a core that runs through a box one part, where nothing else hangs there. */
function inOne(parts: Part[]): void {
  const at = new Map<string, Part[]>()
  for (const p of parts) for (const end of [p.a, p.b]) at.set(end, [...(at.get(end) ?? []), p])
  for (const [point, both] of at) {
    if (!point.endsWith(' through') || both.length !== 2 || both.some((p) => p.link?.kind !== 'stretch')) continue
    const [first, second] = both as [Part, Part]
    const far = (p: Part) => (p.a === point ? p.b : p.a)
    const made: Part = { a: far(first), b: far(second), ohm: first.ohm + second.ohm, device: null, link: first.link }
    for (const p of both) parts.splice(parts.indexOf(p), 1)
    parts.push(made)
    for (const end of [made.a, made.b]) at.set(end, at.get(end)!.map((p) => (p === first || p === second ? made : p)))
  }
}

/** Every terminal that a sweep asks, in the order of the door, with the controller's common. */
export const sweepOf = (site: Site, controller: ControllerId): FieldTest[] => {
  const common = commonOf(site, controller)
  if (common === null) return []
  return entries(must(site.controllers, controller).terminals).sort(([, a], [, b]) => a.order - b.order)
    .filter(([id, t]) => (t.role === 'station' || t.role === 'master') && Object.values(site.splices).some((s) => s.ends.some((e) => e.kind === 'terminal' && e.controller === controller && e.terminal === id)))
    .map(([terminal]): FieldTest => ({ kind: 'ohms', from: terminalEnd(controller, terminal), to: terminalEnd(controller, common) }))
}
