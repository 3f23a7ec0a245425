import { unloaded_V } from '../../circuit'
import type { FieldTest } from '../../record'
import { terminalEnd, type DeviceId, type SpliceId, type TerminalId } from '../../site'
import { normalBelow } from '../normal'
import { modsOf, type Faults } from '../catalogue'
import type { Held } from '../power'
import type { Basis } from './basis'
import type { Ohms } from './ohms'
import { MAINS_ratio, type Prediction } from './prediction'
import { recordedOn } from './recorded'
import type { Valves } from './valves'

/** Whether a joint that is bad looks and feels so, and whether a sound one does. */
const LOOK = { bad: 0.9, sound: 0.02 } as const
/** The same where it is cut out, looked into and made anew, and the thread tried again. */
const REMAKE = { bad: 0.9998, sound: 0.0005 } as const
const EAR = { heard: 0.995, imagined: 0.005 } as const
/** A tester's lamps, as its sheet gives them. */
const LAMP = { short_ohm: 8, open_ohm: 300, lit_V: 12 } as const
/** Two rods in moist soil read less than this between them. */
export const SOIL_MOST_ohm = 5000

/** What each kind of test shows under some faults; null where it says nothing. */
export type ByKind = {
  readonly [K in FieldTest['kind']]: (test: Extract<FieldTest, { kind: K }>, faults: Faults) => Prediction | null
}

const ear = (p: number): Prediction => ({ kind: 'yes', p: EAR.imagined + p * (EAR.heard - EAR.imagined) })
const likely = (yes: boolean, sure: number): Prediction => ({ kind: 'yes', p: yes ? 1 - sure : sure })

/** Tests read with an ohmmeter, the power off. */
function withOhms({ context, wireAt, pointOf, settingOf }: Basis, ohms: Ohms) {
  const { controller, common, hanging, meterState } = context
  const ends = (element: number) => meterState.powered.parts[element]!
  const between = (test: Extract<FieldTest, { kind: 'ohms' }>, faults: Faults): Prediction | null => {
    const { from, to } = test
    if (from.kind === 'terminal' && (hanging.get(from.terminal)?.switchedBy.length ?? 0) > 0) return null
    const earth = to.kind === 'earth'
    const [a, b] = [pointOf(from, faults), earth ? null : pointOf(to, faults)]
    const bare = [from, to].some(
      (e) => e.kind === 'terminal' && e.controller === controller && wireAt(e.terminal, faults) === null,
    )
    if (bare) return earth ? { kind: 'insulated' } : { kind: 'open' }
    if (a === null || (!earth && b === null)) return null
    return earth ? ohms.toEarth(a, faults) : ohms.reading({ a, b: b! }, faults)
  }
  type Loop = Extract<FieldTest, { kind: 'loop_lead' | 'loop_common' }>
  const loop = (test: Loop, faults: Faults): Prediction | null => {
    const setting = settingOf(test)
    if (!setting) return null
    // The jumper sits on whatever lies under the screw.
    const wired = wireAt(context.terminalOf(test.device)!, faults)
    return ohms.reading(setting.across, faults, {
      alters: setting.alters,
      joins: wired === null ? [] : [{ ...setting.joins[0]!, p: { node: context.wire(wired) } }],
    })
  }
  type ToEarth = Extract<FieldTest, { kind: 'lead_earth' | 'common_earth' }>
  const toEarth = (test: ToEarth, faults: Faults): Prediction | null => {
    const setting = settingOf(test)
    return setting && ohms.toEarth(setting.across.a, faults, setting.alters)
  }
  return {
    ohms: between,
    loop_lead: loop,
    loop_common: loop,
    lead_earth: toEarth,
    common_earth: toEarth,
    coil_ohms: (test, faults) => {
      const setting = settingOf(test)
      return setting && ohms.reading(setting.across, faults, setting)
    },
    lead_through: (test, faults) => {
      const setting = settingOf(test)
      if (!setting) return null
      const terminal = context.terminalOf(test.device)!
      const { alters, joins } = modsOf(faults, ends)
      const way =
        wireAt(terminal, faults) === terminal
          ? ohms.between(setting.across, [...alters, ...setting.alters], joins)
          : null
      return likely(way !== null && way < SOIL_MOST_ohm, 0.002)
    },
    tester_coil: (test, faults) => {
      const read = between({ kind: 'ohms', from: test.at, to: terminalEnd(controller, common) }, faults)
      if (read === null || (read.kind !== 'ohms' && read.kind !== 'open')) return null
      const ohm = read.kind === 'open' ? Infinity : read.mean
      const short = normalBelow(LAMP.short_ohm - ohm)
      const open = Number.isFinite(ohm) ? normalBelow((ohm - LAMP.open_ohm) / 20) : 1
      return { kind: 'lamps', short, open, good: Math.max(0, 1 - short - open) }
    },
  } satisfies Partial<ByKind>
}

