/**
 * How the ground of a simulated property behaves, where its record does not say: a file of its own, so that it can be
 * made unlike what the engine reckons with.
 */
export interface World {
  /** Mains wander by so much, ± (2σ). */
  readonly mains_ratio: number
  /** Insulation of sound wire to earth, Ω, by powers of ten. */
  readonly insulation_ohm: { readonly from: number; readonly to: number }
  /** Between two rods in moist soil, Ω, by powers of ten. */
  readonly soil_ohm: { readonly from: number; readonly to: number }
  /** What is left of a shorted coil, Ω. */
  readonly shorted_ohm: number
  /** Shorted turns leave this power of their part of what a winding chokes; their part of its ohms is left. */
  readonly turns_power: number
  /** Which part of its chances a loose joint fails. */
  readonly loose: number
  /** A coil without a sheet pulls in at so many volts. */
  readonly pull_V: number
  /** A sequencer steps where its input gets so many volts. */
  readonly step_V: number
  /**
   * Between a tester's leads: below `short_ohm` its lamp says short, above `open_ohm` open; from `lit_V` on it is lit.
   */
  readonly tester: { readonly short_ohm: number; readonly open_ohm: number; readonly lit_V: number }
  /** How often a bad joint shows, and a sound one seems bad: looked at and tugged, or cut out and made anew. */
  readonly shows: Readonly<Record<'look' | 'remake', { readonly bad: number; readonly sound: number }>>
}

export const WORLD: World = {
  mains_ratio: 0.03,
  insulation_ohm: { from: 2e6, to: 4e7 },
  soil_ohm: { from: 60, to: 900 },
  shorted_ohm: 0.2,
  turns_power: 2,
  loose: 0.5,
  pull_V: 19,
  step_V: 12,
  tester: { short_ohm: 8, open_ohm: 300, lit_V: 12 },
  shows: { look: { bad: 0.9, sound: 0.02 }, remake: { bad: 0.9998, sound: 0.0005 } },
}
