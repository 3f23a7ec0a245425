import {
  climateOf,
  complex,
  engineOf,
  minimumOf,
  minus,
  plus,
  poweredOf,
  size,
  times,
  type Conditions,
  type Edit,
  type Engine,
  type Solution,
} from '../circuit'
import { accepted, type Outcome } from '../refusal'
import { getOrThrow, lookUp, netsOf, type DeviceId, type Link, type PathAt, type Site } from '../site'
import { layoutOf } from './layout'
import { coil_A, knownPath, outputEdits, type KnownPath, type OutputOn } from './running'

/** Volts at a decoder, between its path leads. */
export interface DecoderVolts {
  readonly decoder: DeviceId
  readonly volt_V: number
  readonly minimum_V: number
  readonly enough: boolean
}
/** Volts at a coil behind a decoder that is on. */
export interface BehindVolts {
  readonly coil: DeviceId
  readonly decoder: DeviceId
  readonly volt_V: number
  readonly current_A: number
  readonly minimum_V: number
  readonly enough: boolean
}
/** What a stretch of the path takes, both of its legs: volts, at the current of the leg. */
export interface StretchLoss {
  readonly link: Extract<Link, { kind: 'stretch' }>
  readonly volt_V: number
  readonly current_A: number
}

/** The path in one state, by one of the two ways of taking a load. Decoders: weakest first. */
export interface PathVolts {
  readonly decoders: readonly DecoderVolts[]
  readonly coils: readonly BehindVolts[]
  readonly stretches: readonly StretchLoss[]
  /** What leaves the controller on the path. */
  readonly line_A: number
  /** At the screws of the first way out. */
  readonly terminal_V: number
}

export type LoadModel = NonNullable<Conditions['path']>
/** Under what circumstances; as the property usually is where nothing is said. */
export interface PathConditions {
  readonly mains_ratio?: number
  readonly ground_C?: number
  readonly wire?: Conditions['wire']
  readonly phase?: Conditions['phase']
}

/** The worst that sizing must bear: mains low, ground hot, wire as thin as its standard allows. */
export const worstFor = (site: Site): PathConditions => ({
  mains_ratio: 1 - site.settings.sizing.mainsLow_ratio,
  ground_C: site.settings.sizing.hottest_C,
  wire: 'maximum',
  phase: 'safe',
})

/** A path made ready to be solved in one state after another. */
export interface PathEngine {
  readonly path: KnownPath
  readonly engine: Engine
  /** The path with these outputs on, and what else is other than on record. */
  readonly volts: (on: readonly OutputOn[], changes?: readonly Edit[]) => PathVolts
  /** The same, at any point of the wiring. */
  readonly solve: (on: readonly OutputOn[], changes?: readonly Edit[]) => Solution
}

/** The circuit of a path, every decoder waiting. Refused where its profile lacks a figure that volts hang on. */
export function pathEngine(
  site: Site,
  at: PathAt,
  model: LoadModel,
  on: readonly OutputOn[] = [],
  { mains_ratio = 1, ground_C, wire = 'nominal', phase = 'safe' }: PathConditions = {},
): Outcome<PathEngine> {
  const known = knownPath(at)
  if (!known.ok) return known
  const path = known.value
  const faces = new Map(on.flatMap(({ output, face }) => output.coils.map((coil) => [coil, face] as const)))
  const engine = engineOf(
    poweredOf(site, {
      climate: climateOf(site, ground_C),
      frequency_Hz: site.settings.mains_Hz,
      phase,
      mains_ratio,
      wire,
      faces,
      turns: new Map(),
      path: model,
    }),
  )
  return accepted(engineFor(path, engine))
}

/** A path on an engine of its property. */
export function engineFor(path: KnownPath, engine: Engine): PathEngine {
  const solve: PathEngine['solve'] = (state, changes = []) =>
    engine.solve([...outputEdits(engine.powered, path, state), ...changes])
  return { path, engine, solve, volts: (state, changes) => voltsOf(engine, path, state, solve(state, changes)) }
}

/** The path with these outputs on. */
export function pathVolts(
  site: Site,
  at: PathAt,
  model: LoadModel,
  on: readonly OutputOn[],
  conditions: PathConditions = {},
): Outcome<PathVolts> {
  const made = pathEngine(site, at, model, on, conditions)
  return made.ok ? accepted(made.value.volts(on)) : made
}

function voltsOf(engine: Engine, path: KnownPath, on: readonly OutputOn[], solution: Solution): PathVolts {
  const { powered } = engine
  const { site, nodeOf, wiring, parts, sources } = powered
  const across = (a: number, b: number) =>
    solution.floating(a) || solution.floating(b) ? 0 : size(minus(solution.volts(a), solution.volts(b)))
  const decoders = path.decoders
    .map(({ device, legs }): DecoderVolts => {
      const volt_V = legs === null ? 0 : across(nodeOf.get(legs[0])!, nodeOf.get(legs[1])!)
      const minimum_V = path.system.minimum_V!
      return { decoder: device, volt_V, minimum_V, enough: volt_V >= minimum_V }
    })
    .sort((a, b) => a.volt_V - b.volt_V)
  const flow = (element: number) => {
    const { a, b } = parts[element]!
    const y = solution.admittance(element)
    return y === null ? complex(0) : times(minus(solution.volts(a), solution.volts(b)), y)
  }
  const amps = (element: number) => size(flow(element))
  const port = (device: DeviceId, name: string) => nodeOf.get(wiring.pointOf({ kind: 'port', device, port: name }))!
  const behind = on.flatMap(({ output, face }) =>
    output.coils.map((coil): BehindVolts => {
      const { coilKind } = getOrThrow(site.devices, coil)
      const kind = coilKind === null ? null : (lookUp(site.coilKinds, coilKind) ?? null)
      const volt_V = across(port(coil, 'a'), port(coil, 'b'))
      const minimum_V = minimumOf(kind, face)
      const element = parts.findIndex((p) => p.of.kind === 'coil' && p.of.device === coil)
      const current_A = element >= 0 ? amps(element) : volt_V > 0 ? coil_A(site, coil, face) : 0
      return { coil, decoder: output.decoder, volt_V, current_A, minimum_V, enough: volt_V >= minimum_V }
    }),
  )
  const nets = netsOf(wiring)
  const isLeg = (point: string) => path.nets.some((leg) => leg.has(nets.of(point)))
  const stretches = parts.flatMap(({ a, b, of }, element): StretchLoss[] =>
    of.kind === 'stretch' && isLeg(of.a) ? [{ link: of, volt_V: across(a, b), current_A: amps(element) }] : [],
  )
  // What leaves the controller is summed where it leaves: across a screw there is too little to read a current from.
  const layout = layoutOf(site, path)
  const elementOf = new Map(parts.map((p, element) => [p.of, element] as const))
  const leaving = layout.spots[0]!.legs.flatMap((leg) =>
    layout.legs[leg]!.first.flatMap((link) => elementOf.get(link) ?? []),
  )
  const outward = (element: number) => {
    const { of } = parts[element]!
    const isOutward = of.kind === 'stretch' && layout.legs.some((l) => l.a === 0 && l.first.includes(of))
    return isOutward ? flow(element) : minus(complex(0), flow(element))
  }
  const source = sources.find((s) => s.feeds === 'path' && s.controller === path.controller)!
  return {
    decoders,
    coils: behind,
    stretches,
    line_A: size(leaving.reduce((sum, element) => plus(sum, outward(element)), complex(0))),
    terminal_V: across(source.hot, source.common),
  }
}
