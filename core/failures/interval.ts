/** Chance that a Poisson count of mean `mu` is at most n. */
function atMost(n: number, mu: number): number {
  let [term, sum] = [Math.exp(-mu), Math.exp(-mu)]
  for (let k = 1; k <= n; k++) {
    term *= mu / k
    sum += term
  }
  return sum
}

/** Above so many, e^−mu is too small to add up; the interval is then that of Wilson and Hilferty. */
const MOST_COUNTED = 500
const Z_95 = 1.959_963_985

/** Where a falling function crosses a level, between two figures. */
function crossing(f: (x: number) => number, level: number, low: number, high: number): number {
  let [a, b] = [low, high]
  for (let i = 0; i < 100; i++) {
    const middle = (a + b) / 2
    if (f(middle) > level) a = middle
    else b = middle
  }
  return (a + b) / 2
}

/**
 * The means that a Poisson count of n leaves possible with 95 % confidence: exact, each side
 * 2.5 % at most (Garwood 1936).
 */
export function poissonInterval(n: number): { readonly low: number; readonly high: number } {
  if (n > MOST_COUNTED) {
    const side = (count: number, z: number) => count * (1 - 1 / (9 * count) + z / (3 * Math.sqrt(count))) ** 3
    return { low: side(n, -Z_95), high: side(n + 1, Z_95) }
  }
  const top = n + 6 * Math.sqrt(n + 4) + 10
  return {
    low: n === 0 ? 0 : crossing((mu) => atMost(n - 1, mu), 0.975, 0, n),
    high: crossing((mu) => atMost(n, mu), 0.025, n, top),
  }
}
