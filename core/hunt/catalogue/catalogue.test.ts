import { partKey } from '../../record'
import { complex, size } from '../../circuit'
import { randomSite } from '../../../tests/random-site'
import type { ControllerId } from '../../site'
import { huntContextOf } from '../context'
import { CAUSES } from '../odds'
import { catalogueOf, changesOf, middleLike, modsOf, conductorRunsOf, type FaultHypothesis } from '.'

const A = 'A' as ControllerId
const prepared = (seed: number) => {
  const context = huntContextOf(randomSite(seed, { loops: false }).site, A)!
  return { context, catalogue: catalogueOf(context) }
}

test('grids: shares of a fault’s cells add up to one, sizes rise, positions lie along the run', () => {
  for (const seed of [2, 5, 11]) {
    const { catalogue } = prepared(seed)
    for (const f of catalogue.faults) {
      expect(f.variants.reduce((s, v) => s + v.share, 0)).toBeCloseTo(1, 9)
      expect(f.variants.every((v) => v.fault === f.index && catalogue.variants[v.index] === v)).toBe(true)
      for (const v of f.variants) if (v.along !== null) expect(v.along > 0 && v.along < 1).toBe(true)
      if (f.cause === 'series')
        expect(f.variants.map((v) => v.ohm!)).toEqual([...f.variants.map((v) => v.ohm!)].sort((a, b) => a - b))
      if (f.cause === 'leak' && f.where.kind === 'run') expect(new Set(f.variants.map((v) => v.along)).size).toBe(2)
      const sizes = new Set(f.variants.map((v) => v.ohm)).size
      if (['series', 'leak', 'coil_part'].includes(f.cause)) expect(sizes).toBeGreaterThanOrEqual(8)
      // Cores that lie apart touch more rarely, and are cut into fewer sizes.
      if (f.cause === 'touch') expect([4, 8]).toContain(sizes)
    }
  }
})

test('every core between two openings can be cut, corroded and leak; every coil fail in its ways; nothing is listed twice', () => {
  const { context, catalogue } = prepared(5)
  const causesAt = (key: string) => new Set(catalogue.faults.filter((f) => f.key === key).map((f) => f.cause))
  for (const { where } of conductorRunsOf(context))
    expect([...causesAt(partKey(where))].sort()).toEqual(['leak', 'open', 'series'])
  for (const device of context.coilElement.keys())
    for (const cause of ['coil_open', 'coil_short', 'coil_part', 'coil_dc', 'coil_kind'] as const)
      expect([device, cause, causesAt(`coil ${device}`).has(cause)]).toEqual([device, cause, true])
  const names = catalogue.faults.map(
    (f) =>
      `${f.key} ${f.cause} ${f.at} ${f.where.kind === 'pair' && f.cause === 'doubled' ? `${f.where.one} ${f.where.two}` : ''}`,
  )
  expect(new Set(names).size).toBe(names.length)
  expect(CAUSES.filter((c) => !catalogue.faults.some((f) => f.cause === c))).toEqual(
    ['sensor_open'].filter((c) => !catalogue.faults.some((f) => f.cause === c)),
  )
})

test('several changes of one element work one after the other: corroded and then cut is cut, corroded twice is both', () => {
  const {
    context: { meterState: state },
  } = prepared(3)
  const element = state.powered.parts.findIndex((p) => p.of.kind === 'stretch')
  const more = (ohm: number) => ({ element, to: (z: { re: number; im: number }) => ({ re: z.re + ohm, im: z.im }) })
  const own = state.powered.parts[element]!.z.re
  expect(changesOf(state, [more(5), more(7)])).toEqual([
    { element, z: { re: own + 12, im: state.powered.parts[element]!.z.im } },
  ])
  expect(changesOf(state, [more(5), { element, to: () => null }])).toEqual([{ element, z: null }])
  expect(changesOf(state, [{ element, to: () => null }, more(5)])).toEqual([{ element, z: null }])
})

test('what touches along a stretch that is cut or corroded moves to the nearer end of it; elsewhere it stays', () => {
  const {
    context: {
      meterState: { powered },
    },
  } = prepared(3)
  const ends = (e: number) => powered.parts[e]!
  const element = powered.parts.findIndex((p) => p.of.kind === 'stretch')
  const variant = (mods: FaultHypothesis['mods']): FaultHypothesis => ({
    index: 0,
    fault: 0,
    mods,
    shifted: [],
    share: 1,
    ohm: null,
    sd_ohm: null,
    along: null,
    leak: null,
  })
  const touching = (along: number) =>
    variant({ alters: [], joins: [{ p: { element, along }, q: { node: 0 }, ohm: 1 }] })
  const cut = variant({ alters: [{ element, to: () => null }], joins: [] })
  expect(modsOf([touching(0.2), cut], ends).joins).toEqual([{ p: { node: ends(element).a }, q: { node: 0 }, ohm: 1 }])
  expect(modsOf([cut, touching(0.8)], ends).joins[0]!.p).toEqual({ node: ends(element).b })
  expect(
    modsOf([touching(0.2), variant({ alters: [{ element: element + 1, to: () => complex(1) }], joins: [] })], ends)
      .joins[0]!.p,
  ).toEqual({ element, along: 0.2 })
  expect(modsOf([touching(0.2)], ends).joins[0]!.p).toEqual({ element, along: 0.2 })
})

test('of the places of one size the middle one stands for all', () => {
  const { catalogue } = prepared(5)
  const touch = catalogue.faults
    .filter((f) => f.cause === 'touch')
    .sort((a, b) => b.variants.length - a.variants.length)[0]!
  for (const v of touch.variants) {
    const middle = middleLike(touch, v.ohm)
    const like = touch.variants.filter((w) => w.ohm === v.ohm)
    expect([
      middle.ohm,
      Math.abs(middle.along! - 0.5) <= Math.min(...like.map((w) => Math.abs(w.along! - 0.5))) + 0.13,
    ]).toEqual([v.ohm, true])
  }
  expect(size(complex(3, 4))).toBe(5)
})
