import { blurAt, type Prediction } from '../predict'
import type { CoilPriors } from '../weigh'

type Ohms = Extract<Prediction, { kind: 'ohms' }>

/** Figures nearer than this part of all that blurs them are one. */
const STEP = 0.2
/** A fault that moves a figure by less than this part of it is as good as none. */
const UNSEEN = 0.1
const VOLT_STEP = 0.15
const TONE_STEP_m = 2
/** Odds that differ by less than a factor of e are one. */
const logOdds = (p: number): number => {
  const clamped = Math.min(1 - 1e-4, Math.max(1e-4, p))
  return Math.round(Math.log(clamped / (1 - clamped)))
}

/** One deviation of a figure in ohms: the meter's, the coils' and the fault's own. */
const spreadOf = (seen: Ohms, coils: CoilPriors): number =>
  Math.hypot(blurAt(seen, seen.mean), ...seen.figures, ...seen.coils.map(([d, c]) => c * coils(d).sd))

/**
 * A number for a figure: those within a step of each other have the same or the next. Steps grow with the figure as
 * its blur does, by whole factors of two.
 */
const stepOf = (ohm: number, spread: number): string => {
  const octave = Math.round(Math.log2(spread))
  return `${Math.round(ohm / (STEP * 2 ** octave))}/${octave}`
}

/** Whether no reading tells two figures apart. */
export function isAsGood(seen: Prediction, base: Prediction, coils: CoilPriors): boolean {
  if (seen.kind !== 'ohms' || base.kind !== 'ohms') return signatureOf(seen, coils) === signatureOf(base, coils)
  const spread = spreadOf(base, coils)
  const follows = new Map(base.coils)
  const moved = seen.coils.reduce(
    (most, [d, c]) => Math.max(most, Math.abs(c - (follows.get(d) ?? 0)) * coils(d).sd),
    0,
  )
  return Math.abs(seen.mean - base.mean) < UNSEEN * spread && moved < UNSEEN * spread
}

/** A name for what a prediction shows: two that no reading tells apart have the same. */
export function signatureOf(seen: Prediction, coils: CoilPriors): string {
  switch (seen.kind) {
    case 'ohms': {
      const spread = spreadOf(seen, coils)
      // A coil that deviates shows alike in both only if both follow it as far.
      const follows = seen.coils.map(([d, c]) => `,${d}${Math.round((2 * c * coils(d).sd) / spread)}`)
      return `${stepOf(seen.mean, spread)}${follows.join('')}`
    }
    case 'open':
      return 'o'
    case 'insulated':
      return 'i'
    case 'anything':
      return 'a'
    case 'volts':
      return `${Math.round(seen.mean / VOLT_STEP)}V${seen.fed ? '' : '-'}`
    case 'yes':
      return `y${logOdds(seen.p)}`
    case 'lamps':
      return `l${logOdds(seen.good)},${logOdds(seen.open)},${logOdds(seen.short)}`
    case 'waters':
      return `w${logOdds(seen.master)}${seen.valves.map(([d, p]) => `,${d}${logOdds(p)}`).join('')}`
    case 'tone':
      return `t${seen.lost_m === null ? '' : Math.round(seen.lost_m / TONE_STEP_m)},${Math.round(seen.sd_m / 5)}`
    case 'either':
      return `e${logOdds(seen.p)}(${signatureOf(seen.well, coils)})(${signatureOf(seen.ill, coils)})`
  }
}
