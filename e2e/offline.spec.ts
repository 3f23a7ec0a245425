import { expect, test, type Page } from '@playwright/test'
import { beginSweep, beginWork, doStep, ownProperty, SOUND, stored, takePhoto } from './kit'

test.use({ serviceWorkers: 'allow' })

/** Waits until the whole application is kept: the worker answers for the page. */
const keptHere = (page: Page) =>
  page.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 150_000 })

test('no server at all: the application opens, every page of a visited property, work goes on, and all of it is sent when the signal is back', async ({
  page,
  context,
  request,
}) => {
  const id = await ownProperty(request, 'Valley floor')
  await page.goto(`/p/${id}`)
  await expect(page.getByRole('heading', { name: /Gatehouse, threads/ })).toBeVisible()
  await keptHere(page)
  const manifest = await (await request.get('/manifest.webmanifest')).json()
  expect(manifest).toMatchObject({ display: 'standalone', start_url: '/', scope: '/' })
  for (const { src, sizes } of manifest.icons as { src: string; sizes: string }[]) {
    const icon = await request.get(src)
    expect([src, icon.status(), sizes.length > 2]).toEqual([src, 200, true])
  }
  await context.setOffline(true)
  await page.goto('/')
  await expect(page.getByRole('alert')).toContainText('No signal: the properties that this device keeps.')
  await page.getByRole('link', { name: /Valley floor/ }).click()
  await expect(page.getByRole('heading', { name: /Gatehouse, threads/ })).toBeVisible()
  const pages = [
    '/plan',
    '/plan/map',
    '/plan/wiring',
    '/plan/sizes',
    '/plan/material',
    '/plan/schedule',
    '/controller',
    '/boxes',
  ]
  for (const path of [
    ...pages,
    '/boxes/B3',
    '/test',
    '/test/compare',
    '/diagnose',
    '/work/procedures',
    '/work/mended',
    '/record',
    '/work',
  ]) {
    await page.goto(`/p/${id}${path}`)
    await expect(page.getByRole('heading').first(), path).toBeVisible()
  }
  await page.goto(`/p/${id}/record/cards`)
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Make the PDF Cabinet card, Boathouse' }).click()
  expect((await saving).suggestedFilename()).toBe('Valley-floor-Boathouse-card.pdf')
  await page.goto(`/p/${id}/work`)
  await beginWork(page, page, 'Arrive', 'Ada')
  await doStep(page)
  await doStep(page)
  await page.locator('.controls').getByLabel('In your words').fill('A trench by B4')
  await page.locator('.controls').getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByText('Step 4 of 10')).toBeVisible()
  await page.reload()
  await expect(page.getByText('Step 4 of 10')).toBeVisible()
  await expect(page.getByText('kept on this device, 5 to send')).toBeVisible()
  // Left for the list and the signal comes back there: what waits of a property that is not open is sent too.
  await page.goto('/')
  await context.setOffline(false)
  await expect
    .poll(async () => Object.values((await stored(request, id)).facts.steps).map((s) => s.answer), { timeout: 180_000 })
    .toEqual([{ kind: 'done' }, { kind: 'done' }, { kind: 'text', text: 'A trench by B4' }])
})

const DAY_ms = 86_400_000
/** Sets a page's calendar back by a day, until its second day begins. */
function aDayEarlier(day_ms: number): void {
  const Now = Date
  const back = () => (localStorage.getItem('test.day') === '2' ? 0 : day_ms)
  globalThis.Date = class extends Now {
    constructor(...parts: unknown[]) {
      if (parts.length === 0) super(Now.now() - back())
      else super(...(parts as [number]))
    }
    static override now = () => Now.now() - back()
  } as DateConstructor
}

