import { readFileSync } from 'node:fs'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { v7 } from 'uuid'
import writeExcelFile from 'write-excel-file/node'
import { registerRows, writeProperty } from '../core/formats'
import { noFacts } from '../core/record'
import { Draft, pathsOf } from '../core/site'
import { openFile, ownProperty, pressByKey, pressTo, seriousFindings, stored } from './kit'
import { readPdf } from './pdf'

const BOXES = `box, metres, valves, from
D1, 6, Rose bed
D2, 40, Lawn east + Lawn west
D3, 52, Hedge
D4, 48, Terrace
D5, 60, Steps + Wall
D6, 35, Slope, D2
D7, 41, Pond + Fern bank
D8, 38, Orchard
D9, 30, Lookout, D4
D10, 44, Ring + Lane
D11, 45, Apiary
D12, 36, Far gate`

/** A property with a bare controller in its cabinet. */
async function bareProperty(request: APIRequestContext): Promise<string> {
  const site = new Draft('Path planned')
    .setting('market', 'metric')
    .setting('units', { length: 'm', temperature: 'C' })
    .place('D', 'cabinet')
    .controller('D', 'D', 0, { terminals: {}, name: 'Dome' })
    .site()
  const reply = await request.post('/api/properties?as=copy', {
    headers: { 'content-type': 'application/json' },
    data: writeProperty({ id: v7(), revision: 0, site, facts: noFacts() }),
  })
  expect(reply.status()).toBe(201)
  return ((await reply.json()) as { id: string }).id
}

