import { expect, test, type Page } from '@playwright/test'
import { beginWork, doStep, kill, ownProperty, seriousFindings, stored, takePhoto } from './kit'
import { readPdf } from './pdf'

/** Answers the step that is up as a crew on a sound property would, and says what was asked; null when all is done. */
async function answerNext(page: Page): Promise<string | null> {
  const card = page.locator('.card')
  const says = (await card.locator('h2').first().textContent())!
  if (says === 'All steps are answered.') return null
  const controls = page.locator('.controls')
  const count = await card.locator('.count').textContent()
  for (const caution of await controls.getByRole('checkbox').all()) await caution.check()
  const figure = controls.getByRole('textbox').first()
  if (await controls.getByRole('button', { name: 'Done', exact: true }).isVisible())
    await controls.getByRole('button', { name: 'Done', exact: true }).click()
  else if (await controls.getByRole('button', { name: 'Nothing to note' }).isVisible())
    await controls.getByRole('button', { name: 'Nothing to note' }).click()
  else if (await figure.isVisible()) {
    const expected = await card
      .locator('.expected')
      .textContent({ timeout: 200 })
      .catch(() => '')
    await figure.fill(/Expect ([\d.]+)/.exec(expected ?? '')?.[1] ?? (says.includes('volts') ? '26.2' : '15M'))
    await controls.getByRole('button', { name: 'Keep' }).click()
    await page.getByRole('button', { name: 'Next', exact: true }).click()
  } else {
    await controls.locator('.big, .word').first().click()
    if (says.includes('heard')) await page.getByRole('button', { name: 'Next', exact: true }).click()
  }
  await expect(card.locator('.count'))
    .not.toHaveText(count!, { timeout: 5000 })
    .catch(() => undefined)
  return says
}

test('the boathouse is commissioned on a phone; the server goes after the fourth station and comes back at the end: all there, the certificate prints', async ({
  page,
  context,
  browser,
  request,
}) => {
  const id = await ownProperty(request, 'Boathouse handed over')
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`/p/${id}/work/procedures`)
  await page.getByRole('button', { name: 'Begin Commission' }).click()
  await page.getByLabel('Your name').fill('Ada')
  await page.getByRole('button', { name: 'S Boathouse' }).click()
  await expect(page.locator('.controls')).toBeVisible()
  // The making of the PDF is fetched while there is a signal, as the service worker would have it.
  const asked: string[] = []
  let stations = 0
  for (let says = await answerNext(page); says !== null; says = await answerNext(page)) {
    asked.push(says)
    if (/volts with its valve on/.test(says) && ++stations === 4) {
      await context.setOffline(true)
      kill('server')
    }
  }
  expect(stations).toBe(6)
  expect(new Set(asked).size).toBe(asked.length)
  await expect(page.getByText(/kept on this device, \d+ to send/)).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 120_000 })
  const { facts } = await stored(request, id)
  const job = Object.entries(facts.jobs).find(([, j]) => j.kind === 'procedure')![0]
  expect(Object.values(facts.readings).filter((r) => r.job === job)).toHaveLength(1 + 4 + 4 + 2 + 6 + 6)
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Make the PDF' }).click()
  const [sheet, ...more] = await readPdf(browser, await saving)
  expect(more).toEqual([])
  expect([Math.round(sheet!.width_pt), Math.round(sheet!.height_pt)]).toEqual([595, 842])
  for (const words of [
    'Certificate of commissioning',
    'Boat lawn',
    'Kiosk bed',
    'By Ada',
    'Supply 26.2 V',
    'Its own zone, well',
  ])
    expect(sheet!.text).toContain(words)
  expect(sheet!.codes).toEqual([`${new URL(page.url()).origin}/p/${id}/work/procedures/${job}`])
})

