import { coil_ohm } from '../circuit'
import { coil_A, layoutOf, outputsOn, pathEngine, type KnownPath, type PathEngine } from '../path'
import type { PathTest } from '../record'
import { wiringOf, type DeviceId, type Link, type PlaceId, type Site } from '../site'
import { apartOf, type Parting } from './apart'
import type { PathFault } from './faults'
import { hiddenOn } from './hidden'
import { figure, type Shown } from './shown'
import { Standings } from './standing'

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
const isOf = (fault: PathFault | null, device: DeviceId): fault is PathFault =>
  fault?.where.kind === 'device' && fault.where.device === device

/** What every test shows under every fault; null for a test that says nothing of it. */
export type Predict = (fault: PathFault | null, test: PathTest) => Shown | null
type TestOf<K extends PathTest['kind']> = Extract<PathTest, { kind: K }>

/** Predictions for a path whose system says what it must. Faults and sides are worked out once each. */
export function predictorOf(site: Site, path: KnownPath): Predict {
  const made = pathEngine(site, path, 'constant_current')
  if (!made.ok) return () => null
  const predictor = new Predictor(site, made.value)
  const isHidden = hiddenOn(outputsOn(site, path))
  const soundShown = new WeakMap<PathTest, Shown | null>()
  return (fault, test) => {
    if (fault !== null && !isHidden(fault, test)) return predictor.shown(fault, test)
    if (!soundShown.has(test)) soundShown.set(test, predictor.shown(null, test))
    return soundShown.get(test) ?? null
  }
}

class Predictor {
  private readonly standings: Standings
  private readonly outputs: ReturnType<typeof outputsOn>
  private readonly apart: ReturnType<typeof apartOf>
  private readonly home: PlaceId
  private readonly coilLinks: ReadonlyMap<DeviceId, Extract<Link, { kind: 'coil' }>>
  private readonly figures: { readonly idle_A: number; readonly active_A: number; readonly minimum_V: number }

  constructor(
    private readonly site: Site,
    made: PathEngine,
  ) {
    const { path } = made
    this.standings = new Standings(site, made)
    this.outputs = outputsOn(site, path)
    this.apart = apartOf(site, path)
    this.home = layoutOf(site, path).spots[0]!.place
    this.coilLinks = new Map(wiringOf(site).links.flatMap((l) => (l.kind === 'coil' ? [[l.device, l] as const] : [])))
    this.figures = path.system as Predictor['figures']
  }

  shown(fault: PathFault | null, test: PathTest): Shown | null {
    switch (test.kind) {
      case 'path_volts':
        return this.pathVolts(fault, test)
      case 'line_amps':
        return this.amps(fault, test, this.standings.of(fault).line_A)
      case 'length_amps': {
        const side = this.apart.sideOf(test)
        return side ? this.amps(fault, test, this.standings.of(fault).length_A.get(side.first) ?? 0) : null
      }
      case 'added_amps':
        return this.added(fault, test)
      case 'reports':
        return this.reports(fault, test.number)
      case 'legs_earth':
        return this.toEarth(fault, test)
      case 'legs_between':
        return this.between(fault, test)
      case 'lamp': {
        const isOwn = !(fault?.kind === 'renumbered' && isOf(fault, test.device))
        return yes(isOwn && this.answers(fault, test.device))
      }
      case 'number_read':
        return this.numberRead(fault, test.device)
      case 'coil_apart':
        return this.coilApart(fault, test)
      case 'coil_earth':
        return fault?.kind === 'coil_leak' && isOf(fault, test.device) ? figure(test, fault.ohm, 0.9 * fault.ohm) : NONE
      case 'looked':
        return looked(fault, test.place)
    }
  }

  private pathVolts(fault: PathFault | null, test: TestOf<'path_volts'>): Shown | null {
    const { place_V, terminal_V } = this.standings.of(fault)
    const mean = test.place === this.home ? terminal_V : place_V.get(test.place)
    return mean === undefined ? null : figure(test, mean, Math.hypot(0.3, doubt(fault, 0.05) * mean))
  }

  private amps(fault: PathFault | null, test: PathTest, mean: number): Shown {
    return figure(test, mean, Math.hypot(0.0015, doubt(fault, 0.08) * mean))
  }

  private numberOf(fault: PathFault | null, output: Predictor['outputs'][number]): number | null {
    if (fault?.kind !== 'renumbered' || !isOf(fault, output.decoder)) return output.address
    const own = this.outputs.filter((o) => o.decoder === output.decoder)
    return fault.as + own.indexOf(output)
  }

