import { coilImpedance } from '../../core/circuit'
import { copperFactor, nominal_ohmPerM } from '../../core/quantity'
import type { PathTest, PathValue } from '../../core/record'
import {
  gaugeOf,
  getOrThrow,
  stopPositions_m,
  UNKNOWN_GAUGE,
  type DeviceId,
  type Link,
  type PathAt,
  type PlaceId,
  type Site,
} from '../../core/site'
import { chance, normal } from '../chance'
import { denseSolver, joined, type Branch, type Z } from '../dense'
import { thingsOf, type RealPathFault } from './path-fault'

type Stretch = Extract<Link, { kind: 'stretch' }>

/** A path as it really is: each part off its sheet, decoders as plain loads, and what is wrong in the ground. */
export interface PathField {
  readonly answer: (test: PathTest) => PathValue
}

const real = (re: number): Z => ({ re, im: 0 })
const size = (z: Z) => Math.hypot(z.re, z.im)
const EARTH = 'earth'
const [SHORTED_ohm, SHORTED_COIL_ohm] = [0.8, 1.2]
/**
 * A controller that gives more than this tells of a fault; so does one whose path leaks to earth below so many ohms.
 */
const [TOLD_A, TOLD_ohm] = [2.5, 15_000]
const [BAD_LOOKS, SOUND_LOOKS] = [0.88, 0.03]
const INSULATION_ohm = 3e7
const COIL_V = 24

/**
 * Draws a real path from its record. Solved over whole matrices with every load an impedance, apart from how the
 * application reckons it. The path is on, and nothing runs, unless a test names a number.
 */
