/**
 * The part of a standard normal that lies below x, with a relative error under 1.2e-7 on either side: the complementary
 * error function as a Chebyshev fit (Press et al., Numerical Recipes, erfc by a rational exponent).
 */
export function normalBelow(x: number): number {
  const z = Math.abs(x) / Math.SQRT2
  const t = 1 / (1 + 0.5 * z)
  const tail =
    0.5 *
    t *
    Math.exp(
      -z * z -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    )
  return x > 0 ? 1 - tail : tail
}

const HALF_LOG_2PI = 0.5 * Math.log(2 * Math.PI)
export const logNormal = (off: number, sd: number): number => -0.5 * (off / sd) ** 2 - Math.log(sd) - HALF_LOG_2PI

/** log(Σ eˣ), without overflow; −∞ for nothing. */
export function logSum(values: Iterable<number>): number {
  let [top, sum] = [-Infinity, 0]
  for (const v of values) {
    if (v === -Infinity) continue
    if (v <= top) sum += Math.exp(v - top)
    else {
      sum = sum * Math.exp(top - v) + 1
      top = v
    }
  }
  return sum === 0 ? -Infinity : top + Math.log(sum)
}
