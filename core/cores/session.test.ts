import fc from 'fast-check'
import { demoProperty } from '../../demo/quarry-lake'
import type { CoreTried, Sorting } from '../record'
import { applyBatch, type PlaceId } from '../site'
import { bestTags, namingCommands, sessionOf, STOCK_ohm, tagOf, USUAL_TAGS, type Method, type SessionStep } from '.'

/** A cable as it lies in the ground: where each core of the first end comes out, and one that may be broken. */
interface Truth {
  readonly second: readonly number[]
  readonly broken: number | null
  /** Two cores that are one conductor somewhere on the way. */
  readonly touching?: readonly [number, number]
}
const sorting = (cores: number): Sorting => ({ cores, cable: null, first: 'S' as PlaceId, second: 'S3' as PlaceId })
const groupsThere = (joined: readonly (readonly number[])[], there: (end: number) => number, cut: number | null) =>
  joined.flatMap((group) => {
    const whole = group.filter((e) => e !== cut).map(there)
    return [...(whole.length > 0 ? [whole] : []), ...group.filter((e) => e === cut).map((e) => [there(e)])]
  })

/** What a crew with a meter would write down at a step, on this cable. */
function done(
  step: SessionStep,
  { second, broken, touching }: Truth,
  method: Method,
  hung: Map<number, number>,
): CoreTried[] {
  const far = (end: number) => second[end] ?? end
  const near = (end: number) => (end < second.length ? second.indexOf(end) : end)
  const at = (end: 'first' | 'second', core: number) => (end === 'first' ? core : far(core))
  switch (step.do) {
    case 'method':
      return [{ kind: 'method', method }]
    case 'off':
      return [{ kind: 'off', end: step.at }]
    case 'bare':
      return [
        {
          kind: 'bare',
          end: step.at,
          touching: touching ? [at(step.at, touching[0]), at(step.at, touching[1])] : null,
        },
      ]
    case 'join':
      joined.push(step.groups)
      return [{ kind: 'joined', walk: step.walk, groups: step.groups.map((g) => [...g]) }]
    case 'see': {
      const cut = step.at === 'second' ? broken : broken === null ? null : far(broken)
      const groups = groupsThere(joined[step.walk]!, step.at === 'second' ? far : near, cut)
      expect(groups.flat().sort((a, b) => a - b)).toEqual([...step.ends].sort((a, b) => a - b))
      return [{ kind: 'seen', walk: step.walk, groups }]
    }
    case 'call':
      return [{ kind: 'called', core: step.core }]
    case 'put':
      return [{ kind: 'got', core: step.core }]
    case 'hear':
      return [{ kind: 'heard', core: step.core, at: step.core === broken ? null : far(step.core) }]
    case 'hang':
      hung.clear()
      for (const { core, ohm } of step.tags) hung.set(core, ohm)
      return step.tags.map((tag) => ({ kind: 'hung', ...tag }))
    case 'read':
      return step.ends.map((at) => {
        const core = near(at)
        const ohm = core === broken ? undefined : hung.get(core)
        const tag = ohm === undefined ? null : tagOf(ohm, USUAL_TAGS)
        return { kind: 'read', at, ohm: tag && (tag.low_ohm + tag.high_ohm) / 2 }
      })
  }
}
let joined: (readonly (readonly number[])[])[] = []

/** Works through a cable as the session says. */
function worked(truth: Truth, method: Method) {
  const trials: { id: string; tried: CoreTried }[] = []
  const hung = new Map<number, number>()
  joined = []
  for (let round = 0; ; round++) {
    const session = sessionOf(sorting(truth.second.length), trials)
    const [step] = session.steps
    if (!step) return session
    expect(round).toBeLessThan(400)
    for (const tried of done(step, truth, method, hung)) trials.push({ id: `t${trials.length}`, tried })
  }
}

const cable = fc.integer({ min: 2, max: 24 }).chain((n) =>
  fc.record({
    second: fc.shuffledSubarray([...Array(n).keys()], { minLength: n, maxLength: n }),
    broken: fc.option(fc.integer({ min: 0, max: n - 1 })),
  }),
)

test.each(['helper', 'tags', 'groups'] as const)(
  'step by step at both ends by %s: every sound cable is named whole, and of one with a broken core nobody wrongly',
  (method) => {
    fc.assert(
      fc.property(cable, (truth) => {
        const { found } = worked(truth, method)
        for (const m of found.named) expect(truth.second[m.first]).toBe(m.second)
        if (truth.broken === null) expect(found.named).toHaveLength(truth.second.length)
        if (truth.broken === null) expect(found.broken).toEqual([])
        for (const b of found.broken) {
          expect([null, truth.broken]).toContain(b.first)
          expect([null, truth.second[truth.broken!]]).toContain(b.second)
        }
        // With a helper or tags a core that answers nowhere stands at both ends by itself.
        if (truth.broken !== null && method !== 'groups')
          expect(found.broken).toEqual([{ first: truth.broken, second: truth.second[truth.broken] }])
        expect(found.doubts).toEqual([])
      }),
      { numRuns: method === 'groups' ? 60 : 200 },
    )
  },
)

