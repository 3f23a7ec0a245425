import { coilImpedance, type Face } from '../../core/circuit'
import { copperFactor } from '../../core/quantity'
import {
  endKey,
  entries,
  getOrThrow,
  portsOf,
  terminalEnd,
  type CoilKind,
  type ControllerId,
  type DeviceId,
  type End,
  type TerminalId,
} from '../../core/site'
import { denseSolver, joined, type Branch, type Z } from '../dense'
import { EARTH, partsOf } from './parts'
import { wireAt, type Real, type Screw } from './real'

/** What is done for a test: joints undone, loose ones apart just now, a jumper between two points. */
export interface Done {
  readonly undone: ReadonlySet<string>
  readonly apart: ReadonlySet<string>
  readonly jumper: readonly [number, number] | null
}
export const NOTHING: ReadonlySet<string> = new Set()

/** The real property as numbered points with branches between them. */
export interface Network {
  readonly size: number
  readonly number: (point: string) => number
  /** The point that really lies under a terminal's screw; null for a bare one. */
  readonly under: (screw: Screw) => number | null
  /** Where a lead of the meter is put. */
  readonly pointOf: (end: End) => number | null
  /** The wire that the record has under a terminal. */
  readonly wireOf: (controller: ControllerId, terminal: TerminalId) => number
  readonly branches: (face: (device: DeviceId) => Face | null, done: Done) => Branch[]
  /** Between two points, by direct current; Infinity where nothing joins them. */
  readonly ohms: (a: number | null, b: number | null, done: Done) => number
  /** Ends of loose joints that are apart just now. */
  readonly looseNow: () => ReadonlySet<string>
}

export const coilKindOf = ({ site }: Real, device: DeviceId): CoilKind | null => {
  const { coilKind } = getOrThrow(site.devices, device)
  return coilKind === null ? null : getOrThrow(site.coilKinds, coilKind)
}

/** A coil as it is: its own spread, shorted turns; plain ohms for a meter (no face), impedance under power. */
function coilOf(real: Real, device: DeviceId, face: Face | null): Z {
  const f = real.faults.find((x) => x.kind.startsWith('coil-') && 'device' in x && x.device === device)
  if (f?.kind === 'coil-short') return { re: real.world.shorted_ohm, im: 0 }
  if (f?.kind === 'coil-dc') return { re: f.ohm * copperFactor(real.ground_C), im: 0 }
  const kind = coilKindOf(real, device)
  const z = coilImpedance(
    kind,
    face ?? 'inrush',
    'optimistic',
    face === null ? 0 : real.site.settings.mains_Hz,
    real.ground_C,
  )
  const left =
    f && 'fraction' in f ? 1 - f.fraction : f?.kind === 'coil-kind' ? f.ohm / (kind?.resistance_ohm ?? 33) : 1
  const own = real.drawn.coils.get(device)!
  // Shorted turns take their share of the ohms and its square of what the winding chokes; another winding is of the
  // same make.
  return { re: z.re * own * left, im: z.im * own * (f?.kind === 'coil-kind' ? left : left ** real.world.turns_power) }
}

/** `noise` is the chance by which a loose joint is apart. */
export function networkOf(real: Real, noise: () => number): Network {
  const { site, wiring, faults } = real
  const parts = partsOf(real)
  const numbers = new Map<string, number>()
  const number = (point: string): number => numbers.get(point) ?? numbers.set(point, numbers.size).get(point)!
  for (const p of parts) {
    number(p.a)
    number(p.b)
  }
  number(EARTH)
  for (const [controller, c] of entries(site.controllers))
    for (const terminal of Object.keys(c.terminals)) number(wiring.pointOf(terminalEnd(controller, terminal)))
  for (const [device, d] of entries(site.devices))
    if (d.kind === 'sequencer') for (const port of portsOf(d)) number(wiring.pointOf({ kind: 'port', device, port }))
  for (const link of wiring.links)
    if (link.kind !== 'stretch') {
      number(link.a)
      number(link.b)
    }
  const size = numbers.size

  const wireOf: Network['wireOf'] = (controller, terminal) => number(wiring.pointOf(terminalEnd(controller, terminal)))
  const under = (screw: Screw): number | null => {
    const wire = wireAt(real, screw)
    return wire === null ? null : wireOf(screw.controller, wire)
  }
  const branches: Network['branches'] = (face, { undone, apart, jumper }) => [
    ...parts.flatMap((p): Branch[] =>
      p.link?.kind === 'leg' && p.b !== EARTH && (undone.has(p.link.splice) || apart.has(endKey(p.link.end)))
        ? []
        : [
            {
              a: number(p.a),
              b: number(p.b),
              z: p.device === null ? { re: p.ohm, im: 0 } : coilOf(real, p.device, face(p.device)),
            },
          ],
    ),
    ...(jumper ? [{ a: jumper[0], b: jumper[1], z: { re: 0, im: 0 } }] : []),
  ]
  const solvers = new Map<string, ReturnType<typeof denseSolver>>()
  const ohms: Network['ohms'] = (a, b, done) => {
    if (a === null || b === null) return Infinity
    const network = branches(() => null, done)
    if (!joined(size, network, a, b)) return Infinity
    const key = [...done.undone, ...done.apart, done.jumper?.join() ?? ''].join(' ')
    const solve = solvers.get(key) ?? solvers.set(key, denseSolver(size, network)).get(key)!
    const volts = solve([{ into: a, outOf: b, amps: { re: 1, im: 0 } }])
    return volts[a]!.re - volts[b]!.re
  }
  const looseNow = (): ReadonlySet<string> => {
    const ends = faults.flatMap((f) => (f.kind === 'joint-loose' && noise() < real.world.loose ? [endKey(f.end)] : []))
    return ends.length === 0 ? NOTHING : new Set(ends)
  }
  return {
    size,
    number,
    under,
    pointOf: (end) => (end.kind === 'terminal' ? under(end) : number(wiring.pointOf(end))),
    wireOf,
    branches,
    ohms,
    looseNow,
  }
}
