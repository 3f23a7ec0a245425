import { readFileSync } from 'node:fs'
import { expect, test, type APIRequestContext, type Page } from '@playwright/test'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import GeoJSON from 'ol/format/GeoJSON.js'
import { v7 } from 'uuid'
import { writeProperty } from '../core/formats'
import { listCommands, stationRow } from '../core/plan'
import { noFacts } from '../core/record'
import { applyBatch, emptySite } from '../core/site'
import {
  beginWork,
  doStep,
  takePhoto,
  openFile,
  ownProperty,
  pick,
  pressByKey,
  pressTo,
  seriousFindings,
  stored,
} from './kit'

/** A planned property: three valves in B1, one in B2, nothing made yet. */
async function planned(request: APIRequestContext): Promise<string> {
  const empty = emptySite(`Planned ${Date.now()}`)
  const commands = listCommands(empty, [
    ...['1', '2', '3'].map((station) =>
      stationRow.parse({ station, name: `Bed ${station}`, box: 'B1', at_m: 30, coil: '33' }),
    ),
    stationRow.parse({ station: '4', name: 'Far bed', box: 'B2', at_m: 50, coil: '33' }),
  ])
  const applied = applyBatch(empty, commands.ok ? commands.value : [])
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  const reply = await request.post('/api/properties', {
    headers: { 'content-type': 'application/json' },
    data: writeProperty({ id: v7(), revision: 0, site: applied.value.site, facts: noFacts() }),
  })
  return ((await reply.json()) as { id: string }).id
}
const saved = (page: Page) => expect(page.getByText('All saved')).toBeVisible()

test('the wiring plans itself: colours and spares, then a box made in one nut, in chained crimps or with its common split; ticked, refused, undone', async ({
  page,
  request,
}) => {
  const id = await planned(request)
  await page.goto(`/p/${id}/plan/wiring`)
  await page.getByRole('button', { name: 'Plan the wiring' }).click()
  await expect(page.getByText('The wiring is as planned.')).toBeVisible()
  await expect(page.locator('tbody tr')).toHaveCount(7)
  await expect(page.locator('tbody tr').nth(1)).toContainText('red')
  await page.goto(`/p/${id}/boxes/B1`)
  const common = page.locator('article', { has: page.getByRole('heading', { name: 'Common' }) })
  await expect(common.getByRole('img')).toHaveAccessibleName(
    /K1 white, V1 lead b, V2 lead b, V3 lead b, K1 white → on \(nut and gel tube\)/,
  )
  await pick(common.getByRole('combobox'), 'gel crimp, 3 ports')
  await expect(page.getByRole('alert')).toContainText('it would hold 5 conductors, and takes 3')
  await common.getByRole('button', { name: '3 × gel crimp, 3 ports, with 2 jumpers' }).click()
  await expect(common.getByRole('combobox')).toHaveCount(3)
  await common.getByRole('button', { name: 'one nut and gel tube' }).click()
  await common.getByRole('button', { name: /Split the common over two cores: 2 connectors/ }).click()
  await expect(page.locator('article', { has: page.getByRole('heading', { name: 'Common' }) })).toHaveCount(2)
  await page.getByRole('button', { name: 'Settle open connectors' }).click()
  await saved(page)
  await expect(page.getByRole('heading', { name: 'Common' })).toHaveCount(2)
  const first = page.locator('article').first()
  await beginWork(page, first, 'Make a gel crimp')
  for (let i = 0; i < 7; i++) await doStep(page)
  await saved(page)
  const { site } = await stored(request, id)
  expect(
    Object.values(site.splices)
      .filter((s) => s.ticks.length > 0)
      .map((s) => [s.connector, s.ticks, s.made?.how]),
  ).toEqual([['gel_crimp_3', ['home', 'squeezed'], 'seen']])
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /^Squeeze it level.*to do/ })).toBeVisible()
  await page.goto(`/p/${id}/boxes/B1`)
  await expect(first.getByText('seen home')).toBeVisible()
  await expect(first.getByText('squeezed')).toBeHidden()
  await expect(first.getByRole('link', { name: /^Make a gel crimp: 6 of 11/ })).toBeVisible()
})

