import { coil_ohm, minus, size, type Edit, type Solution } from '../circuit'
import { coil_A, layoutOf, outputsOn, pathEngine, type KnownPath, type PathVolts } from '../path'
import type { PathTest } from '../record'
import { wiringOf, type DeviceId, type Link, type PlaceId, type Site } from '../site'
import { apartOf, type Parting } from './apart'
import type { PathFault } from './faults'
import { figure, type Shown } from './shown'

type Stretch = Extract<Link, { kind: 'stretch' }>

/** Less than this part of its least volts, and a decoder does nothing. */
const ALIVE = 0.7
/** A leak of at most so much makes a controller tell of it. */
const TOLD_ohm = 20_000
/** What a shorted coil draws before the controller gives up, and how wide a guess that is. */
const SHORTED_A = { mean: 3, sd: 1.5 } as const
const YES = { sure: 0.97, hardly: 0.02 } as const
/** How often a thing that failed looks so when its box is opened. */
const LOOKS = { joint: 0.9, decoder: 0.3, coilJoint: 0.85, sound: 0.02 } as const

/** A short of unknown ohms is reckoned at a few sizes; between them lies so much of what is read. */
const BETWEEN_SIZES = 0.25
const doubt = (fault: PathFault | null, usual: number) =>
  fault?.kind === 'short' || fault?.kind === 'decoder_short' ? BETWEEN_SIZES : usual

const yes = (is: boolean): Shown => ({ kind: 'yes', p: is ? YES.sure : YES.hardly })
const NONE: Shown = { kind: 'none' }

/** The path as it stands with a fault in it, nothing running. */
interface Standing {
  readonly volts: ReadonlyMap<DeviceId, number>
  /** Volts between the legs in a box, where its decoders hang on them. */
  readonly place_V: ReadonlyMap<PlaceId, number>
  readonly length_A: ReadonlyMap<Stretch, number>
  readonly line_A: number
  readonly terminal_V: number
}

/** What every test shows under every fault; null for a test that says nothing of it. */
export type Predict = (fault: PathFault | null, test: PathTest) => Shown | null

