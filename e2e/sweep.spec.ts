import { expect, test } from '@playwright/test'
import { beginSweep, ownProperty, pressByKey, pressTo, SOUND, stored } from './kit'

test('a sweep by keyboard alone: from the list to a cut common, kept over a reload, found again tomorrow', async ({
  page,
  request,
}) => {
  const name = `Keyboard court ${Date.now()}`
  const id = await ownProperty(request, name)
  await page.goto('/')
  await pressTo(page, /^Find/)
  await page.keyboard.type(name)
  await expect(page.getByRole('link', { name })).toBeVisible()
  await pressByKey(page, new RegExp(`^${name}`))
  await expect(page.getByRole('heading', { name: 'Gatehouse, threads' })).toBeVisible()
  // Past the stations of three controllers; from the top of a page the first link goes past them.
  await pressByKey(page, /^Start a sweep/, 120)
  await expect(page.getByRole('heading', { name: 'Sweeps at the controller' })).toBeVisible()
  await pressByKey(page, /^Start a sweep/)
  await expect(page.getByLabel('Your name')).toBeFocused()
  await page.keyboard.type('Sam')
  await page.keyboard.press('Enter')
  for (let i = 0; i < 3; i++) {
    await pressByKey(page, /^Done/, 120)
    if (i < 2) await expect(page.locator('.cautions .done')).toHaveCount(i + 1)
  }
  const typed = page.locator('#reading')
  await expect(typed).toBeFocused()
  for (const [i, reading] of SOUND.entries()) {
    if (i >= 9 && i <= 12) await page.keyboard.press('o')
    else {
      await page.keyboard.type(reading)
      await expect(page.locator('#reading-says')).toContainText('fits')
      await page.keyboard.press('Enter')
    }
  }
  await expect(page.getByRole('heading', { name: 'The common is cut between B4 and B5' })).toBeVisible({
    timeout: 90_000,
  })
  await expect(page.getByRole('status')).toContainText('All saved')
  await page.reload()
  await expect(page.getByRole('heading', { name: 'The common is cut between B4 and B5' })).toBeVisible({
    timeout: 90_000,
  })
  await pressByKey(page, /^The schedule is running again/)
  await expect(page.getByText('Sweep ended.')).toBeVisible()
  await page.goto(`/p/${id}/test`)
  await expect(page.getByRole('link', { name: /19 of 19 read/ }).first()).toContainText('4 faults')
  const { facts } = await stored(request, id)
  const mine = Object.values(facts.jobs).find((v) => v.author === 'Sam')!
  expect(mine.ground_C).toBe(14)
  expect(
    Object.values(facts.cautions)
      .filter((c) => c.author === 'Sam')
      .map((c) => c.code)
      .sort(),
  ).toEqual(['leads_off', 'power_off', 'schedule_paused'])
})

test('the verdict comes as it is typed; nonsense is asked about; undo strikes out and returns; a half-typed reading survives a reload', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Slow hands')
  const job = await beginSweep(page, id)
  const [typed, says] = [page.locator('#reading'), page.locator('#reading-says')]
  await page.keyboard.press('s')
  await expect(page.locator('.panel .peg').first()).toHaveText('1')
  await typed.fill('1.3')
  await expect(says).toContainText('short')
  await typed.fill('20.1')
  await expect(says).toContainText('low')
  await expect(page.getByText('rule of thumb would have passed this fault')).toBeVisible()
  await typed.fill('34x')
  await page.keyboard.press('Enter')
  await expect(says).toContainText('Not a reading')
  await typed.fill('1')
  await page.keyboard.press('Enter')
  await expect(says).toContainText('A bare 1: open or one ohm')
  await typed.fill('1.2k')
  await page.keyboard.press('Enter')
  await expect(page.locator('.panel .peg').first()).toHaveText('2')
  await page.keyboard.press('Control+z')
  await expect(page.locator('.panel .peg').first()).toHaveText('1')
  await expect(says).toContainText('Struck out: 1')
  await typed.fill('33.')
  await page.reload()
  await expect(page.locator('#reading')).toHaveValue('33.')
  await page.locator('#reading').fill('33.5')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status')).toContainText('All saved')
  const { facts } = await stored(request, id)
  const readings = Object.entries(facts.readings).filter(([, r]) => r.job === job)
  expect(readings.map(([, r]) => (r.value as { ohm: number }).ohm).sort()).toEqual([1200, 33.5])
  expect(
    Object.values(facts.strikeOuts)
      .filter((s) => readings.some(([rid]) => rid === s.reading))
      .map((s) => s.reason),
  ).toEqual(['undone'])
})