test('what is in the ground is recorded: what a joint would bring about is told first; a core is cut, coloured otherwise at its other end, and told', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Recorded')
  await page.goto(`/p/${id}/boxes/B2`)
  await page.getByRole('button', { name: 'A valve stands here' }).click()
  const ends = page.locator('section', { has: page.getByRole('heading', { name: 'What is here' }) })
  await ends
    .getByRole('button', { name: /lead b/ })
    .last()
    .click()
  await ends.getByRole('button', { name: 'K1 white', exact: true }).click()
  await ends.getByRole('button', { name: 'K1 red', exact: true }).click()
  await expect(ends).toContainText('This would A:1 is joined to the common by the record')
  await ends.getByRole('button', { name: 'K1 red', exact: true }).click()
  await ends.getByRole('button', { name: 'Join them' }).click()
  await saved(page)
  await page.getByRole('button', { name: 'K1 violet: at work A:6, runs through' }).click()
  await page.getByRole('button', { name: 'Cut it here' }).click()
  await page.getByLabel('Colour here, if unlike').fill('black')
  await page.getByLabel('Colour here, if unlike').press('Enter')
  await expect(page.getByText('A core of K1 is violet, but black at B2')).toBeVisible()
  await saved(page)
  const { site } = await stored(request, id)
  expect(site.cables['K1' as never]).toMatchObject({
    cores: { violet: { cutAt: ['B3', 'B2'], colourAt: { B2: 'black' } } },
  })
  await page.getByRole('button', { name: 'Let it run through' }).click()
  await page.getByRole('link', { name: 'All boxes' }).click()
  await expect(page.getByRole('link', { name: /^B2 / })).toContainText('1 to look at')
})

test('the controller: a near miss is told before it lands; an empty bay hides the next; a swap goes on after a reload', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Controller')
  await page.goto(`/p/${id}/controller`)
  await page.getByRole('button', { name: 'Take off: 5', exact: true }).click()
  await page.getByRole('button', { name: /^K1 brown, loose/ }).click()
  await pick(page.getByLabel('Land on'), '6 Dome walk, right')
  await expect(page.getByText('Landed there, V5 is meant for A:5, but the wiring brings it to A:6')).toBeVisible()
  await pick(page.getByLabel('Land on'), '5 Dome walk, left')
  await expect(page.getByText('Landed there,')).toBeHidden()
  await page.getByRole('button', { name: 'Land', exact: true }).click()
  await saved(page)
  await pick(page.getByLabel('Bay 1', { exact: true }), 'empty')
  await expect(page.getByText('The module in bay 2 is not seen: bay 1 before it is empty.')).toBeVisible()
  await page.getByLabel('Limit of the master terminal, A').fill('0.2')
  await page.getByLabel('Limit of the master terminal, A').press('Enter')
  await expect(page.getByText(/A:MV would hold 0.25 A/)).toBeVisible()
  for (let n = 2; n <= 5; n++) {
    await page.getByLabel('Name of the new point').fill(`Supply ${n}`)
    await page.getByRole('button', { name: 'Add a point' }).click()
    if (n < 5) await expect(page.locator(`[id$="-name"]`)).toHaveCount(n)
  }
  await expect(page.getByRole('alert')).toContainText('serves at most 4 points of connection')
  await saved(page)
  await beginWork(page, page, 'Change the controller')
  await doStep(page)
  await takePhoto(page.locator('.controls'))
  await expect(page.getByRole('heading', { name: 'Photograph the whole door' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Terminal MV, Lake pump house: orange/ })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: /^Pause the schedule of A Gatehouse.* done/ })).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Photograph the whole door' })).toBeVisible()
  await page.goto(`/p/${id}/controller`)
  await expect(page.getByRole('link', { name: /^Change the controller: 2 of 3\d steps/ })).toBeVisible()
})