test('two people on one property without a signal for two days: both come back, nothing is lost, what they both changed is told by name', async ({
  browser,
  request,
}) => {
  const id = await ownProperty(request, 'Two days apart')
  const begun = Date.now() - DAY_ms
  const [ada, ben] = await Promise.all(
    ['Ada', 'Ben'].map(async () => {
      const context = await browser.newContext({ serviceWorkers: 'allow' })
      const page = await context.newPage()
      await page.addInitScript(aDayEarlier, DAY_ms)
      await page.goto(`/p/${id}`)
      await expect(page.getByRole('heading', { name: /Gatehouse, threads/ })).toBeVisible()
      await keptHere(page)
      await context.setOffline(true)
      return page
    }),
  )
  const rename = async (page: Page, station: number, name: string) => {
    await page.goto(`/p/${id}?station=A:${station}`)
    await page.getByLabel('Station name').fill(name)
    await page.getByLabel('Station name').press('Enter')
    await expect(page.locator('.rail')).toContainText(name)
  }
  const sweep = async (page: Page, readings: readonly string[]) => {
    await beginSweep(page, id)
    for (const ohms of readings) {
      await page.locator('#reading').fill(ohms)
      await page.locator('#reading').press('Enter')
      await expect(page.locator('#reading')).toHaveValue('')
    }
  }
  // The first day: each renames a station of their own and both the same one; Ada sweeps, Ben caps cores.
  await rename(ada!, 3, 'Ada’s hedge')
  await rename(ada!, 5, 'Dome by Ada')
  await sweep(ada!, SOUND.slice(0, 3))
  await rename(ben!, 4, 'Ben’s islands')
  await rename(ben!, 5, 'Dome by Ben')
  await ben!.goto(`/p/${id}/boxes/B3`)
  await takePhoto(ben!)
  await beginWork(ben!, ben!, 'Cap the spare cores', 'Ben')
  for (let i = 0; i < 2; i++) await doStep(ben!)
  // The next day each opens the application anew, still without a signal, and goes on.
  for (const page of [ada!, ben!]) {
    await page.evaluate(() => localStorage.setItem('test.day', '2'))
  }
  await rename(ada!, 8, 'Ada’s shelf')
  await ben!.goto(`/p/${id}/work`)
  await ben!
    .getByRole('link', { name: /Cap the spare cores/ })
    .first()
    .click()
  await doStep(ben!)
  // Ben is back first: all of his is taken. Then Ada: the one name that both gave is told her, the rest is there.
  await ben!.context().setOffline(false)
  await expect(ben!.getByText('All saved')).toBeVisible({ timeout: 150_000 })
  await ada!.context().setOffline(false)
  const told = ada!.getByRole('alert').filter({ hasText: 'Not taken by the record' })
  await expect(told).toContainText('was changed by somebody else meanwhile', { timeout: 150_000 })
  await expect(told).toHaveCount(1)
  await told.getByRole('button', { name: 'Let go of it' }).click()
  await expect(ada!.getByText('All saved')).toBeVisible({ timeout: 150_000 })
  const { site, facts } = await stored(request, id)
  const named = Object.values(site.stations)
    .map((s) => s.name)
    .filter((n) => /Ada|Ben/.test(n))
  expect(named.sort()).toEqual(['Ada’s hedge', 'Ada’s shelf', 'Ben’s islands', 'Dome by Ben'])
  const read = Object.values(facts.readings).filter((r) => Date.parse(r.at) >= begun)
  expect(read.map((r) => r.value)).toEqual(SOUND.slice(0, 3).map((ohm) => ({ kind: 'ohm', ohm: Number(ohm) })))
  expect(Object.values(facts.steps)).toHaveLength(3)
  const days = new Set(Object.values(facts.steps).map((s) => s.at.slice(0, 10)))
  expect(days.size).toBe(2)
  const [photo] = Object.values(facts.photos)
  await expect
    .poll(async () => (await request.get(`/api/properties/${id}/pictures/${photo!.sha256}`)).status(), {
      timeout: 150_000,
    })
    .toBe(200)
  for (const page of [ada!, ben!]) await page.context().close()
})

test('what this device keeps is shown and chosen: pinned, let go of, room for pictures', async ({ page, request }) => {
  const name = `Kept here ${Date.now()}`
  const id = await ownProperty(request, name)
  await page.goto(`/p/${id}`)
  await expect(page.getByRole('heading', { name: /Gatehouse, threads/ })).toBeVisible()
  /** Whether the device's database has the property, and that it is pinned; undefined while it has not. */
  const pinned = () =>
    page.evaluate(
      (property) =>
        new Promise<boolean | undefined>((resolve) => {
          const opening = indexedDB.open('field-thread')
          opening.onsuccess = () => {
            const asked = opening.result.transaction('kept').objectStore('kept').get(property)
            asked.onsuccess = () => {
              opening.result.close()
              resolve((asked.result as { pinned: boolean } | undefined)?.pinned)
            }
          }
        }),
      id,
    )
  await expect.poll(pinned, { timeout: 30_000 }).toBe(false)
  await page.goto('/')
  await page.getByRole('button', { name: 'On this device' }).click()
  const row = page.getByRole('dialog').getByRole('listitem').filter({ hasText: name })
  await row.getByLabel('Pinned').check()
  // A reload in the same moment would leave the device's database before it has written.
  await expect.poll(pinned).toBe(true)
  await page.reload()
  await page.getByRole('button', { name: 'On this device' }).click()
  await expect(row.getByLabel('Pinned')).toBeChecked()
  await expect(page.getByText(/of pictures are kept, the oldest go beyond 200 MB/)).toBeVisible()
  await row.getByRole('button', { name: /Let go/ }).click()
  await expect(row).toHaveCount(0)
})
