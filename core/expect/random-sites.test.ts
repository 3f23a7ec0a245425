import { plainOhms } from '../../tests/plain-ohms'
import { randomSite, seeded } from '../../tests/random-site'
import { COMMON_METER, type OhmsTest, type OhmsValue } from '../record'
import { terminalEnd, type ControllerId, type TerminalId } from '../site'
import {
  conclude,
  judge,
  judgeSweep,
  predict,
  sceneOf,
  sceneWith,
  type Conclusion,
  type SweepReading,
  type Scene,
  type Suspect,
} from './index'

const A = 'A' as ControllerId
const between = (from: string, to = 'C'): OhmsTest => ({
  kind: 'ohms',
  from: terminalEnd(A, from as TerminalId),
  to: terminalEnd(A, to as TerminalId),
})
const ohms = (scene: Scene, test: OhmsTest): number => {
  const e = predict(scene, test, COMMON_METER)
  return e.kind === 'ohms' ? e.expected_ohm : Infinity
}

test('on made-up properties with loops, parallel cores and doubled leads, every expectation is what the plain way gives', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const { site, stations } = randomSite(seed)
    const scene = sceneOf(site)
    const pairs = [...stations.map((s) => [s, 'C']), [stations[0]!, stations.at(-1)!]] as [string, string][]
    for (const [from, to] of pairs) {
      const [ours, plain] = [ohms(scene, between(from, to)), plainOhms(site, from, to)]
      if (!Number.isFinite(plain)) {
        expect(ours).toBe(Infinity)
        continue
      }
      if (Math.abs(ours / plain - 1) > 2e-6) throw new Error(`seed ${seed}, ${from}–${to}: ${ours} against ${plain}`)
    }
  }
})

test('the terms of a sum add up, exchanged leads of the meter read the same, and a band holds what it is about', () => {
  for (let seed = 100; seed < 140; seed++) {
    const { site, stations } = randomSite(seed)
    const scene = sceneOf(site)
    for (const station of stations) {
      const e = predict(scene, between(station), COMMON_METER)
      if (e.kind !== 'ohms') throw new Error(`seed ${seed}: ${e.kind}`)
      expect(e.terms.reduce((sum, t) => sum + t.ohm, 0)).toBeCloseTo(e.expected_ohm, 7)
      expect(e.low_ohm < e.expected_ohm && e.expected_ohm < e.high_ohm).toBe(true)
      const back = predict(scene, { kind: 'ohms', from: between(station).to, to: between(station).from }, COMMON_METER)
      expect(back.kind === 'ohms' && back.expected_ohm).toBeCloseTo(e.expected_ohm, 7)
      expect(judge(scene, between(station), { kind: 'ohm', ohm: e.expected_ohm }, COMMON_METER).verdict.code).toBe(
        'fits',
      )
    }
  }
})

type WiringLink = NonNullable<Scene['network']['elements'][number]['link']>
const covers = (suspects: readonly Suspect[], link: WiringLink, scene: Scene): boolean =>
  suspects.some((s) => {
    if (link.kind === 'leg') return s.kind === 'joint' && s.splice === link.splice
    if (link.kind === 'coil') return s.kind === 'coil' && s.device === link.device
    const { stops } = scene.site.cables[link.cable]!
    return (
      s.kind === 'stretch' &&
      s.cable === link.cable &&
      s.core === link.core &&
      s.from === stops[link.from]!.place &&
      s.to === stops[link.to]!.place
    )
  })
const suspectsIn = (conclusions: readonly Conclusion[]) =>
  conclusions.flatMap((c) => ('suspects' in c ? c.suspects : []))

/** A sweep of a property with one part changed, every reading rounded as a meter shows it. */
function sweepOf(actual: Scene, stations: readonly string[]): SweepReading[] {
  return stations.map((station) => {
    const ohm = ohms(actual, between(station))
    const value: OhmsValue =
      ohm > COMMON_METER.highest_ohm ? { kind: 'open' } : { kind: 'ohm', ohm: Math.round(ohm * 10) / 10 }
    return { test: between(station), value, meter: COMMON_METER }
  })
}

