import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { DEMO_FILE, openFile, ownProperty, pick, seriousFindings, stored } from './kit'

test('threads: what each should read, why, and where the spring’s faults lie', async ({ page, request }) => {
  const id = await ownProperty(request, 'Threads')
  await page.goto(`/p/${id}`)
  await expect(page.getByRole('heading', { name: 'The common is cut between B4 and B5' })).toBeVisible({
    timeout: 90_000,
  })
  await expect(page.getByRole('heading', { name: 'The coil of Far willows in B11: shorted turns' })).toBeVisible()
  await page.keyboard.press('/')
  await expect(page.getByPlaceholder('Type a name')).toBeFocused()
  await page.keyboard.type('willows')
  await page.keyboard.press('Enter')
  await expect(page.locator('.panel')).toContainText('rule of thumb would have passed this fault')
  const terms = await page.locator('.panel .why dd').allTextContents()
  const sum = await page.locator('.panel .why .sum dd').textContent()
  expect(terms.slice(0, terms.indexOf(sum!)).reduce((total, t) => total + Number(t), 0)).toBeCloseTo(Number(sum), 1)
  await pick(page.getByLabel('Readings shown'), 'none, expected only')
  await expect(page.getByText('expected Ω').first()).toBeVisible()
  await page.goBack()
  await page.goForward()
  await expect(page.locator('.panel')).toContainText('Far willows')
})

test('a change by hand is kept, shown in the journal, taken back by undo; a bad figure is refused at its field', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Changes')
  await page.goto(`/p/${id}/record`)
  const joint = page.getByLabel('Sound joint, Ω')
  await joint.fill('7')
  await joint.press('Enter')
  await expect(page.getByText('Sound joint, Ω: write a number from 0 to 1.')).toBeVisible()
  await joint.fill('0.04')
  await joint.press('Enter')
  await expect(page.getByText('Settings, ohms of a sound joint')).toBeVisible()
  expect((await stored(request, id)).site.settings.soundSplice_ohm).toBe(0.04)
  await page.getByRole('button', { name: 'Undo the last change' }).click()
  await expect(page.getByText('takes back change 1')).toBeVisible()
  expect((await stored(request, id)).site.settings.soundSplice_ohm).toBe(0.03)
  await pick(page.getByLabel('Units'), 'feet, °F')
  await expect(page.getByLabel('Usual ground temperature, °F')).toHaveValue('57.2')
  await page.goto(`/p/${id}`)
  await expect(page.locator('.box-at').first()).toContainText('46 ft')
})

test('undo by key from any page, again and again; what is typed in a field is left to the field', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Undo')
  await page.goto(`/p/${id}?station=A:1`)
  const name = page.getByLabel('Station name')
  for (const to of ['Rose bed', 'Rose bank']) {
    await name.fill(to)
    await name.press('Enter')
    await expect(page.locator('.rail')).toContainText(to)
    await expect(page.getByRole('status').last()).toContainText('All saved')
  }
  await name.press('Control+z')
  await expect(page.locator('.rail')).toContainText('Rose bank')
  await page.locator('.picture h1').click()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Change 2 taken back.')).toBeVisible()
  await expect(page.locator('.rail')).toContainText('Rose bed')
  await expect(page.getByText('All saved')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Change 1 taken back.')).toBeVisible()
  await expect(page.locator('.rail')).toContainText('Entrance bed')
  await expect(page.getByText('All saved')).toBeVisible()
  expect((await stored(request, id)).revision).toBe(4)
})

test('two editors: the second to change one field is told by name and sees the other’s word', async ({
  browser,
  page,
  request,
  baseURL,
}) => {
  const id = await ownProperty(request, 'Two people')
  const other = await (await browser.newContext({ baseURL: baseURL! })).newPage()
  const third = await other.context().newPage()
  // A page that is not told what others write has a word of yesterday.
  await page.route('**/live', (route) => route.abort())
  for (const p of [page, other, third]) {
    await p.goto(`/p/${id}/record`)
    await expect(p.getByLabel('Contractor')).toBeVisible()
  }
  await other.getByLabel('Contractor').fill('First Crew')
  await other.getByLabel('Contractor').press('Enter')
  await expect(other.getByText('The property, contractor')).toBeVisible()
  // One that is told has the other’s word by itself.
  await expect(third.getByLabel('Contractor')).toHaveValue('First Crew')
  await page.getByLabel('Contractor').fill('Second Crew')
  await page.getByLabel('Contractor').press('Enter')
  await expect(page.getByRole('alert')).toContainText('The property, contractor was changed by somebody else')
  await expect(page.getByLabel('Contractor')).toHaveValue('First Crew')
  await other.context().close()
})

test('files: saved and opened again, asked about when already here, told in a sentence when broken', async ({
  page,
  request,
}) => {
  await page.goto('/')
  const choose = (name: string, text: string) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  await choose('demo.json', readFileSync(DEMO_FILE, 'utf8'))
  await expect(page.getByText('This property is here already')).toBeVisible()
  await page.getByLabel('Name of the copy').fill('Copied lake')
  await page.getByRole('button', { name: 'Take it in as a copy' }).click()
  await expect(page.getByRole('heading', { name: 'Gatehouse, threads' })).toBeVisible()
  const id = page.url().split('/').at(-1)!.split('?')[0]!
  await page.getByRole('link', { name: 'Record' }).first().click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as a file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('copied-lake.json')
  expect(readFileSync(await download.path(), 'utf8')).toBe(
    await (await request.get(`/api/properties/${id}/file`)).text(),
  )
  await page.goto('/')
  await choose(
    'broken.json',
    readFileSync(DEMO_FILE, 'utf8').replace('"soundSplice_ohm": 0.03', '"soundSplice_ohm": "a little"'),
  )
  await expect(page.getByRole('alert')).toContainText(
    'Settings, ohms of a sound joint is of kind string, but a number is needed',
  )
  await choose('half.json', readFileSync(DEMO_FILE, 'utf8').slice(0, 9000))
  await expect(page.getByRole('alert')).toContainText('stops being readable at line')
})

