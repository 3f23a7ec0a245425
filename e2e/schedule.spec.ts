import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { programsOf, startsText } from '../core/schedule'
import type { ControllerId } from '../core/site'
import { beginWork, counting, doStep, openFile, ownProperty, pick, pressByKey, seriousFindings, stored } from './kit'
import { readPdf } from './pdf'

const DOME = 'D' as ControllerId
const GATEHOUSE = 'A' as ControllerId
const BOATHOUSE = 'S' as ControllerId

test('programs of twelve stations by keyboard within 150 keys; refused where they are none; undone; a reload keeps them', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Twelve programs')
  await page.goto(`/p/${id}/plan/schedule?controller=D`)
  await expect(page.getByText('No program of this controller is on record.')).toBeVisible()
  const keys = counting(page)
  await keys.press('Tab')
  await keys.press('Enter') // skip to the work
  const focused = () => page.evaluate(() => document.activeElement?.textContent?.trim())
  for (let i = 0; i < 12 && (await focused()) !== 'Add a program'; i++) await keys.press('Tab')
  await keys.press('Enter')
  await expect(page.getByLabel('Starts, program A')).toBeFocused()
  for (const text of ['530 1900', 'odd', '80']) {
    await keys.type(text)
    await keys.press('Enter')
  }
  for (let i = 0; i < 12; i++) {
    await keys.type(String(5 + i))
    await keys.press('Enter')
  }
  expect(keys.count()).toBeLessThanOrEqual(150)
  await expect(page.getByLabel('Minutes of station 12 in program A')).toHaveValue('16')
  await expect(page.getByText('All saved')).toBeVisible()
  const [program] = programsOf((await stored(request, id)).site, DOME)
  expect([program!.name, startsText(program!.starts_s), program!.days, program!.seasonal_pct]).toEqual([
    'A',
    '05:30 19:00',
    { kind: 'odd' },
    80,
  ])
  expect(program!.runs.map((r) => [r.station.address, r.minutes])).toEqual(
    Array.from({ length: 12 }, (_, i) => [i + 1, 5 + i]),
  )

  // A slip is said where it stands, and nothing of it is kept.
  const days = page.getByLabel('Days, program A')
  await days.fill('sometimes')
  await days.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“sometimes” is none of')
  await expect(days).toHaveAttribute('aria-invalid', 'true')
  await days.press('Escape')
  await expect(days).toHaveValue('odd')

  await page.reload()
  await expect(page.getByLabel('Minutes of station 12 in program A')).toHaveValue('16')
  await page.getByRole('button', { name: 'Take program A away' }).click()
  await expect(page.getByText('No program of this controller is on record.')).toBeVisible()
  await expect(page.getByText('All saved')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByLabel('Minutes of station 12 in program A')).toHaveValue('16')
})