test('the map: boxes drawn, moved by hand and by figures, files out for general readers and in again, lengths from the drawing, a picture tied twice', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Mapped')
  await page.goto(`/p/${id}/plan/map`)
  const board = page.getByRole('application')
  await expect(board.locator('canvas').first()).toBeVisible()
  await page.getByRole('button', { name: 'New box' }).click()
  let box = (await board.boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
  await expect(page.getByRole('heading', { name: 'B12' })).toBeVisible()
  await page.getByLabel('Found here: East, m').fill('-3.5')
  await page.getByLabel('Found here: North, m').fill('60')
  await page.getByRole('button', { name: 'Put it here' }).nth(1).click()
  await expect(page.getByText(/found .* from where it was drawn/)).toBeVisible()
  await page.getByLabel('Found here: East, m').fill('here')
  await page.getByRole('button', { name: 'Put it here' }).nth(1).click()
  await expect(page.getByRole('alert')).toContainText('“here” is no length')
  // By hand: the chosen box stands in the middle of the view, and is dragged from there.
  await page.getByRole('button', { name: 'B11', exact: true }).click()
  await page.getByRole('button', { name: 'Move', exact: true }).click()
  box = (await board.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 - 30, { steps: 6 })
  await page.mouse.up()
  await saved(page)
  const { site } = await stored(request, id)
  const b11 = (site.places as Record<string, { position: { value: { x_m: number; y_m: number } } }>).B11!.position.value
  expect(b11.x_m).toBeGreaterThan(-29)
  expect((site.places as Record<string, unknown>).B12).toMatchObject({
    found: 'found',
    foundAt: { value: { x_m: -3.5, y_m: 60 } },
  })
  // Out, and read by a general reader; in again it changes nothing.
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save GeoJSON' }).click(),
  ])
  await expect(page.getByText(/The format has no room for: .*joints/)).toBeVisible()
  const text = readFileSync(await file.path(), 'utf8')
  const features = new GeoJSON().readFeatures(text)
  expect([features.length, features.filter((f) => f.getGeometry()?.getType() === 'LineString').length]).toEqual([
    48, 14,
  ])
  await openFile(page, 'Open GeoJSON or GPX', {
    name: 'again.geojson',
    mimeType: 'application/geo+json',
    buffer: Buffer.from(text),
  })
  await expect(page.getByText('Nothing in the file is new.')).toBeVisible()
  await openFile(page, 'Open GeoJSON or GPX', {
    name: 'x.gpx',
    mimeType: 'application/gpx+xml',
    buffer: Buffer.from('<gpx><wpt lat="-47.5001" lon="-120.2501"><name>B13</name></wpt></gpx>'),
  })
  await expect(page.getByText('1 new boxes')).toBeVisible()
  await page.getByRole('button', { name: /^K3/ }).click()
  await page.getByRole('button', { name: 'Take lengths from the drawing' }).click()
  await saved(page)
  // A picture underneath, tied to two places.
  await openFile(page, 'Picture underneath', 'docs/screenshots/list.png')
  await expect(page.getByRole('heading', { name: /Picture underneath/ })).toBeVisible()
  await page.waitForTimeout(800)
  box = (await board.boundingBox())!
  for (const [at, dx, dy] of [
    ['A', -20, 10],
    ['B7', 30, -25],
  ] as const) {
    await page.getByRole('button', { name: 'A', exact: true }).click()
    await page.getByRole('button', { name: 'Tie a spot' }).click()
    await board.click({ position: { x: box.width / 2 + dx, y: box.height / 2 + dy } })
    await pick(page.getByLabel('The spot lies at'), at)
    await page
      .locator('form', { has: page.getByLabel('The spot lies at') })
      .getByRole('button', { name: 'Put it here' })
      .click()
  }
  await expect(page.getByText('2 of 2 ties')).toBeVisible()
  await saved(page)
  const tied = Object.values((await stored(request, id)).site.underlays)[0]!
  expect(tied.ties).toMatchObject([{ at: { x_m: 0, y_m: 0 } }, { at: { x_m: 36, y_m: 132 } }])
  expect((await request.get(`/api/properties/${id}/pictures/${tied.sha256}`)).headers()['content-type']).toBe(
    'image/png',
  )
  await page.reload()
  await expect(page.getByText('2 of 2 ties')).toBeVisible()
  await expect(page.getByText('The picture is not here')).toBeHidden()
})