test('addresses that lead nowhere say so and lead on', async ({ page }) => {
  await page.goto('/p/0198f2a0-4b7e-7c31-9d52-6a1f0c3e5bff')
  await expect(page.getByRole('link', { name: 'To the properties' })).toBeVisible()
  await page.goto('/nowhere')
  await expect(page.getByRole('link', { name: 'To the properties' })).toBeVisible()
})

const pagesOf = (id: string): string[] => [
  '/',
  `/p/${id}`,
  `/p/${id}?station=A:18`,
  `/p/${id}/test`,
  `/p/${id}/test/spring-2026`,
  `/p/${id}/test/compare`,
  `/p/${id}/record`,
]
const widthOf = (page: Page): Promise<number> => page.evaluate(() => document.documentElement.scrollWidth)

for (const viewport of [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
]) {
  test(`nothing serious for axe, nothing off the side, at ${viewport.width} × ${viewport.height}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize(viewport)
    const id = await ownProperty(request, 'Axe')
    for (const path of pagesOf(id)) {
      await page.goto(path)
      await page.waitForLoadState('networkidle')
      expect(await seriousFindings(page), path).toEqual([])
      expect(await widthOf(page), path).toBeLessThanOrEqual(viewport.width)
    }
    await page.goto(`/p/${id}/test`)
    await page.getByRole('button', { name: 'Start a sweep' }).click()
    await expect(page.getByLabel('Your name')).toBeVisible()
    expect(await seriousFindings(page), 'the dialog').toEqual([])
  })
}

test('nothing off the side of the narrowest phone', async ({ page, request }) => {
  const narrow = { width: 360, height: 640 }
  await page.setViewportSize(narrow)
  for (const path of pagesOf(await ownProperty(request, 'Narrow'))) {
    await page.goto(path)
    await page.waitForLoadState('networkidle')
    expect(await widthOf(page), path).toBeLessThanOrEqual(narrow.width)
  }
})

test('the first load of a property is light: script and style 300 kB, document 60 kB unpacked, fonts 120 kB', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Light')
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  const kinds = new Map<string, string>()
  const wire: Record<string, number> = {}
  session.on('Network.responseReceived', ({ requestId, type }) => kinds.set(requestId, type))
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const kind = kinds.get(requestId) ?? '?'
    wire[kind] = (wire[kind] ?? 0) + encodedDataLength
  })
  const document = await page.goto(`/p/${id}`)
  await page.waitForLoadState('networkidle')
  await expect(page.getByRole('heading', { name: 'The common is cut between B4 and B5' })).toBeVisible({
    timeout: 90_000,
  })
  console.log(`over the wire, bytes: ${JSON.stringify(wire)}`)
  expect((await document!.body()).length).toBeLessThanOrEqual(60_000)
  expect((wire.Script ?? 0) + (wire.Stylesheet ?? 0) + (wire.Other ?? 0)).toBeLessThanOrEqual(300_000)
  expect(wire.Font).toBeLessThanOrEqual(120_000)
})

test('a property is archived, its file kept, deleted for ever, and had back from the file with its past', async ({
  page,
  request,
}) => {
  const name = `Closed court ${Date.now()}`
  const id = await ownProperty(request, name)
  await page.goto(`/p/${id}?station=A:1`)
  await page.getByLabel('Station name').fill('Rose bed')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('status').first()).toContainText('All saved')
  await page.goto(`/p/${id}/record`)
  await page.getByRole('button', { name: 'Archive this property' }).click()
  const remove = page.getByRole('button', { name: 'Delete it for ever' })
  await expect(remove).toBeDisabled()
  const saving = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save its file with pictures and past' }).click()
  const file = (await (await saving).path())!
  await page.getByRole('link', { name: 'To the properties' }).click()
  await expect(page.getByRole('heading', { name: 'Properties' })).toBeVisible()
  await expect(page.getByRole('link', { name })).toHaveCount(0)
  await page.getByRole('button', { name: 'Archived properties' }).click()
  await page.getByRole('link', { name }).click()
  await page.goto(`/p/${id}/record`)
  await page.getByLabel('I have the file, or do not need it').check()
  await remove.click()
  await expect(page.getByRole('heading', { name: 'Properties' })).toBeVisible()
  expect((await request.get(`/api/properties/${id}`)).status()).toBe(404)
  await openFile(page, 'Open a property file', {
    name: 'kept.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(file),
  })
  await expect(page).toHaveURL(new RegExp(id))
  await page.goto(`/p/${id}/record`)
  await expect(page.getByText('Rose bed').first()).toBeVisible()
  const before = (await (await request.get(`/api/properties/${id}/revisions/0`)).json()) as { revision: number }
  expect(before.revision).toBe(0)
})
