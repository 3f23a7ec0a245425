import { chance } from '../../standins'
import { fewestSites, surgeBreaches, type SurgeRules, type SurgeTree } from './arrestors'

const RULES: SurgeRules = { near_m: 7.6, branch_m: 15, spacing_m: 180 }

function randomTree(seed: number, spots: number): SurgeTree {
  const random = chance(seed)
  const parent = [0]
  const length_m = [0]
  for (let i = 1; i < spots; i++) {
    parent.push(i === 1 ? 0 : Math.floor(random() * i))
    const isFirst = parent[i] === 0
    length_m.push(isFirst && random() < 0.7 ? 3 + 4 * random() : 4 + 84 * random())
  }
  return { parent, length_m }
}

test('the fewest sites are those that trying every set of boxes finds, on 200 small paths, and none of them breaks a rule', () => {
  let [more, impossible] = [0, 0]
  for (let seed = 1; seed <= 200; seed++) {
    const tree = randomTree(seed, 4 + (seed % 8))
    const rules = { ...RULES, spacing_m: seed % 3 === 0 ? 90 : 180 }
    const plan = fewestSites(tree, rules)
    const count = tree.parent.length - 1
    // What cannot be kept by any set is not asked of the sets that are tried.
    const must = surgeBreaches(tree, rules, new Set(tree.parent.keys())).length
    let least = Infinity
    for (let mask = 0; mask < 2 ** count; mask++) {
      const sites = new Set(Array.from({ length: count }, (_, i) => i + 1).filter((_, i) => mask & (1 << i)))
      if (sites.size < least && surgeBreaches(tree, rules, sites).length === must) least = sites.size
    }
    expect([seed, plan.sites.length]).toEqual([seed, least])
    expect([seed, surgeBreaches(tree, rules, new Set(plan.sites)).length]).toEqual([seed, must])
    expect([seed, plan.impossible.length]).toEqual([seed, must])
    if (plan.sites.length > 2) more++
    if (must > 0) impossible++
  }
  expect([more > 50, impossible > 20]).toEqual([true, true])
})

test('what is there stays, and a path of 2000 boxes with 40 branches keeps its rules', () => {
  const tree = randomTree(7, 9)
  const kept = new Set([3, 5])
  const plan = fewestSites(tree, RULES, kept)
  expect(plan.sites).toEqual(expect.arrayContaining([3, 5]))
  expect(surgeBreaches(tree, RULES, new Set(plan.sites)).length).toBe(plan.impossible.length)
  // Two boxes that lie too far apart want one between them, whatever else is done.
  const far = { parent: [0, 0, 1, 2], length_m: [0, 5, 200, 30] }
  const apart = fewestSites(far, RULES)
  expect([apart.sites, apart.impossible]).toEqual([[1, 2, 3], [{ kind: 'apart', a: 1, b: 2, apart_m: 200 }]])
  const random = chance(3)
  const parent = Array.from({ length: 2001 }, (_, i) => (i === 0 ? 0 : i % 50 === 0 ? Math.floor(random() * i) : i - 1))
  const long = { parent, length_m: parent.map((_, i) => (i === 0 ? 0 : i === 1 ? 5 : 4 + 20 * random())) }
  const sites = fewestSites(long, RULES)
  expect([sites.impossible, surgeBreaches(long, RULES, new Set(sites.sites))]).toEqual([[], []])
})