test('what is wrong has its press; what could be other is looked at and taken; CSV, calendar and the sheet for the door', async ({
  page,
  request,
  browser,
}) => {
  const id = await ownProperty(request, 'Mended schedule')
  await page.goto(`/p/${id}/plan/schedule?controller=S`)
  await expect(page.getByRole('heading', { name: '3 things are wrong' })).toBeVisible()
  await page.getByRole('button', { name: 'Keep them apart' }).click()
  await expect(page.getByRole('heading', { name: 'Nothing is wrong with it.' })).toBeVisible()
  const order = async (controller: ControllerId) =>
    programsOf((await stored(request, id)).site, controller).map((p) => p.runs.map((r) => r.station.terminal).join(' '))
  await expect.poll(() => order(BOATHOUSE)).toEqual(['1 2 3 5 4 6'])

  // As it was before the first change of all, beside what runs now.
  await page.locator('#schedule-beside').click()
  await page
    .getByRole('option', { name: /^as it was before/ })
    .last()
    .click()
  await expect(page.locator('figure .was').first()).toBeVisible()
  await pick(page.locator('#schedule-beside'), 'nothing')
  await expect(page.locator('figure .was')).toHaveCount(0)

  await page.getByRole('button', { name: 'A Gatehouse' }).click()
  await page.getByLabel('From', { exact: true }).fill('2027-01-04')
  await expect(page.getByText('The start of B at 2027-01-04 22:00 waits')).toBeVisible()
  const before = await page.locator('figure .band').count()
  await page.getByRole('button', { name: 'A day', exact: true }).click()
  // The last minute of a Monday: the start that waited has come to its second station.
  await page.getByRole('slider').focus()
  await page.keyboard.press('End')
  await expect(page.getByText('17 Jetty planters on:')).toBeVisible()
  await expect(page.locator('.at .figure').first()).toContainText('V, needs')
  await page.getByRole('button', { name: 'Look at it' }).first().click()
  await expect(page.locator('figure .was').first()).toBeVisible()
  expect(before).toBeGreaterThan(50)
  await page.getByRole('button', { name: 'Take it' }).first().click()
  await expect(page.getByRole('heading', { name: 'Nothing is wrong with it.' })).toBeVisible()
  await expect(page.getByLabel('Starts, program A')).toHaveValue('20:00')

  // Out as a list, one figure changed there, in again; a wrong line changes nothing.
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as CSV' }).click()
  const csv = readFileSync(await (await saving).path(), 'utf8')
  const file = (text: string) => ({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await openFile(page, 'Open a CSV', file(csv.replace(',3,35', ',77,35')))
  await expect(page.getByRole('alert')).toContainText('no station 77')
  await openFile(page, 'Open a CSV', file(csv.replace(',3,35', ',3,36')))
  await expect(page.getByLabel('Minutes of station 3 in program B')).toHaveValue('36')

  const calendar = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Calendar (.ics)' }).click()
  const ics = readFileSync(await (await calendar).path(), 'utf8')
  // Eight in the evening at eight hours behind UTC, on the first Monday.
  expect(ics).toContain('DTSTART:20270105T040000Z')
  expect(ics).toMatch(/SUMMARY:A Gatehouse: program A\\, stations 11/)
  const printing = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Sheet for the door (PDF)' }).click()
  const [sheet] = await readPdf(browser, await printing)
  expect(sheet!.text).toContain('Programs of A Gatehouse')
  expect(sheet!.text).toContain('20:00')
  expect(programsOf((await stored(request, id)).site, GATEHOUSE)).toHaveLength(3)
})

test('a wet check: its walk is the shortest, a zone is one tap, and what was seen stands with the next one', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Wet check')
  await page.goto(`/p/${id}/test/wet?controller=S`)
  await expect(page.getByText('No order is shorter.')).toBeVisible()
  await expect(page.getByText('Nothing yet. Each zone that runs is one tap')).toBeVisible()
  await page.getByLabel('Minutes to look at a zone').fill('3')
  await page.getByLabel('Minutes to look at a zone').press('Enter')
  await expect(page.getByText(/1,\s4\smin/)).toBeVisible()
  await beginWork(page, page, 'Wet check')
  await doStep(page)
  await doStep(page, 'A broken head')
  await page.goto(`/p/${id}/test/wet?controller=S`)
  await expect(page.getByRole('listitem').filter({ hasText: ': A broken head' })).toBeVisible()
})

test('a sequencer out of step: what watered tells which comes next, a turn counts, one is taken back; Diagnose leads there', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Out of step')
  await page.goto(`/p/${id}/controller?controller=S`)
  const part = page.locator('#sequencers')
  await expect(part).toContainText('Q1 in S3, on terminals 5 + 6')
  await expect(part).toContainText('50 %')
  await part.getByRole('button', { name: 'W5 watered' }).click()
  await expect(part).toContainText('W6 100 %')
  await expect(part).toContainText('Put terminal 6 on and off until W6 waters')
  await part.getByRole('button', { name: 'It had a turn' }).click()
  await expect(part).toContainText('W5 100 %')
  await part.getByRole('button', { name: 'Take back' }).click()
  await expect(part).toContainText('W6 100 %')
  await part.getByRole('button', { name: 'Power was out, or somebody was there' }).click()
  await expect(part).toContainText('50 %')
  await page.reload()
  await expect(part).toContainText('50 %')
  expect(await seriousFindings(page)).toEqual([])

  await page.goto(`/p/${id}/diagnose`)
  await page.getByRole('button', { name: /Begin a hunt|New hunt/ }).click()
  await pick(page.locator('#sweep-controller'), 'S Boathouse')
  await page.getByLabel('Your name').fill('Ann')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await page.getByRole('button', { name: 'It does something else' }).click()
  await page.getByRole('button', { name: 'The wrong zone runs', exact: true }).click()
  await pick(page.getByLabel('Zone', { exact: true }), /Kiosk bed/)
  await expect(page.getByText('Kiosk bed is behind sequencer Q1: it may only be out of step.')).toBeVisible()
  await page.getByRole('link', { name: 'To the sequencer' }).click()
  await expect(part).toContainText('Into step')
})