test('two that touch are named as a pair, and all others whole: of any number of cores', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 14 }).chain((n) =>
        fc.record({
          second: fc.shuffledSubarray([...Array(n).keys()], { minLength: n, maxLength: n }),
          pair: fc.shuffledSubarray([...Array(n).keys()], { minLength: 2, maxLength: 2 }),
        }),
      ),
      ({ second, pair }) => {
        const touching = [pair[0]!, pair[1]!] as const
        const { found } = worked({ second, broken: null, touching }, 'groups')
        expect(found.touching).toEqual({ first: [...touching], second: touching.map((i) => second[i]) })
        expect(found.named).toHaveLength(second.length - 2)
        for (const m of found.named) expect(second[m.first]).toBe(m.second)
      },
    ),
    { numRuns: 60 },
  )
})

test('more cores than tags take a second walk, and none of the first round is read again', () => {
  const tags = bestTags(STOCK_ohm, USUAL_TAGS).length
  const second = Array.from({ length: tags + 5 }, (_, i) => (i * 7 + 3) % (tags + 5))
  expect(new Set(second).size).toBe(tags + 5)
  expect(worked({ second, broken: null }, 'tags').found.named).toHaveLength(tags + 5)
})

test('tags are chosen from what is at hand, for this wire and this meter; too few of them take more walks', () => {
  const long = { tolerance_ratio: 0.05, wire_ohm: 60, accuracy_ratio: 0.01, offset_ohm: 0.2 }
  const off: CoreTried[] = [
    { kind: 'method', method: 'tags' },
    { kind: 'off', end: 'first' },
    { kind: 'off', end: 'second' },
  ]
  const trials = off.map((tried, i) => ({ id: `t${i}`, tried }))
  const hangs = (wire_ohm: number) => {
    const [step] = sessionOf(sorting(6), trials, {
      stock_ohm: [100, 120, 150, 1000, 4700],
      conditions: { ...long, wire_ohm },
    }).steps
    return step?.do === 'hang' ? step.tags.map((t) => t.ohm) : []
  }
  expect(hangs(60)).toEqual([100, 1000, 4700])
  expect(hangs(1)).toEqual([100, 120, 150, 1000, 4700])
})

test('what two people say of one thing counts once, the latest; what is taken back does not count', () => {
  const said: CoreTried[] = [
    { kind: 'method', method: 'helper' },
    { kind: 'off', end: 'first' },
    { kind: 'off', end: 'first' },
    { kind: 'off', end: 'second' },
    { kind: 'heard', core: 0, at: 1 },
    { kind: 'heard', core: 1, at: 1 },
  ]
  const of = (all: readonly CoreTried[]) =>
    sessionOf(
      sorting(2),
      all.map((tried, i) => ({ id: `t${i}`, tried })),
    )
  expect(of(said).found).toMatchObject({ named: [], doubts: ['two_at_one'] })
  const corrected = of([...said, { kind: 'heard', core: 1, at: 0 }])
  expect(corrected.found.named).toEqual([
    { first: 0, second: 1 },
    { first: 1, second: 0 },
  ])
  expect(of(said.slice(0, 2)).steps).toEqual([{ do: 'off', at: 'second' }])
})

test('what is found is one change of the record: both ends of every core, the broken one open; a cable with other cores is left', () => {
  const { site } = demoProperty()
  const session = worked({ second: [2, 0, 1], broken: 1 }, 'helper')
  let made = 0
  const words = { today: '2026-05-02', broken: 'Broken', touching: 'Touches', flag: (n: number) => `no. ${n}` }
  const id = () => `n${made++}`
  const looks = { first: ['red', 'blue', 'white'], second: ['', '', 'red'] }
  const commands = namingCommands(site, sorting(3), { ...session, looks }, { ...words, id })!
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  const cable = Object.values(applied.value.site.cables).find((c) => c.tag === 'U1')!
  const far = cable.stops[1]!.id
  expect(Object.values(cable.cores).map((c) => [c.colour?.value, c.colourAt[far] ?? null, c.condition.state])).toEqual([
    ['red', null, 'sound'],
    ['blue', null, 'open'],
    ['white', 'no. 2', 'sound'],
  ])
  expect(namingCommands(site, { ...sorting(3), cable: 'K3' as never }, session, { ...words, id })).toBeNull()
})
