import * as z from 'zod'
import { conditionField } from './condition'
import { coilKindId, placeId, systemId, tag, words } from './ids'
import { known } from './known'
import { point } from './place'

const addressNumber = z.int().min(0).max(9999)

/** What there is to say of any device. */
const shared = {
  place: placeId,
  tag: tag.nullable().default(null),
  name: words(80).default(''),
  coilKind: coilKindId.nullable().default(null),
  address: addressNumber.nullable().default(null),
  /** Colours of its own leads by port. */
  leads: z.record(z.string().regex(/^[a-z0-9_]{1,12}$/), words(40)).default({}),
  installed: known(z.iso.date()).default(null),
  condition: conditionField(),
}
const plain = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), ...shared })
/** One that switches its outputs, of which its kind has so many where nothing else is said. */
const switching = <K extends string>(kind: K, outputs: number) =>
  z.strictObject({ kind: z.literal(kind), ...shared, outputs: z.int().min(1).max(16).default(outputs) })

/** One that leads surges into the ground: how long it is and where it stands beside its box, where that is known. */
const inGround = <K extends string>(kind: K) =>
  z.strictObject({
    kind: z.literal(kind),
    ...shared,
    long_m: z.number().positive().max(30).nullable().default(null),
    stands: point.nullable().default(null),
  })
const decoder = z.strictObject({
  ...switching('decoder', 2).shape,
  serial: words(40).default(''),
  /** As its path's controller, where nothing is said. */
  system: systemId.nullable().default(null),
  /** Numbers of its outputs after the first, where the system does not number on from the first. */
  moreAddresses: z.array(addressNumber).max(15).default([]),
  power: z.enum(['low', 'high']).default('low'),
  drives: z.enum(['valves', 'master', 'pump', 'flow_sensor']).default('valves'),
  onStake: z.boolean().nullable().default(null),
})

const sequencer = z.strictObject({
  ...switching('sequencer', 4).shape,
  /** It steps when power returns after as long without. */
  off_ms: z.int().min(1).max(60_000).default(35),
})

/** Something wires end on. A valve is its `coil`; which coil is a master valve, its point of connection says. */
export const device = z.discriminatedUnion('kind', [
  plain('coil'),
  plain('relay'),
  plain('sensor'),
  plain('flow_sensor'),
  decoder,
  sequencer,
  plain('arrestor'),
  inGround('rod'),
  inGround('plate'),
])
export type Device = z.infer<typeof device>
export type DeviceKind = Device['kind']

/** The figures of a coil's data sheet. `resistance_ohm` is DC at 20 °C; currents are at `rated_V` and `rated_Hz`. */
export const coilKind = z
  .strictObject({
    name: words(80),
    current: z.enum(['ac', 'dc_latching']).default('ac'),
    resistance_ohm: z.number().positive().max(10_000),
    rated_V: z.number().positive().max(60).default(24),
    rated_Hz: z.union([z.literal(50), z.literal(60)]).default(60),
    inrush_A: z.number().positive().max(1000).nullable().default(null),
    holding_A: z.number().positive().max(1000).nullable().default(null),
    /** Power factor, where the sheet gives it or its watts: it tells which part of the impedance is real. */
    inrush_pf: z.number().positive().max(1).nullable().default(null),
    holding_pf: z.number().positive().max(1).nullable().default(null),
    minimum_V: z.number().positive().max(60).default(19),
    holdMinimum_V: z.number().positive().max(60).default(15),
  })
  .refine(
    (c) => [c.inrush_A, c.holding_A].every((amps) => amps === null || c.rated_V / amps >= c.resistance_ohm),
    'the impedance, rated volts over amperes, must not be below the DC resistance',
  )
export type CoilKind = z.infer<typeof coilKind>