export function pathFieldOf(site: Site, path: PathAt, fault: RealPathFault | null, seed: number): PathField {
  const random = chance(seed)
  const spread = (of: number) => 1 + of * Math.max(-2, Math.min(2, normal(random)))
  const { wiring, legAt, stretches, joints, outputs } = thingsOf(site, path)
  const system = path.system!
  const mains = spread(0.02)
  const drawn = new Map<string, number>()
  const own = (key: string, of: number) => drawn.get(key) ?? drawn.set(key, spread(of)).get(key)!

  const numbers = new Map<string, number>()
  const number = (point: string): number => numbers.get(point) ?? numbers.set(point, numbers.size).get(point)!
  const port = (device: DeviceId, name: string) => wiring.pointOf({ kind: 'port', device, port: name })
  const legsOf = (device: DeviceId): [string, string] => {
    const [one, two] = [port(device, 'path_1'), port(device, 'path_2')]
    return legAt.get(one) === 0 ? [one, two] : [two, one]
  }
  const ohmOf = (link: Stretch): number => {
    const cable = getOrThrow(site.cables, link.cable)
    const at = stopPositions_m(cable)
    const gauge = gaugeOf(cable, getOrThrow(cable.cores, link.core)) ?? UNKNOWN_GAUGE[site.settings.market].likely
    const length_m = (at[link.to]!.value - at[link.from]!.value) * own(`length ${link.cable}`, 0.02)
    return length_m * nominal_ohmPerM(gauge) * copperFactor(site.settings.ground_C + cable.warmer_K)
  }
  const has = (kind: RealPathFault['kind'], device: DeviceId) =>
    fault?.kind === kind && 'device' in fault && fault.device === device

  /** Conductors and joints, with what is wrong in them; lengths apart at a box as `undone` says. */
  const copper = (undone: ReadonlySet<Link>): Branch[] => {
    const made: Branch[] = []
    const add = (a: string, b: string, ohm: number) => made.push({ a: number(a), b: number(b), z: real(ohm) })
    for (const joint of joints)
      if (!undone.has(joint) && !(fault?.kind === 'loose' && fault.joint === joint))
        add(joint.a, joint.b, 0.01 + joint.more_ohm)
    for (const s of stretches) {
      if (fault?.kind === 'cut' && fault.stretch === s) continue
      const ohm = ohmOf(s) + s.more_ohm
      const hit =
        fault?.kind === 'earth' && fault.stretch === s
          ? fault.along
          : fault?.kind === 'touch' && (fault.one === s || fault.other === s)
            ? fault.along
            : null
      if (hit === null) add(s.a, s.b, ohm)
      else {
        add(s.a, `in ${s.id}`, ohm * hit)
        add(`in ${s.id}`, s.b, ohm * (1 - hit))
      }
    }
    if (fault?.kind === 'earth') add(`in ${fault.stretch.id}`, EARTH, fault.ohm)
    if (fault?.kind === 'touch') add(`in ${fault.one.id}`, `in ${fault.other.id}`, fault.ohm)
    if (fault?.kind === 'shorted') add(...legsOf(fault.device), SHORTED_ohm)
    return made
  }

  interface State {
    readonly volts: readonly Z[]
    readonly source_A: number
    readonly through: (s: Stretch) => number
  }
  const numberOf = (o: (typeof outputs)[number]): number | null =>
    fault?.kind === 'number' && fault.device === o.decoder
      ? fault.as + outputs.filter((x) => x.decoder === o.decoder).indexOf(o)
      : o.address
  const isAwake = (device: DeviceId, waiting: State | null): boolean => {
    if (has('dead', device)) return false
    if (waiting === null) return true
    const [a, b] = legsOf(device).map(number) as [number, number]
    const volt = size({
      re: waiting.volts[a]!.re - waiting.volts[b]!.re,
      im: waiting.volts[a]!.im - waiting.volts[b]!.im,
    })
    return volt >= 0.7 * (system.minimum_V ?? 18)
  }
  /** The path under power, with the outputs of one number on where one is named. */
  function under(on: number | null, waiting: State | null): State {
    const branches = copper(new Set())
    const [one, two] = ([0, 1] as const).map((leg) =>
      wiring.pointOf({ kind: 'terminal', controller: path.controller, terminal: path.pairs[0]![leg] }),
    ) as [string, string]
    const source_ohm = system.source_ohm || 0.5
    branches.push({ a: number(one), b: number(two), z: real(source_ohm) })
    for (const pair of path.pairs.slice(1))
      pair.forEach((terminal, leg) => {
        const screw = wiring.pointOf({ kind: 'terminal', controller: path.controller, terminal })
        branches.push({ a: number(leg === 0 ? one : two), b: number(screw), z: real(0) })
      })
    for (const { device } of path.decoders) {
      const [a, b] = legsOf(device)
      if (has('dead', device)) continue
      const running = outputs.filter((o) => o.decoder === device && on !== null && numberOf(o) === on)
      const isOn = running.length > 0 && isAwake(device, waiting)
      const amps = isOn ? system.active_A! : system.idle_A! * own(`idle ${device}`, 0.15)
      branches.push({ a: number(a), b: number(b), z: real(system.path_V! / amps) })
      if (!isOn) continue
      for (const coil of running.flatMap((o) => o.coils)) {
        if (has('coil_open', coil)) continue
        const { coilKind } = getOrThrow(site.devices, coil)
        const kind = coilKind === null ? null : getOrThrow(site.coilKinds, coilKind)
        const z = coilImpedance(kind, 'holding', 'optimistic', site.settings.mains_Hz, site.settings.ground_C)
        // A decoder gives its coils what they are made for, whatever the path has.
        const times = (own(`coil ${coil}`, 0.05) * system.path_V!) / COIL_V
        branches.push({
          a: number(a),
          b: number(b),
          z: has('coil_shorted', coil) ? real(SHORTED_COIL_ohm) : { re: z.re * times, im: z.im * times },
        })
      }
    }
    number(EARTH)
    const drive = real((system.path_V! * mains) / source_ohm)
    const volts = denseSolver(numbers.size, branches)([{ into: number(one), outOf: number(two), amps: drive }])
    const across = (a: number, b: number): Z => ({
      re: volts[a]!.re - volts[b]!.re,
      im: volts[a]!.im - volts[b]!.im,
    })
    const atSource = across(number(one), number(two))
    return {
      volts,
      source_A: size({ re: system.path_V! * mains - atSource.re, im: -atSource.im }) / source_ohm,
      through: (s) => {
        if (fault?.kind === 'cut' && fault.stretch === s) return 0
        const hit = numbers.has(`in ${s.id}`)
        // A clamp is put on at the end by which the length is reached.
        const far = hit ? number(`in ${s.id}`) : number(s.b)
        const part = hit && fault && 'along' in fault ? fault.along : 1
        return size(across(number(s.a), far)) / Math.max(1e-3, ohmOf(s) * part)
      },
    }
  }
  const states = new Map<number | null, State>()
  const state = (on: number | null): State => {
    if (!states.has(on)) states.set(on, under(on, on === null ? null : state(null)))
    return states.get(on)!
  }
  const read = (value: number, error: number, digit: number) =>
    Math.max(0, Math.round((value * (1 + error * normal(random))) / digit) * digit)

  /** The conductors of a length, by the boxes at its ends, and their joint ends in the first of them. */
  function lengthAt(place: PlaceId, onto: PlaceId) {
    const on = stretches.filter((s) => {
      const ends = [wiring.placeOf.get(s.a), wiring.placeOf.get(s.b)]
      return ends.includes(place) && ends.includes(onto)
    })
    const near = (s: Stretch) => (wiring.placeOf.get(s.a) === place ? s.a : s.b)
    const undone = new Set<Link>(joints.filter((j) => on.some((s) => near(s) === j.a || near(s) === j.b)))
    return { on, near, undone }
  }
  /** Ohms between two sets of points, each held together, with the path off its controller. */
  function ohms(from: readonly string[], to: readonly string[], undone: ReadonlySet<Link>): number {
    const branches = copper(undone)
    for (const list of [from, to])
      for (const p of list.slice(1)) branches.push({ a: number(list[0]!), b: number(p), z: real(0) })
    const [a, b] = [number(from[0]!), number(to[0]!)]
    if (!joined(numbers.size, branches, a, b)) return Infinity
    const volts = denseSolver(numbers.size, branches)([{ into: a, outOf: b, amps: real(1) }])
    return volts[a]!.re - volts[b]!.re
  }
  const shownOhms = (ohm: number, most: number): number | null => (ohm > most ? null : read(ohm, 0.01, 0.1))
  const isEarthed = () => fault?.kind === 'earth' && fault.ohm < TOLD_ohm

  return {
    answer: (test) => {
      switch (test.kind) {
        case 'path_volts': {
          const at = path.decoders.find((d) => getOrThrow(site.devices, d.device).place === test.place)
          const home = getOrThrow(site.controllers, path.controller).place
          const points =
            test.place === home
              ? ([0, 1] as const).map((leg) =>
                  wiring.pointOf({ kind: 'terminal', controller: path.controller, terminal: path.pairs[0]![leg] }),
                )
              : at
                ? legsOf(at.device).map((lead) => joints.find((j) => j.b === lead)?.a ?? lead)
                : null
          if (points === null) return null
          const [a, b] = points.map((p) => state(null).volts[number(p)]!) as [Z, Z]
          return read(size({ re: a.re - b.re, im: a.im - b.im }), 0.01, 0.1)
        }
        case 'line_amps':
          return read(state(null).source_A, 0.03, 0.001)
        case 'added_amps':
          return read(Math.max(0, state(test.number).source_A - state(null).source_A), 0.03, 0.001)
        case 'length_amps': {
          const { on } = lengthAt(test.place, test.onto)
          return on[0] ? read(state(null).through(on[0]), 0.03, 0.001) : null
        }
        case 'reports': {
          const leaks =
            fault?.kind === 'coil_earth' &&
            test.number !== null &&
            outputs.some(
              (o) => numberOf(o) === test.number && o.coils.includes(fault.device) && isAwake(o.decoder, state(null)),
            )
          return isEarthed() || leaks || state(test.number).source_A > TOLD_A
        }
        case 'legs_earth':
        case 'legs_between': {
          const { on, near, undone } = lengthAt(test.place, test.onto)
          const side = (leg: 0 | 1) => on.filter((s) => legAt.get(s.a) === leg).map(near)
          if (on.length === 0) return null
          return test.kind === 'legs_between'
            ? shownOhms(ohms(side(0), side(1), undone), 2000)
            : shownOhms(1 / (1 / ohms([...side(0), ...side(1)], [EARTH], undone) + 1 / INSULATION_ohm), 5e7)
        }
        case 'lamp': {
          const output = outputs.find((o) => o.decoder === test.device)
          return output !== undefined && numberOf(output) === output.address && isAwake(test.device, state(null))
        }
        case 'number_read': {
          const output = outputs.find((o) => o.decoder === test.device)
          return output && !has('dead', test.device) && !has('shorted', test.device) ? numberOf(output) : null
        }
        case 'coil_apart': {
          if (has('coil_open', test.device)) return null
          const { coilKind } = getOrThrow(site.devices, test.device)
          const ohm = (coilKind && getOrThrow(site.coilKinds, coilKind).resistance_ohm) || 33
          return read(
            has('coil_shorted', test.device) ? SHORTED_COIL_ohm : ohm * own(`coil ${test.device}`, 0.05),
            0.01,
            0.1,
          )
        }
        case 'coil_earth':
          return fault?.kind === 'coil_earth' && has('coil_earth', test.device) ? read(fault.ohm, 0.05, 1) : null
        case 'looked': {
          const isBad =
            fault?.places.includes(test.place) === true &&
            fault.places.length === 1 &&
            (fault.kind === 'loose' || fault.kind === 'touch' || fault.kind === 'earth' || fault.kind === 'coil_earth')
          return random() < (isBad ? BAD_LOOKS : SOUND_LOOKS)
        }
      }
    },
  }
}
