import loadHighs from 'highs'
import { demoProperty } from '../demo/quarry-lake'
import { gaugeText, printFigure } from '../core/quantity'
import { choiceSolver, size, type Mend, type SizingAnswer } from '../core/sizing'
import { emptySite, terminalAt, type Site } from '../core/site'
import { randomPlan, siteOf } from '../tests/random-plan'
import type { Speaker } from './index'
import { sayMend, sayWeakest, threadName } from './sizing'
import { translateHere } from './speaker'

const speaker: Speaker = {
  t: translateHere,
  gauge: gaugeText,
  wire: terminalAt,
  figure: (name, value) => printFigure(name, value, { length: 'm', temperature: 'C' }),
}
const whole = (sentence: string) => expect(sentence).toMatch(/^[A-Z][^{}]{12,}\.$/)
const withSizing = (site: Site, sizing: Partial<Site['settings']['sizing']>): Site => ({
  ...site,
  settings: { ...site.settings, sizing: { ...site.settings.sizing, ...sizing } },
})

test('every outcome of sizing is told in a whole sentence with its thread and its figures', async () => {
  const solve = choiceSolver(await loadHighs())
  const { site } = demoProperty()
  const outcomes = new Map<string, { answer: SizingAnswer; site: Site }>()
  const keep = (of: Site, answer: SizingAnswer) =>
    outcomes.set(
      answer.kind === 'sized'
        ? `sized ${answer.bound_cents === null ? 'plainly' : answer.bound_cents === answer.cost_cents ? 'proven' : 'near'}`
        : answer.kind,
      { answer, site: of },
    )
  keep(site, size(site, solve, { anew: true }))
  keep(site, size(site, solve))
  keep(site, size(withSizing(site, { school: 'reach_table' }), solve, { anew: true }))
  keep(
    site,
    size(
      withSizing(site, { school: 'reach_table', allowedDrop: { unit: 'V', value: 4 }, mainsLow_ratio: 0.18 }),
      solve,
      { anew: true },
    ),
  )
  keep(emptySite('none'), size(emptySite('none'), solve))
  const far = Array.from({ length: 60 }, (_, seed) => siteOf(randomPlan(seed, 6)))
    .map((of) => ({ of, answer: size(of, solve) }))
    .find((x) => x.answer.kind === 'infeasible')!
  keep(far.of, far.answer)
  expect([...outcomes.keys()].sort()).toEqual(
    expect.arrayContaining(['infeasible', 'nothing_free', 'nothing_wired', 'sized plainly', 'sized proven']),
  )
  for (const { answer, site: of } of outcomes.values()) whole(sayWeakest(answer, of, speaker))
  expect(sayWeakest(outcomes.get('sized proven')!.answer, site, speaker)).toContain('565.73')
  const infeasible = outcomes.get('infeasible')!
  expect(sayWeakest(infeasible.answer, infeasible.site, speaker)).toMatch(/lacks \d+\.\d\d V/)
})

test('each mend is told, with its amount in the property’s units', () => {
  const mends: Mend[] = [
    { code: 'master_first' },
    { code: 'together', together: 1 },
    { code: 'transformer', rating_VA: 75 },
    { code: 'thicker', gauge: '8 AWG' },
    { code: 'coil', inrush_A: 0.3456 },
    { code: 'nearer', by_m: 120 },
  ]
  const said = mends.map((m) => sayMend(m, speaker))
  said.forEach((sentence) => expect(sentence).toMatch(/^[A-Z][^{}]{8,}\.$/))
  expect(
    [said[2], said[3], said[4], said[5]].map((s, i) => s!.includes(['75 VA', '8 AWG', '0.35 A', '120 m'][i]!)),
  ).toEqual([true, true, true, true])
  expect(
    sayMend(mends[5]!, {
      ...speaker,
      figure: (name, value) => printFigure(name, value, { length: 'ft', temperature: 'F' }),
    }),
  ).toContain('394 ft')
})

test('a thread is called by its station, else by what its coil is called', () => {
  const { site } = demoProperty()
  expect([
    threadName(site, { station: 'A-12' }),
    threadName(site, { station: null, device: 'MV' }),
    threadName(site, { station: null, device: 'V3' }),
    threadName(site, { station: null, device: 'nothing' }),
  ]).toEqual(['Rim lookout', 'Master valve', 'V3', '?'])
})
