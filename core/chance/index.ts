/**
 * Numbers from 0 to 1 that look like chance and are the same for the same seed (a linear congruential generator of 32
 * bits with Numerical Recipes’ constants).
 */
export function steadyChance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state / 2 ** 32
  }
}
