import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { openFile, ownProperty, pick, seriousFindings, stored } from './kit'

/** Begins to look for B10 along its own lead from B9 on, over made-up ground. */
async function begun(page: Page, id: string): Promise<void> {
  await page.addInitScript(() => localStorage.setItem('field-thread.author', 'Ann'))
  await page.goto(`/p/${id}/trace`)
  await expect(page.getByText('Lost: B10 Under the jetty turf.')).toBeVisible()
  await page.getByRole('button', { name: 'Trace a wire' }).click()
  await expect(page.getByRole('combobox', { name: 'Box that is looked for' })).toContainText('B10')
  await pick(page.getByRole('combobox', { name: 'Wire' }), 'L17')
  await expect(page.getByRole('combobox', { name: 'From' })).toContainText('B9')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await page.waitForURL(/trace\/.+/)
}
const tab = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click()
/** Nine readings from the wand across the line. */
async function crossed(page: Page, at: string): Promise<void> {
  await page.getByLabel('Cross it at, m along').fill(at)
  for (let i = 0; i < 9; i++) {
    await page.getByRole('button', { name: /^Read / }).click()
    await expect(page.locator('.dots .read')).toHaveCount(i + 1)
  }
  await expect(page.getByText(/Hand digging starts here: cover of 0\.\d\d m and more/)).toBeVisible()
}

test('a lost box at a phone: the tone is crossed and walked, the rod goes where the chance is best, and B10 is on record', async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await ownProperty(request, 'Lost box')
  await begun(page, id)
  // Nothing is read of a transmitter that nobody hooked up.
  await tab(page, 'Across')
  await expect(page.getByText('Before the first reading: hook up the transmitter.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Keep', exact: true })).toHaveCount(0)
  await page.locator('summary').filter({ hasText: 'Wand' }).click()
  await page.getByRole('button', { name: 'Practise on made-up ground' }).click()
  for (const at of ['40', '46', '51']) {
    await crossed(page, at)
    await page.getByRole('button', { name: /Cross the line/ }).click()
  }
  // A figure by hand is refused where it is none, and taken back where it was a slip.
  await page.getByLabel(/What it shows/).fill('loud')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('as a figure')
  await page.getByLabel(/What it shows/).fill('12')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.getByRole('button', { name: 'Take the last back' }).click()
  await expect(page.locator('.dots .read')).toHaveCount(0)

  await tab(page, 'Along')
  await page.getByLabel('Next at, m along').fill('46')
  for (let i = 0; i < 4; i++) {
    await page.getByRole('button', { name: 'Walk 5 m on' }).click()
    await expect(page.getByRole('button', { name: 'Walk 5 m on' })).toBeEnabled({ timeout: 90_000 })
  }
  await expect(page.getByText('Weighing what was read')).toHaveCount(0, { timeout: 90_000 })

  await tab(page, 'Box')
  await expect(page.getByText(/the line, crossed 3 times/)).toBeVisible({ timeout: 90_000 })
  let probes = 0
  const found = page.getByText(/There it is:/)
  while (!(await found.isVisible()) && probes < 120) {
    // What may be gone by now is not waited for.
    const next = async () => (await page.locator('h2.next').allTextContents()).join('')
    const before = await next()
    await page.getByRole('button', { name: 'Push the rod in' }).click()
    probes++
    await expect
      .poll(async () => (await found.isVisible()) || (await next()) !== before, { timeout: 90_000 })
      .toBe(true)
  }
  console.log(`found with ${probes} probes`)
  await expect(found).toBeVisible()
  await page.getByRole('button', { name: 'Put B10 on record here' }).click()
  await expect(page.getByText('B10 is on record as found.')).toBeVisible()
  await expect(page.getByText('All saved')).toBeVisible()
  const { site, facts } = await stored(request, id)
  const box = Object.values(site.places).find((p) => p.tag === 'B10')!
  const hit = Object.values(facts.marks).find((m) => m.marked.kind === 'probe' && m.marked.hit)!.marked
  if (hit.kind !== 'probe') throw new Error('no probe')
  expect([box.found, box.foundAt?.how]).toEqual(['found', 'seen'])
  expect(Math.hypot(box.foundAt!.value.x_m - hit.at.x_m, box.foundAt!.value.y_m - hit.at.y_m)).toBeLessThan(0.02)

  // The line that was found goes into the record, and what that changes is told before.
  await tab(page, 'Line')
  await expect(page.getByText(/B9 to B10: \d+\.\d m/)).toBeVisible()
  await page.getByRole('button', { name: 'Take the line into the record' }).click()
  await expect(page.getByText(/Taken: the map/)).toBeVisible()
  const files = []
  for (const name of ['Readings as CSV', 'As GeoJSON', 'As GPX']) {
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name }).click()
    files.push(readFileSync(await (await download).path(), 'utf8'))
  }
  expect(files[0]!.split('\n')[0]).toContain('section,along_m,across_m')
  expect((JSON.parse(files[1]!) as { features: unknown[] }).features.length).toBeGreaterThan(4)
  expect(files[2]).toContain('<trkpt')
  const gpx = { name: 'walk.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(files[2]!) }
  await openFile(page, 'Bring flags in', gpx)
  await expect(page.getByText(/\d+ flags taken in/)).toBeVisible()
  await openFile(page, 'Bring flags in', { ...gpx, buffer: Buffer.from('<gpx') })
  await expect(page.getByRole('alert')).toContainText('Save it again as GPX')
  await page.reload()
  await expect(page.getByRole('heading', { name: /B10: follow L17/ })).toBeVisible()
  const kept = await stored(request, id)
  const lead = Object.values(kept.site.cables).find((c) => c.tag === 'L17')!
  expect(Object.values(lead.bends).some((b) => b.length === 3)).toBe(true)
})

