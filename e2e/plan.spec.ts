import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { rowsOf } from '../core/plan'
import { counting, ownProperty, pick, pressByKey, seriousFindings, stored } from './kit'

test('a 12-station property from a pasted list, no pointer, within 250 keys; undone and done again; reload keeps it', async ({
  page,
  context,
  request,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'New property' })).toBeVisible()
  await page.evaluate(
    (text) => navigator.clipboard.writeText(text),
    Array.from({ length: 12 }, (_, i) => `${i + 1} Bed ${i + 1}`).join('\n'),
  )
  const keys = counting(page)
  for (
    let i = 0;
    i < 20 &&
    !(await page.evaluate(
      () =>
        document.activeElement instanceof HTMLButtonElement && document.activeElement.textContent === 'New property',
    ));
    i++
  )
    await keys.press('Tab')
  await keys.press('Enter')
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused()
  await keys.type('Hill garden')
  await keys.press('Enter')
  await expect(page.getByLabel('A line for each station')).toBeFocused()
  await keys.press('Control+v')
  await expect(page.getByRole('button', { name: 'Take in 12 stations' })).toBeVisible()
  await keys.press('Control+Enter')
  await expect(page.locator('#cell-0-box')).toBeFocused()
  for (let i = 0; i < 12; i++) {
    await keys.type(`B${1 + (i >> 1)}`)
    await keys.press('Enter')
    await expect(page.locator(`#cell-${i}-box`)).toHaveValue(`B${1 + (i >> 1)}`)
  }
  // Distances, every second row: both valves of a box lie equally far.
  await page.locator('#cell-0-at_m').focus()
  for (let i = 0; i < 6; i++) {
    await keys.type(String(30 + 25 * i))
    await keys.press('Enter')
    await expect(page.locator(`#cell-${2 * i}-at_m`)).toHaveValue(String(30 + 25 * i))
    await keys.press('Enter')
  }
  await page.locator('#cell-0-coil').focus()
  for (let i = 0; i < 12; i++) {
    await keys.type('33')
    await keys.press('Enter')
    await expect(page.locator(`#cell-${i}-coil`)).toHaveValue('33 Ω')
  }
  console.log(`keys: ${keys.count()}`)
  expect(keys.count()).toBeLessThanOrEqual(250)
  const id = page.url().split('/p/')[1]!.split('/')[0]!
  await expect(page.getByText('All saved')).toBeVisible()
  const rows = rowsOf((await stored(request, id)).site)
  expect(rows.map((r) => [r.station, r.name, r.box, r.at_m, r.coil])).toEqual(
    Array.from({ length: 12 }, (_, i) => [
      String(i + 1),
      `Bed ${i + 1}`,
      `B${1 + (i >> 1)}`,
      30 + 25 * (i >> 1),
      '33 Ω',
    ]),
  )
  await page.reload()
  await expect(page.locator('#cell-11-at_m')).toHaveValue('155')
  // A bad figure stays in its cell with a sentence; an untouched cell lets undo through to the property.
  await page.locator('#cell-0-at_m').fill('far')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“far” is no length')
  await page.keyboard.press('Escape')
  await page.locator('#cell-0-name').focus()
  await page.keyboard.press('Control+z')
  await expect(page.locator('#cell-11-coil')).toHaveValue('')
  await page.goBack()
  await page.goForward()
  await expect(page.locator('#cell-0-name')).toHaveValue('Bed 1')
})

test('sizes: the weakest named and explained, what-ifs follow at once, the cheapest wire chosen, written in and undone', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Sizes')
  await page.goto(`/p/${id}/plan/sizes`)
  await expect(page.getByText('Weakest: Rim lookout, 20.4 V at the coil, 1.4 V to spare.')).toBeVisible()
  const lines = await page.locator('.losses dd').allTextContents()
  const volts = lines.map((l) => Number(l.replace('−', '-').replace(' V', '')))
  const at = lines.length - 3
  expect(volts.slice(0, at).reduce((sum, v) => sum + v, 0)).toBeCloseTo(volts[at]!, 0)
  await page.getByLabel(/Controller farther/).focus()
  for (let i = 0; i < 29; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByText('As it would be, not as it is.')).toBeVisible()
  await expect(page.locator('.verdict')).toContainText('too little')
  await page.getByRole('button', { name: 'Back to as it is' }).click()
  await expect(page.locator('.verdict')).toContainText('Every coil has its volts.')
  await page.getByLabel('Choose all sizes anew').check()
  await page.getByRole('button', { name: 'Choose the cheapest sizes' }).click()
  await expect(page.getByText('proven, nothing cheaper holds')).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Write these sizes into the plan' }).click()
  await expect(page.getByText('All saved')).toBeVisible()
  const { site } = await stored(request, id)
  expect(site.cables['L13' as never]).toMatchObject({ gauge: { value: { area_mm2: 0.75 }, how: 'assumed' } })
  expect(Object.keys(site.cables)).toContain('G2-2')
  await page.locator('h1').click()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Change 1 taken back.')).toBeVisible()
  await expect(page.getByText('All saved')).toBeVisible()
  expect(Object.keys((await stored(request, id)).site.cables)).not.toContain('G2-2')
  await pick(page.getByLabel('School'), 'Allowed drop')
  await page.getByLabel('Allowed drop, V').fill('900')
  await page.getByLabel('Allowed drop, V').press('Enter')
  await expect(page.getByText('Allowed drop, V: write a number from 0.1 to 20.')).toBeVisible()
})

