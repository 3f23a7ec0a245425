import { expect, test } from '@playwright/test'
import { beginSweep, ownProperty, stored } from './kit'

test('a sweep and a hunt of one day are jobs of one visit, with everybody who was there; old addresses lead on', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Two jobs')
  const sweep = await beginSweep(page, id, { others: 'Alex, , Jo ' })
  await page.goto(`/p/${id}/diagnose`)
  await page.getByRole('button', { name: 'Begin a hunt' }).click()
  await expect(page.getByText(/Part of the visit that began today at .*: Sam, Alex, Jo\./)).toBeVisible()
  await page.getByLabel('Your name').fill('Kim')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Which zones stay dry?' })).toBeVisible()
  await expect(page).toHaveURL(/[?&]job=/)
  const hunt = new URL(page.url()).searchParams.get('job')!
  // What was entered is shown before it is on its way.
  await expect.poll(async () => Object.keys((await stored(request, id)).facts.jobs)).toContain(hunt)
  await expect(page.getByRole('status').first()).toContainText('All saved')

  const { facts } = await stored(request, id)
  expect([facts.jobs[sweep]!.kind, facts.jobs[hunt]!.kind]).toEqual(['sweep', 'hunt'])
  expect(facts.jobs[hunt]!.visit).toBe(facts.jobs[sweep]!.visit)
  await page.goto(`/p/${id}/test`)
  // A hunt is no sweep to read on.
  await expect(page.locator('.list').getByRole('link', { name: /Hunt/ })).toHaveCount(0)
  await page.getByRole('link', { name: 'Work', exact: true }).first().click()
  await expect(page.getByText(/with Sam, Alex, Jo, Kim/)).toBeVisible()
  const visit = page.locator('.page section').first()
  await expect(visit.getByRole('link')).toHaveCount(2)
  await expect(visit.getByRole('link', { name: /Hunt/ })).toContainText('nothing mended · nothing read yet')
  await visit.getByRole('link', { name: /Hunt/ }).click()
  await expect(page).toHaveURL(new RegExp(`diagnose\\?job=${hunt}`))
  await page.goto(`/p/${id}/diagnose?visit=${sweep}`)
  await expect(page).toHaveURL(new RegExp(`diagnose\\?job=${sweep}`))
  await expect(page.getByRole('heading', { name: 'Which zones stay dry?' })).toHaveCount(0)
})