test('a sequencer fitted in a box: what is made of it, its programs moved along, and the year that it then has', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Fitted')
  await page.goto(`/p/${id}/boxes/B3`)
  const form = page.locator('details').filter({ hasText: 'Fit a sequencer' })
  await form.locator('summary').click()
  await form.getByRole('checkbox').first().click()
  await expect(form).toContainText('2 outputs, ')
  await expect(form).toContainText('are joined at the controller')
  await form.getByRole('radio', { name: /^One for all/ }).click()
  await expect(form).toContainText('runs them all, with a run for each in the programs')
  await form.getByRole('button', { name: 'Write it down as fitted' }).click()
  await expect(form.getByRole('status')).toContainText('Q2 is on record')
  await expect.poll(async () => Object.keys((await stored(request, id)).site.devices)).toContain('Q2')

  await page.goto(`/p/${id}/plan/schedule?controller=S`)
  await page.getByRole('button', { name: 'Keep them apart' }).click()
  const year = page.locator('details').filter({ hasText: 'A year at the sequencer' })
  await year.locator('summary').click()
  await expect(year).toContainText(/On \d+ of 365 days a valve has the water of another|on \d+ of 365 days/)
  await pick(year.locator('#y-out'), '0')
  await pick(year.locator('#y-hand'), '0')
  await expect(year).toContainText('on every one of 365 days each valve has its own water')
})

test('the programs run on a simulated property: hours go by in seconds, the power fails, a screw is run by hand', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Simulated')
  await page.goto(`/p/${id}/plan/schedule?controller=S`)
  const part = page.locator('details').filter({ hasText: 'Run it on a simulated property' })
  await part.locator('summary').click()
  await part.getByRole('button', { name: 'Begin on the first day shown' }).click()
  await pick(part.locator('#try-speed'), '21600 times as fast')
  await expect(
    part
      .getByRole('listitem')
      .filter({ hasText: /05:00:00\s+1 .*→\s+W1/ })
      .first(),
  ).toBeVisible({ timeout: 20_000 })
  await expect(
    part
      .getByRole('listitem')
      .filter({ hasText: /→\s+W[56]\s*$/ })
      .first(),
  ).toBeVisible({ timeout: 20_000 })
  await part.getByRole('button', { name: 'Hold' }).click()
  await pick(part.locator('#try-speed'), '60 times as fast')
  await pick(part.locator('#try-hand'), /^2 /)
  await part.getByRole('button', { name: 'Run it two minutes' }).click()
  await part.getByRole('button', { name: 'Go on' }).click()
  await expect(part.getByRole('listitem').first()).toContainText('→ W2')
})

for (const [width, height, theme] of [
  [1280, 800, 'light'],
  [390, 844, 'dark'],
] as const)
  test(`schedule: nothing serious for axe, nothing off the side, by keyboard, at ${width} × ${height}, ${theme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize({ width, height })
    await page.emulateMedia({ colorScheme: theme })
    const id = await ownProperty(request, `Schedule axe ${theme}`)
    await page.goto(`/p/${id}/plan/schedule?controller=S`)
    await expect(page.locator('figure .band').first()).toBeVisible()
    for (const summary of await page.locator('details > summary').all()) await summary.click()
    expect(await seriousFindings(page)).toEqual([])
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    await page.goto(`/p/${id}/test/wet?controller=A`)
    await expect(page.getByText('No order is shorter.')).toBeVisible()
    expect(await seriousFindings(page)).toEqual([])
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    await page.goto(`/p/${id}/plan/schedule?controller=S`)
    await expect(page.locator('figure .band').first()).toBeVisible()
    await pressByKey(page, /^Keep them apart$/, 120)
    await expect(page.getByRole('heading', { name: 'Nothing is wrong with it.' })).toBeVisible()
  })