test('cards, tags and labels: words and codes are read back by general readers, on both papers', async ({
  page,
  browser,
  request,
}) => {
  const id = await ownProperty(request, 'Ωmega yard')
  const numbered = (letter: string, length: number) => Array.from({ length }, (_, i) => `${letter}${i + 1}`)
  await page.goto(`/p/${id}/record/cards`)
  const made = async (what: string) => {
    const saving = page.waitForEvent('download')
    await page.getByRole('button', { name: `Make the PDF ${what}` }).click()
    return readPdf(browser, await saving)
  }
  const [card] = await made('Cabinet card, Gatehouse')
  expect([Math.round(card!.width_pt), Math.round(card!.height_pt)]).toEqual([842, 595])
  for (const words of ['A Gatehouse', 'mega yard', 'Dome walk, left', 'K1 brown', '35.6', 'B11', 'Master valve'])
    expect(card!.text).toContain(words)
  const { origin } = new URL(page.url())
  expect(card!.codes).toEqual([`${origin}/p/${id}?controller=A`])
  await page.getByLabel('Letter').check()
  const tags = await made('Box tags')
  expect([Math.round(tags[0]!.width_pt), Math.round(tags[0]!.height_pt)]).toEqual([612, 792])
  expect(tags.flatMap((t) => t.codes).sort()).toEqual(
    [...numbered('B', 11), ...numbered('D', 16), ...numbered('S', 3)].map((b) => `${origin}/p/${id}/boxes/${b}`).sort(),
  )
  const [labels] = await made('Terminal labels and conductor flags')
  expect(labels!.text).toContain('A:18')
  const joints = await made('Joint list')
  expect(joints.map((j) => j.text).join(' ')).toMatch(/52 × nut and gel tube/)
  await page.goto(`/p/${id}/boxes/B3`)
  await takePhoto(page)
  await expect(page.getByRole('button', { name: /^Photo · / })).toBeVisible()
  await page.goto(`/p/${id}/record/cards`)
  const booklet = await made('Handover booklet')
  expect(booklet[0]!.codes).toEqual([`${origin}/p/${id}`])
  const all = booklet.map((b) => b.text).join(' ')
  for (const words of ['Open points', 'A:5 Dome walk, left', 'Boathouse', 'Joint list', 'Photo', 'Baseline'])
    expect(all).toContain(words)
})

test('a hold is refused with a reason that stays; a step is taken back; another person goes on days later; what is temporary is on the list', async ({
  page,
  request,
}) => {
  const id = await ownProperty(request, 'Two days')
  await page.goto(`/p/${id}/work`)
  await beginWork(page, page, 'Arrive', 'Ada')
  for (let i = 0; i < 2; i++) await doStep(page)
  await doStep(page, 'Nothing to note')
  await takePhoto(page.locator('.controls'))
  await expect(page.getByText('Step 5 of 10')).toBeVisible()
  await page.getByRole('button', { name: 'Not done …' }).click()
  await page.getByRole('button', { name: 'Leave it out' }).click()
  await expect(page.getByRole('alert')).toContainText('Write why it is left out.')
  await page.getByLabel('Why not?').fill('The key is with the owner')
  await page.getByRole('button', { name: 'Leave it out' }).click()
  await page.getByRole('button', { name: 'Back' }).click()
  await expect(page.getByText(/Left out: The key is with the owner, Ada at/)).toBeVisible()
  await page.getByRole('button', { name: 'Take back' }).click()
  await expect(page.getByRole('button', { name: 'It stood on auto: paused' })).toBeVisible()
  await page.goto(`/p/${id}/work`)
  await page.getByRole('heading', { name: 'Kit' }).click()
  await page.getByLabel('Out meter and leads').check()
  await expect(page.getByText('1 not back')).toBeVisible()
  await page.getByRole('button', { name: 'Note something temporary' }).click()
  await page.getByLabel('What is left so, and where').fill('Master valve bypassed until the part comes')
  await page.getByRole('button', { name: 'Keep on the list' }).click()
  await expect(page.getByText('All saved')).toBeVisible()
  await page.clock.setFixedTime(Date.now() + 3 * 86_400_000)
  await page.reload()
  await expect(page.getByRole('heading', { name: 'No visit under way' })).toBeVisible()
  await page.getByRole('link', { name: /^Arrive · / }).click()
  await expect(page.getByRole('button', { name: 'Stays as it is' })).toBeVisible()
  await doStep(page, 'Undone now')
  await expect(page.getByText('All saved')).toBeVisible()
  const { site, facts } = await stored(request, id)
  expect(site.temporaryStates).toEqual({})
  expect(Object.values(facts.kits)).toMatchObject([{ item: 'meter', state: 'out' }])
  expect(Object.values(facts.steps).map((s) => s.answer.kind)).toEqual([
    ...['done', 'done', 'done', 'photo', 'refused', 'undone', 'chosen'],
  ])
})