test('sliders of a 60-station plan do not hold up the page', async ({ page, request }) => {
  const list = Array.from(
    { length: 60 },
    (_, i) => `${i + 1},Bed ${i + 1},B${1 + Math.floor(i / 3)},${20 + 14 * Math.floor(i / 3)},33`,
  ).join('\n')
  await page.goto('/')
  await page.getByRole('button', { name: 'New property' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Sixty')
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByLabel('A line for each station').fill(list)
  await page.getByRole('button', { name: 'Take in 60 stations' }).click()
  await expect(page.locator('#cell-59-box')).toHaveValue('B20')
  await expect(page.getByText('All saved')).toBeVisible()
  await page.getByRole('link', { name: 'Sizes' }).click()
  await expect(page.locator('.verdict')).toBeVisible()
  await page.getByLabel(/Controller farther/).focus()
  // The longest that the page's own thread was away while the slider moved forty steps.
  const longest = page.evaluate(
    () =>
      new Promise<number>((done) => {
        let [last, worst, frames] = [performance.now(), 0, 0]
        const tick = () => {
          const now = performance.now()
          worst = Math.max(worst, now - last)
          last = now
          if (++frames < 150) requestAnimationFrame(tick)
          else done(worst)
        }
        requestAnimationFrame(tick)
      }),
  )
  for (let i = 0; i < 40; i++) await page.keyboard.press('ArrowRight')
  console.log(`longest frame: ${Math.round(await longest)} ms`)
  await expect(page.getByText('As it would be, not as it is.')).toBeVisible()
  await expect(page.locator('.losses')).toContainText('Lead')
  expect(request).toBeTruthy()
})

test('runs and coils in words: a run extended and laid anew, a sheet’s figures, each refusal at its place', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Runs')
  await page.goto(`/p/${id}/plan`)
  const way = page.getByLabel('Boxes, K3')
  await way.fill('S1 22, S2 51, S3 95, S4 130')
  await way.press('Enter')
  await expect(page.getByText('All saved')).toBeVisible()
  await way.fill('S1 far')
  await way.press('Enter')
  await expect(page.getByRole('alert')).toContainText('“far” is no length')
  await page.getByLabel('New run: Run').fill('E1')
  await page.getByLabel('New run: Size').fill('1.5')
  await page.getByLabel('New run: Boxes').fill('E1 40, E2 80')
  await page.getByRole('button', { name: 'Lay it' }).click()
  await expect(page.getByLabel('Boxes, E1')).toHaveValue('E1 40, E2 80')
  await page.getByLabel('Inrush A, Standard AC coil').fill('0.9')
  await page.getByLabel('Inrush A, Standard AC coil').press('Enter')
  await expect(page.getByRole('alert')).toContainText('must not be below the DC resistance')
  await page.getByLabel('Pulls in at V, Standard AC coil').fill('20')
  await page.getByLabel('Pulls in at V, Standard AC coil').press('Enter')
  await expect(page.getByText('All saved')).toBeVisible()
  const { site } = await stored(request, id)
  expect([
    site.cables['K3' as never]!['stops' as never]['length' as never],
    site.coilKinds['standard' as never]!['minimum_V' as never],
  ]).toEqual([5, 20])
})

test('without a signal: the list is changed, sizes follow, the page says what waits; back on line it is sent and the page closed meanwhile loses nothing', async ({
  page,
  context,
  request,
}) => {
  const id = await ownProperty(request, 'No signal')
  await page.goto(`/p/${id}/plan`)
  await expect(page.locator('#cell-2-name')).toHaveValue('Entrance bed')
  await page.goto(`/p/${id}/plan/sizes`)
  await expect(page.locator('.verdict')).toBeVisible()
  await page.getByRole('link', { name: 'List', exact: true }).click()
  await context.setOffline(true)
  for (const [cell, text] of [
    ['#cell-2-name', 'Gate roses'],
    ['#cell-13-at_m', '260'],
  ] as const) {
    await page.locator(cell).fill(text)
    await page.locator(cell).press('Enter')
  }
  await expect(page.getByText('kept on this device, 2 to send')).toBeVisible()
  await page.getByRole('link', { name: 'Sizes' }).click()
  await expect(page.locator('.losses')).toContainText('56 m')
  await context.setOffline(false)
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 90_000 })
  const { site } = await stored(request, id)
  expect(
    rowsOf(site)
      .filter((r) => r.name === 'Gate roses' || r.station === 'A:12')
      .map((r) => [r.station, r.at_m]),
  ).toEqual([
    ['A:1', 46],
    ['A:12', 260],
  ])
})

