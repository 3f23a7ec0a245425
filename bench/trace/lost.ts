import type { BoxEvidence } from '../../core/trace'
import { normal } from '../../standins'

/** A lost box and what speaks of it; the box itself lies at the origin. */
export interface Lost {
  readonly evidence: BoxEvidence
  readonly drawn: { readonly x_m: number; readonly y_m: number }
}

const BOX = { x_m: 0, y_m: 0 }
/**
 * A box that strayed from its drawing as others of its property did, by 0.5 to 3.5 m; in three of four cases steps from
 * two sides, in two of four the tone’s line as well, in one of four its end.
 */
export function drawLost(random: () => number, n: number): Lost {
  const stray_m = 0.5 + 3 * random()
  const far = () => ({ x_m: stray_m * normal(random), y_m: stray_m * normal(random) })
  const drawn = far()
  const strays_m = Array.from({ length: Math.floor(8 * random()) }, far).map((p) => Math.hypot(p.x_m, p.y_m))
  const turn = 2 * Math.PI * random()
  /** So far along the line, so far aside of it. */
  const at = (along_m: number, aside_m: number) => ({
    x_m: Math.cos(turn) * along_m - Math.sin(turn) * aside_m,
    y_m: Math.sin(turn) * along_m + Math.cos(turn) * aside_m,
  })
  const kinds = n % 4
  const paced = [1, -1].slice(0, kinds >= 1 ? 2 : 0).map((side) => {
    const distance_m = 15 + 25 * random()
    const from = at(side * distance_m, 0)
    return { from, distance_m: distance_m + (0.3 + 0.04 * distance_m) * normal(random), bearing_deg: null }
  })
  const line = [-8, -6, -4, -2, 0, 2, 4, 6, 8]
    .slice(0, kinds >= 2 ? 9 : 0)
    .map((along_m) => ({ at: at(along_m, 0.05 * normal(random)), within_m: 0.08 }))
  const met = kinds >= 3 ? [{ at: at(0.25 * normal(random), 0), within_m: 0.25, p: 0.95 }] : []
  return { drawn, evidence: { drawn, strays_m, paced, line, met, probed: [] } }
}

const LID_m = 0.15
/** Probes that lie so close miss no lid between them. */
const SPACING_m = LID_m * Math.sqrt(3)

/** Probes of a spiral about the drawn spot until the lid is come down on: one for each patch of the disc. */
export const spiralProbes = ({ drawn }: Lost): number =>
  Math.max(
    1,
    (Math.PI * Math.hypot(drawn.x_m - BOX.x_m, drawn.y_m - BOX.y_m) ** 2) / ((SPACING_m ** 2 * Math.sqrt(3)) / 2),
  )

/** Probes in an order until one comes down on the lid; all of them where none does. */
export function probesInOrder(
  order: readonly { readonly at: { readonly x_m: number; readonly y_m: number } }[],
): number {
  const hit = order.findIndex(({ at }) => Math.hypot(at.x_m, at.y_m) <= LID_m)
  return hit < 0 ? order.length : hit + 1
}
