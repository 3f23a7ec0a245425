import type { DeviceId, Site } from '../../core/site'
import type { World } from '../world'

/** A normal around 0, cut off at ± `limit`, which is two standard deviations. */
export function within(limit: number, chance: () => number): number {
  for (;;) {
    const x = Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance())
    if (Math.abs(x) <= 2) return (limit * x) / 2
  }
}

/** How a property's parts differ from their sheets. */
export interface Drawn {
  /** Of cables and of coils, as parts of what is recorded. */
  readonly lengths: ReadonlyMap<string, number>
  readonly coils: ReadonlyMap<string, number>
  /** Of every leg of a joint, Ω. */
  readonly joints: ReadonlyMap<string, number>
  readonly mains: number
  readonly insulation_ohm: number
  /** Between two rods in moist soil. */
  readonly soil_ohm: number
}

/** Draws them: `spread` times wider than the property's tolerances; `known` are coils as earlier readings have them. */
export function drawnOf(
  site: Site,
  random: () => number,
  spread: number,
  known: ReadonlyMap<DeviceId, number> | undefined,
  world: World,
): Drawn {
  const { coilTolerance_ratio, lengthTolerance_ratio, soundSplice_ohm, soundSpliceSpread_ohm } = site.settings
  const off = (tolerance: number) => within(tolerance * spread, random)
  // The order is part of what a seed gives.
  const lengths = new Map(Object.keys(site.cables).map((c) => [c, 1 + off(lengthTolerance_ratio)]))
  const joints = new Map(
    Object.keys(site.splices).map((s) => [s, Math.max(0, soundSplice_ohm + off(soundSpliceSpread_ohm)) / 2]),
  )
  const coils = new Map(
    Object.keys(site.devices).map((d) => {
      const drawn = 1 + off(coilTolerance_ratio)
      return [d, known?.get(d as DeviceId) ?? drawn] as const
    }),
  )
  const between = ({ from, to }: { from: number; to: number }) => from * (to / from) ** random()
  const mains = 1 + within(world.mains_ratio, random)
  const insulation_ohm = between(world.insulation_ohm)
  return { lengths, coils, joints, mains, insulation_ohm, soil_ohm: between(world.soil_ohm) }
}