test('the reach table prints alone: no rail, no bar, no buttons', async ({ page, request }) => {
  const id = await ownProperty(request, 'Print')
  await page.goto(`/p/${id}/plan/sizes`)
  await expect(page.getByRole('heading', { name: 'Reach table' })).toBeVisible()
  const table = page.locator('section', { has: page.getByRole('heading', { name: 'Reach table' }) }).locator('tbody tr')
  const metres = await table.evaluateAll((rows) =>
    rows.map((r) =>
      Array.from(r.querySelectorAll('td'))
        .slice(1)
        .map((c) => Number(c.textContent)),
    ),
  )
  expect(metres.length).toBe(5)
  // A thicker size reaches farther; more valves at once, less far.
  for (const [i, row] of metres.entries()) {
    expect(row[0]).toBeGreaterThan(row[1]!)
    if (i > 0) expect(row[0]).toBeGreaterThan(metres[i - 1]![0]!)
  }
  await page.emulateMedia({ media: 'print' })
  for (const gone of ['.rail', '.bar', '.verdict']) await expect(page.locator(gone)).toBeHidden()
  await expect(table.first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
})

test('on a phone: a station added by its name, its box and distance written, its volts seen', async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await ownProperty(request, 'Phone plan')
  await page.goto(`/p/${id}/plan`)
  await page.getByLabel('One more station').fill('A:19 Gatepost pots')
  await page.getByLabel('One more station').press('Enter')
  const row = page.getByRole('row', { name: /^A:19/ })
  await expect(row.getByLabel('Name, A:19')).toHaveValue('Gatepost pots')
  await row.getByLabel('Box, A:19').fill('B5')
  await row.getByLabel('Box, A:19').press('Tab')
  await expect(row.getByLabel('Out, A:19')).toHaveValue('168')
  await expect(page.getByText('All saved')).toBeVisible()
  await page.getByRole('link', { name: 'Sizes' }).click()
  await expect(page.getByRole('button', { name: 'Gatepost pots' })).toBeVisible()
  await page.getByRole('button', { name: 'Gatepost pots' }).click()
  await expect(page.locator('.losses h2')).toContainText('Gatepost pots')
})

test('material: spools, cuts and connectors; as CSV and as a workbook; a bad figure is refused at its field', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Material')
  await page.goto(`/p/${id}/plan/material`)
  await expect(page.getByText('L13 A–B8 39 m')).toBeVisible()
  const saved = async (name: string) => {
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()])
    return readFileSync(await download.path())
  }
  expect((await saved('Save as CSV')).toString()).toContain('K1,A,B7,multicore,17,1 mm²,,240,4.8,21,265.8')
  const workbook = await saved('Save as XLSX')
  expect([workbook.subarray(0, 2).toString(), workbook.length > 3000]).toEqual(['PK', true])
  await page.getByLabel('Spools in stock, m').fill('100')
  await page.getByLabel('Spools in stock, m').press('Enter')
  await expect(page.getByText(/joints more, for the spools’ length/).first()).toBeVisible()
  await page.getByLabel('Slack per cable end, m').fill('-3')
  await page.getByLabel('Slack per cable end, m').press('Enter')
  await expect(page.getByText('Slack per cable end, m: write a number from 0 to 20.')).toBeVisible()
  await page.getByLabel(/Sizes in stock/).fill('1.5 mm² 0.2\nrope')
  await page.getByLabel(/Sizes in stock/).blur()
  await expect(page.getByText('Write up to 12 lines')).toBeVisible()
})

test('the list goes out as CSV and comes back; a wrong line is told; a station is taken away by keyboard', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Lists')
  await page.goto(`/p/${id}/plan`)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ])
  const csv = readFileSync(await download.path(), 'utf8')
  const choose = (text: string) =>
    page
      .locator('input[type=file]')
      .setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await choose(csv.replace('Ticket lawn', 'Ticket meadow').replace('46 m', 'far'))
  await expect(page.getByRole('alert')).toContainText('“far” is no length')
  await choose(csv.replace('Ticket lawn', 'Ticket meadow'))
  await page.getByRole('button', { name: 'Take in 26 stations' }).click()
  await expect(page.locator('.rail')).toContainText('Ticket meadow')
  await pressByKey(page, /Take station A:4 away/, 200)
  await expect(page.locator('.rail')).not.toContainText('Car park islands')
  await expect(page.getByText('All saved')).toBeVisible()
  expect((await stored(request, id)).revision).toBe(2)
})

for (const [viewport, colorScheme] of [
  [{ width: 1280, height: 800 }, 'light'],
  [{ width: 360, height: 640 }, 'dark'],
] as const) {
  test(`plan: nothing serious for axe, nothing off the side, at ${viewport.width} × ${viewport.height}, ${colorScheme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize(viewport)
    await page.emulateMedia({ colorScheme })
    const id = await ownProperty(request, 'Plan axe')
    for (const path of ['', '/sizes', '/material']) {
      await page.goto(`/p/${id}/plan${path}`)
      await expect(page.locator('h1').first()).toBeVisible()
      if (path === '/sizes') await expect(page.locator('.losses')).toBeVisible()
      await page.waitForLoadState('networkidle')
      expect(await seriousFindings(page), path).toEqual([])
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(viewport.width)
    }
  })
}
