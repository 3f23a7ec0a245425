import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { beginWork, DEMO_FILE, doStep, openFile, ownProperty, pick, seriousFindings, stored, takePhoto } from './kit'
import { readPdf } from './pdf'

test('on a phone: a finding in three taps from its box, led on, struck out; what a wet check saw is among them', async ({
  page,
  request,
  browser,
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
  // What is open goes over to the owner with the booklet.
  await page.goto(`/p/${id}/record/cards`)
  const printing = page.waitForEvent('download')
  await page.getByRole('listitem').filter({ hasText: 'Handover booklet' }).getByRole('button').click()
  const text = (await readPdf(browser, await printing)).map((p) => p.text).join(' ')
  expect(text).toContain('Boat lawn: Leak, seen on')
  expect(text).not.toContain('Wet box')
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

const OPEN_PRICES = 'Open a price list (CSV, XLSX)'
const PRICES = `kind,code,name,value,unit,markup_pct,tax
setting,currency,,XTS,,,
setting,decimals,,2,,,
setting,round_to,,0.05,,,
tax,std,Standard,8.25,,,
price,call_out,Call-out,60,visit,,std
price,work,Work,71,h,,std
price,connector,Gel connector,1.50,piece,20,std
price,coil,Coil,24.90,piece,25,std
`

test('a quote: a list that is none is refused, a price that is missing is asked for; repairs and findings priced; CSV and PDF to the cent', async ({
  page,
  request,
  browser,
}) => {
  const demo = JSON.parse(readFileSync(DEMO_FILE, 'utf8')) as {
    site: { devices: Record<string, object>; defects: object }
  }
  // One thing alone is bad.
  demo.site.defects = {}
  demo.site.devices.V9 = { ...demo.site.devices.V9, condition: { state: 'open', since: '2027-04-01', note: '' } }
  const made = await request.post('/api/properties?as=copy&name=Quoted', {
    headers: { 'content-type': 'application/json' },
    data: JSON.stringify(demo),
  })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`/p/${id}/work/findings?box=B5`)
  await page.getByRole('button', { name: 'Wet box' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await page.getByRole('link', { name: 'Quote', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Price list' })).toBeVisible()
  const csv = (text: string) => ({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await openFile(page, OPEN_PRICES, csv(PRICES.replace('24.90', 'a lot')))
  await expect(page.getByRole('alert')).toContainText('a figure such as 12 or 8.25')
  await openFile(page, OPEN_PRICES, csv(PRICES.replace(/price,coil.*\n/, '')))
  await expect(page.getByRole('alert')).toContainText('no price for coil, by the piece')
  await openFile(page, OPEN_PRICES, csv(PRICES))
  await expect(page.locator('.due')).toContainText('The coil of Moss steps, upper')
  const total = page.locator('.sums dd').last()
  await expect(total).toHaveText(/^\d+\.\d[05]$/)
  const first = await total.textContent()
  await page.getByRole('button', { name: 'A line for it' }).click()
  await pick(page.getByLabel('Price', { exact: true }), 'Work')
  await page.getByLabel('How much, minutes').fill('twelve')
  await expect(page.getByRole('alert')).toContainText('How much of Work')
  await page.getByLabel('How much, minutes').fill('12')
  await expect(total).not.toHaveText(first!)
  expect(await seriousFindings(page)).toEqual([])
  await page.reload()
  await expect(page.getByLabel('How much, minutes')).toHaveValue('12')
  const now = (await total.textContent())!
  await page.getByLabel('May be accepted until').fill('2099-01-31')
  await page.getByRole('button', { name: 'Send it' }).click()
  const sent = page.locator('.sent')
  await expect(sent).toContainText('Sent, not answered yet.')
  await expect(sent).toContainText(now)
  // What is in it is not quoted twice.
  await expect(page.locator('.due')).toContainText('in a quote that was sent')
  await expect(page.getByText('Nothing is quoted yet.')).toBeVisible()
  const saving = page.waitForEvent('download')
  await sent.getByRole('button', { name: 'Save as CSV' }).click()
  const saved = readFileSync(await (await saving).path(), 'utf8')
  expect(saved.trim().split('\n').at(-1)).toBe(`,,,,total,${now},XTS`)
  const printing = page.waitForEvent('download')
  await sent.getByRole('button', { name: 'Customer’s copy (PDF)' }).click()
  const text = (await readPdf(browser, await printing)).map((p) => p.text).join(' ')
  expect(text).toContain(now)
  expect(text).toContain('Change the coil')
  await page.getByRole('link', { name: 'Findings', exact: true }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Wet box' })).toContainText('Quoted')

  // Prices that are put up afterwards leave it as it was sent; the list goes to a spreadsheet and back.
  await page.getByRole('link', { name: 'Quote', exact: true }).click()
  await openFile(page, OPEN_PRICES, csv(PRICES.replace('Work,71', 'Work,99')))
  await expect(page.getByText('It is the whole company’s.')).toBeVisible()
  const book = page.waitForEvent('download')
  await page.getByRole('button', { name: 'As XLSX' }).click()
  const xlsx = readFileSync(await (await book).path())
  await openFile(page, OPEN_PRICES, csv(PRICES))
  await openFile(page, OPEN_PRICES, { name: 'prices.xlsx', mimeType: 'application/octet-stream', buffer: xlsx })
  await expect
    .poll(async () => {
      const { record } = (await (await request.get('/api/company/prices')).json()) as {
        record: { prices: { code: string; price: string }[] }
      }
      return record.prices.find((p) => p.code === 'work')?.price
    })
    .toBe('99')
  await expect(sent).toContainText(now)
  await openFile(page, OPEN_PRICES, { name: 'a.xlsx', mimeType: 'application/octet-stream', buffer: Buffer.from('no') })
  await expect(page.getByRole('alert')).toContainText('no XLSX workbook')
  await sent.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(sent).toContainText('Withdrawn')
  await page.getByRole('link', { name: 'Findings', exact: true }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Wet box' })).toContainText('Open')
})
