import * as z from 'zod'
import { words } from './ids'

const volts = z.number().positive().max(60)
const amps = z.number().min(0).max(10)
const metres = z.number().positive().max(5000)
/** As the maker's sheet says; null: it was not looked up, and whoever needs it is told to ask the sheet. */
const bySheet = <T extends z.ZodType>(field: T) => field.nullable().default(null)
const addressNumber = z.int().min(0).max(9999)

/** Joints that a system allows on its path, thick enough for two path conductors and a decoder's lead. */
const pathJoints = z.enum(['gel_crimp_3', 'nut_and_gel_tube', 'gel_nut', 'solder_heatshrink'])

/**
 * Which numbers decoders may have. `duals`: a decoder of several outputs takes the numbers
 * after its own, or has its own.
 */
const addresses = z
  .strictObject({
    from: addressNumber.default(1),
    to: addressNumber.default(200),
    reserved: z.array(addressNumber).max(200).default([]),
    duals: z.enum(['next', 'own']).default('next'),
    /** Pump starts have the first numbers. */
    pumpsFirst: z.boolean().default(false),
  })
  .refine((a) => a.from <= a.to, 'the first number must not exceed the last')

/** Where surges are led to earth, and what an earth must read. Defaults are those of field practice. */
const surge = z.strictObject({
  near_m: metres.default(7.6),
  branch_m: metres.default(15),
  spacing_m: metres.default(180),
  lightning_m: metres.default(90),
  earthPass_ohm: z.number().positive().max(1000).default(25),
  earthGood_ohm: z.number().positive().max(1000).default(10),
})

/** How one make of two-wire path works: its profile. Decoders of two systems never share a path. */
export const system = z.strictObject({
  name: words(80).min(1, 'a name'),
  /** Between the two conductors at the controller. */
  path_V: bySheet(volts),
  source_ohm: z.number().min(0).max(100).default(0),
  /** What the path's output can give in all. */
  most_A: bySheet(z.number().positive().max(20)),
  idle: bySheet(z.enum(['live', 'dead'])),
  polarised: bySheet(z.boolean()),
  cable: bySheet(z.enum(['twisted', 'direct_burial'])),
  joints: z.array(pathJoints).max(4).default([]),
  minimum_V: bySheet(volts),
  idle_A: bySheet(amps),
  active_A: bySheet(amps),
  outputs: bySheet(z.int().min(1).max(16)),
  coilsPerOutput: bySheet(z.int().min(1).max(8)),
  coilLead_m: bySheet(metres),
  coilLead: bySheet(z.enum(['twisted', 'any'])),
  acCoilsOnly: bySheet(z.boolean()),
  /** Coils that draw more than this while they run want the decoder's higher power level; null: it has one level. */
  heavyCoil_A: bySheet(z.number().positive().max(5)),
  /** Between power module and decoder module: wanted where a decoder drives master valve or pump, or never. */
  jumper: bySheet(z.enum(['on_path', 'none'])),
  addresses: addresses.prefault({}),
  surge: surge.prefault({}),
})
export type System = z.infer<typeof system>
