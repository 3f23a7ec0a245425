import type { Part } from '../record'
import type { Advice } from './next'

/** A part is named when it is at fault with this belief; nothing is, when nothing is. */
export const NAMED = 0.98
/** What lies buried is dug up for: with less belief than this it is named where no test is left that tells. */
const NAMED_TO_DIG = 0.995
/** A test is made before digging where it tells so much at least. */
const WORTH_A_TEST_bits = 0.01
/** Parts that are mended by digging. */
const BURIED: ReadonlySet<Part['kind']> = new Set<Part['kind']>(['run', 'touch'])

/**
 * The test to make before a part is dug up for that is at fault with belief p; null where it does not lie buried, where
 * it is sure enough, or where nothing tells any more. `next`: the test that tells most about it.
 */
export function beforeDigging({ kind }: Part, p: number, next: () => Advice | null): Advice | null {
  if (p >= NAMED_TO_DIG || !BURIED.has(kind)) return null
  const advice = next()
  return advice && advice.bits >= WORTH_A_TEST_bits ? advice : null
}
