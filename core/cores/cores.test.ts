import fc from 'fast-check'
import {
  bestTags,
  coresKnown,
  groupPlan,
  nextJoining,
  STOCK_ohm,
  tagOf,
  tagRead,
  USUAL_TAGS,
  wantsKnown,
  type EndOf,
  type UnknownCable,
} from './index'

test('every number of cores has a plan: no two cores have one pair of sizes, none is alone at both ends but with 4 and 8', () => {
  for (let n = 2; n <= 200; n++) {
    const { cores, known } = groupPlan(n)
    const size = (end: EndOf, group: number) => cores.filter((c) => c[end] === group).length
    const pairs = cores.map((c) => `${size('first', c.first)} ${size('second', c.second)}`)
    expect([n, cores.length, known]).toEqual([n, n + known, [2, 5, 9].includes(n) ? 1 : 0])
    expect([n, new Set(pairs).size]).toEqual([n, n + known])
    expect([n, pairs.includes('1 1')]).toEqual([n, n === 4 || n === 8])
  }
})

/** A real cable: which end is which, and at most one core that is broken or two that are one conductor. */
interface Truth {
  readonly second: readonly number[]
  readonly broken: number | null
  readonly touching: readonly [number, number] | null
}

/** What continuity shows at the other end of what is joined at one, by a plain search over wires. */
function seen(truth: Truth, at: EndOf, joined: readonly (readonly number[])[]): number[][] {
  const n = truth.second.length
  const firstOf = (end: number) => (at === 'first' ? end : truth.second.indexOf(end))
  const root = Array.from({ length: n }, (_, i) => i)
  const find = (i: number): number => (root[i] === i ? i : find(root[i]!))
  const link = (i: number, j: number) => {
    root[find(i)] = find(j)
  }
  for (const group of joined)
    for (const end of group)
      if (firstOf(end) !== truth.broken && firstOf(group[0]!) !== truth.broken) link(firstOf(end), firstOf(group[0]!))
      else if (firstOf(group[0]!) === truth.broken)
        for (const other of group.slice(1)) link(firstOf(other), firstOf(group[1]!))
  if (truth.touching) link(...truth.touching)
  const groups = new Map<number, number[]>()
  for (let i = 0; i < n; i++) groups.set(find(i), [...(groups.get(find(i)) ?? []), i])
  return [...groups.values()].map((g) => g.map((i) => (at === 'first' ? truth.second[i]! : i)))
}

/** Works as the plan says until nothing more is to be joined. */
function worked(truth: Truth, cores: number): { cable: UnknownCable; known: ReturnType<typeof coresKnown> } {
  const { touching } = truth
  const bare = {
    first: touching,
    second: touching && ([truth.second[touching[0]]!, truth.second[touching[1]]!] as const),
  }
  let cable: UnknownCable = { cores, helped: truth.second.length > cores, bare, walks: [] }
  for (;;) {
    const next = nextJoining(cable)
    if (!next) return { cable, known: coresKnown(cable) }
    cable = {
      ...cable,
      walks: [...cable.walks, { joinedAt: next.at, joined: next.groups, seen: seen(truth, next.at, next.groups) }],
    }
  }
}

const shuffled = (n: number, helped: boolean, order: readonly number[]) => {
  const places = Array.from({ length: n }, (_, i) => i).sort((a, b) => order[a]! - order[b]! || a - b)
  return helped ? [...places, n] : places
}
const cable = fc
  .integer({ min: 2, max: 24 })
  .chain((n) => fc.tuple(fc.constant(n), fc.array(fc.nat(), { minLength: n, maxLength: n }), fc.nat(), fc.nat()))