test('a path of twelve boxes from a pasted list to order sheet, labels and arrestors, without a pointer', async ({
  page,
  browser,
  request,
}) => {
  const id = await bareProperty(request)
  await page.addInitScript(() => localStorage.setItem('field-thread.author', 'Ann'))
  await page.goto(`/p/${id}/path`)
  await pressByKey(page, /^Give it a path$/, 150)
  await pressTo(page, /^Boxes of the path$/, 120)
  await page.keyboard.insertText(BOXES.replace('D1, 6, Rose bed', 'D1, six, Rose bed'))
  await expect(page.getByRole('alert')).toContainText('“six” is no length')
  await page.keyboard.press('Control+a')
  await page.keyboard.insertText(BOXES)
  await expect(page.getByText('12 boxes, 12 decoders, 16 stations.')).toBeVisible()
  await pressByKey(page, /^Take it in$/, 150)
  await expect(page.getByText('Taken in.')).toBeVisible()

  await pressByKey(page, /^Volts$/, 150)
  await expect(page.getByText('Every decoder has enough.')).toBeVisible()
  await expect(page.getByText(/Weakest: X\d+ in D\d+ has 2\d\.\d\d V and needs 18 V/)).toBeVisible()
  await pressByKey(page, /^the worst$/, 150)
  await expect(page.getByText(/Mains low by 10 %/)).toBeVisible()

  await pressByKey(page, /^Register$/, 150)
  await expect(page.getByText('No number is given twice')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Order sheet' }).getByRole('row')).toHaveCount(3)
  const saved = page.waitForEvent('download')
  await pressByKey(page, /^Save as CSV$/, 150)
  const csv = readFileSync(await (await saved).path(), 'utf8')
  expect(csv.split('\n')[1]).toMatch(/^1,X\d+,1,D1,/)
  expect(csv.trim().split('\n')).toHaveLength(17)
  const printed = page.waitForEvent('download')
  await pressByKey(page, /^Labels as PDF$/, 150)
  const [sheet] = await readPdf(browser, await printed)
  for (const what of ['D12: Far gate', 'D7: Pond, Fern bank']) expect(sheet!.text).toContain(what)

  await pressByKey(page, /^Arrestors$/, 150)
  await expect(page.getByText(/Still wanted, no fewer will do: D1, /)).toBeVisible()
  await pressByKey(page, /^Put them on record$/, 150)
  await expect(page.getByText('The rules are kept.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('The rules are kept.')).toBeVisible()
  const { site } = await stored(request, id)
  const stations = Object.values(site.stations)
  expect([stations.length, new Set(stations.map((s) => s.address)).size]).toEqual([16, 16])
})

test('the dome: the weakest decoder, a number given twice put right, an earth read, an old cable that can become a path', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Dome')
  await page.addInitScript(() => localStorage.setItem('field-thread.author', 'Ann'))
  await page.goto(`/p/${id}/path`)
  await expect(page.getByText('Every decoder has enough.')).toBeVisible()
  await page.getByRole('combobox', { name: 'Running' }).press('ArrowDown')
  await page.getByRole('option', { name: /^17 Lookout bed/ }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Coils that are on' })).toBeVisible()
  await page.getByRole('button', { name: 'Register' }).click()
  await expect(page.getByText('The number 10 is given twice: X10, X28.')).toBeVisible()
  await page.getByLabel('Number of X28').fill('28')
  await page.getByLabel('Number of X28').press('Enter')
  await expect(page.getByText('No number is given twice')).toBeVisible()
  await page.getByRole('button', { name: 'Arrestors' }).click()
  await expect(page.getByText('Still wanted, no fewer will do: D14.')).toBeVisible()
  await expect(page.getByText('31 Ω')).toBeVisible()
  await page.getByLabel('Ohms').fill('a lot')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('as a figure')
  await page.getByLabel('Ohms').fill('9.5')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('9.5 Ω')).toBeVisible()
  await page.getByRole('button', { name: 'Convert' }).click()
  await expect(page.getByText('No station hangs on K5 by a lead of its own.')).toBeVisible()
  await expect.poll(async () => Object.values((await stored(request, id)).facts.earthReadings).length).toBe(22)
})

test('an old cable is converted by one press: its valves go behind decoders with numbers, and one undo takes it back', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Converted')
  const addressed = async () => {
    const { site } = await stored(request, id)
    return Object.values(site.stations).filter((s) => s.controller === 'A' && s.address !== null).length
  }
  await page.goto(`/p/${id}/path?controller=D&show=system`)
  await page.getByRole('combobox', { name: 'Controller' }).click()
  await page.getByRole('option', { name: 'A Gatehouse' }).click()
  await page.getByRole('button', { name: 'Give it a path' }).click()
  await page.getByRole('button', { name: 'Convert' }).click()
  await expect(page.getByText('It can be done.')).toBeVisible()
  await expect(
    page.getByText('8 decoders with numbers, 2 arrestors; 15 cores in two legs, 2 as they are.'),
  ).toBeVisible()
  expect(await seriousFindings(page)).toEqual([])
  await page.getByRole('button', { name: 'Write it down as converted' }).click()
  await expect(page.getByText('No station hangs on K1 by a lead of its own.')).toBeVisible()
  await expect(page.getByText('All saved').first()).toBeAttached()
  await expect.poll(addressed).toBe(12)
  await page.getByRole('button', { name: 'Register' }).click()
  await expect(page.getByText('No number is given twice')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect.poll(addressed).toBe(0)
})

test('a fault of the path: what is read is kept and weighed, taken back and begun anew; the length is named', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Dome searched')
  await page.goto(`/p/${id}/path?show=find`)
  await expect(page.getByRole('heading', { name: /^Amperes/ })).toBeVisible({ timeout: 90_000 })
  const field = page.getByLabel('It reads, A')
  await field.fill('a lot')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Type a figure')
  await page.locator('summary').filter({ hasText: 'Sweep of the path' }).click()
  for (const [number, amps] of [
    [17, '0.24'],
    [18, '0'],
    [20, '0.001'],
  ] as const) {
    const asked = `Amperes that number ${number} adds while it runs`
    await page.locator('.swept').getByRole('button', { name: asked, exact: true }).click()
    await expect(page.getByRole('heading', { name: asked })).toBeVisible()
    await field.fill(amps)
    await page.keyboard.press('Enter')
    await expect(page.locator('.kept').filter({ hasText: asked })).toContainText(`${Number(amps)} A`)
  }
  await expect(page.getByText(/^Go to D(9|10)/)).toBeVisible({ timeout: 90_000 })
  await expect(page.locator('.suspect').first()).toContainText(/a leg is open, .*D9|a leg is open, .*D10/)
  await page.reload()
  await expect(page.locator('.kept')).toHaveCount(3)
  await page.locator('.kept').first().getByRole('button', { name: 'Take it back' }).click()
  await expect(page.locator('.kept')).toHaveCount(2)
  await page.getByRole('button', { name: 'Begin anew' }).click()
  await expect(page.getByText('Nothing yet.')).toBeVisible()
  await expect(page.getByText('All saved')).toBeVisible()
  const { facts } = await stored(request, id)
  expect(Object.values(facts.pathReadings).map((f) => f.tried.kind)).toEqual(['read', 'read', 'read', 'back', 'begun'])

  // A made-up path is read by a meter: what it shows is kept as what is typed.
  await page.locator('summary').filter({ hasText: 'Meter' }).click()
  await page.getByRole('button', { name: 'Practise on a made-up path' }).click()
  for (let i = 1; i <= 3; i++) {
    await page.getByRole('button', { name: 'Read the meter' }).click()
    await expect(page.locator('.kept')).toHaveCount(i, { timeout: 90_000 })
  }
})

test('the dome planned anew: sizes proven least, kinds by price, a register from a workbook that says otherwise, a rod', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Dome anew')
  await page.goto(`/p/${id}?station=D:n18`)
  const panel = page.getByRole('region', { name: 'Lookout lawn' })
  await expect(panel).toContainText('Y18 at D10, decoder’s leads off')
  await expect(panel).toContainText(/Path at D10 while 18 starts\s*2\d\.\d V/)
  await page.getByRole('button', { name: /East hedge/ }).click()
  await expect(page.getByRole('region', { name: 'East hedge' })).toContainText('Lamp of X7 answers to')

  await page.goto(`/p/${id}/path?show=sizes`)
  await expect(page.getByText('Everything on the path has its volts at its worst.')).toBeVisible()
  await page.getByLabel('Choose all sizes anew').check()
  await page.getByRole('button', { name: 'Choose the cheapest sizes' }).click()
  await expect(page.getByText('proven, nothing cheaper holds')).toBeVisible({ timeout: 60_000 })
  await page.getByRole('button', { name: 'Write these sizes into the plan' }).click()
  await expect(page.getByText(/Weakest: Y\d+ behind X\d+ has (19|2\d)\.\d\d V/)).toBeVisible()
  await expect
    .poll(async () => Object.values((await stored(request, id)).site.cables).find((c) => c.tag === 'K5')!.gauge)
    .toMatchObject({ value: { area_mm2: 1 }, how: 'assumed' })

  await page.goto(`/p/${id}/path?show=register`)
  await page.getByLabel('Price, one output').fill('a lot')
  await page.getByLabel('Price, one output').press('Enter')
  await expect(page.getByRole('alert')).toContainText('a sum from 0')
  for (const [outputs, price] of [
    ['one output', '40'],
    ['2 outputs', '55'],
  ]) {
    await page.getByLabel(`Price, ${outputs}`).fill(price!)
    await page.getByLabel(`Price, ${outputs}`).press('Enter')
  }
  await expect(page.getByText(/^The cheapest by the list: 20 decoders, .* 965\.00/)).toBeVisible()
  const path = pathsOf((await stored(request, id)).site)[0]!
  const rows = registerRows((await stored(request, id)).site, path).map((cells) =>
    cells.map((value, i) => ({ value: cells[1] === 'X28' && i === 0 ? 28 : value })),
  )
  const book = await writeExcelFile([{ sheet: 'Register', data: rows }]).toBuffer()
  await openFile(page, 'Read a CSV or XLSX back', {
    name: 'register.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: book,
  })
  await expect(page.getByText('X28: 10 on record, 28 in the file.')).toBeVisible()
  await page.getByRole('button', { name: 'Take the file’s numbers over' }).click()
  await expect(page.getByText('No number is given twice')).toBeVisible()

  await page.goto(`/p/${id}/path?show=surge`)
  await page.getByRole('button', { name: 'R5: It stands there' }).click()
  await expect(page.getByText(/The path stays .* away, farther than the 2\.4 m of the rod/)).toBeVisible()
})

for (const [width, height, theme] of [
  [1280, 800, 'dusk'],
  [390, 844, 'noon'],
] as const)
  test(`two-wire path: nothing serious for axe, nothing off the side, at ${width} × ${height}, ${theme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize({ width, height })
    await page.addInitScript((t) => localStorage.setItem('field-thread.theme', t), theme)
    const id = await ownProperty(request, `Path ${width}`)
    for (const show of ['volts', 'find', 'sizes', 'plan', 'register', 'surge', 'convert', 'system']) {
      await page.goto(`/p/${id}/path?show=${show}`)
      await expect(page.getByRole('heading', { name: 'Two-wire path' })).toBeVisible()
      if (show === 'volts') await expect(page.getByText(/Weakest: X/)).toBeVisible()
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
      expect(await seriousFindings(page)).toEqual([])
    }
  })
