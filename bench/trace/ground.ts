import type { FindKind, WandReading } from '../../core/trace'
import { normal } from '../../standins'

/** Where something lies along a made-up wire. */
export interface Truth {
  readonly kind: FindKind
  readonly at_m: number
  /** What a step keeps. */
  readonly kept: number
  /** How far a spread end spreads. */
  readonly spread_m: number
}

/** A made-up wire: how it fades, what lies along it, how far one walks. */
export interface Ground {
  readonly fade_m: number
  readonly long_m: number
  readonly things: readonly Truth[]
}

export const NOISE_ratio = 0.08
/** The floor as a part of the first reading, or of the strongest of a section. */
export const FLOOR_ratio = 0.1
/** Things are told apart that are so far from each other, where the signal is so many floors. */
const [APART_m, CLEAR_floors] = [4, 2.5]

/** The level at a place as the definitions have it, without one of the things if wanted. */
export function level({ fade_m, things }: Ground, along_m: number, but: Truth | null = null): number {
  let signal = Math.exp(-along_m / fade_m)
  for (const thing of things) {
    if (thing === but) continue
    const { kind, at_m, kept, spread_m } = thing
    const off = along_m - at_m
    if (kind === 'local') {
      if (Math.abs(off) < 0.8) signal *= 1 + (1 / 3) * 0.5 * (1 + Math.cos((Math.PI * off) / 0.8))
    } else if (kind === 'step') {
      const part = Math.min(1, Math.max(0, off / 0.3 + 0.5))
      signal *= 1 - (1 - kept) * part
    } else if (kind === 'end') signal *= 1 - Math.min(1, Math.max(0, off / 0.3 + 0.5))
    else if (off >= -spread_m / 2) signal *= off <= spread_m / 2 ? 0.5 : 0
  }
  return signal
}

/** Things that a walk must find: those that stand where the signal is clear of the floor. */
export const findable = (ground: Ground): Truth[] =>
  ground.things.filter((t) => level(ground, t.at_m, t) >= CLEAR_floors * FLOOR_ratio)

/** A wire with things at least four metres apart; a part of them end it. */
export function drawGround(random: () => number): Ground {
  const long_m = 60 + 60 * random()
  const things: Truth[] = []
  for (let at_m = 3 + 8 * random(); at_m < long_m - 3; at_m += APART_m + 16 * random())
    things.push({
      kind: random() < 0.5 ? 'local' : 'step',
      at_m,
      kept: 0.4 + 0.4 * random(),
      spread_m: 0.6 + 0.6 * random(),
    })
  const [ends, cut] = [random() < 0.75, Math.ceil(things.length * (0.3 + 0.7 * random()))]
  if (!ends || cut === 0) return { fade_m: 60 + 140 * random(), long_m, things }
  const kept = things.slice(0, cut)
  kept.push({ ...kept.pop()!, kind: random() < 0.5 ? 'end' : 'spread_end' })
  return { fade_m: 60 + 140 * random(), long_m, things: kept }
}

/** A walk over it with a reading every so many metres; the gain is turned up once on the way. */
export function walked(ground: Ground, every_m: number, random: () => number): WandReading[] {
  const turned = ground.long_m * random()
  return Array.from({ length: Math.floor(ground.long_m / every_m) + 1 }, (_, i) => {
    const along_m = i * every_m
    const gain = along_m > turned ? 2 : 1
    const signal = Math.max(level(ground, along_m), FLOOR_ratio)
    const reading = 70 * gain * signal * (1 + NOISE_ratio * normal(random))
    return { along_m, across_m: 0, height_m: 0, tilt_deg: 0, mode: 'peak', gain, reading }
  })
}

/** A section over a line, in either mode, eleven readings as wide as the line is deep and half as much again. */
export function crossed(line_m: number, cover_m: number, random: () => number): WandReading[] {
  const [height_m, mode] = [
    random() < 0.5 ? 0 : 0.15 * random(),
    random() < 0.5 ? ('null' as const) : ('peak' as const),
  ]
  const deep = cover_m + height_m
  const places = Array.from({ length: 11 }, (_, i) => 1.5 * deep * (i / 5 - 1))
  const signals = places.map((across_m) => {
    const x = line_m - across_m
    return Math.abs(mode === 'null' ? x : deep) / (x * x + deep * deep)
  })
  const floor = FLOOR_ratio * Math.max(...signals)
  return places.map((across_m, i) => ({
    along_m: 0,
    across_m,
    height_m,
    tilt_deg: 0,
    mode,
    gain: 1,
    reading: 25 * Math.max(signals[i]!, floor) * (1 + NOISE_ratio * normal(random)),
  }))
}
