import { plainOhms } from '../../tests/plain-ohms'
import { randomSite, seeded } from '../../tests/random-site'
import { COMMON_METER, type OhmsTest, type OhmsValue } from '../record'
import { terminalEnd, type ControllerId, type TerminalId } from '../site'
import { conclude, judge, judgeSweep, predict, sceneOf, sceneWith, type Conclusion, type Observation, type Scene, type Suspect } from './index'

const A = 'A' as ControllerId
const between = (from: string, to = 'C'): OhmsTest => ({ kind: 'ohms', from: terminalEnd(A, from as TerminalId), to: terminalEnd(A, to as TerminalId) })
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
      if (!Number.isFinite(plain)) { expect(ours).toBe(Infinity); continue }
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
      expect(judge(scene, between(station), { kind: 'ohm', ohm: e.expected_ohm }, COMMON_METER).verdict.code).toBe('fits')
    }
  }
})

type WiringLink = NonNullable<Scene['network']['elements'][number]['link']>
const covers = (suspects: readonly Suspect[], link: WiringLink, scene: Scene): boolean => suspects.some((s) => {
  if (link.kind === 'leg') return s.kind === 'joint' && s.splice === link.splice
  if (link.kind === 'coil') return s.kind === 'coil' && s.device === link.device
  const { stops } = scene.site.cables[link.cable]!
  return s.kind === 'stretch' && s.cable === link.cable && s.core === link.core && s.from === stops[link.from]!.place && s.to === stops[link.to]!.place
})
const suspectsIn = (conclusions: readonly Conclusion[]) => conclusions.flatMap((c) => ('suspects' in c ? c.suspects : []))

/** A sweep of a property with one part changed, every reading rounded as a meter shows it. */
function sweepOf(actual: Scene, stations: readonly string[]): Observation[] {
  return stations.map((station) => {
    const ohm = ohms(actual, between(station))
    const value: OhmsValue = ohm > COMMON_METER.highest_ohm ? { kind: 'open' } : { kind: 'ohm', ohm: Math.round(ohm * 10) / 10 }
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
    if (judged.every((j) => j.verdict.code === 'fits')) { expect(joint.conclusions).toEqual([]); continue }
    told++
    if (!covers(suspectsIn(joint.conclusions), scene.network.elements[broken]!.link!, scene))
      throw new Error(`seed ${seed}: ${JSON.stringify(scene.network.elements[broken]!.link)} is not in ${JSON.stringify(joint.conclusions)}`)
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
    const naming = conclusions.filter((c) => (c.kind === 'resistive' || c.kind === 'open') && covers(c.suspects, link, scene))
    if (naming.length === 0) throw new Error(`seed ${seed}: ${JSON.stringify(link)} is not in ${JSON.stringify(conclusions)}`)
  }
  expect(told).toBeGreaterThan(25)
})

test('a sound property with its coils and its wire off by less than they may be has nothing concluded of it', () => {
  for (let seed = 400; seed < 440; seed++) {
    const { site, stations } = randomSite(seed)
    const scene = sceneOf(site)
    const random = seeded(seed)
    const off = scene.network.elements.flatMap((e, element) => (e.link?.kind === 'coil' ? [{ kind: 'series' as const, element, ohm: e.ohm * 0.05 * (2 * random() - 1) }] : []))
    const { judged, joint } = judgeSweep(scene, sweepOf(sceneWith(scene, off), stations))
    expect(judged.map((j) => j.verdict.code)).toEqual(stations.map(() => 'fits'))
    expect(joint).toEqual({ conclusions: [], severalOrWrong: false })
  }
})
