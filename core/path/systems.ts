import { system, type System } from '../site'

/**
 * Two systems in general, to begin from: what a maker's sheet says goes over it. Volts, polarity, cable, joints and
 * limits as in field practice; the currents of a decoder and its least volts are usual figures of our own.
 */
export const GENERIC_SYSTEMS = ['switched', 'always_live'] as const
export type GenericSystem = (typeof GENERIC_SYSTEMS)[number]

const shared = {
  minimum_V: 18,
  idle_A: 0.001,
  active_A: 0.01,
  outputs: 2,
  coilsPerOutput: 2,
  acCoilsOnly: true,
  heavyCoil_A: 0.3,
}

/** The figures of a system in general. `name` is what it is called on the property. */
export const genericSystem = (kind: GenericSystem, name: string): System =>
  system.parse(
    kind === 'switched'
      ? {
          ...shared,
          name,
          path_V: 26,
          source_ohm: 1,
          idle: 'dead',
          polarised: false,
          cable: 'direct_burial',
          joints: ['gel_nut', 'nut_and_gel_tube', 'solder_heatshrink'],
          coilLead_m: 60,
          coilLead: 'any',
        }
      : {
          ...shared,
          name,
          path_V: 35,
          source_ohm: 0.5,
          idle: 'live',
          polarised: true,
          cable: 'twisted',
          joints: ['nut_and_gel_tube'],
          coilLead_m: 30,
          coilLead: 'twisted',
        },
  )