test('a photo is taken in the garden without a signal, drawn on, sent, stripped and kept in the zip; what is no picture gets its sentence', async ({
  page,
  context,
  request,
}) => {
  const id = await ownProperty(request, 'Pictured')
  await page.goto(`/p/${id}/boxes/B3`)
  await expect(page.getByRole('heading', { name: 'Photos' })).toBeVisible()
  await context.setOffline(true)
  const asked = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Take or pick a photo' }).click()
  await (await asked).setFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture') })
  await expect(page.getByRole('alert')).toContainText('notes.png is no picture that can be read')
  await takePhoto(page)
  await page.getByRole('button', { name: /^Photo · B3/ }).click()
  await page.getByLabel('A word for the next arrow').fill('this joint')
  const board = (await page.locator('.board').boundingBox())!
  await page.mouse.move(board.x + board.width * 0.2, board.y + board.height * 0.3)
  await page.mouse.down()
  await page.mouse.move(board.x + board.width * 0.7, board.y + board.height * 0.6)
  await page.mouse.up()
  await page.getByLabel('What it shows').fill('Wet joint of station 5')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Wet joint of station 5 · B3/ })).toBeVisible()
  await expect(page.getByText('kept on this device, 2 to send')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 90_000 })
  const { facts } = await stored(request, id)
  const [photo] = Object.values(facts.photos)
  expect(photo).toMatchObject({ width_px: 64, height_px: 48, on: { kind: 'box', place: 'B3' } })
  expect(Object.values(facts.photoNotes)).toMatchObject([
    {
      says: 'Wet joint of station 5',
      marks: [{ from: { x: 0.2, y: 0.3 }, to: { x: 0.7, y: 0.6 }, says: 'this joint' }],
    },
  ])
  const address = `/api/properties/${id}/pictures/${photo!.sha256}`
  await expect.poll(async () => (await request.get(address)).status(), { timeout: 90_000 }).toBe(200)
  const bytes = await (await request.get(address)).body()
  expect([bytes.subarray(0, 3).toString('hex'), bytes.includes('Exif'), bytes.includes('GPS')]).toEqual([
    'ffd8ff',
    false,
    false,
  ])
  const zip = await (await request.get(`/api/properties/${id}/file?as=zip&journal=no`)).body()
  expect(zip.includes(photo!.sha256)).toBe(true)
  await page.goto(`/p/${id}/record/photos`)
  await page.getByRole('button', { name: /^Wet joint/ }).click()
  expect(await seriousFindings(page)).toEqual([])
  await page.getByRole('button', { name: 'Show it no more' }).click()
  await expect(page.getByText('No photos yet.')).toBeVisible()
})

for (const [viewport, colorScheme] of [
  [{ width: 1280, height: 800 }, 'dark'],
  [{ width: 390, height: 844 }, 'light'],
] as const)
  test(`work: nothing serious for axe, one hand, keyboard alone, at ${viewport.width} × ${viewport.height}, ${colorScheme}`, async ({
    page,
    request,
  }) => {
    await page.emulateMedia({ colorScheme })
    await page.setViewportSize(viewport)
    const id = await ownProperty(request, `Work ${viewport.width}`)
    await page.goto(`/p/${id}/work/procedures`)
    await expect(page.getByRole('heading', { name: 'Procedures' })).toBeVisible()
    expect(await seriousFindings(page)).toEqual([])
    await page.getByRole('button', { name: 'Begin Change a coil' }).click()
    await page.getByLabel('Your name').fill('Ada')
    await page.getByLabel('Find a box').fill('dome walk, left')
    expect(await seriousFindings(page)).toEqual([])
    await page.getByRole('button', { name: /Dome walk, left/ }).click()
    await expect(page.locator('.controls')).toBeVisible()
    expect(await seriousFindings(page)).toEqual([])
    if (viewport.width < 760) {
      for (const target of await page.locator('#work').locator('a, button, label').all()) {
        if (!(await target.isVisible())) continue
        const { y, height } = (await target.boundingBox())!
        expect([await target.textContent(), y >= viewport.height / 3, height >= 44]).toEqual([
          expect.anything(),
          true,
          true,
        ])
      }
      return
    }
    // By keyboard: the cautions, the answer, and on to the next step.
    for (let i = 0; i < 2; i++) {
      await page.keyboard.press('Tab')
      await page.locator('.controls input[type=checkbox]').nth(i).focus()
      await page.keyboard.press('Space')
    }
    await page.getByRole('button', { name: 'Done', exact: true }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByText('Step 2 of 17')).toBeVisible()
    await page.getByRole('textbox', { name: 'Ohms' }).focus()
    await page.keyboard.type('12')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Tick what can hurt here first.')
    await page.goto(`/p/${id}/record/cards`)
    await expect(page.getByRole('heading', { name: 'Cards and labels' })).toBeVisible()
    expect(await seriousFindings(page)).toEqual([])
  })
