import type { Across, Complex, Join } from '../circuit'
import type { FieldTest, Meter } from '../record'
import { terminalEnd, type DeviceId, type End, type TerminalId } from '../site'
import { settingsOf } from './box-settings'
import { pullIn_V, type HuntContext } from './context'
import { equivalenceClasses, nearNode } from './equivalence'
import { normalBelow } from './normal'
import type { Cause } from './odds'
import { powerOf, started_V } from './power'
import { memoizePredictions, type Predictor } from './memoize'
import {
  changesOf,
  modsOf,
  type Alter,
  type Catalogue,
  type Fault,
  type Faults,
  type NetworkEdit,
  type FaultHypothesis,
} from './variants'

/** What a test would show if some faults were there. Spreads are one standard deviation. */
export type Prediction =
  /**
   * `noise`: one deviation of what the meter and the ground blur, whatever it shows; `ratio`: and as a part of what
   * it shows. `coils`: by how much the reading moves when a coil is 100 % off its sheet; `figures`: when a fault's
   * figure is one deviation of its cell off.
   */
  | {
      readonly kind: 'ohms'
      readonly mean: number
      readonly noise: number
      readonly ratio: number
      readonly coils: readonly (readonly [DeviceId, number])[]
      readonly figures: readonly number[]
    }
  | { readonly kind: 'open' }
  /** Insulation to earth without a leak: whatever the meter can still show. */
  | { readonly kind: 'insulated' }
  | { readonly kind: 'volts'; readonly mean: number; readonly sd: number; readonly fed: boolean }
  /** How likely the answer is yes: heard, flows, sound, lit. */
  | { readonly kind: 'yes'; readonly p: number }
  | { readonly kind: 'lamps'; readonly good: number; readonly open: number; readonly short: number }
  /** The master valve opens with `master`; then each of these waters by itself. */
  | { readonly kind: 'waters'; readonly master: number; readonly valves: readonly (readonly [DeviceId, number])[] }
  | { readonly kind: 'tone'; readonly lost_m: number | null; readonly sd_m: number }
  /** A joint that comes and goes: ill with `p`, else well. */
  | { readonly kind: 'either'; readonly p: number; readonly well: Prediction; readonly ill: Prediction }

/** A limit that is met by a truncated normal at two deviations leaves this much of a deviation. */
export const TRUNCATED = 0.88
const half = (limit: number) => (limit / 2) * TRUNCATED
/** Mains wander by 3 %; a coil under power deviates as its winding does; a meter shows a tenth. */
const MAINS_ratio = half(0.03)
const PULL_SPREAD_V = 0.35
const TENTH = 0.1 / Math.sqrt(12)
/** Whether a joint that is bad looks and feels so, and whether a sound one does. */
export const LOOK = { bad: 0.9, sound: 0.02 } as const
/** The same where it is cut out, looked into and made anew, and the thread tried again. */
export const REMAKE = { bad: 0.9998, sound: 0.0005 } as const
const EAR = { heard: 0.995, imagined: 0.005 } as const
/** A tester's lamps, as its sheet gives them. */
const LAMP = { short_ohm: 8, open_ohm: 300, lit_V: 12 } as const
/** Two rods in moist soil read less than this between them. */
export const SOIL_MOST_ohm = 5000
/** An intermittent joint fails in every other test. */
const INTERMITTENT = 0.5

/** What only keeps current away. */
const KEEPS_AWAY: ReadonlySet<Cause> = new Set<Cause>(['open', 'series', 'terminal_dead'])
/** What keeps it away, or the water, before it has left the cabinet: no conductors that touch bring any back. */
const AT_THE_SOURCE: ReadonlySet<Cause> = new Set<Cause>(['supply_dead', 'sensor_open', 'water_off'])