test('one part opened anywhere: where any reading tells, that part is among the suspects, and few others are', () => {
  let [told, suspects] = [0, 0]
  for (let seed = 200; seed < 260; seed++) {
    const { site, stations } = randomSite(seed, { loops: false })
    const scene = sceneOf(site)
    const random = seeded(seed)
    const wired = scene.network.elements.flatMap((e, i) => (e.link ? [i] : []))
    const broken = wired[Math.floor(random() * wired.length)]!
    const observations = sweepOf(sceneWith(scene, [{ kind: 'open', elements: [broken] }]), stations)
    const { judged, joint } = judgeSweep(scene, observations)
    if (judged.every((j) => j.verdict.code === 'fits')) {
      expect(joint.conclusions).toEqual([])
      continue
    }
    told++
    if (!covers(suspectsIn(joint.conclusions), scene.network.elements[broken]!.link!, scene))
      throw new Error(
        `seed ${seed}: ${JSON.stringify(scene.network.elements[broken]!.link)} is not in ${JSON.stringify(joint.conclusions)}`,
      )
    expect(joint.severalOrWrong).toBe(false)
    suspects += suspectsIn(joint.conclusions).length
  }
  expect(told).toBeGreaterThan(35)
  expect(suspects / told).toBeLessThan(9)
})

test('one joint gone to 25 Ω anywhere: where any reading tells, it is among the suspects', () => {
  let told = 0
  for (let seed = 300; seed < 350; seed++) {
    const { site, stations } = randomSite(seed, { loops: false })
    const scene = sceneOf(site)
    const random = seeded(seed)
    const legs = scene.network.elements.flatMap((e, i) => (e.link?.kind === 'leg' ? [i] : []))
    const poor = legs[Math.floor(random() * legs.length)]!
    const observations = sweepOf(sceneWith(scene, [{ kind: 'series', element: poor, ohm: 25 }]), stations)
    const { conclusions } = conclude(scene, observations)
    if (conclusions.length === 0) continue
    told++
    const link = scene.network.elements[poor]!.link!
    const naming = conclusions.filter(
      (c) => (c.kind === 'resistive' || c.kind === 'open') && covers(c.suspects, link, scene),
    )
    if (naming.length === 0)
      throw new Error(`seed ${seed}: ${JSON.stringify(link)} is not in ${JSON.stringify(conclusions)}`)
  }
  expect(told).toBeGreaterThan(25)
})

test('a sound property with its coils and its wire off by less than they may be has nothing concluded of it', () => {
  for (let seed = 400; seed < 440; seed++) {
    const { site, stations } = randomSite(seed)
    const scene = sceneOf(site)
    const random = seeded(seed)
    const off = scene.network.elements.flatMap((e, element) =>
      e.link?.kind === 'coil' ? [{ kind: 'series' as const, element, ohm: e.ohm * 0.05 * (2 * random() - 1) }] : [],
    )
    const { judged, joint } = judgeSweep(scene, sweepOf(sceneWith(scene, off), stations))
    expect(judged.map((j) => j.verdict.code)).toEqual(stations.map(() => 'fits'))
    expect(joint).toEqual({ conclusions: [], severalOrWrong: false })
  }
})