  private answers(fault: PathFault | null, device: DeviceId): boolean {
    const isDead = fault?.kind === 'decoder_dead' && isOf(fault, device)
    return !isDead && (this.standings.of(fault).volts.get(device) ?? 0) >= ALIVE * this.figures.minimum_V
  }

  private running(fault: PathFault | null, number: number) {
    return this.outputs.filter((o) => this.numberOf(fault, o) === number && this.answers(fault, o.decoder))
  }

  private added(fault: PathFault | null, test: TestOf<'added_amps'>): Shown {
    let [mean, sd] = [0, 0.003]
    for (const output of this.running(fault, test.number)) {
      mean += this.figures.active_A - this.figures.idle_A
      for (const coil of output.coils) {
        if (fault?.kind === 'coil_open' && isOf(fault, coil)) continue
        const isShort = fault?.kind === 'coil_short' && isOf(fault, coil)
        const amps = coil_A(this.site, coil, 'holding')
        mean += isShort ? SHORTED_A.mean : amps
        sd = Math.hypot(sd, isShort ? SHORTED_A.sd : 0.15 * amps)
      }
    }
    return figure(test, mean, sd)
  }

  private reports(fault: PathFault | null, number: number | null): Shown {
    if (fault === null) return yes(false)
    if (fault.kind === 'short' || fault.kind === 'decoder_short') return yes(true)
    if (fault.kind === 'leak') return yes(fault.ohm <= TOLD_ohm)
    if (number === null || (fault.kind !== 'coil_leak' && fault.kind !== 'coil_short')) return yes(false)
    return yes(this.running(fault, number).some((o) => o.coils.some((coil) => isOf(fault, coil))))
  }

  private beyond(fault: Extract<PathFault, { kind: 'short' | 'leak' }>, test: Parting): number | null {
    return this.apart.toSpot(fault.at, test)
  }

  private toEarth(fault: PathFault | null, test: TestOf<'legs_earth'>): Shown | null {
    if (!this.apart.sideOf(test)) return null
    const leak = fault?.kind === 'leak' && this.beyond(fault, test) !== null
    return leak ? figure(test, fault.ohm, 0.9 * fault.ohm) : NONE
  }

  private between(fault: PathFault | null, test: TestOf<'legs_between'>): Shown | null {
    if (!this.apart.sideOf(test)) return null
    if (fault?.kind === 'decoder_short') {
      const way = this.apart.toDevice(fault.where.kind === 'device' ? fault.where.device : null, test)
      return way === null ? NONE : figure(test, way + 1, Math.hypot(0.8, 0.06 * way))
    }
    const way = fault?.kind === 'short' ? this.beyond(fault, test) : null
    if (way === null || fault?.kind !== 'short') return NONE
    return figure(test, way + fault.ohm, Math.hypot(0.3, 0.6 * fault.ohm, 0.06 * way))
  }

  private numberRead(fault: PathFault | null, device: DeviceId): Shown | null {
    const output = this.outputs.find((o) => o.decoder === device)
    const isDead = (fault?.kind === 'decoder_dead' || fault?.kind === 'decoder_short') && isOf(fault, device)
    return output ? { kind: 'number', number: isDead ? null : this.numberOf(fault, output) } : null
  }

  private coilApart(fault: PathFault | null, test: TestOf<'coil_apart'>): Shown | null {
    const coil = this.coilLinks.get(test.device)
    if (!coil) return null
    if (fault?.kind === 'coil_open' && isOf(fault, test.device)) return NONE
    if (fault?.kind === 'coil_short' && isOf(fault, test.device)) return figure(test, 1, 1)
    const ohm = coil_ohm(this.site, coil, 'value')
    return figure(test, ohm, 0.1 * ohm)
  }
}

function looked(fault: PathFault | null, place: PlaceId): Shown {
  const { where } = fault ?? {}
  if (!fault || !where || where.kind === 'length' || where.place !== place) return { kind: 'yes', p: LOOKS.sound }
  if (where.kind === 'joint' || fault.kind === 'open') return { kind: 'yes', p: LOOKS.joint }
  if (fault.kind === 'coil_leak') return { kind: 'yes', p: LOOKS.coilJoint }
  const isDecoder = fault.kind === 'decoder_dead' || fault.kind === 'decoder_short'
  return { kind: 'yes', p: isDecoder ? LOOKS.decoder : LOOKS.sound }
}
