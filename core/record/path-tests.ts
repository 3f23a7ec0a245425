import * as z from 'zod'
import { deviceId, placeId } from '../site/ids'

const number = z.int().min(1).max(9999)
/** A length of path, apart at one of its ends: from `place` on toward `onto`. */
const side = { place: placeId, onto: placeId }

/**
 * What can be read of a two-wire path. Under power nothing runs unless a number is named. Ohms are read with the path
 * off the controller and the length that leaves `place` toward `onto` apart there, of what lies beyond.
 */
export const pathTest = z.discriminatedUnion('kind', [
  /** Volts between the legs. */
  z.strictObject({ kind: z.literal('path_volts'), place: placeId }),
  /** Amperes that leave the controller on all ways out. */
  z.strictObject({ kind: z.literal('line_amps') }),
  /** Amperes in one conductor of a length, by a clamp. */
  z.strictObject({ kind: z.literal('length_amps'), ...side }),
  /** Amperes that the line draws more while a number runs. */
  z.strictObject({ kind: z.literal('added_amps'), number }),
  /** Whether the controller tells of a fault of the path; while a number runs, or with nothing running. */
  z.strictObject({ kind: z.literal('reports'), number: number.nullable() }),
  /** Ohms from both legs, held together, to earth. */
  z.strictObject({ kind: z.literal('legs_earth'), ...side }),
  /** Ohms from leg to leg; null where it reads no way, or as decoders do. */
  z.strictObject({ kind: z.literal('legs_between'), ...side }),
  /** Whether the decoder’s lamp answers its number. */
  z.strictObject({ kind: z.literal('lamp'), device: deviceId }),
  /** The number that a decoder gives when it is read at its box; null where it gives none. */
  z.strictObject({ kind: z.literal('number_read'), device: deviceId }),
  /** Ohms of a coil, off its decoder; null where it is open. */
  z.strictObject({ kind: z.literal('coil_apart'), device: deviceId }),
  /** Ohms from a coil’s leads, off its decoder, to earth. */
  z.strictObject({ kind: z.literal('coil_earth'), device: deviceId }),
  /** Whether a joint in an opened box looks or feels bad. */
  z.strictObject({ kind: z.literal('looked'), place: placeId }),
])
export type PathTest = z.infer<typeof pathTest>

/** What a test showed: a figure in V, A, Ω or a number; null for none; or yes and no. */
export const pathValue = z.union([z.number().min(0).max(1e12), z.boolean(), z.null()])
export type PathValue = z.infer<typeof pathValue>

/** Tests that are answered by yes or no. */
export const isAsked = (test: PathTest): boolean =>
  test.kind === 'reports' || test.kind === 'lamp' || test.kind === 'looked'

type Parted = Extract<PathTest, { kind: 'legs_earth' | 'legs_between' }>
/** Tests for which a length is taken apart at a box. */
export const isParted = (test: PathTest): test is Parted => test.kind === 'legs_earth' || test.kind === 'legs_between'
