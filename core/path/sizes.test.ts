import loadHighs from 'highs'
import { randomPath } from '../../tests/random-path'
import { choiceSolver, copperCents_per_m, sizingCommands, stockOf, type ChoiceSolver } from '../sizing'
import { applyBatch, pathsOf, type Site } from '../site'
import { outputsOn, pathMargins, pathVolts, sizePath, worstFor, type OutputOn } from '.'

let solve: ChoiceSolver
beforeAll(async () => {
  solve = choiceSolver(await loadHighs())
})

const STORES = [18, 14, 10].map((awg) => ({ gauge: { awg }, cents_per_m: copperCents_per_m({ awg }), lengths_m: [] }))
/** A path whose coils take so much that its wire matters, with a stock of three sizes. */
function drawn(seed: number, together: number, looped = false): Site {
  const { site } = randomPath(seed, { boxes: 4, back: 2, lead_m: 0, looped })
  const { material, sizing } = site.settings
  return {
    ...site,
    settings: { ...site.settings, material: { ...material, stock: STORES }, sizing: { ...sizing, together } },
    systems: Object.fromEntries(
      Object.entries(site.systems).map(([id, s]) => [id, { ...s, minimum_V: s.path_V! * 0.86 }]),
    ),
  } as Site
}
/** Every state in which one output starts and one fewer than run together hold. */
function states(site: Site): OutputOn[][] {
  const outputs = outputsOn(site, pathsOf(site)[0]!)
  const starting = outputs.map((output): OutputOn[] => [{ output, face: 'inrush' }])
  if (site.settings.sizing.together === 1) return starting
  return starting.flatMap((s) =>
    outputs.flatMap((output) => (output === s[0]!.output ? [] : [[...s, { output, face: 'holding' as const }]])),
  )
}
const holds = (site: Site): boolean =>
  states(site).every((on) => {
    const volts = pathVolts(site, pathsOf(site)[0]!, 'constant_current', on, worstFor(site))
    if (!volts.ok) throw new Error(JSON.stringify(volts.refusals))
    const starting = volts.value.coils.filter((c) => on[0]!.output.coils.includes(c.coil))
    return volts.value.decoders.every((d) => d.enough) && starting.every((c) => c.enough)
  })

test('the cheapest sizes of a path are those that trying all finds, its worst moments sought among all states', () => {
  const kinds = new Map<string, number>()
  for (let seed = 1; seed <= 10; seed++) {
    const site = drawn(seed, 1 + (seed % 2))
    const ids = Object.keys(site.cables)
    const cents = (sizes: readonly number[]) =>
      ids.reduce((sum, id, i) => {
        const metres = 2 * site.cables[id as never]!['stops'][1]!.at_m!['value' as never]
        return sum + Math.round(metres * STORES[sizes[i]!]!.cents_per_m)
      }, 0)
    const tries = Array.from({ length: STORES.length ** ids.length }, (_, n) =>
      ids.map((_, i) => Math.floor(n / STORES.length ** i) % STORES.length),
    ).sort((a, b) => cents(a) - cents(b))
    const best = tries.find((sizes) =>
      holds({
        ...site,
        cables: Object.fromEntries(
          ids.map((id, i) => [
            id,
            { ...site.cables[id as never], gauge: { value: STORES[sizes[i]!]!.gauge, how: 'seen', on: null } },
          ]),
        ),
      } as Site),
    )
    const answer = sizePath(site, pathsOf(site)[0]!, solve, { anew: true })
    if (!answer.ok) throw new Error(JSON.stringify(answer.refusals))
    kinds.set(answer.value.kind, (kinds.get(answer.value.kind) ?? 0) + 1)
    if (answer.value.kind !== 'sized') {
      expect([seed, answer.value.kind, best]).toEqual([seed, 'out_of_reach', undefined])
      continue
    }
    expect([seed, answer.value.cost_cents, answer.value.bound_cents]).toEqual([seed, cents(best!), cents(best!)])
    expect(answer.value.uniform === null || answer.value.uniform.cost_cents >= answer.value.cost_cents).toBe(true)
    const written = applyBatch(site, sizingCommands(site, answer.value))
    if (!written.ok) throw new Error(JSON.stringify(written.refusals))
    const margins = pathMargins(written.value.site, pathsOf(written.value.site)[0]!)
    if (!margins.ok) throw new Error('no margins')
    expect(margins.value[0]!.margin_V).toBeCloseTo(answer.value.weakest!.margin_V, 6)
  }
  expect(Math.min(kinds.get('sized') ?? 0, kinds.get('out_of_reach') ?? 0)).toBeGreaterThan(0)
})

test('a loop is sized so that it holds with the loop parted and closed, and says that this is not proven least', () => {
  for (let seed = 1; seed <= 6; seed++) {
    const site = drawn(seed, 1, true)
    const answer = sizePath(site, pathsOf(site)[0]!, solve, { anew: true })
    if (!answer.ok || answer.value.kind !== 'sized') continue
    expect(answer.value.bound_cents).toBeNull()
    const written = applyBatch(site, sizingCommands(site, answer.value))
    expect(written.ok && holds(written.value.site)).toBe(true)
  }
  expect(stockOf(drawn(1, 1))).toHaveLength(3)
})
