import { expect, test, type Page } from '@playwright/test'
import { beginWork, doStep, ownProperty, stored } from './kit'

test.use({ serviceWorkers: 'allow' })

/** Waits until the whole application is kept: the worker answers for the page. */
const keptHere = (page: Page) =>
  page.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 60_000 })

test('no server at all: the application opens, every page of a visited property, work goes on, and all of it is sent when the signal is back', async ({
  page,
  context,
  request,
}) => {
  test.setTimeout(150_000)
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
  const pages = ['/plan', '/plan/map', '/plan/wiring', '/plan/sizes', '/plan/material', '/controller', '/boxes']
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
  await expect(page.getByText('Step 4 of 8')).toBeVisible()
  await page.reload()
  await expect(page.getByText('Step 4 of 8')).toBeVisible()
  await expect(page.getByText('kept on this device, 5 to send')).toBeVisible()
  // Left for the list and the signal comes back there: what waits of a property that is not open is sent too.
  await page.goto('/')
  await context.setOffline(false)
  await expect
    .poll(async () => Object.values((await stored(request, id)).facts.steps).map((s) => s.answer), { timeout: 80_000 })
    .toEqual([{ kind: 'done' }, { kind: 'done' }, { kind: 'text', text: 'A trench by B4' }])
})

test('what this device keeps is shown and chosen: pinned, let go of, room for pictures', async ({ page, request }) => {
  const name = `Kept here ${Date.now()}`
  const id = await ownProperty(request, name)
  await page.goto(`/p/${id}`)
  await expect(page.getByRole('heading', { name: /Gatehouse, threads/ })).toBeVisible()
  await page.waitForTimeout(1500)
  await page.goto('/')
  await page.getByRole('button', { name: 'On this device' }).click()
  const row = page.getByRole('dialog').getByRole('listitem').filter({ hasText: name })
  await row.getByLabel('Pinned').check()
  await page.reload()
  await page.getByRole('button', { name: 'On this device' }).click()
  await expect(row.getByLabel('Pinned')).toBeChecked()
  await expect(page.getByText(/of pictures are kept, the oldest go beyond 200 MB/)).toBeVisible()
  await row.getByRole('button', { name: /Let go/ }).click()
  await expect(row).toHaveCount(0)
})