/** Tests with a terminal on. */
function underPower({ context, faultOf, isDead, wireAt, power: { heldVolts } }: Basis, valves: Valves) {
  const { site, common, controller } = context
  const open_V = unloaded_V(site, controller)
  const voltsReading = ({ mean, spread }: Held, fed: boolean): Prediction => ({
    kind: 'volts',
    mean,
    fed,
    sd: Math.hypot(0.3, MAINS_ratio * mean, 0.06 * Math.max(0, open_V - mean - 1.5) * Number(mean > 1), spread),
  })
  const surely = (mean: number): Held => ({ mean, spread: 0 })
  /** Volts from C to a terminal that is on. */
  const at_V = (terminal: TerminalId, faults: Faults): Held => {
    if (isDead(faults, terminal)) return surely(0)
    const wired = wireAt(terminal, faults)
    return wired === null ? surely(open_V) : heldVolts(wired, faults, context.wire(wired), context.wire(common))
  }
  /** Volts across a coil while a terminal is on. */
  const coilVolts = (device: DeviceId, terminal: TerminalId | null, faults: Faults): Prediction | null => {
    const coil = context.coilElement.get(device)
    if (terminal === null || coil === undefined) return null
    const wired = wireAt(terminal, faults)
    if (isDead(faults, terminal) || wired === null) return voltsReading(surely(0), false)
    const { a, b } = context.meterState.powered.parts[coil]!
    return voltsReading(heldVolts(wired, faults, a, b), true)
  }
  return {
    supply: (_, faults) =>
      voltsReading(surely(faults.some((v) => faultOf(v).cause === 'supply_dead') ? 0 : open_V), true),
    volts: ({ at: { terminal } }, faults) => voltsReading(at_V(terminal, faults), !isDead(faults, terminal)),
    tester_power: ({ at: { terminal } }, faults) => likely(at_V(terminal, faults).mean >= LAMP.lit_V, 0.005),
    coil_volts: ({ device }, faults) => coilVolts(device, context.terminalOf(device), faults),
    coil_beside: ({ device, live }, faults) => coilVolts(device, live.terminal, faults),
    water: ({ at }, faults) => valves.waters(at.terminal, faults),
    click: ({ at: { terminal } }, faults) => {
      const wired = wireAt(terminal, faults)
      return ear(isDead(faults, terminal) || wired === null ? 0 : valves.clickOf(terminal, wired, faults))
    },
    swap_test: ({ at, onto }, faults) => {
      // The lead lies under a screw that is not its own: that screw's output counts, and the lead's own wire.
      const wired = wireAt(at.terminal, faults)
      const silent = wired === null || isDead(faults, onto.terminal)
      return ear(silent ? 0 : valves.clickOf(at.terminal, wired, faults))
    },
  } satisfies Partial<ByKind>
}

/** Tests by hand, eye and tone. */
function byHand({ context, faultOf, wireAt }: Basis, valves: Valves) {
  const { powered } = context.meterState
  const recorded = recordedOn(context.site)
  const isAt = (faults: Faults, splice: string) =>
    faults.some((v) => {
      const { where } = faultOf(v)
      return where.kind === 'joint' && where.splice === splice
    })
  /** That a joint is found sound, where a bad one is found so by `seen.bad`. */
  const sound = (splice: SpliceId, faults: Faults, seen: { readonly bad: number; readonly sound: number }) => {
    const bad = isAt(faults, splice) ? 1 : (recorded.joints.get(splice) ?? 0)
    return { kind: 'yes' as const, p: 1 - bad * seen.bad - (1 - bad) * seen.sound }
  }
  /** Metres of conductor from the cabinet to where an open lead ends; null where the tone goes through. */
  const toneEnds_m = (terminal: TerminalId, faults: Faults): number | null => {
    const { runs } = context.walk(terminal)
    const known = runs.flatMap((r) =>
      r.link.broken ? [r.link.kind === 'stretch' ? (r.from_m + r.to_m) / 2 : r.to_m] : [],
    )
    const idOf = (link: unknown) => (link as { id: string }).id
    const ends = faults.flatMap((v) => {
      const { cause, where, elements } = faultOf(v)
      if (cause !== 'open') return []
      return runs
        .filter((r) => elements.some((e) => idOf(powered.parts[e]!.of) === idOf(r.link)))
        .map((r) => (where.kind === 'run' ? (r.from_m + r.to_m) / 2 : r.to_m))
    })
    return ends.length + known.length > 0 ? Math.min(...ends, ...known) : null
  }
  return {
    energise: ({ device }, faults) => {
      const bad = faults.some((v) => {
        const { where, cause } = faultOf(v)
        return where.kind === 'coil' && where.device === device && cause !== 'coil_kind' && cause !== 'coil_part'
      })
      return ear(bad || recorded.coils.has(device) ? 0 : 1)
    },
    by_hand: ({ device }, faults) =>
      likely(!valves.waterOff(faults) && !valves.stuck(device, 'stuck_shut', faults), 0.002),
    look: ({ splice }, faults) => sound(splice, faults, LOOK),
    remake: ({ splice }, faults) => sound(splice, faults, REMAKE),
    tone: ({ at }, faults) => {
      const wired = wireAt(at.terminal, faults)
      if (wired === null) return { kind: 'tone', lost_m: 0, sd_m: 1 }
      const end = toneEnds_m(wired, faults)
      const run = faults.some((v) => faultOf(v).where.kind === 'run')
      return { kind: 'tone', lost_m: end, sd_m: 1 + 0.03 * (end ?? 0) + (run ? 20 : 0) }
    },
  } satisfies Partial<ByKind>
}

export const byKindOf = (basis: Basis, ohms: Ohms, valves: Valves): ByKind => ({
  ...withOhms(basis, ohms),
  ...underPower(basis, valves),
  ...byHand(basis, valves),
})
