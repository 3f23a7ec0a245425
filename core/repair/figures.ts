import { gaugeText, type Gauge } from '../quantity'

/**
 * What a repair takes where nobody’s own figures are at hand. Every figure can be changed; docs/numbers.md says why.
 */
export interface RepairFigures {
  /** What a minute of work is worth, hundredths of the currency. */
  readonly cents_per_min: number
  /** Going to a place and opening it. */
  readonly place_min: number
  /** A joint cut out and made, tried and sealed. */
  readonly joint_min: number
  /** A conductor moved from a screw to another. */
  readonly screw_min: number
  /** Proving a spare from end to end. */
  readonly prove_min: number
  /** A conductor traced to its break. */
  readonly trace_min: number
  /** A hole dug, and closed again with a box in it. */
  readonly hole_min: number
  /** A metre of trench by hand, opened and closed. */
  readonly trench_min_per_m: number
  readonly coil_min: number
  readonly valve_min: number
  readonly module_min: number
  readonly transformer_min: number
  /** A decoder given its number, tagged and hung on its stake; its joints are counted apart. */
  readonly decoder_min: number
  readonly bypass_min: number
  /** A finding mended where somebody stands: a lid, a head, a box bailed out. */
  readonly seen_min: number
  /** The retest of what was mended. */
  readonly retest_min: number
  /** Going there a second time: the drive, and all that a visit begins and ends with. */
  readonly visit_min: number
  /** Parts, hundredths of the currency a piece. */
  readonly parts_cents: Readonly<Record<RepairPart, number>>
  /** Wire, hundredths a metre, by its `wireCode`; what is not named costs what the property pays, else its copper. */
  readonly wire_cents_per_m: Readonly<Record<string, number>>
}

/** The code under which a price list has a wire, such as `wire_1.5mm2`. */
export const wireCode = (gauge: Gauge): string =>
  `wire_${gaugeText(gauge)
    .toLowerCase()
    .replace(/mm²/, 'mm2')
    .replace(/[^a-z0-9.]+/g, '')}`

export const REPAIR_PARTS = [
  'connector',
  'cap',
  'box',
  'sequencer',
  'coil',
  'valve',
  'module',
  'transformer',
  'path_module',
  'decoder',
  'arrestor',
  'sleeve_m',
] as const
export type RepairPart = (typeof REPAIR_PARTS)[number]

export const USUAL_FIGURES: RepairFigures = {
  cents_per_min: 120,
  place_min: 5,
  joint_min: 8,
  screw_min: 4,
  prove_min: 6,
  trace_min: 45,
  hole_min: 40,
  trench_min_per_m: 6,
  coil_min: 15,
  valve_min: 60,
  module_min: 15,
  transformer_min: 30,
  decoder_min: 10,
  bypass_min: 10,
  seen_min: 10,
  retest_min: 3,
  visit_min: 60,
  parts_cents: {
    connector: 150,
    cap: 60,
    box: 2500,
    sequencer: 9000,
    coil: 2500,
    valve: 6000,
    module: 9000,
    transformer: 6000,
    path_module: 15_000,
    decoder: 8000,
    arrestor: 4000,
    sleeve_m: 120,
  },
  wire_cents_per_m: {},
}
