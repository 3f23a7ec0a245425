import { expect, test } from '@playwright/test'
import { beginWork, doStep, ownProperty, pick, seriousFindings, stored, takePhoto } from './kit'

test('on a phone: a finding in three taps from its box, led on, struck out; what a wet check saw is among them', async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  const id = await ownProperty(request, 'Findings')
  await page.goto(`/p/${id}/boxes/B3`)
  await page.getByRole('link', { name: 'Note a finding here' }).click()
  await page.getByRole('button', { name: 'Wet box' }).click()
  await page.getByLabel('In words, if need be').fill('to the brim')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('Kept: Wet box.')).toBeVisible()
  await page.getByRole('button', { name: 'Lid that stands proud' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  const rows = page.getByRole('listitem').filter({ hasText: 'Box B3' })
  // What may hurt somebody stands first.
  await expect(rows).toHaveCount(2)
  await expect(rows.first()).toContainText('Lid that stands proud')
  await expect(rows.last()).toContainText('to the brim')
  await takePhoto(rows.first())
  await expect(rows.first().getByRole('button', { name: /^Photo/ })).toBeVisible()
  expect(await seriousFindings(page)).toEqual([])
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await rows.first().getByRole('button', { name: 'Done' }).click()
  await rows.filter({ hasText: 'to the brim' }).getByRole('button', { name: 'It was none' }).click()
  await expect(page.getByText('Nothing is open.')).toBeVisible()

  await page.goto(`/p/${id}/test/wet?controller=S`)
  await beginWork(page, page, 'Wet check')
  await doStep(page)
  await doStep(page, 'A broken head')
  await page.goto(`/p/${id}/work/findings`)
  const walked = page.getByRole('listitem').filter({ hasText: 'from a wet check' })
  await expect(walked).toContainText('Broken head')
  await pick(page.locator('#sighting-where'), 'S 1 Boat lawn')
  await page.getByRole('button', { name: 'Leak', exact: true }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await walked.getByRole('button', { name: 'Declined' }).click()
  await page.reload()
  await page.getByText('Settled').click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Broken head' })).toContainText('Declined')
  await expect(page.getByText('All saved')).toBeVisible()
  const { facts } = await stored(request, id)
  // Nothing is deleted: what was struck out is on record with who did it.
  expect(
    Object.values(facts.sightings)
      .map((s) => s.what)
      .sort(),
  ).toEqual(['leak', 'lid_proud', 'wet_box'])
  expect(
    Object.values(facts.sightingTurns)
      .map((s) => s.to)
      .sort(),
  ).toEqual(['declined', 'done', 'struck'])
})
