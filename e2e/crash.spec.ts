import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { beginSweep, ownProperty, SOUND, stored } from './kit'

const running = () => JSON.parse(readFileSync(process.env.RUNNING_NOTES!, 'utf8')) as { server: number; database: number }

test('server and database killed in mid-sweep: entry goes on, the page says what waits, nothing is lost or doubled', async ({ page, request }) => {
  const id = await ownProperty(request, 'Thunder')
  const visit = await beginSweep(page, id)
  await expect(page.getByRole('status')).toContainText('All saved')
  for (const [i, reading] of SOUND.entries()) {
    if (i === 4) process.kill(running().server, 'SIGKILL')
    if (i === 12) process.kill(running().database, 'SIGKILL')
    await page.locator('#reading').fill(reading)
    await page.keyboard.press('Enter')
    if (i === 5) await expect(page.getByRole('status')).toContainText(/kept on this device|sending/)
    await page.waitForTimeout(120)
  }
  await expect(page.getByRole('status')).toContainText('All saved', { timeout: 40_000 })
  const { facts } = await stored(request, id)
  const mine = Object.values(facts.readings).filter((r) => r.visit === visit)
  expect(mine.map((r) => (r.value as { ohm: number }).ohm)).toEqual(expect.arrayContaining(SOUND.map(Number)))
  expect(mine).toHaveLength(SOUND.length)
})

test('no signal: readings wait on the device through a reload of the page, and go when the signal is back', async ({ page, context, request }) => {
  const id = await ownProperty(request, 'Valley')
  const visit = await beginSweep(page, id)
  await page.route('**/messages', (route) => route.abort())
  for (const reading of SOUND.slice(0, 3)) {
    await page.locator('#reading').fill(reading)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('status')).toContainText('kept on this device, 3 to send')
  await page.reload()
  await expect(page.getByRole('status')).toContainText('3 to send')
  await expect(page.locator('.panel .peg').first()).toHaveText('3')
  expect(Object.values((await stored(request, id)).facts.readings).filter((r) => r.visit === visit)).toHaveLength(0)
  await page.unroute('**/messages')
  await context.setOffline(true)
  await context.setOffline(false)
  await expect(page.getByRole('status')).toContainText('All saved')
  expect(Object.values((await stored(request, id)).facts.readings).filter((r) => r.visit === visit)).toHaveLength(3)
})