test('a page that is left in the moment of a reading has kept it, though the device’s database never answered', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'In a hurry')
  const job = await beginSweep(page, id)
  await expect(page.getByRole('status')).toContainText('All saved')
  await page.evaluate(() => {
    IDBObjectStore.prototype.add = () => {
      throw new DOMException('the page is going', 'AbortError')
    }
    window.fetch = () => new Promise(() => {})
  })
  await page.locator('#reading').fill('33.8')
  await page.locator('#reading').press('Enter')
  await page.goto(`/p/${id}`)
  await expect
    .poll(async () => Object.values((await stored(request, id)).facts.readings).filter((r) => r.job === job).length)
    .toBe(1)
  await page.reload()
  await expect(page.getByRole('status')).toContainText('All saved')
  expect(Object.values((await stored(request, id)).facts.readings).filter((r) => r.job === job)).toHaveLength(1)
})

test('a meter that shows a bare 1 for open is believed, and its lead ohms come off', async ({ page, request }) => {
  const id = await ownProperty(request, 'Old meter')
  await beginSweep(page, id, { openMark: 'a bare 1' })
  await page.locator('#reading').fill('1')
  await expect(page.locator('#reading-says')).toContainText('open')
  await page.keyboard.press('Enter')
  await expect(page.locator('.progress li').first()).toHaveClass(/fault/)
})

test('on a phone the keypad does it all, with one thumb', async ({ browser, request, baseURL }) => {
  const id = await ownProperty(request, 'Wet garden')
  const context = await browser.newContext({
    baseURL: baseURL!,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    locale: 'en-GB',
  })
  const page = await context.newPage()
  await beginSweep(page, id)
  const key = (name: string) => page.locator('.pad').getByRole('button', { name, exact: true })
  for (const k of ['3', '9', 'Decimal point', '6']) await key(k).tap()
  await expect(page.locator('#reading')).toHaveValue('39.6')
  await key('Next 1').tap()
  await key('short').tap()
  await expect(page.locator('#reading-says')).toContainText('Short: what does it read?')
  for (const k of ['1', 'Decimal point', '1']) await key(k).tap()
  await expect(page.locator('#reading-says')).toContainText('short')
  await key('Next 2').tap()
  await key('open').tap()
  await expect(page.getByRole('heading', { name: 'Ticket lawn is open' })).toBeVisible({ timeout: 90_000 })
  for (const box of await page
    .locator('.pad button')
    .evaluateAll((all) => all.map((b) => b.getBoundingClientRect().height)))
    expect(box).toBeGreaterThanOrEqual(48)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await page.locator('.checks:visible summary').tap()
  await expect(page.locator('.pad')).toHaveCount(0) // the checks have a field of their own, and the phone its keys
  await page.locator('.checks:visible').getByLabel('Volts', { exact: true }).fill('26.4')
  await page.locator('.checks:visible').getByRole('button', { name: 'Keep' }).tap()
  await expect(page.getByText('Between 24 and 28 V')).toBeVisible()
  await page.locator('.checks:visible summary').tap()
  await expect(page.locator('.pad')).toBeVisible()
  await expect(page.getByRole('status')).toContainText('All saved')
  await context.close()
})
