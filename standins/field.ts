import { coilImpedance, type Face } from '../core/circuit'
import { copperFactor, nominal_ohmPerM } from '../core/quantity'
import type { CabinetTest, Meter, ReadingValue } from '../core/record'
import { commonOf, entries, gaugeOf, lookUp, must, stopPositions_m, terminalEnd, UNKNOWN_GAUGE, wiringOf, type ControllerId, type DeviceId, type End, type Site, type TerminalId } from '../core/site'
import { denseSolver, joined, type Branch, type Z } from './dense'
import type { FieldFault } from './fault'

/** A property as it really is: the recorded one with each part a little off its sheet, and what is wrong in the ground. */
export interface Field { readonly answer: (test: CabinetTest, meter: Meter) => ReadingValue }

interface Part { readonly a: string; readonly b: string; readonly ohm: number; readonly device: DeviceId | null }

/** Half the coil's leads, in ohms: below this a tester's lamp says short; above the other, open. */
const [TESTER_SHORT_ohm, TESTER_OPEN_ohm, TESTER_LIT_V] = [8, 300, 12]
/** Mains wander by so much, ± (2σ). */
const MAINS_ratio = 0.03

/**
 * Draws a real property from its record. Coils, lengths and joints are off by truncated normals with the property's own
 * tolerances at 2σ; the same chance gives the same property, and the same questions in the same order the same answers.
 */
