import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { ownProperty, seriousFindings } from './kit'

test('the office’s list: what asks for somebody, found by a station, kept as a view; the way back leads to where it was', async ({
  page,
  request,
}) => {
  const name = `Office lake ${Date.now()}`
  await ownProperty(request, name)
  const view = `Lawns ${name.split(' ').at(-1)!}`
  const stationOf = `${name.split(' ').at(-1)!} ticket law`
  const row = page.getByRole('row').filter({ hasText: name })
  await page.goto(`/?find=${encodeURIComponent(name)}`)
  // What it asks for is worked out beside everything else, and is there when the list is looked at again.
  await expect(async () => {
    await page.reload()
    await expect(row).toContainText('7 threads read a fault', { timeout: 3000 })
  }).toPass({ timeout: 60_000 })
  await expect(row).toContainText('a joint creeps out of its band about')
  expect(await seriousFindings(page)).toEqual([])
  await page.getByLabel('Find', { exact: true }).fill(stationOf)
  await expect(row).toBeVisible()
  await page.getByRole('button', { name: /^Faults \d/ }).click()
  await expect(page).toHaveURL(/need=faults/)
  await page.getByRole('button', { name: 'Keep this view' }).click()
  await page.getByLabel('Name of the view').fill(view)
  await page.getByRole('dialog').getByRole('button', { name: 'Keep this view' }).click()
  await expect(page.getByRole('button', { name: view, pressed: true })).toBeVisible()
  await page.getByLabel('Find', { exact: true }).press('Tab')
  await row.getByRole('link').focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Gatehouse, threads' })).toBeVisible()
  await page.goBack()
  await expect(page.getByLabel('Find', { exact: true })).toHaveValue(stationOf)
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Visits due as a calendar' }).click()
  const calendar = readFileSync(await (await saving).path(), 'utf8').replaceAll('\r\n ', '')
  expect(calendar).toMatch(new RegExp(`DTSTART;VALUE=DATE:20270412[^]*SUMMARY:${name}: visit due`))
  // On the map it is the one mark, in the middle; the address leads back to the map.
  await page.getByRole('button', { name: 'Map', exact: true }).click()
  const map = page.getByRole('application', { name: 'Properties on a map' })
  await expect(row).toHaveCount(0)
  await expect(async () => {
    await map.click()
    await expect(row).toContainText('7 threads read a fault', { timeout: 2000 })
  }).toPass()
  expect(await seriousFindings(page)).toEqual([])
  await page.reload()
  await expect(map).toBeVisible()
  await page.getByRole('button', { name: 'List', exact: true }).click()
  await page.getByLabel('Find', { exact: true }).fill('zzz')
  await expect(page.getByText('Nothing is found by “zzz”.')).toBeVisible()
  // Everybody of the company has the view, on whatever device.
  await page.goto('/')
  await page.getByRole('button', { name: view }).click()
  await expect(row).toBeVisible()
  await page.getByRole('button', { name: `Drop ${view}` }).click()
  await expect(page.getByRole('button', { name: view })).toHaveCount(0)
})

test('a company with many properties: rows come as they are scrolled to, sorted where the list is kept; on a phone too', async ({
  page,
}) => {
  // Answers as a server with 2000 properties gives them: what the page makes of them is what is looked at.
  const asked: string[] = []
  await page.route(/\/api\/properties\?/, (route) => {
    const url = new URL(route.request().url())
    asked.push(url.search)
    const [offset, down] = [Number(url.searchParams.get('offset')), url.searchParams.get('down') === 'yes']
    const properties = Array.from({ length: Math.min(100, 2000 - offset) }, (_, i) => {
      const n = down ? 1999 - offset - i : offset + i
      return {
        ...{
          id: `0198f2a0-4b7e-7c31-9d52-${String(n).padStart(12, '0')}`,
          name: `Yard ${n}`,
          revision: 1,
          archived: false,
        },
        ...{ controllers: 1, stations: 99, visits: 2, lastVisit: '2026-05-01T10:00:00Z', astray: n % 7, faults: 0 },
        ...{
          findings: 0,
          creeping: 0,
          creepsOn: null,
          temporary: 0,
          temporaryUntil: null,
          quotes: 0,
          quotedOn: null,
        },
        ...{ visitDue: null, latitude_deg: null, longitude_deg: null },
      }
    })
    return route.fulfill({ json: { properties, total: 2000, needs: { all: 2000, any: 1714, faults: 1714 } } })
  })
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Yard 0', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'All 2000' })).toBeVisible()
  // No more rows are drawn than are looked at.
  expect(await page.locator('.property-table tbody tr').count()).toBeLessThan(60)
  const scroller = page.locator('[data-pc-name="virtualscroller"]')
  await scroller.evaluate((e) => (e.scrollTop = 1500 * 72))
  await expect(page.getByRole('link', { name: 'Yard 1500', exact: true })).toBeVisible()
  await page.getByRole('columnheader', { name: 'Property' }).click()
  await expect(page).toHaveURL(/down=yes/)
  await expect(page.getByRole('link', { name: 'Yard 1999', exact: true })).toBeVisible()
  expect(asked.length).toBeLessThan(12)
  await page.setViewportSize({ width: 390, height: 844 })
  await page.reload()
  await expect(page.getByRole('link', { name: 'Yard 1999', exact: true })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  expect(await seriousFindings(page)).toEqual([])
})

test('what fails: counted over all properties; a company that goes by it has it said in Diagnose, until it does not', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, `Failing lake ${Date.now()}`)
  const adopt = page.getByRole('checkbox', { name: 'Diagnose goes by your odds' })
  const said = page.getByText('is taken from your own properties')
  const diagnose = async () => {
    await page.goto(`/p/${id}/diagnose?job=spring-2026`)
    await expect(page.getByRole('heading', { name: 'Readings' })).toBeVisible()
  }
  await page.goto('/')
  await page.getByRole('link', { name: 'What fails' }).click()
  await expect(page.getByRole('heading', { name: 'What fails' })).toBeVisible()
  await expect(async () => {
    await page.reload()
    await expect(page.getByRole('cell', { name: 'pre-filled gel nut' })).toBeVisible({ timeout: 3000 })
  }).toPass({ timeout: 60_000 })
  expect(await seriousFindings(page)).toEqual([])
  await adopt.check()
  await page.reload()
  try {
    await expect(adopt).toBeChecked()
    await diagnose()
    await expect(said).toBeVisible()
  } finally {
    await page.goto('/failures')
    await adopt.uncheck()
  }
  await diagnose()
  await expect(said).toHaveCount(0)
})
