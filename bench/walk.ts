import { provenRound } from '../core/map'
import { chance } from '../standins'

// Walks: rounds over drawn stops, up to sixty, their length against a bound that no round undercuts.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 40)]
const random = chance(seed)
let [widest, worst_s, exact] = [0, 0, 0]
const SIZES = [6, 12, 13, 20, 30, 40, 50, 60]
for (let n = 0; n < cases; n++) {
  const count = SIZES[n % SIZES.length]!
  // Boxes lie in clumps about a property, as beds do.
  const clumps = Array.from({ length: 1 + Math.floor(count / 8) }, () => [random() * 400, random() * 300] as const)
  const stops = Array.from({ length: count }, () => {
    const [x, y] = clumps[Math.floor(random() * clumps.length)]!
    return { x_m: x + random() * 90, y_m: y + random() * 90 }
  })
  const began = performance.now()
  const { length_m, bound_m } = provenRound({ x_m: 0, y_m: 0 }, stops)
  worst_s = Math.max(worst_s, (performance.now() - began) / 1000)
  widest = Math.max(widest, 1 - bound_m / length_m)
  exact += Number(bound_m >= length_m - 1e-6)
}
const result = { seed, cases, widestGap: widest, exact, worst_s }
console.log(
  process.argv.includes('--json')
    ? JSON.stringify(result)
    : `${cases} rounds: at most ${(100 * widest).toFixed(2)} % over what is proven, ` +
        `${exact} proven shortest, ${worst_s.toFixed(1)} s the slowest`,
)