export function fieldOf(site: Site, faults: readonly FieldFault[], { random, ground_C }: { readonly random: () => number; readonly ground_C: number }): Field {
  const within = (limit: number): number => { for (;;) { const x = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()); if (Math.abs(x) <= 2) return (limit * x) / 2 } }
  const warm = copperFactor(ground_C)
  const { coilTolerance_ratio, lengthTolerance_ratio, soundSplice_ohm, soundSpliceSpread_ohm, mains_Hz, V_open_V } = site.settings
  const wiring = wiringOf(site)
  const lengths = new Map(Object.keys(site.cables).map((c) => [c, 1 + within(lengthTolerance_ratio)]))
  const joints = new Map(Object.keys(site.splices).map((s) => [s, Math.max(0, soundSplice_ohm + within(soundSpliceSpread_ohm)) / 2]))
  const coils = new Map(Object.keys(site.devices).map((d) => [d, 1 + within(coilTolerance_ratio)]))
  const mains = 1 + within(MAINS_ratio)

  const at = (f: FieldFault, kinds: readonly string[], cable: string, core: string, from: number) => kinds.includes(f.kind) && 'from' in f && f.cable === cable && f.core === core && f.from === from
  const parts: Part[] = []
  for (const link of wiring.links) {
    if (link.broken) continue
    if (link.kind === 'stretch') {
      const cable = must(site.cables, link.cable)
      const positions = stopPositions_m(cable)
      const gauge = gaugeOf(cable, must(cable.cores, link.core)) ?? UNKNOWN_GAUGE[site.settings.market].likely
      const ohm = Math.max(0, positions[link.to]!.value - positions[link.from]!.value) * lengths.get(link.cable)! * nominal_ohmPerM(gauge) * copperFactor(ground_C + cable.warmer_K)
      if (faults.some((f) => at(f, ['open'], link.cable, link.core, link.from))) continue
      const more = faults.reduce((sum, f) => sum + (at(f, ['series'], link.cable, link.core, link.from) && 'ohm' in f ? f.ohm : 0), 0)
      const middle = `middle ${link.id}`
      const halved = faults.some((f) => at(f, ['leak'], link.cable, link.core, link.from) || (f.kind === 'touch' && f.cable === link.cable && f.from === link.from && (f.core === link.core || f.other === link.core)))
      if (halved) parts.push({ a: link.a, b: middle, ohm: (ohm + more) / 2, device: null }, { a: middle, b: link.b, ohm: (ohm + more) / 2, device: null })
      else parts.push({ a: link.a, b: link.b, ohm: ohm + more, device: null })
      for (const f of faults) {
        if (at(f, ['leak'], link.cable, link.core, link.from) && 'ohm' in f) parts.push({ a: middle, b: 'earth', ohm: f.ohm, device: null })
        if (f.kind === 'touch' && f.cable === link.cable && f.from === link.from && f.core === link.core) parts.push({ a: middle, b: `middle ${wiring.links.find((l) => l.kind === 'stretch' && l.cable === f.cable && l.core === f.other && l.from === f.from)!.id}`, ohm: f.ohm, device: null })
      }
    } else if (link.kind === 'leg') {
      const { end } = link
      const on = faults.filter((f) => (f.kind === 'joint-open' || f.kind === 'joint-series') && end.kind === 'port' && end.device === f.device && end.port === f.port)
      if (!on.some((f) => f.kind === 'joint-open')) parts.push({ a: link.a, b: link.b, ohm: joints.get(link.splice)! + on.reduce((sum, f) => sum + ('ohm' in f ? f.ohm : 0), 0), device: null })
    } else if (!faults.some((f) => f.kind === 'coil-open' && f.device === link.device)) parts.push({ a: link.a, b: link.b, ohm: 0, device: link.device })
  }
  const node = new Map<string, number>()
  const number = (point: string): number => node.get(point) ?? node.set(point, node.size).get(point)!
  for (const p of parts) { number(p.a); number(p.b) }
  number('earth')
  for (const [controller, c] of entries(site.controllers)) for (const terminal of Object.keys(c.terminals)) number(wiring.pointOf(terminalEnd(controller, terminal)))

  const kindOf = (device: DeviceId) => { const { coilKind } = must(site.devices, device); return coilKind === null ? null : must(site.coilKinds, coilKind) }
  /** A coil as it is: its own spread, shorted turns; plain ohms for a meter, impedance under power. */
  function coil(device: DeviceId, face: Face | null): Z {
    const f = faults.find((x) => 'fraction' in x && x.device === device)
    if (f?.kind === 'coil-short') return { re: 0, im: 0 }
    const left = f && 'fraction' in f ? 1 - f.fraction : 1
    const z = coilImpedance(kindOf(device), face ?? 'inrush', 'optimistic', face === null ? 0 : mains_Hz, ground_C)
    return { re: z.re * coils.get(device)! * left, im: z.im * coils.get(device)! * left * left }
  }
  const branches = (face: (device: DeviceId) => Face | null): Branch[] => parts.map((p) => ({ a: number(p.a), b: number(p.b), z: p.device === null ? { re: p.ohm, im: 0 } : coil(p.device, face(p.device)) }))

  /** The terminal whose conductor really lies under this one's screw. */
  const swapped = (controller: ControllerId, terminal: TerminalId): TerminalId => {
    const f = faults.find((x) => x.kind === 'swap' && x.controller === controller && (x.one === terminal || x.two === terminal))
    return f?.kind === 'swap' ? (f.one === terminal ? f.two : f.one) : terminal
  }
  const pointOf = (end: End): number => number(wiring.pointOf(end.kind === 'terminal' ? terminalEnd(end.controller, swapped(end.controller, end.terminal)) : end))

  let meterSolver: ReturnType<typeof denseSolver> | null = null
  function ohms(from: End, to: End): number {
    const [a, b] = [pointOf(from), pointOf(to)]
    const network = branches(() => null)
    if (!joined(node.size, network, a, b)) return Infinity
    meterSolver ??= denseSolver(node.size, network)
    const volts = meterSolver([{ into: a, outOf: b, amps: { re: 1, im: 0 } }])
    return volts[a]!.re - volts[b]!.re
  }

  /** Volts at a terminal with its station on and what comes with it, every coil's plunger where it really is. */
  function powered(at: Extract<End, { kind: 'terminal' }>): { terminal_V: number; coil_V: ReadonlyMap<DeviceId, number> } {
    const { controller, terminal } = at
    const common = commonOf(site, controller)
    if (common === null || faults.some((f) => f.kind === 'supply' && f.controller === controller)) return { terminal_V: 0, coil_V: new Map() }
    const [c, hot] = [pointOf(terminalEnd(controller, common)), node.size]
    const rating_VA = must(site.controllers, controller).transformer?.rating_VA ?? 30
    const source_ohm = (V_open_V - 24) / (rating_VA / 24)
    const station = Object.values(site.stations).find((s) => s.controller === controller && s.terminal === terminal)
    const point = station?.withMaster && station.pointOfConnection ? lookUp(site.pointsOfConnection, station.pointOfConnection) : null
    const on = [pointOf(at), ...(point?.terminal ? [pointOf(terminalEnd(point.terminal.controller, point.terminal.terminal))] : [])]
    let held = new Set<DeviceId>()
    for (let round = 0; ; round++) {
      const network = [...branches((d) => (held.has(d) ? 'holding' : 'inrush')), { a: c, b: hot, z: { re: source_ohm, im: 0 } }, ...on.map((n) => ({ a: n, b: hot, z: { re: 0, im: 0 } }))]
      const volts = denseSolver(node.size + 1, network)([{ into: hot, outOf: c, amps: { re: (V_open_V * mains) / source_ohm, im: 0 } }])
      const across = (a: number, b: number) => Math.hypot(volts[a]!.re - volts[b]!.re, volts[a]!.im - volts[b]!.im)
      const coil_V = new Map(parts.flatMap((p) => (p.device === null ? [] : [[p.device, across(number(p.a), number(p.b))] as const])))
      const pulled = new Set([...coil_V].filter(([d, v]) => held.has(d) || v >= (kindOf(d)?.minimum_V ?? 19)).map(([d]) => d))
      if (pulled.size === held.size || round > 3) return { terminal_V: across(pointOf(at), c), coil_V }
      held = pulled
    }
  }

  return {
    answer: (test, meter) => {
      const read = (true_: number, digits: number) => Math.round((true_ * (1 + within(meter.accuracy_ratio)) + within(meter.offset_ohm)) / digits) * digits
      switch (test.kind) {
        case 'ohms': {
          const ohm = ohms(test.from, test.to)
          if (ohm > meter.highest_ohm) return { kind: 'open' }
          const digits = ohm < 1000 ? 0.1 : 10 ** (Math.floor(Math.log10(ohm)) - 3)
          return { kind: 'ohm', ohm: Number(Math.max(0, read(ohm, digits) + meter.leadZero_ohm).toFixed(1)) }
        }
        case 'supply': return { kind: 'volt', volt: faults.some((f) => f.kind === 'supply' && f.controller === test.controller) ? 0 : Math.round(V_open_V * mains * 10) / 10 }
        case 'volts': return { kind: 'volt', volt: Math.round(powered(test.at).terminal_V * 10) / 10 }
        case 'click': {
          const { coil_V } = powered(test.at)
          const valves = Object.values(site.stations).find((s) => s.controller === test.at.controller && s.terminal === test.at.terminal)?.valves ?? []
          return { kind: 'heard', heard: valves.some((v) => (coil_V.get(v) ?? 0) >= (kindOf(v)?.minimum_V ?? 19)) }
        }
        case 'tester_coil': {
          const common = commonOf(site, test.at.controller)
          const ohm = common === null ? Infinity : ohms(test.at, terminalEnd(test.at.controller, common))
          return { kind: 'lamp', lamp: ohm < TESTER_SHORT_ohm * warm ? 'short' : ohm > TESTER_OPEN_ohm ? 'open' : 'good' }
        }
        case 'tester_power': return { kind: 'lamp', lamp: powered(test.at).terminal_V >= TESTER_LIT_V ? 'lit' : 'dark' }
      }
    },
  }
}

/** Every terminal that a sweep asks, in the order of the door, with the controller's common. */
export const sweepOf = (site: Site, controller: ControllerId): CabinetTest[] => {
  const common = commonOf(site, controller)
  if (common === null) return []
  return entries(must(site.controllers, controller).terminals).sort(([, a], [, b]) => a.order - b.order)
    .filter(([id, t]) => (t.role === 'station' || t.role === 'master') && Object.values(site.splices).some((s) => s.ends.some((e) => e.kind === 'terminal' && e.controller === controller && e.terminal === id)))
    .map(([terminal]): CabinetTest => ({ kind: 'ohms', from: terminalEnd(controller, terminal), to: terminalEnd(controller, common) }))
}
