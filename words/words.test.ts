import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoProperty } from '../demo/quarry-lake'
import { describe as tell, judgeSweep, predict, sceneOf } from '../core/expect'
import { climateOf } from '../core/circuit'
import { gaugeText, printFigure } from '../core/quantity'
import { isOhms } from '../core/record'
import { controllerRules, modulesOf } from '../core/cabinet'
import { applyBatch, looseCommand, terminalAt, type Command, type ControllerId } from '../core/site'
import { boxJoints, brokenRules, connectorCommands } from '../core/splice'
import { appEn } from './app-en'
import { sayBreach } from './breach'
import { checkEn } from './check-en'
import { coreEn } from './core-en'
import { coresEn } from './cores-en'
import { say, sayRefusal, type Speaker } from './index'
import { failuresEn } from './failures-en'
import { huntEn } from './hunt-en'
import { officeEn } from './office-en'
import { ownEn } from './own-en'
import { photosEn } from './photos-en'
import { printEn } from './print-en'
import { dialogsEn } from './dialogs-en'
import { laterEn } from './later-en'
import { procedureEn } from './procedure-en'
import { workEn } from './work-en'
import { traceEn } from './trace-en'
import { pathEn } from './path-en'
import { pathFindEn } from './path-find-en'
import { pathRefusalsEn } from './path-refusals-en'
import { refusalsEn } from './refusals-en'
import { rulesEn } from './rules-en'
import { quotePageEn } from './quote-page-en'
import { quoteRefusalsEn } from './quote-en'
import { repairEn } from './repair-en'
import { repairPageEn } from './repair-page-en'
import { scheduleEn, scheduleRefusalsEn } from './schedule-en'
import { schedulePageEn } from './schedule-page-en'
import { sequencerEn } from './sequencer-en'
import { timelineEn } from './timeline-en'
import { repairViewEn } from './repair-view-en'
import { sentEn } from './sent-en'
import { sightingEn } from './sighting-en'
import { symptomEn } from './symptom-en'
import { wiringEn } from './wiring-en'
import { sayTerm } from './reading'
import { translateHere } from './speaker'

const ROOT = join(__dirname, '..')
const speaker: Speaker = {
  t: translateHere,
  gauge: gaugeText,
  wire: terminalAt,
  figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }),
}
const messages = {
  ...coreEn,
  ...checkEn,
  ...appEn,
  ...wiringEn,
  ...huntEn,
  ...symptomEn,
  ...procedureEn,
  ...workEn,
  ...printEn,
  ...photosEn,
  ...officeEn,
  ...failuresEn,
  ...ownEn,
  ...coresEn,
  ...traceEn,
  ...pathEn,
  ...pathFindEn,
  ...sequencerEn,
  ...repairEn,
  ...repairPageEn,
  ...sightingEn,
  ...sentEn,
  ...timelineEn,
  ...quotePageEn,
  ...laterEn,
  ...dialogsEn,
  ...repairViewEn,
  plan: { ...appEn.plan, ...laterEn.plan },
  schedule: { ...scheduleEn.schedule, ...schedulePageEn.schedule },
  refusal: { ...coreEn.refusal, ...refusalsEn, ...pathRefusalsEn, ...scheduleRefusalsEn, ...quoteRefusalsEn },
} as Record<string, unknown>
const at = (key: string) =>
  key.split('.').reduce<unknown>((o, step) => (o as Record<string, unknown> | undefined)?.[step], messages)
const files = (folder: string): string[] =>
  readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? files(join(folder, e.name))
      : /\.(ts|vue)$/.test(e.name) && !e.name.endsWith('.test.ts')
        ? [join(folder, e.name)]
        : [],
  )

