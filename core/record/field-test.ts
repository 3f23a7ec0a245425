import * as z from 'zod'
import { end } from '../site/end'
import { controllerId, deviceId, spliceId } from '../site/ids'

/** An ohms measurement between two probe points with the conductors off the controller; to earth where one is earth. */
export const ohmsTest = z.strictObject({ kind: z.literal('ohms'), from: end, to: end })
export type OhmsTest = z.infer<typeof ohmsTest>

const terminalEnd = end.options[2]
const atTerminal = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), at: terminalEnd })

/** What can be tried at the cabinet. All but `ohms` are done with the conductors on and the power on. */
export const cabinetTest = z.discriminatedUnion('kind', [
  ohmsTest,
  /** Volts the transformer gives at this moment, at the controller's own terminals. */
  z.strictObject({ kind: z.literal('supply'), controller: controllerId }),
  /** Volts from C to a terminal with its station on and its valve connected. */
  atTerminal('volts'),
  /** Whether a valve is heard when its terminal is switched on. */
  atTerminal('click'),
  /** A go/no-go tester on the lead and the common, leads off: its coil lamps. */
  atTerminal('tester_coil'),
  /** A go/no-go tester on the terminal with its station on: its 24 V lamp. */
  atTerminal('tester_power'),
])
export type CabinetTest = z.infer<typeof cabinetTest>
export type TestKind = CabinetTest['kind']

const atCoil = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), device: deviceId })

/** What can be tried to find a fault, besides: what waters, what a box shows, where a tone ends. */
export const huntTest = z.discriminatedUnion('kind', [
  /** Which valves water when a terminal is switched on: the symptom. */
  atTerminal('water'),
  /** The terminal's lead moved to another terminal, and that one switched on: whether the valve is heard. */
  z.strictObject({ kind: z.literal('swap_test'), at: terminalEnd, onto: terminalEnd }),
  /** A tone put on the terminal's lead, leads off: how far along the conductor it is lost. */
  atTerminal('tone'),
  /** Ohms of a coil by itself, its lead joint undone. */
  atCoil('coil_ohms'),
  /** Volts across a coil with its own station on and the coil connected. */
  atCoil('coil_volts'),
  /** Ohms from the bare end of the coil's lead to its common with a jumper from the lead to C at the cabinet, the lead's joint undone. */
  atCoil('loop_lead'),
  /** The same from the bare end of the common that comes in to the lead, the common's joint undone. */
  atCoil('loop_common'),
  /** The bare end of the coil's lead to earth, off at the cabinet and off the coil. */
  atCoil('lead_earth'),
  /** The lead earthed at the cabinet, off its screw; from its bare end at the box, its joint undone, to a rod there: soil, or open where the lead is cut. */
  atCoil('lead_through'),
  /** The bare end of the common that comes in at a coil's box to earth, all off at the cabinet, the common's joint undone. */
  atCoil('common_earth'),
  /** The coil fed from a tester's battery, its lead joint undone: whether it is heard. */
  atCoil('energise'),
  /** The valve opened by hand, the master valve open: whether water flows. */
  atCoil('by_hand'),
  /** A joint looked at and tugged: whether it is sound. */
  z.strictObject({ kind: z.literal('look'), splice: spliceId }),
  /** A joint cut out, looked into and made anew, and the thread tried again: whether it had been sound. */
  z.strictObject({ kind: z.literal('remake'), splice: spliceId }),
])
export type HuntTest = z.infer<typeof huntTest>

/** Every test that a reading can be of. */
export const fieldTest = z.discriminatedUnion('kind', [...cabinetTest.options, ...huntTest.options])
export type FieldTest = z.infer<typeof fieldTest>
export type FieldTestKind = FieldTest['kind']
export const isHuntTest = (test: FieldTest): test is HuntTest => HUNT_KINDS.has(test.kind)
const HUNT_KINDS: ReadonlySet<FieldTestKind> = new Set(huntTest.options.map((o) => o.shape.kind.value))

/** As the meter, the ear or the lamp gave it; ohms before the leads' own are taken off. */
export const readingValue = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ohm'), ohm: z.number().min(0).max(1e9) }),
  z.strictObject({ kind: z.literal('open') }),
  z.strictObject({ kind: z.literal('volt'), volt: z.number().min(0).max(300) }),
  z.strictObject({ kind: z.literal('heard'), heard: z.boolean() }),
  z.strictObject({ kind: z.literal('lamp'), lamp: z.enum(['good', 'open', 'short', 'lit', 'dark']) }),
  z.strictObject({ kind: z.literal('waters'), valves: z.array(deviceId).max(40) }),
  z.strictObject({ kind: z.literal('flows'), flows: z.boolean() }),
  z.strictObject({ kind: z.literal('looked'), sound: z.boolean() }),
  /** Metres along the conductor from the cabinet; null where the tone is heard to its end. */
  z.strictObject({ kind: z.literal('tone'), lost_m: z.number().min(0).max(20_000).nullable() }),
])
export type ReadingValue = z.infer<typeof readingValue>
export type OhmsValue = Extract<ReadingValue, { kind: 'ohm' | 'open' }>

const inOhms = (v: ReadingValue) => v.kind === 'ohm' || v.kind === 'open'
/** What each test can answer. */
const ANSWERS: Readonly<Record<FieldTestKind, (value: ReadingValue) => boolean>> = {
  ohms: inOhms,
  coil_ohms: inOhms,
  loop_lead: inOhms,
  loop_common: inOhms,
  lead_earth: inOhms,
  lead_through: inOhms,
  common_earth: inOhms,
  coil_volts: (v) => v.kind === 'volt',
  swap_test: (v) => v.kind === 'heard',
  energise: (v) => v.kind === 'heard',
  water: (v) => v.kind === 'waters',
  by_hand: (v) => v.kind === 'flows',
  look: (v) => v.kind === 'looked',
  remake: (v) => v.kind === 'looked',
  tone: (v) => v.kind === 'tone',
  supply: (v) => v.kind === 'volt',
  volts: (v) => v.kind === 'volt',
  click: (v) => v.kind === 'heard',
  tester_coil: (v) => v.kind === 'lamp' && (v.lamp === 'good' || v.lamp === 'open' || v.lamp === 'short'),
  tester_power: (v) => v.kind === 'lamp' && (v.lamp === 'lit' || v.lamp === 'dark'),
}
/** Whether a value is of the kind that a test gives. */
export const answers = (test: FieldTest, value: ReadingValue): boolean => ANSWERS[test.kind](value)
