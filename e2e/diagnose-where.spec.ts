import { expect, test, type Page } from '@playwright/test'
import { ownProperty, pick, stored } from './kit'

const next = (page: Page) => page.getByRole('region', { name: 'Next', exact: true })
const likely = (page: Page) => page.getByRole('region', { name: 'How likely' })
const settled = (page: Page) => expect(page.locator('.stand.stale')).toHaveCount(0, { timeout: 30_000 })

/** A hunt with one dry zone, told in two taps. */
async function begun(page: Page, property: string, dry: string): Promise<void> {
  await page.goto(`/p/${property}/diagnose`)
  await page.getByRole('button', { name: /Begin a hunt|New hunt/ }).click()
  await page.getByLabel('Your name').fill('Ann')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await page.getByRole('button', { name: dry }).click()
  await page.getByRole('button', { name: 'The others water' }).click()
  await expect(next(page)).toBeVisible({ timeout: 30_000 })
  await settled(page)
}

test('from the valve: a crew that stands at the box begins there, and what happened in the season moves the odds', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'From the valve')
  await begun(page, id, 'Far willows')
  await expect(next(page)).toContainText('at the cabinet')
  const coil = likely(page).getByRole('listitem').filter({ hasText: 'coil of Far willows' }).locator('.p')
  const before = Number.parseInt((await coil.textContent())!, 10)
  await page.locator('summary', { hasText: 'This season' }).click()
  await page.getByLabel('Lightning').check()
  await expect(async () => expect(Number.parseInt((await coil.textContent())!, 10)).toBeGreaterThan(before)).toPass({
    timeout: 30_000,
  })
  await page.getByLabel('Lightning').uncheck()
  await page.getByLabel('You stand').click()
  await page.getByRole('option', { name: /^B11/ }).click()
  await expect(next(page)).toContainText('in B11', { timeout: 30_000 })
  // Where the crew stands and the season are of the day, the readings of the record: after a reload they are there.
  await page.reload()
  await expect(page.getByText('1 dry, 17 water')).toBeVisible()
  await expect(next(page)).toBeVisible({ timeout: 30_000 })
})

test('two open leads typed without a word about the zones are weighed, and the way back keeps them', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Swapped')
  await page.goto(`/p/${id}/diagnose`)
  await page.getByRole('button', { name: /Begin a hunt|New hunt/ }).click()
  await page.getByLabel('Your name').fill('Ann')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  const other = page.locator('details', { has: page.getByRole('heading', { name: 'Another test' }) })
  await other.locator('summary').click()
  for (const terminal of ['4', '5']) {
    await pick(other.getByLabel('Choose what you measured'), /^Ohms, \S+ to C/)
    await pick(other.getByLabel('Terminal', { exact: true }), terminal)
    await other.getByLabel('Ohms', { exact: true }).fill('OL')
    await other.getByRole('button', { name: 'Keep' }).click()
    await settled(page)
  }
  await expect(likely(page).getByRole('listitem').first()).toContainText('%', { timeout: 30_000 })
  await page.goto(`/p/${id}`)
  await page.goBack()
  await expect(page.getByRole('button', { name: /Strike out: Ohms, 5 to C/ })).toBeVisible({ timeout: 30_000 })
  const { facts } = await stored(request, id)
  expect(
    Object.values(facts.readings).filter((r) => r.test.kind === 'ohms' && r.value.kind === 'open').length,
  ).toBeGreaterThanOrEqual(2)
})

test('on a narrow phone nothing hangs over the edge, and fingers find every button', async ({ page, request }) => {
  await page.setViewportSize({ width: 360, height: 740 })
  const id = await ownProperty(request, 'Narrow')
  await begun(page, id, 'Gate hedge')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
  for (const button of await page.getByRole('main').getByRole('button').all()) {
    if (!(await button.isVisible())) continue
    const box = (await button.boundingBox())!
    expect([await button.textContent(), box.height >= 40]).toEqual([await button.textContent(), true])
  }
  await page.getByText('What each answer would mean').click()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360)
})