test('without a signal: a joint is made in the garden, kept on the device, and sent when it is back', async ({
  page,
  context,
  request,
}) => {
  const id = await ownProperty(request, 'Garden')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`/p/${id}/boxes/B7`)
  await beginWork(page, page.locator('article').last(), 'Make a pre-filled nut')
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 90_000 })
  await context.setOffline(true)
  await doStep(page)
  await doStep(page)
  await expect(page.getByText('kept on this device, 2 to send')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 90_000 })
  expect(Object.values((await stored(request, id)).site.splices).filter((s) => s.ticks.includes('home'))).toHaveLength(
    1,
  )
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('link', { name: 'Cabinet' }).click()
  await expect(page.getByRole('heading', { name: 'The door' })).toBeVisible()
})

for (const [viewport, colorScheme] of [
  [{ width: 1280, height: 800 }, 'light'],
  [{ width: 360, height: 640 }, 'dark'],
] as const) {
  test(`map, wiring, boxes, controller: nothing serious for axe, nothing off the side, at ${viewport.width} × ${viewport.height}, ${colorScheme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize(viewport)
    await page.emulateMedia({ colorScheme })
    const id = await ownProperty(request, 'Wiring axe')
    for (const path of ['/plan/map', '/plan/wiring', '/boxes', '/boxes/B3', '/controller']) {
      await page.goto(`/p/${id}${path}`)
      await expect(page.locator('h1').first()).toBeVisible()
      await page.waitForLoadState('networkidle')
      expect(await seriousFindings(page), path).toEqual([])
      expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(viewport.width)
    }
  })
}

test('by keyboard alone: a box is recorded, a core described, a place put on the map, a terminal landed', async ({
  page,
  request,
}) => {
  const id = await planned(request)
  await page.goto(`/p/${id}/boxes/B2`)
  await expect(page.getByRole('heading', { name: 'Cores at this box' })).toBeVisible()
  await pressByKey(page, /^K1 colour not known: at work A:4/)
  await pressTo(page, /^Colour$/)
  await page.keyboard.type('green')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'K1 green: at work A:4, ends here' })).toBeVisible()
  // The lead of the valve comes out of its joint, and goes back in another connector.
  await pressByKey(page, /^Take apart$/, 120)
  await expect(page.getByRole('heading', { name: 'Loose' })).toBeVisible()
  for (const end of [/^K1 white$/, /^V4 lead b$/]) await pressByKey(page, end, 120)
  await expect(page.getByText('2 chosen')).toBeVisible()
  await pressByKey(page, /^Join them$/, 120)
  await expect(page.getByRole('heading', { name: 'Loose' })).toBeHidden()
  await page.goto(`/p/${id}/plan/map`)
  await expect(page.getByText('Not on the map yet')).toBeVisible()
  for (const [tag, x, y] of [
    ['A', '0', '0'],
    ['B1', '60', '80'],
  ] as const) {
    await pressByKey(page, new RegExp(`^${tag}$`), 120)
    await pressTo(page, /^Drawn: East/, 120)
    await page.keyboard.type(x)
    await page.keyboard.press('Tab')
    await page.keyboard.type(y)
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('Drawn: East')).toHaveValue(x)
  }
  await saved(page)
  const { site } = await stored(request, id)
  expect(
    Object.values(site.places)
      .filter((p) => p.position !== null)
      .map((p) => p.tag),
  ).toEqual(['A', 'B1'])
  expect(site.cables).toMatchObject({ K1: { cores: { c4: { colour: { value: 'green', how: 'seen' } } } } })
  expect(Object.values(site.splices).filter((s) => s.place === ('B2' as never) && s.ends.length === 2)).toHaveLength(2)
  await page.goto(`/p/${id}/controller`)
  await pressByKey(page, /^Take off: 4$/, 120)
  await pressByKey(page, /^K1 green, loose/, 120)
  await pressTo(page, /^Land on$/, 120)
  await page.keyboard.type('4')
  await pressByKey(page, /^Land$/, 120)
  await saved(page)
  expect(
    Object.values((await stored(request, id)).site.splices).filter((s) => s.connector === 'terminal'),
  ).toHaveLength(5)
})

test('a property goes out with its picture in a zip and comes in elsewhere whole; a zip of something else is told', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, `Packed ${Date.now()}`)
  await page.goto(`/p/${id}/plan/map`)
  await openFile(page, 'Picture underneath', 'docs/screenshots/list.png')
  await expect(page.getByRole('heading', { name: /Picture underneath/ })).toBeVisible()
  await saved(page)
  await expect(page.getByText('The picture is kept on this device until it is sent.')).toBeHidden()
  await page.goto(`/p/${id}/record`)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save', exact: false }).first().click(),
  ])
  const zip = readFileSync(await file.path())
  const files = unzipSync(new Uint8Array(zip))
  expect(Object.keys(files).length).toBe(2)
  // The same property under another id, as another office would have it.
  const other = v7()
  files['property.json'] = strToU8(strFromU8(files['property.json']!).replace(id, other))
  await page.goto('/')
  await openFile(page, 'Open a property file', {
    name: 'elsewhere.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(zipSync(files)),
  })
  await page.waitForURL(new RegExp(other))
  await page.goto(`/p/${other}/plan/map`)
  await expect(page.getByRole('heading', { name: /Picture underneath/ })).toBeVisible()
  await expect(page.getByText('The picture is not here')).toBeHidden()
  await page.goto('/')
  await openFile(page, 'Open a property file', {
    name: 'holiday.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(zipSync({ 'a.txt': strToU8('nothing') })),
  })
  await expect(page.getByRole('alert')).toContainText('The zip has no property in it')
})

test('an inherited property from the map alone: a cable drawn and counted, landed and joined, its unknown ends counted; a box found by key, a spare one taken away', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Inherited')
  await page.goto(`/p/${id}/plan/map`)
  const board = page.getByRole('application')
  await page.getByRole('button', { name: 'S3', exact: true }).click()
  await page.getByRole('button', { name: 'New box' }).click()
  const { width, height } = (await board.boundingBox())!
  await board.click({ position: { x: width / 2 + 90, y: height / 2 } })
  await expect(page.getByRole('heading', { name: 'B12' })).toBeVisible()
  await page.getByRole('button', { name: 'New cable' }).click()
  await board.click({ position: { x: width / 2, y: height / 2 } })
  await board.click({ position: { x: width / 2 + 90, y: height / 2 } })
  await page.getByRole('button', { name: 'Done' }).click()
  await page.getByRole('button', { name: /^K2/ }).click()
  await page.getByLabel('Cores').fill('2')
  await page.getByLabel('Cores').press('Enter')
  await page.getByLabel('Cores').fill('1')
  await page.getByLabel('Cores').press('Enter')
  await expect(page.getByRole('alert')).toContainText('from 2 to 60')
  await saved(page)
  const { site } = await stored(request, id)
  expect(Object.values(site.cables).find((c) => c.tag === 'K2')).toMatchObject({
    stops: [{ place: 'S3' }, { place: 'B12' }],
    kind: 'multicore',
  })
  await page.keyboard.press('Escape')
  await page.locator('h1').first().click()
  await page.keyboard.press('/')
  await page.getByRole('textbox', { name: 'Find a station, box or core' }).fill('B12')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'B12' })).toBeVisible()
  await expect(page.getByText('2 unknown')).toBeVisible()
  await page.getByRole('button', { name: 'A valve stands here' }).click()
  const ends = page.locator('section', { has: page.getByRole('heading', { name: 'What is here' }) })
  await ends.getByRole('button', { name: /lead a/ }).click()
  await ends.getByRole('button', { name: /^K2/ }).first().click()
  await ends.getByRole('button', { name: 'Join them' }).click()
  await saved(page)
  await page.goto(`/p/${id}/plan/map`)
  await page.getByRole('button', { name: 'B12', exact: true }).click()
  await page.getByRole('button', { name: 'Take away' }).click()
  await expect(page.getByRole('alert')).toContainText('At B12 something stands, ends or passes, so it stays')
})

test('two people at one property: the second to change a joint is told by name and loses nothing; the list of a swap prints alone', async ({
  page,
  request,
  browser,
}) => {
  const id = await ownProperty(request, 'Two at once')
  const other = await (await browser.newContext()).newPage()
  // A page that is not told what others write; one that is would see the step done.
  await other.route('**/live', (route) => route.abort())
  await page.goto(`/p/${id}/boxes/B7`)
  await beginWork(page, page.locator('article').last(), 'Make a pre-filled nut')
  await doStep(page)
  await saved(page)
  // What one began the other goes on with, at the step where it stands.
  await other.goto(`/p/${id}/boxes/B7`)
  await other.getByRole('link', { name: 'Make a pre-filled nut: 1 of 7 steps' }).click()
  await expect(other.getByText('Step 2 of 7')).toBeVisible()
  await doStep(page)
  await saved(page)
  // The other one ticks the same joint: the record says no, and the step is done by what is on record.
  await doStep(other)
  await expect(other.getByRole('alert')).toContainText('was changed by somebody else meanwhile')
  await other.getByRole('button', { name: 'Let go of it' }).click()
  await saved(other)
  const { facts, site } = await stored(request, id)
  expect(Object.values(facts.steps).map((s) => s.step)).toEqual(['power'])
  expect(Object.values(site.splices).flatMap((s) => s.ticks)).toEqual(['home'])
  await page.goto(`/p/${id}/controller`)
  await beginWork(page, page, 'Change the controller')
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByText('Terminal MV, Lake pump house: orange')).toBeVisible()
  for (const hidden of [
    page.locator('.rail'),
    page.locator('.bar'),
    page.getByRole('button', { name: 'Print the list' }),
  ])
    await expect(hidden).toBeHidden()
})

test('the record as it was: boxes, map, wiring and controller are looked at and not changed', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'As it was')
  await page.goto(`/p/${id}/boxes/B7`)
  await beginWork(page, page.locator('article').last(), 'Make a pre-filled nut')
  await doStep(page)
  await doStep(page)
  await saved(page)
  await page.goto(`/p/${id}/record`)
  await page.getByRole('button', { name: 'See it before' }).first().click()
  await expect(page.getByText('Nothing can be changed here')).toBeVisible()
  await page.getByRole('link', { name: 'Cabinet' }).first().click()
  await page.getByRole('link', { name: 'Boxes' }).first().click()
  await page.getByRole('link', { name: /^B7 / }).click()
  await expect(page.locator('article').last().getByText('seen home')).toBeHidden()
  await expect(page.getByRole('button', { name: 'Make a pre-filled nut' })).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Take apart' })).toHaveCount(0)
  await page.getByRole('link', { name: 'Controller' }).first().click()
  await expect(page.getByRole('button', { name: /^Take off/ })).toHaveCount(0)
  await page.getByRole('link', { name: 'Plan', exact: true }).first().click()
  await page.getByRole('link', { name: 'Map' }).click()
  await expect(page.getByRole('button', { name: 'New box' })).toHaveCount(0)
})