/** Predicts any test under any faults from the network of its state: the one place where a fault becomes a figure. */
export function predictorOf(context: HuntContext, catalogue: Catalogue, meter: Meter): Predictor {
  const { site, controller, common, meterState } = context
  const { powered } = meterState
  const faultOf = (v: FaultHypothesis): Fault => catalogue.faults[v.fault]!
  const commonNode = context.wire(common)

  const { liveAt, heldVolts } = powerOf(context, catalogue)

  // Leads under other screws: the wire that lies at a terminal, null for a bare screw.
  const wireAt = (terminal: TerminalId, faults: Faults): TerminalId | null => {
    let at: TerminalId | null = terminal
    for (const v of faults) {
      const { where, cause } = faultOf(v)
      if (where.kind !== 'pair' || at === null) continue
      if (cause === 'swapped') at = at === where.one ? where.two : at === where.two ? where.one : at
      else if (at === where.two) at = null
    }
    return at
  }
  const isDead = (faults: Faults, terminal: TerminalId): boolean =>
    faults.some((v) => {
      const { where, cause } = faultOf(v)
      return (
        cause === 'supply_dead' || cause === 'sensor_open' || (where.kind === 'terminal' && where.terminal === terminal)
      )
    })
  const flickers = (faults: Faults) => faults.filter((v) => faultOf(v).cause === 'intermittent')

  const pointOf = (end: End, faults: Faults): number | null => {
    if (end.kind === 'terminal') {
      const at = wireAt(end.terminal, faults)
      return at === null || end.controller !== controller ? null : context.wire(at)
    }
    return context.node(powered.wiring.pointOf(end))
  }

  const settingOf = settingsOf(context)
  const ends = (element: number) => powered.parts[element]!

  const ohmsAt = (across: Across, alters: readonly Alter[], joins: readonly Join[]): number | null => {
    const reading = meterState.influence.ohms(
      meterState.testOf(across.a, across.b),
      changesOf(meterState, alters),
      joins,
    )
    return reading.open ? null : Math.max(0, reading.value.re)
  }
  /** Coils that a reading depends on as recorded: worked out once per pair of points. */
  const coilsIn = new Map<string, DeviceId[]>()
  const coilsOf = (across: Across, joins: readonly Join[]): readonly DeviceId[] => {
    const key = `${across.a} ${across.b} ${joins.length}`
    if (!coilsIn.has(key)) {
      const test = meterState.testOf(across.a, across.b)
      coilsIn.set(
        key,
        [...context.coilElement].flatMap(([device, element]) =>
          meterState.influence.share(test, element) > 0.02 ? [device] : [],
        ),
      )
    }
    return coilsIn.get(key)!
  }
  const NUDGE = 0.02
  function ohmsReading(
    across: Across,
    faults: Faults,
    more: { alters: readonly Alter[]; joins: readonly Join[] } = { alters: [], joins: [] },
  ): Prediction {
    const read = (mods: NetworkEdit, nudge: DeviceId | null = null): number | null =>
      ohmsAt(
        across,
        [
          ...mods.alters,
          ...more.alters,
          ...(nudge === null
            ? []
            : [
                {
                  element: context.coilElement.get(nudge)!,
                  to: (z: Complex) => ({ re: z.re * (1 + NUDGE), im: z.im * (1 + NUDGE) }),
                },
              ]),
        ],
        [...mods.joins, ...more.joins],
      )
    const mods = modsOf(faults, ends)
    const mean = read(mods)
    if (mean === null || mean > meter.highest_ohm) return { kind: 'open' }
    // Touching leads bring in each other's coils.
    const devices = new Set([
      ...coilsOf(across, more.joins),
      ...(mods.joins.length > 0 ? faults.flatMap((v) => faultOf(v).besides) : []),
    ])
    const coils = [...devices].flatMap((d) => {
      const moved = context.coilElement.has(d) ? read(mods, d) : null
      const s = moved === null ? 0 : (moved - mean) / NUDGE
      return Math.abs(s) > 0.01 ? [[d, s] as const] : []
    })
    const figures = faults.flatMap((v) =>
      v.shifted.map((_, k) => (read(modsOf(faults, ends, (w) => (w === v ? w.shifted[k]! : w.mods))) ?? mean) - mean),
    )
    const wire = Math.max(
      0,
      Math.min(mean, ohmsAt(across, more.alters, more.joins) ?? 0) - coils.reduce((s, [, c]) => s + c, 0),
    )
    return {
      kind: 'ohms',
      mean,
      noise: meterSpread(mean, meter, half(site.settings.lengthTolerance_ratio) * wire),
      ratio: half(meter.accuracy_ratio),
      coils,
      figures,
    }
  }

  /** How likely a coil pulls in at these volts, its winding being what the faults leave of it. */
  const pulls = (device: DeviceId, volt_V: number, faults: Faults): number => {
    const spoilt = faults.some((v) => {
      const f = faultOf(v)
      return (
        f.where.kind === 'coil' &&
        f.where.device === device &&
        (f.cause === 'coil_open' || f.cause === 'coil_short' || f.cause === 'coil_dc')
      )
    })
    if (spoilt || volt_V < 1) return 0
    const spread = Math.hypot(PULL_SPREAD_V, MAINS_ratio * volt_V)
    return normalBelow((volt_V - pullIn_V(site, device)) / spread)
  }
  const waterOff = (faults: Faults) => faults.some((v) => faultOf(v).cause === 'water_off')
  const stuck = (device: DeviceId, cause: 'stuck_shut' | 'stuck_open', faults: Faults) =>
    faults.some((v) => {
      const f = faultOf(v)
      return f.cause === cause && f.where.kind === 'valve' && f.where.device === device
    })

  function whatWaters(terminal: TerminalId, faults: Faults): Prediction {
    const own = context.valvesOf(terminal)
    const wired = wireAt(terminal, faults)
    const beside = faults.flatMap((v) => {
      const f = faultOf(v)
      return f.where.kind === 'valve' ? [f.where.device] : [...f.besides]
    })
    const considered = [...new Set([...own, ...beside])]
    if (waterOff(faults)) return { kind: 'waters', master: 0, valves: considered.map((d) => [d, 0.5]) }
    const off = isDead(faults, terminal) || wired === null
    const at = off ? null : liveAt(wired, faults)
    const master = context.masterOf(terminal)
    const open = (d: DeviceId): number =>
      stuck(d, 'stuck_shut', faults)
        ? 0
        : stuck(d, 'stuck_open', faults)
          ? 1
          : at === null
            ? 0
            : pulls(d, started_V(at, d), faults)
    // The master's terminal is energised though the station's own is dead.
    const masterAlive =
      master === null || master.valve === null
        ? 1
        : faults.some((v) => ['supply_dead', 'sensor_open'].includes(faultOf(v).cause)) ||
            isDead(faults, master.terminal)
          ? 0
          : stuck(master.valve, 'stuck_shut', faults)
            ? 0
            : stuck(master.valve, 'stuck_open', faults)
              ? 1
              : pulls(master.valve, started_V(at ?? liveAt(master.terminal, faults), master.valve), faults)
    return { kind: 'waters', master: masterAlive, valves: considered.map((d) => [d, open(d)]) }
  }

  function heardAt(terminal: TerminalId, faults: Faults): number {
    const wired = wireAt(terminal, faults)
    if (isDead(faults, terminal) || wired === null) return 0
    return clickOf(terminal, wired, faults)
  }
  /** How likely a valve of a terminal is heard when this wire is live. */
  function clickOf(terminal: TerminalId, wired: TerminalId, faults: Faults): number {
    const at = liveAt(wired, faults)
    return 1 - context.valvesOf(terminal).reduce((none, d) => none * (1 - pulls(d, started_V(at, d), faults)), 1)
  }
  const ear = (p: number): Prediction => ({ kind: 'yes', p: EAR.imagined + p * (EAR.heard - EAR.imagined) })
  const voltsReading = (mean: number, fed: boolean): Prediction => ({
    kind: 'volts',
    mean,
    fed,
    sd: Math.hypot(0.3, MAINS_ratio * mean, 0.06 * Math.max(0, site.settings.V_open_V - mean - 1.5) * Number(mean > 1)),
  })

  const earthThrough = (
    from: number,
    faults: Faults,
    more: { alters: readonly Alter[] } = { alters: [] },
  ): Prediction => {
    const leaks = faults.flatMap((v) => (v.leak ? [{ v, spot: v.leak }] : []))
    const mods = modsOf(faults, ends)
    const paths = leaks.flatMap(({ v, spot }) => {
      const to = nearNode(context, spot)
      const way = from === to ? 0 : ohmsAt({ a: from, b: to }, [...mods.alters, ...more.alters], mods.joins)
      return way === null ? [] : [{ ohm: v.ohm! + way, cell: 0.28 * v.ohm! }]
    })
    if (paths.length === 0) return { kind: 'insulated' }
    const mean = 1 / paths.reduce((s, p) => s + 1 / p.ohm, 0)
    return {
      kind: 'ohms',
      mean,
      noise: meterSpread(mean, meter, 1),
      ratio: half(meter.accuracy_ratio),
      coils: [],
      figures: paths.map((p) => (p.cell * mean ** 2) / p.ohm ** 2),
    }
  }

  /** Metres of conductor from the cabinet to where an open lead ends; null where the tone goes through. */
  function toneEnds(terminal: TerminalId, faults: Faults): number | null {
    const walk = context.walk(terminal)
    const first = Math.min(
      ...faults.flatMap((v) => {
        const f = faultOf(v)
        if (f.cause !== 'open') return []
        return walk.runs
          .filter((r) =>
            f.elements.some((e) => (powered.parts[e]!.of as { id?: string }).id === (r.link as { id: string }).id),
          )
          .map((r) => (f.where.kind === 'run' ? (r.from_m + r.to_m) / 2 : r.to_m))
      }),
    )
    return Number.isFinite(first) ? first : null
  }

  function foresee(test: FieldTest, faults: Faults): Prediction | null {
    const flick = flickers(faults)
    if (flick.length > 0 && test.kind !== 'look' && test.kind !== 'remake') {
      const [well, ill] = [
        foresee(
          test,
          faults.filter((v) => !flick.includes(v)),
        ),
        foresee(
          test,
          faults.map((v) => (flick.includes(v) ? { ...v, fault: openTwin(v) } : v)),
        ),
      ]
      return well && ill && { kind: 'either', p: INTERMITTENT, well, ill }
    }
    switch (test.kind) {
      case 'ohms': {
        if (test.from.kind === 'terminal' && (context.hanging.get(test.from.terminal)?.switchedBy.length ?? 0) > 0)
          return null
        const earth = test.to.kind === 'earth'
        const [a, b] = [pointOf(test.from, faults), earth ? null : pointOf(test.to, faults)]
        const bare = [test.from, test.to].some(
          (e) => e.kind === 'terminal' && e.controller === controller && wireAt(e.terminal, faults) === null,
        )
        if (bare) return earth ? { kind: 'insulated' } : { kind: 'open' }
        if (a === null || (!earth && b === null)) return null
        return earth ? earthThrough(a, faults) : ohmsReading({ a, b: b! }, faults)
      }
      case 'supply':
        return voltsReading(faults.some((v) => faultOf(v).cause === 'supply_dead') ? 0 : site.settings.V_open_V, true)
      case 'volts':
      case 'tester_power': {
        const wired = wireAt(test.at.terminal, faults)
        const dead = isDead(faults, test.at.terminal)
        const volt = dead
          ? 0
          : wired === null
            ? site.settings.V_open_V
            : heldVolts(wired, faults, context.wire(wired), commonNode)
        return test.kind === 'volts'
          ? voltsReading(volt, !dead)
          : { kind: 'yes', p: volt >= LAMP.lit_V ? 0.995 : 0.005 }
      }
      case 'click':
        return ear(heardAt(test.at.terminal, faults))
      case 'swap_test': {
        // The lead lies under a screw that is not its own: that screw's output counts, and the lead's own wire.
        const wired = wireAt(test.at.terminal, faults)
        if (wired === null || isDead(faults, test.onto.terminal)) return ear(0)
        return ear(clickOf(test.at.terminal, wired, faults))
      }
      case 'tester_coil': {
        const read = foresee({ kind: 'ohms', from: test.at, to: terminalEnd(controller, common) }, faults)
        if (read === null || (read.kind !== 'ohms' && read.kind !== 'open')) return null
        const ohm = read.kind === 'open' ? Infinity : read.mean
        const [short, open] = [normalBelow((LAMP.short_ohm - ohm) / 1), normalBelow((ohm - LAMP.open_ohm) / 20)]
        return {
          kind: 'lamps',
          short,
          open: Number.isFinite(ohm) ? open : 1,
          good: Math.max(0, 1 - short - (Number.isFinite(ohm) ? open : 1)),
        }
      }
      case 'water':
        return whatWaters(test.at.terminal, faults)
      case 'coil_volts': {
        const terminal = context.terminalOf(test.device)
        const coil = context.coilElement.get(test.device)
        if (terminal === null || coil === undefined) return null
        const wired = wireAt(terminal, faults)
        if (isDead(faults, terminal) || wired === null) return voltsReading(0, false)
        const { a, b } = powered.parts[coil]!
        return voltsReading(heldVolts(wired, faults, a, b), true)
      }
      case 'coil_ohms':
      case 'loop_lead':
      case 'loop_common': {
        const setting = settingOf(test)
        if (!setting) return null
        const terminal = context.terminalOf(test.device)!
        if (test.kind === 'coil_ohms') return ohmsReading(setting.across, faults, setting)
        // The jumper sits on whatever lies under the screw.
        const wired = wireAt(terminal, faults)
        return ohmsReading(setting.across, faults, {
          alters: setting.alters,
          joins: wired === null ? [] : [{ ...setting.joins[0]!, p: { node: context.wire(wired) } }],
        })
      }
      case 'lead_earth':
      case 'common_earth': {
        const setting = settingOf(test)
        return setting && earthThrough(setting.across.a, faults, setting)
      }
      case 'lead_through': {
        const setting = settingOf(test)
        if (!setting) return null
        const terminal = context.terminalOf(test.device)!
        const way =
          wireAt(terminal, faults) === terminal
            ? ohmsAt(setting.across, [...modsOf(faults, ends).alters, ...setting.alters], modsOf(faults, ends).joins)
            : null
        return { kind: 'yes', p: way !== null && way < SOIL_MOST_ohm ? 0.998 : 0.002 }
      }
      case 'energise': {
        const bad = faults.some((v) => {
          const f = faultOf(v)
          return (
            f.where.kind === 'coil' &&
            f.where.device === test.device &&
            f.cause !== 'coil_kind' &&
            f.cause !== 'coil_part'
          )
        })
        return ear(bad ? 0 : 1)
      }
      case 'by_hand':
        return { kind: 'yes', p: waterOff(faults) || stuck(test.device, 'stuck_shut', faults) ? 0.002 : 0.998 }
      case 'look':
      case 'remake': {
        const shows = test.kind === 'look' ? LOOK : REMAKE
        return {
          kind: 'yes',
          p:
            1 -
            (faults.some((v) => {
              const f = faultOf(v)
              return f.where.kind === 'joint' && f.where.splice === test.splice
            })
              ? shows.bad
              : shows.sound),
        }
      }
      case 'tone': {
        const wired = wireAt(test.at.terminal, faults)
        if (wired === null) return { kind: 'tone', lost_m: 0, sd_m: 1 }
        const end = toneEnds(wired, faults)
        const run = faults.some((v) => faultOf(v).where.kind === 'run')
        return { kind: 'tone', lost_m: end, sd_m: 1 + 0.03 * (end ?? 0) + (run ? 20 : 0) }
      }
    }
  }
  /** The open twin of an intermittent joint: the same leg, taken out. */
  const openAt = new Map(
    catalogue.faults.flatMap((f) => (f.cause === 'open' && f.at !== null ? [[f.at, f.index] as const] : [])),
  )
  const openTwin = (v: FaultHypothesis): number => openAt.get(faultOf(v).at!)!

  /**
   * Where current is kept away and nothing is left, another fault brings none back unless it joins conductors or a
   * valve is open by itself.
   */
  const dominates = (v: FaultHypothesis, seen: Prediction | null, other: FaultHypothesis): boolean => {
    const [{ cause }, beside] = [faultOf(v), faultOf(other)]
    const nothing =
      seen?.kind === 'open' || (seen?.kind === 'waters' && (seen.master === 0 || seen.valves.every(([, p]) => p === 0)))
    if (!nothing || beside.cause === 'stuck_open') return false
    return AT_THE_SOURCE.has(cause) || (KEEPS_AWAY.has(cause) && !beside.links && other.mods.joins.length === 0)
  }

  return memoizePredictions(catalogue, {
    foresee,
    mayAffect: mayAffect,
    dominates: dominates,
    likeIn: equivalenceClasses(context, catalogue),
  })

  /** Cheap and on the safe side: a fault that might show is looked at. */
  function mayAffect(test: FieldTest, f: Fault): boolean {
    const { where } = f
    const hasTerminals = where.kind === 'pair' ? [where.one, where.two] : null
    switch (test.kind) {
      case 'look':
      case 'remake':
        return where.kind === 'joint' && where.splice === test.splice
      case 'supply':
        return f.cause === 'supply_dead'
      case 'by_hand':
        return f.cause === 'water_off' || (where.kind === 'valve' && where.device === test.device)
      case 'energise':
        return where.kind === 'coil' && where.device === test.device
      case 'coil_ohms':
        return where.kind === 'coil' && where.device === test.device
      case 'tone':
        return (
          (f.cause === 'open' && (where.kind === 'run' || where.kind === 'joint')) ||
          (hasTerminals?.includes(test.at.terminal) ?? false)
        )
      default:
    }
    const terminal = 'at' in test ? test.at.terminal : 'device' in test ? context.terminalOf(test.device) : null
    if (terminal !== null && hasTerminals?.includes(terminal)) return true
    if (test.kind === 'ohms') {
      if (hasTerminals)
        return [test.from, test.to].some((e) => e.kind === 'terminal' && hasTerminals.includes(e.terminal))
      if (test.to.kind === 'earth') return f.cause === 'leak'
      const [a, b] = [pointOf(test.from, []), pointOf(test.to, [])]
      return a !== null && b !== null && carriesIn(meterState.testOf(a, b), f)
    }
    if (hasTerminals) return false
    if (test.kind === 'lead_earth' || test.kind === 'common_earth') return f.cause === 'leak'
    if (test.kind === 'lead_through') {
      const setting = settingOf(test)
      return setting !== null && carriesIn(meterState.testOf(setting.across.a, setting.across.b), f)
    }
    if (test.kind === 'loop_lead' || test.kind === 'loop_common') {
      const setting = settingOf(test)
      if (!setting || terminal === null) return false
      // Along the lead from the cabinet, and along the common home.
      const home = [
        meterState.testOf(context.wire(terminal), setting.across.a),
        meterState.testOf(commonNode, setting.across.b),
        meterState.testOf(context.wire(terminal), setting.across.b),
        meterState.testOf(commonNode, setting.across.a),
      ]
      return home.some((t) => carriesIn(t, f))
    }
    if (test.kind === 'tester_coil') return carriesIn(meterState.testOf(context.wire(test.at.terminal), commonNode), f)
    // Under power: a terminal on with its master.
    if (terminal === null) return false
    if (['supply_dead', 'sensor_open', 'water_off'].includes(f.cause))
      return f.cause !== 'water_off' || test.kind === 'water'
    if (where.kind === 'terminal')
      return (
        where.terminal === terminal ||
        (test.kind === 'water' && where.terminal === context.masterOf(terminal)?.terminal) ||
        (test.kind === 'swap_test' && where.terminal === test.onto.terminal)
      )
    if (where.kind === 'valve')
      return (
        test.kind === 'water' &&
        (f.cause === 'stuck_open' ||
          context.valvesOf(terminal).includes(where.device) ||
          context.masterOf(terminal)?.valve === where.device)
      )
    if (f.cause === 'leak') return false
    const state = context.on(terminal)
    const live = (e: number) => state.influence.driven_V(e) > 1e-4
    // Conductors that touch matter where one of them carries current.
    return f.elements.some(live)
  }
  /** Whether what a fault changes carries any of the meter's current; every cell of its grid changes the same. */
  function carriesIn(test: number, f: Fault): boolean {
    const { joins, alters } = f.variants[0]!.mods
    const changed = joins.length > 0 ? f.elements : alters.map((a) => a.element)
    return changed.some((e) => meterState.influence.share(test, e) > 1e-9)
  }
}

/**
 * One deviation of what a meter shows about a true figure beside its share of it, with what else is known to blur it.
 */
const meterSpread = (ohm: number, meter: Meter, other_ohm: number): number =>
  Math.hypot(half(meter.offset_ohm), ohm < 1000 ? TENTH : 0, other_ohm, 0.015)

/**
 * One deviation of a reading that shows this, Ω. A fault of wide figures is weighed with what was read, which its
 * middle may be far from.
 */
export const blurAt = (seen: Extract<Prediction, { kind: 'ohms' }>, ohm: number): number =>
  Math.hypot(seen.noise, seen.ratio * ohm)