/** Predictions for a path whose system says what it must. Faults and sides are worked out once each. */
export function predictorOf(site: Site, path: KnownPath): Predict {
  const made = pathEngine(site, path, 'constant_current')
  if (!made.ok) return () => null
  const { engine, solve, volts } = made.value
  const { idle_A, active_A, minimum_V } = path.system as Record<'idle_A' | 'active_A' | 'minimum_V', number>
  const layout = layoutOf(site, path)
  const outputs = outputsOn(site, path)
  const elementOf = new Map(engine.powered.parts.map((p, i) => [p.of, i] as const))
  const nodeOf = (point: string) => engine.powered.nodeOf.get(point)!
  const joints = jointsOf(site, path)
  const standingOf = (v: PathVolts, { floating, volts: at }: Solution): Standing => ({
    volts: new Map(v.decoders.map((d) => [d.decoder, d.volt_V])),
    place_V: new Map(
      [...joints].map(([place, legs]) => {
        const [a, b] = legs.map(nodeOf) as [number, number]
        return [place, floating(a) || floating(b) ? 0 : size(minus(at(a), at(b)))]
      }),
    ),
    length_A: new Map(v.stretches.map((s) => [s.link, s.current_A])),
    line_A: v.line_A,
    terminal_V: v.terminal_V,
  })
  const sound = standingOf(volts([]), solve([]))
  const standings = new Map<PathFault, Standing>()
  const standing = (fault: PathFault | null): Standing => {
    const edits = fault && editsOf(fault)
    if (!fault || edits === null) return sound
    if (!standings.has(fault)) standings.set(fault, standingOf(volts([], edits), solve([], edits)))
    return standings.get(fault)!
  }
  /** What a fault is to the circuit while nothing runs; null where it is nothing then. */
  function editsOf(fault: PathFault): Edit[] | null {
    if (fault.kind === 'open') return [{ kind: 'open', element: elementOf.get(fault.link)! }]
    if (fault.kind === 'short') {
      const { first, second, end } = fault.at
      return end === 'along'
        ? [
            {
              kind: 'touch',
              first: elementOf.get(first)!,
              firstAlong: 0.5,
              second: elementOf.get(second)!,
              secondAlong: 0.5,
              ohm: fault.ohm,
            },
          ]
        : [{ kind: 'bridge', a: nodeOf(first[end]), b: nodeOf(second[end]), ohm: fault.ohm }]
    }
    const legs = fault.where.kind === 'device' && legsOf(fault.where.device)
    if (!legs) return null
    const [a, b] = legs.map(nodeOf) as [number, number]
    if (fault.kind === 'decoder_short') return [{ kind: 'bridge', a, b, ohm: 1 }]
    if (fault.kind === 'decoder_dead') return [{ kind: 'draw', a, b, amps: { re: -idle_A, im: 0 } }]
    return null
  }
  const legsOf = (device: DeviceId) => path.decoders.find((d) => d.device === device)?.legs
  const isOf = (fault: PathFault | null, device: DeviceId): fault is PathFault =>
    fault?.where.kind === 'device' && fault.where.device === device
  const numberOf = (fault: PathFault | null, output: (typeof outputs)[number]): number | null => {
    if (fault?.kind !== 'renumbered' || !isOf(fault, output.decoder)) return output.address
    const own = outputs.filter((o) => o.decoder === output.decoder)
    return fault.as + own.indexOf(output)
  }
  const answers = (fault: PathFault | null, device: DeviceId) =>
    !(fault?.kind === 'decoder_dead' && isOf(fault, device)) &&
    (standing(fault).volts.get(device) ?? 0) >= ALIVE * minimum_V

  const running = (fault: PathFault | null, number: number) =>
    outputs.filter((o) => numberOf(fault, o) === number && answers(fault, o.decoder))
  const added = (fault: PathFault | null, test: Extract<PathTest, { kind: 'added_amps' }>): Shown => {
    let [mean, sd] = [0, 0.003]
    for (const output of running(fault, test.number)) {
      mean += active_A - idle_A
      for (const coil of output.coils) {
        if (fault?.kind === 'coil_open' && isOf(fault, coil)) continue
        const isShort = fault?.kind === 'coil_short' && isOf(fault, coil)
        const amps = coil_A(site, coil, 'holding')
        mean += isShort ? SHORTED_A.mean : amps
        sd = Math.hypot(sd, isShort ? SHORTED_A.sd : 0.15 * amps)
      }
    }
    return figure(test, mean, sd)
  }
  const reports = (fault: PathFault | null, number: number | null): Shown => {
    if (fault === null) return yes(false)
    if (fault.kind === 'short' || fault.kind === 'decoder_short') return yes(true)
    if (fault.kind === 'leak') return yes(fault.ohm <= TOLD_ohm)
    if (number === null || (fault.kind !== 'coil_leak' && fault.kind !== 'coil_short')) return yes(false)
    return yes(running(fault, number).some((o) => o.coils.some((coil) => isOf(fault, coil))))
  }

  const ohms = apartOf(site, path)
  const beyond = (fault: Extract<PathFault, { kind: 'short' | 'leak' }>, test: Parting): number | null =>
    ohms.toSpot(fault.at, test)
  const toEarth = (fault: PathFault | null, test: Extract<PathTest, { kind: 'legs_earth' }>): Shown | null => {
    if (!ohms.sideOf(test)) return null
    const leak = fault?.kind === 'leak' && beyond(fault, test) !== null
    return leak ? figure(test, fault.ohm, 0.9 * fault.ohm) : NONE
  }
  const between = (fault: PathFault | null, test: Extract<PathTest, { kind: 'legs_between' }>): Shown | null => {
    if (!ohms.sideOf(test)) return null
    if (fault?.kind === 'decoder_short') {
      const way = ohms.toDevice(fault.where.kind === 'device' ? fault.where.device : null, test)
      return way === null ? NONE : figure(test, way + 1, Math.hypot(0.8, 0.06 * way))
    }
    const way = fault?.kind === 'short' ? beyond(fault, test) : null
    if (way === null || fault?.kind !== 'short') return NONE
    return figure(test, way + fault.ohm, Math.hypot(0.3, 0.6 * fault.ohm, 0.06 * way))
  }
  const looked = (fault: PathFault | null, place: PlaceId): Shown => {
    const { where } = fault ?? {}
    if (!fault || !where || where.kind === 'length' || where.place !== place) return { kind: 'yes', p: LOOKS.sound }
    if (where.kind === 'joint') return { kind: 'yes', p: LOOKS.joint }
    if (fault.kind === 'open') return { kind: 'yes', p: LOOKS.joint }
    if (fault.kind === 'coil_leak') return { kind: 'yes', p: LOOKS.coilJoint }
    const isDecoder = fault.kind === 'decoder_dead' || fault.kind === 'decoder_short'
    return { kind: 'yes', p: isDecoder ? LOOKS.decoder : LOOKS.sound }
  }
  const home = layout.spots[0]!.place
  const coilLinks = new Map(wiringOf(site).links.flatMap((l) => (l.kind === 'coil' ? [[l.device, l] as const] : [])))
  const shown: Predict = (fault, test) => {
    switch (test.kind) {
      case 'path_volts': {
        const { place_V, terminal_V } = standing(fault)
        const mean = test.place === home ? terminal_V : place_V.get(test.place)
        if (mean === undefined) return null
        return figure(test, mean, Math.hypot(0.3, doubt(fault, 0.05) * mean))
      }
      case 'line_amps': {
        const mean = standing(fault).line_A
        return figure(test, mean, Math.hypot(0.0015, doubt(fault, 0.08) * mean))
      }
      case 'length_amps': {
        const side = ohms.sideOf(test)
        if (!side) return null
        const mean = standing(fault).length_A.get(side.first) ?? 0
        return figure(test, mean, Math.hypot(0.0015, doubt(fault, 0.08) * mean))
      }
      case 'added_amps':
        return added(fault, test)
      case 'reports':
        return reports(fault, test.number)
      case 'legs_earth':
        return toEarth(fault, test)
      case 'legs_between':
        return between(fault, test)
      case 'lamp': {
        const isOwn = !(fault?.kind === 'renumbered' && isOf(fault, test.device))
        return yes(isOwn && answers(fault, test.device))
      }
      case 'number_read': {
        const output = outputs.find((o) => o.decoder === test.device)
        const isDead = (fault?.kind === 'decoder_dead' || fault?.kind === 'decoder_short') && isOf(fault, test.device)
        return output ? { kind: 'number', number: isDead ? null : numberOf(fault, output) } : null
      }
      case 'coil_apart': {
        const coil = coilLinks.get(test.device)
        if (!coil) return null
        const ohm = coil_ohm(site, coil, 'value')
        if (fault?.kind === 'coil_open' && isOf(fault, test.device)) return NONE
        const isShort = fault?.kind === 'coil_short' && isOf(fault, test.device)
        return isShort ? figure(test, 1, 1) : figure(test, ohm, 0.1 * ohm)
      }
      case 'coil_earth':
        return fault?.kind === 'coil_leak' && isOf(fault, test.device) ? figure(test, fault.ohm, 0.9 * fault.ohm) : NONE
      case 'looked':
        return looked(fault, test.place)
    }
  }
  /** The numbers that a fault of a device may move. */
  const moved = (fault: PathFault): readonly number[] => {
    if (fault.where.kind !== 'device') return []
    const { device } = fault.where
    const own = outputs.filter((o) => o.decoder === device || o.coils.includes(device))
    return [
      ...own.flatMap((o) => o.address ?? []),
      ...(fault.kind === 'renumbered' ? own.map((_, i) => fault.as + i) : []),
    ]
  }
  const numbersOf = new Map<PathFault, readonly number[]>()
  /** Whether a fault cannot show in a test: most of them show in few, and need no reckoning in the others. */
  const isHidden = (fault: PathFault, test: PathTest): boolean => {
    if (fault.kind === 'leak') return test.kind !== 'reports' && test.kind !== 'legs_earth' && test.kind !== 'looked'
    if (fault.where.kind !== 'device' || !ONLY_AT_ITSELF.has(fault.kind)) return false
    if ('device' in test) return test.device !== fault.where.device
    if (!('number' in test)) return test.kind !== 'looked'
    if (!numbersOf.has(fault)) numbersOf.set(fault, moved(fault))
    return test.number === null || !numbersOf.get(fault)!.includes(test.number)
  }
  const soundShown = new WeakMap<PathTest, Shown | null>()
  return (fault, test) => {
    if (fault !== null && !isHidden(fault, test)) return shown(fault, test)
    if (!soundShown.has(test)) soundShown.set(test, shown(null, test))
    return soundShown.get(test) ?? null
  }
}

/** What a device does by itself, with the path as sound as ever. */
const ONLY_AT_ITSELF: ReadonlySet<PathFault['kind']> = new Set(['renumbered', 'coil_open', 'coil_short', 'coil_leak'])

/** Where decoders hang on the legs in every box that has one: the joints, not the decoders’ own leads. */
function jointsOf(site: Site, path: KnownPath): ReadonlyMap<PlaceId, readonly [string, string]> {
  const { links, placeOf } = wiringOf(site)
  const joint = new Map(links.flatMap((l) => (l.kind === 'leg' ? [[l.b, l.a] as const] : [])))
  return new Map(
    path.decoders.flatMap(({ legs }) => {
      const [a, b] = legs?.map((leg) => joint.get(leg)) ?? []
      return a !== undefined && b !== undefined ? [[placeOf.get(a)!, [a, b] as const] as const] : []
    }),
  )
}