test('no section of the screen’s words hides one of the core’s', () => {
  expect(Object.keys(coreEn).filter((key) => key in appEn)).toEqual([])
  expect(
    [
      wiringEn,
      huntEn,
      symptomEn,
      procedureEn,
      workEn,
      printEn,
      photosEn,
      officeEn,
      failuresEn,
      ownEn,
      coresEn,
      traceEn,
      pathEn,
      pathFindEn,
      scheduleEn,
      sequencerEn,
      repairEn,
      repairPageEn,
      sightingEn,
      sentEn,
      timelineEn,
      quotePageEn,
    ]
      .flatMap((o) => Object.keys(o))
      .filter((key) => key in appEn || key in coreEn || (key in wiringEn && key in huntEn)),
  ).toEqual([])
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

test('every message can be read by the messages library: no stray @, | or brace', () => {
  const all: string[] = []
  const walk = (o: object, path: string): void => {
    for (const [k, v] of Object.entries(o))
      if (typeof v === 'string') all.push(`${path}${k}`)
      else walk(v as object, `${path}${k}.`)
  }
  walk({ ...coreEn, ...rulesEn, ...checkEn, ...huntEn, ...procedureEn }, '')
  expect(all.length).toBeGreaterThan(400)
  for (const key of all) expect([key, translateHere(key, {}).length >= 0]).toEqual([key, true])
})

test('every message of the screen is asked for somewhere, by name or by its section', () => {
  const code = [...files('app'), ...files('words')].map((f) => readFileSync(join(ROOT, f), 'utf8')).join('\n')
  const keysOf = (o: object, path: string): string[] =>
    Object.entries(o).flatMap(([k, v]) =>
      typeof v === 'string' ? [`${path}${k}`] : keysOf(v as object, `${path}${k}.`),
    )
  const unused = [
    ...keysOf(appEn, ''),
    ...keysOf(laterEn, ''),
    ...keysOf(dialogsEn, ''),
    ...keysOf(repairViewEn, ''),
    ...keysOf(wiringEn, ''),
    ...keysOf(huntEn, ''),
    ...keysOf(symptomEn, ''),
    ...keysOf(procedureEn, ''),
    ...keysOf(workEn, ''),
    ...keysOf(printEn, ''),
    ...keysOf(photosEn, ''),
    ...keysOf(officeEn, ''),
    ...keysOf(failuresEn, ''),
    ...keysOf(coresEn, ''),
    ...keysOf(traceEn, ''),
    ...keysOf(pathEn, ''),
    ...keysOf(pathFindEn, ''),
    ...keysOf(scheduleEn, ''),
    ...keysOf(schedulePageEn, ''),
    ...keysOf(sequencerEn, ''),
    ...keysOf(repairEn, ''),
    ...keysOf(repairPageEn, ''),
    ...keysOf(sightingEn, ''),
    ...keysOf(sentEn, ''),
    ...keysOf(timelineEn, ''),
    ...keysOf(quotePageEn, ''),
  ].filter((key) => !code.includes(`'${key}'`) && !code.includes(`\`${key.split('.').slice(0, -1).join('.')}.\${`))
  expect(unused).toEqual([])
})

test('every refusal, finding and verdict code in the core has its sentence', () => {
  const core = [...files('core'), ...files('server'), ...files('cli')]
    .map((f) => readFileSync(join(ROOT, f), 'utf8'))
    .join('\n')
  const refusals = [...core.matchAll(/\brefusal\('([a-z_]+)'/g)].map((m) => `refusal.${m[1]}`)
  const rules = [...core.matchAll(/\bbreach\([a-zA-Z.]+, '(?:wrong|doubt)', '([a-z_]+)'/g)].map((m) => `breach.${m[1]}`)
  for (const misfit of ['too_many', 'too_few', 'too_thick', 'too_thin', 'too_full'])
    rules.push(`breach.holds_${misfit}`, `refusal.connector_${misfit}`)
  const findings = [...core.matchAll(/\bfinding\('(?:wrong|doubt|gap)', '([a-z_]+)'/g)].map((m) => `finding.${m[1]}`)
  expect(refusals.length).toBeGreaterThan(40)
  expect(findings.length).toBeGreaterThan(12)
  expect([...new Set([...refusals, ...findings, ...rules])].filter((key) => typeof at(key) !== 'string')).toEqual([])
})

test('what the demo has to say comes out whole: no code, no gap, no figure without its unit', () => {
  const { site, facts } = demoProperty()
  const said: string[] = []
  for (const [id, job] of Object.entries(facts.jobs)) {
    const scene = sceneOf(site, climateOf(site, job.ground_C))
    const observations = Object.values(facts.readings)
      .filter((r) => r.job === id)
      .filter(isOhms)
    const { joint } = judgeSweep(scene, observations)
    for (const d of tell(scene, job.controller, observations, joint))
      said.push(
        say({ ...d.says, code: `conclusion.${d.says.code}` }, speaker),
        say({ ...d.next, code: `next.${d.next.code}` }, speaker),
      )
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

test('every broken rule of boxes and controllers comes out as a whole sentence, with its mend and its figures', () => {
  const { site } = demoProperty()
  const set = (
    collection: 'splices' | 'devices' | 'cables' | 'controllers' | 'pointsOfConnection',
    id: string,
    field: string,
    value: unknown,
  ): Command => looseCommand({ do: 'set', in: collection, id, field, value })
  const core = site.cables['K1' as never] as { cores: Record<string, object> }
  const joint = (box: string, kind: string) =>
    boxJoints(site, box as never).find((j) => j.holds[0]!.record.connector === kind)!.id
  const broken = applyBatch(site, [
    set('splices', joint('B2', 'nut_and_gel_tube'), 'connector', 'gel_crimp_3'),
    set('splices', joint('B3', 'gel_nut'), 'connector', 'bare_twist'),
    set('splices', joint('B4', 'gel_nut'), 'connector', 'dry_nut'),
    set('splices', joint('B5', 'gel_nut'), 'connector', 'unknown'),
    set('cables', 'K1', 'cores', {
      ...core.cores,
      pink: { ...core.cores.pink, colour: { value: 'red', how: 'seen' }, colourAt: { B6: 'black' } },
    }),
    set('cables', 'K3', 'filler', 'string'),
    set('devices', 'V3', 'leads', { a: 'red', b: 'black' }),
    set('devices', 'V3', 'coilKind', null),
    {
      do: 'remove',
      in: 'splices',
      id: Object.entries(site.splices).find(([, s]) => s.connector === 'cap' && s.place === ('B7' as never))![0],
    },
    set('controllers', 'A', 'masterLimit_A', 0.1),
    set('controllers', 'A', 'sensor', { closedBy: 'nothing' }),
    set('controllers', 'A', 'bays', [
      { tag: '1' },
      { tag: '2', module: { kind: 'decoders', stations: 9 } },
      { tag: '3', module: { kind: 'stations', stations: 4 } },
    ]),
    set('pointsOfConnection', 'lake', 'reached', { masterValve: 'path' }),
  ])
  if (!broken.ok) throw new Error(JSON.stringify(broken.refusals))
  const rules = brokenRules(broken.value.site)
  expect(new Set(rules.map((r) => r.code)).size).toBeGreaterThanOrEqual(9)
  const controller = Object.keys(site.controllers)[0] as ControllerId
  const sentences = [
    ...rules.map((r) => sayBreach(r, speaker)),
    ...[...controllerRules(broken.value.site, controller), ...modulesOf(broken.value.site, controller).broken].map(
      (r) => sayRefusal(r, speaker),
    ),
  ]
  for (const sentence of sentences) {
    expect(sentence).toMatch(/^[A-Z0-9].*[.)]$/)
    expect(sentence).not.toMatch(/[{}]|undefined|NaN|_|^(breach|refusal)\./)
  }
  for (const connector of ['gel_crimp_3', 'nut_and_gel_tube'] as const) {
    const refused = connectorCommands(site, joint('B2', 'nut_and_gel_tube'), connector)
    if (!refused.ok)
      expect(sayRefusal(refused.refusals[0]!, speaker)).toBe(
        'A gel crimp, 3 ports: it would hold 5 conductors, and takes 3. Chain several with short jumpers, or use a larger kind.',
      )
  }
})

test('a sentence names a field in words: every field of a property’s file has some', () => {
  const schema: unknown = JSON.parse(readFileSync(join(ROOT, 'docs/site-file.schema.json'), 'utf8'))
  const namesIn = (node: unknown): string[] =>
    typeof node !== 'object' || node === null
      ? []
      : Object.entries(node).flatMap(([key, value]) => [
          ...(key === 'properties' ? Object.keys(value as object) : []),
          ...namesIn(value),
        ])
  const unnamed = new Set(namesIn(schema).filter((name) => !(name in coreEn.field)))
  expect([...unnamed].filter((name) => !['site', 'about'].includes(name))).toEqual([])
  const said = sayRefusal({ code: 'missing', path: ['site', 'settings', 'soundSplice_ohm'], params: {} }, speaker)
  expect(said).toContain('Settings, ohms of a sound joint is missing.')
})