test('sound cables of any order: one walk there and one back, every core named rightly', () => {
  fc.assert(
    fc.property(cable, ([n, order]) => {
      const truth: Truth = { second: shuffled(n, wantsKnown(n), order), broken: null, touching: null }
      const { cable: done, known } = worked(truth, n)
      expect(done.walks.length).toBeLessThanOrEqual(2)
      expect(known.named).toEqual(Array.from({ length: n }, (_, first) => ({ first, second: truth.second[first]! })))
      expect([known.broken, known.touching, known.impossible]).toEqual([null, null, false])
    }),
    { numRuns: 60 },
  )
})

test('one core is broken: nobody is named wrongly, and it is named at both ends nine times in ten with one walk more', () => {
  let [found, all] = [0, 0]
  fc.assert(
    fc.property(cable, ([n, order, which]) => {
      const truth: Truth = { second: shuffled(n, wantsKnown(n), order), broken: which % n, touching: null }
      const { cable: done, known: last } = worked(truth, n)
      for (const { first, second } of last.named) expect(second).toBe(truth.second[first])
      // One walk there, one back, and after a misfit one more.
      const known = coresKnown({ ...done, walks: done.walks.slice(0, 3) })
      const { broken } = known
      if (broken?.first != null) expect(broken.first).toBe(truth.broken)
      if (broken?.second != null) expect(broken.second).toBe(truth.second[truth.broken!])
      expect(known.impossible).toBe(false)
      all++
      if (broken && broken.first !== null && broken.second !== null) found++
    }),
    { numRuns: 80, seed: 7 },
  )
  expect(found / all).toBeGreaterThanOrEqual(0.9)
})

test('two cores are one conductor: named as a pair, all others rightly', () => {
  fc.assert(
    fc.property(cable, ([n, order, a, b]) => {
      const one = a % n
      const two = (one + 1 + (b % (n - 1))) % n
      const truth: Truth = { second: shuffled(n, wantsKnown(n), order), broken: null, touching: [one, two] }
      const { known } = worked(truth, n)
      expect(known.touching!.first).toEqual([one, two])
      for (const { first, second } of known.named) expect(second).toBe(truth.second[first])
      expect(known.named).toHaveLength(n - 2)
      expect(known.broken).toBeNull()
    }),
    { numRuns: 60 },
  )
})

test('what cannot be so is told: all seven in one group where three groups were joined', () => {
  const start: UnknownCable = { cores: 7, helped: false, bare: { first: null, second: null }, walks: [] }
  const { groups, at } = nextJoining(start)!
  const known = coresKnown({ ...start, walks: [{ joinedAt: at, joined: groups, seen: [[0, 1, 2, 3, 4, 5, 6]] }] })
  expect([known.impossible, known.named]).toEqual([true, []])
})

test('tags: no two bands touch, none is a bare link; no set of the stock has more', () => {
  const tags = bestTags(STOCK_ohm, USUAL_TAGS)
  expect(tags[0]!.low_ohm).toBeGreaterThan(tagOf(0, USUAL_TAGS).high_ohm)
  tags.slice(1).forEach((t, i) => expect(t.low_ohm).toBeGreaterThan(tags[i]!.high_ohm))
  // Every corner of what may be read of a tag leads back to it.
  for (const tag of tags)
    for (const part of [0.95, 1, 1.05])
      for (const wire of [0, 30, 60])
        for (const meter of [-1, 1]) {
          const through = tag.ohm * part + wire
          expect(tagRead(tags, through * (1 + meter * 0.01) + meter * 0.2)?.ohm).toBe(tag.ohm)
        }
  // The optimum by trying all: the longest chain, each beginning past the end of the one before.
  const usable = STOCK_ohm.map((ohm) => tagOf(ohm, USUAL_TAGS)).filter((t) => t.low_ohm > tagOf(0, USUAL_TAGS).high_ohm)
  const longest = usable.map(() => 1)
  usable.forEach((t, i) => {
    for (let k = 0; k < i; k++) if (usable[k]!.high_ohm < t.low_ohm) longest[i] = Math.max(longest[i]!, longest[k]! + 1)
  })
  expect(tags).toHaveLength(Math.max(...longest))
})
