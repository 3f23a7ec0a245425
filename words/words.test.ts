import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoProperty } from '../demo/quarry-lake'
import { describe as tell, judgeSweep, predict, sceneOf } from '../core/expect'
import { climateOf } from '../core/circuit'
import { gaugeText, printFigure } from '../core/quantity'
import { isOhms } from '../core/record'
import { appEn } from './app-en'
import { coreEn } from './core-en'
import { say, type Speaker } from './index'
import { wiringEn } from './wiring-en'
import { sayTerm } from './reading'
import { translateHere } from './speaker'

const ROOT = join(__dirname, '..')
const speaker: Speaker = { t: translateHere, gauge: gaugeText, figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }) }
const messages = { ...coreEn, ...appEn, ...wiringEn } as Record<string, unknown>
const at = (key: string) => key.split('.').reduce<unknown>((o, step) => (o as Record<string, unknown> | undefined)?.[step], messages)
const files = (folder: string): string[] => readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((e) =>
  (e.isDirectory() ? files(join(folder, e.name)) : /\.(ts|vue)$/.test(e.name) && !e.name.endsWith('.test.ts') ? [join(folder, e.name)] : []))

test('no section of the screen’s words hides one of the core’s', () => {
  expect(Object.keys(coreEn).filter((key) => key in appEn)).toEqual([])
  expect(Object.keys(wiringEn).filter((key) => key in appEn || key in coreEn)).toEqual([])
})

test('every message that the code asks for by name is there', () => {
  const missing: string[] = []
  let asked = 0
  for (const file of [...files('app'), ...files('words')]) {
    for (const [, key] of readFileSync(join(ROOT, file), 'utf8').matchAll(/\bt\('([a-zA-Z_]+(?:\.[a-zA-Z0-9_]+)+)'/g)) {
      asked++
      if (typeof at(key!) !== 'string') missing.push(`${file}: ${key}`)
    }
  }
  expect(missing).toEqual([])
  expect(asked).toBeGreaterThan(150)
})

test('every message of the screen is asked for somewhere, by name or by its section', () => {
  const code = [...files('app')].map((f) => readFileSync(join(ROOT, f), 'utf8')).join('\n')
  const keysOf = (o: object, path: string): string[] => Object.entries(o).flatMap(([k, v]) => (typeof v === 'string' ? [`${path}${k}`] : keysOf(v as object, `${path}${k}.`)))
  const unused = [...keysOf(appEn, ''), ...keysOf(wiringEn, '')].filter((key) => !code.includes(`'${key}'`) && !code.includes(`\`${key.split('.').slice(0, -1).join('.')}.\${`))
  expect(unused).toEqual([])
})

test('every refusal, finding and verdict code in the core has its sentence', () => {
  const core = [...files('core'), ...files('server'), ...files('cli')].map((f) => readFileSync(join(ROOT, f), 'utf8')).join('\n')
  const refusals = [...core.matchAll(/\brefusal\('([a-z_]+)'/g)].map((m) => `refusal.${m[1]}`)
  const rules = [...core.matchAll(/\bbreach\([a-zA-Z.]+, '(?:wrong|doubt)', '([a-z_]+)'/g)].map((m) => `breach.${m[1]}`)
  for (const misfit of ['too_many', 'too_few', 'too_thick', 'too_thin', 'too_full']) rules.push(`breach.holds_${misfit}`, `refusal.connector_${misfit}`)
  const findings = [...core.matchAll(/\bfinding\('(?:wrong|doubt|gap)', '([a-z_]+)'/g)].map((m) => `finding.${m[1]}`)
  expect(refusals.length).toBeGreaterThan(40)
  expect(findings.length).toBeGreaterThan(12)
  expect([...new Set([...refusals, ...findings, ...rules])].filter((key) => typeof at(key) !== 'string')).toEqual([])
})

test('what the demo has to say comes out whole: no code, no gap, no figure without its unit', () => {
  const { site, facts } = demoProperty()
  const said: string[] = []
  for (const [id, visit] of Object.entries(facts.visits)) {
    const scene = sceneOf(site, climateOf(site, visit.ground_C))
    const observations = Object.values(facts.readings).filter((r) => r.visit === id).filter(isOhms)
    const { joint } = judgeSweep(scene, observations)
    for (const d of tell(scene, visit.controller, observations, joint)) said.push(say({ ...d.says, code: `conclusion.${d.says.code}` }, speaker), say({ ...d.next, code: `next.${d.next.code}` }, speaker))
    for (const o of observations) {
      const e = predict(scene, o.test, o.meter)
      if (e.kind === 'ohms') said.push(...e.terms.map((term) => sayTerm(term, site, scene.climate, speaker)))
    }
  }
  expect(said.length).toBeGreaterThan(100)
  for (const sentence of said) {
    expect(sentence).not.toMatch(/[{}]|undefined|NaN|\b(conclusion|next|term)\.[a-z_]+/)
    expect(sentence.trim().length).toBeGreaterThan(4)
  }
})