test('two leads exchanged, of threads that differ by more than their bands: the pair is named, and surely', () => {
  let told = 0
  for (let seed = 500; seed < 560; seed++) {
    const { site, stations } = randomSite(seed, { loops: false })
    const scene = sceneOf(site)
    const bands = stations.map((s) => {
      const e = predict(scene, between(s), COMMON_METER)
      return e.kind === 'ohms' ? e : null
    })
    const pair = stations
      .flatMap((a, i) => stations.slice(i + 1).map((b, k) => [a, b, i, i + 1 + k] as const))
      .find(
        ([, , i, j]) =>
          bands[i]!.expected_ohm > bands[j]!.high_ohm + 2 && bands[j]!.expected_ohm < bands[i]!.low_ohm - 2,
      )
    if (!pair) continue
    told++
    const [a, b] = pair
    const lead = (station: string) => (station === a ? b : station === b ? a : station)
    const observations = sweepOf(scene, stations).map((o, i) => ({
      ...o,
      value: sweepOf(scene, [lead(stations[i]!)])[0]!.value,
    }))
    const { conclusions } = conclude(scene, observations)
    expect(conclusions).toMatchObject([{ kind: 'swapped', sure: true }])
    expect([...(conclusions[0] as { terminals: readonly string[] }).terminals].sort()).toEqual([a, b].sort())
  }
  expect(told).toBeGreaterThan(15)
})

test('a short anywhere along a lead is told as a short, and within the wire’s tolerance of where it is', () => {
  let told = 0
  for (let seed = 600; seed < 640; seed++) {
    const { site, stations } = randomSite(seed, { loops: false })
    const scene = sceneOf(site)
    const random = seeded(seed)
    const station = stations[Math.floor(random() * stations.length)]!
    const find = (core: string) =>
      scene.network.elements.findIndex((e) => e.link?.kind === 'stretch' && e.link.core === core && e.link.from === 0)
    const [lead, back] = [
      find(`c${station}`),
      scene.network.elements.findIndex(
        (e, i) =>
          e.link?.kind === 'stretch' &&
          e.link.core === 'white' &&
          e.link.from === 0 &&
          e.link.cable === (scene.network.elements[find(`c${station}`)]!.link as { cable: string }).cable &&
          i >= 0,
      ),
    ]
    const along = 0.2 + 0.6 * random()
    const link = scene.network.elements[lead]!.link as Extract<WiringLink, { kind: 'stretch' }>
    if ('black' in site.cables[link.cable]!.cores) continue
    const { stops } = site.cables[link.cable]!
    const out_m = along * (stops[1]!.at_m as { value: number }).value
    const [observed] = sweepOf(
      sceneWith(scene, [{ kind: 'cross', first: lead, firstAlong: along, second: back, secondAlong: along, ohm: 0 }]),
      [station],
    )
    const verdict = judge(scene, between(station), observed!.value, COMMON_METER).verdict
    if (verdict.code !== 'short') throw new Error(`seed ${seed}: ${JSON.stringify(verdict)}`)
    told++
    // A meter that shows tenths leaves 0.05 Ω, which is a few metres of wire there and back; its own error of 0.2 Ω and
    // 1 % leaves a short that near to the coil to be told as one at the coil.
    const read = (observed!.value as { ohm: number }).ohm
    expect(Math.abs(verdict.distance_m - out_m)).toBeLessThan(
      verdict.atCoil ? (0.25 + 0.06 * read) / 0.016 : 0.05 / 0.016 + 0.1,
    )
  }
  expect(told).toBeGreaterThan(20)
})

test('explanations that fit equally well are told together: a coil with half its turns, or a second one beside it', () => {
  const { site, stations } = randomSite(3, { loops: false })
  const scene = sceneOf(site)
  const station = stations.find((s) => scene.hanging(A).get(s as TerminalId)!.coils.length === 1)!
  const element = scene.network.elements.findIndex((e) => e.link?.kind === 'coil' && e.link.device === `V${station}`)
  const half = sceneWith(scene, [{ kind: 'series', element, ohm: -scene.network.elements[element]!.ohm / 2 }])
  const { conclusions } = conclude(scene, sweepOf(half, stations))
  expect(conclusions).toHaveLength(1)
  expect([conclusions[0]!.kind, ...conclusions[0]!.or.map((o) => o.kind)].sort()).toEqual(['coil_part', 'second_coil'])
})