for (const [width, height, theme] of [
  [1280, 800, 'noon'],
  [390, 844, 'dusk'],
] as const)
  test(`trace: nothing serious for axe, nothing off the side, by keyboard, at ${width} × ${height}, ${theme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize({ width, height })
    await page.addInitScript((t) => localStorage.setItem('field-thread.theme', t), theme)
    const id = await ownProperty(request, `Trace ${width}`)
    await begun(page, id)
    await tab(page, 'Across')
    await page.getByLabel('It is hooked up as the procedure says, and on').click()
    await page.getByLabel(/What it shows/).fill('40')
    await page.keyboard.press('Enter')
    await expect(page.locator('.dots .read')).toHaveCount(1)
    expect(await seriousFindings(page)).toEqual([])
    for (const name of ['Box', 'Along', 'Line']) {
      await tab(page, name)
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
      expect(await seriousFindings(page)).toEqual([])
    }

    // Flags by one’s own step, measured first, and by gaps between heads; each from where the last one stands.
    await tab(page, 'Steps')
    await pick(page.getByRole('combobox', { name: 'From where you stood' }), 'B9')
    await page.locator('summary').filter({ hasText: 'Measure your step' }).click()
    const measured = page.locator('details').filter({ hasText: 'Measure your step' })
    await measured.getByLabel('Length walked, m').fill('40')
    await measured.getByLabel('Steps').fill('50')
    await measured.getByRole('button', { name: 'Keep this step' }).click()
    await expect(page.getByLabel('Your step, m')).toHaveValue('0.8')
    await page.getByRole('textbox', { name: 'Steps', exact: true }).first().fill('25')
    await page.getByLabel('Direction, degrees from north').fill('400')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Direction, degrees from north')
    await page.getByLabel('Direction, degrees from north').fill('90')
    await page.keyboard.press('Enter')
    await expect(page.getByText('Flags put: 1')).toBeVisible()
    await page.getByRole('radio', { name: 'gaps between heads' }).click()
    await page.getByRole('textbox', { name: 'Gaps' }).fill('3')
    await page.getByLabel('From head to head, m').fill('4')
    await page.getByLabel('Direction, degrees from north').fill('0')
    await page.getByRole('button', { name: 'Put the flag' }).click()
    await expect(page.getByText('Flags put: 2')).toBeVisible()
    await expect(page.getByText('All saved')).toBeVisible()
    const { site, facts } = await stored(request, id)
    const { x_m, y_m } = Object.values(site.places).find((p) => p.tag === 'B9')!.foundAt!.value
    expect(
      Object.values(facts.marks)
        .map((m) => m.marked)
        .filter((m) => m.kind === 'way')
        .map((m) => [m.by, Math.round((m.at.x_m - x_m) * 100) / 100, Math.round((m.at.y_m - y_m) * 100) / 100]),
    ).toEqual([
      ['paces', 20, 0],
      ['paces', 20, 12],
    ])
  })
