import { climateOf, complex, factorOf, inverse, partsOf, size, type Change } from '../../core/circuit'
import { huntContextOf, huntOf } from '../../core/hunt'
import { chance } from '../../standins'
import { METER, propertyOf } from './draw'
import { A } from './draw-fault'

const HYPOTHESES = 1000
const READINGS = 12

/**
 * What a reading would be under sampled hypotheses: by the influence of their elements on a network that was factored
 * once, against factoring the changed network again (our own sparse solver, its ordering kept) and solving. Same
 * figures on both sides; the first reading pays for taking every element forward.
 */
export function rescore(seed: number): {
  readonly ratio: number
  readonly ours_us: number
  readonly reference_us: number
  readonly worst: number
} {
  const random = chance(seed)
  const site = propertyOf(random, 40, 4)
  const { catalogue } = huntOf(site, A, { meter: METER })!
  const {
    meterState: { powered, influence },
    wire,
    common,
    terminals,
  } = huntContextOf(site, A, climateOf(site))!
  const sized = catalogue.variants.filter((v) => v.mods.alters.length === 1 && v.mods.joins.length === 0)
  const hypotheses = Array.from({ length: HYPOTHESES }, (): Change => {
    const { element, to } = sized[Math.floor(random() * sized.length)]!.mods.alters[0]!
    return { element, z: to(powered.parts[element]!.z) }
  })
  const readings = Array.from({ length: READINGS }, () => ({
    a: wire(terminals[Math.floor(random() * terminals.length)]!),
    b: wire(common),
  }))

  let start = performance.now()
  const ours = readings.map((across) => {
    const test = influence.test(across)
    return hypotheses.map((h) => {
      const r = influence.ohms(test, [h])
      return r.open ? Infinity : r.value.re
    })
  })
  const ours_us = ((performance.now() - start) * 1000) / (READINGS * HYPOTHESES)

  const { nodeCount, parts } = powered
  const components = partsOf(nodeCount, parts)
  const references = [...new Set(components)]
  const { order } = factorOf(nodeCount, parts, references)
  // One reading is enough to time by: each hypothesis is factored anew for it.
  const [{ a, b }] = readings as [(typeof readings)[number]]
  let worst = 0
  start = performance.now()
  const theirs = hypotheses.map(({ element, z }) => {
    const changed = parts.map((p, e) =>
      e === element ? { a: p.a, b: p.b, y: z === null ? complex(1e-12) : inverse(z) } : p,
    )
    const factor = factorOf(nodeCount, changed, references, order)
    const f = factor.forward(a, b)
    return size(factor.transferImpedance(f, f))
  })
  const reference_us = ((performance.now() - start) * 1000) / HYPOTHESES
  theirs.forEach((ohm, k) => {
    const mine = ours[0]![k]!
    worst = Math.max(worst, mine === Infinity ? (ohm > 1e9 ? 0 : 1) : Math.abs(ohm - mine) / mine)
  })
  return { ratio: reference_us / ours_us, ours_us, reference_us, worst }
}
