import * as z from 'zod'

/** What can hurt somebody at a step; each has one line of caution, shown where it is and nowhere else. */
export const HAZARDS = [
  /** 24 V on conductors that are taken in hand. */
  'power',
  /** Mains in the cabinet. */
  'mains',
  /** A pump, or its starter’s contacts, which have a supply of their own. */
  'pump',
  /** Water under pressure behind a part that is loosened. */
  'pressure',
  /** Something that may fly: copper ends, soil, water. */
  'eyes',
  /** Whatever lives in a box. */
  'animals',
  'lightning',
  /** Other buried services, where somebody digs, probes or drives a rod. */
  'buried',
  /** The volts of a tracing transmitter. */
  'transmitter',
  'traffic',
  /** A lid that stands proud, or a hole that is left open. */
  'trip',
  /** A tester’s own battery, which can open a valve. */
  'tester',
  /** An iron or a flame. */
  'heat',
  /** An insulation tester’s own volts, and what the cable keeps of them. */
  'insulation',
] as const
export const hazard = z.enum(HAZARDS)
export type Hazard = z.infer<typeof hazard>
