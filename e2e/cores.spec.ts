import { expect, test, type Page } from '@playwright/test'
import { seriousFindings, ownProperty, stored } from './kit'

/** Where each of the seven comes out at the other end. */
const SECOND = [4, 2, 6, 0, 5, 3, 1]
const AT_FIRST = (flag: number) => SECOND.indexOf(flag - 1) + 1
const AT_SECOND = (flag: number) => SECOND[flag - 1]! + 1

const step = (page: Page) => page.locator('section.step')
/** The bundles that a step asks for, by their flags. */
const bundles = async (page: Page) =>
  (await page.locator('.bundles li').allTextContents()).map((text) => text.match(/\d+/g)!.map(Number))

/** Taps what rings, core after core, as the cable lies. */
async function rings(page: Page, joined: number[][], there: (flag: number) => number): Promise<void> {
  const groups = joined.map((group) => group.map(there))
  const left = new Set(groups.flat())
  while (left.size > 0) {
    const lead = Math.min(...left)
    const group = groups.find((g) => g.includes(lead))!
    for (const other of group.filter((e) => e !== lead))
      await step(page)
        .getByRole('button', { name: String(other), exact: true })
        .click()
    await step(page)
      .getByRole('button', { name: group.length === 1 ? 'Rings with none' : `These ring with ${lead}` })
      .click()
    for (const end of group) left.delete(end)
  }
}
const named = (page: Page, name: string) =>
  page.addInitScript((who) => localStorage.setItem('field-thread.author', who), name)

test('two phones name seven unmarked cores in groups, live; one has no signal for a minute, and nothing of it is lost', async ({
  browser,
  request,
  baseURL,
}) => {
  const id = await ownProperty(request, 'Seven cores')
  const size = { width: 390, height: 844 }
  const [annHas, samHas] = [
    await browser.newContext({ baseURL: baseURL!, viewport: size, hasTouch: true }),
    await browser.newContext({ baseURL: baseURL!, viewport: size, hasTouch: true }),
  ]
  const [ann, sam] = [await annHas.newPage(), await samHas.newPage()]
  await named(ann, 'Ann')
  await named(sam, 'Sam')
  await ann.goto(`/p/${id}/cores`)
  await ann.getByRole('button', { name: 'Sort a cable' }).click()
  await ann.getByLabel('Cores', { exact: true }).fill('1')
  await ann.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(ann.getByRole('alert')).toContainText('from 2 to 400')
  await ann.getByRole('combobox', { name: /From/ }).click()
  await ann.getByRole('option', { name: /Boathouse/ }).click()
  await ann.getByRole('combobox', { name: /^To/ }).click()
  await ann.getByRole('option', { name: 'S3' }).click()
  await ann.getByLabel('Cores', { exact: true }).fill('7')
  await ann.getByRole('button', { name: 'Begin', exact: true }).click()
  await ann.waitForURL(/cores\/.+/)
  await ann.getByRole('button', { name: 'S, first end' }).click()
  await sam.goto(ann.url())
  await sam.getByRole('button', { name: 'S3, second end' }).click()
  await expect(sam.getByText('Ann is here too.')).toBeVisible()
  await ann.getByRole('button', { name: /In groups/ }).click()

  // Each does their own end; what the other does is there by itself.
  await step(sam).getByRole('button', { name: 'All off and flagged' }).click()
  await step(sam).getByRole('button', { name: 'Nothing rings' }).waitFor({ state: 'hidden' })
  await expect(sam.getByText(/The other end: Everything off at S/)).toBeVisible()
  await step(ann).getByLabel('What they look like').fill('red, blue')
  await step(ann).getByRole('button', { name: 'All off and flagged' }).click()
  await expect(step(ann).getByRole('alert')).toContainText('2 names for 7 cores')
  await step(ann).getByLabel('What they look like').fill('')
  await step(ann).getByRole('button', { name: 'All off and flagged' }).click()
  await step(sam).getByRole('button', { name: 'Nothing rings' }).click()
  await step(ann).getByRole('button', { name: 'Nothing rings' }).click()
  const first = await bundles(ann)
  expect(first.flat().sort()).toEqual([1, 2, 3, 4, 5, 6, 7])
  await step(ann).getByRole('button', { name: 'Twisted so' }).click()
  await expect(step(sam).getByRole('heading')).toHaveText('What rings at S3')

  // Down in the dip by the slipway there is no signal.
  await samHas.setOffline(true)
  const lost = Date.now()
  await rings(sam, first, AT_SECOND)
  await expect(step(sam).getByRole('heading')).toHaveText('Twist together at S3')
  const second = await bundles(sam)
  await step(sam).getByRole('button', { name: 'Twisted so' }).click()
  await expect(sam.getByRole('status').filter({ hasText: 'kept on this device' })).toBeVisible({ timeout: 90_000 })
  await expect(ann.getByText(/Sam has not been heard of since/)).toBeVisible({ timeout: 90_000 })
  await expect(ann.getByText(/The other end: What rings at S3/)).toBeVisible()
  await ann.waitForTimeout(Math.max(0, 60_000 - (Date.now() - lost)))
  await samHas.setOffline(false)
  await expect(step(ann).getByRole('heading')).toHaveText('What rings at S Boathouse, back wall', { timeout: 150_000 })
  await rings(ann, second, AT_FIRST)
  for (const page of [ann, sam]) await expect(page.getByText('7 of 7 named')).toBeVisible({ timeout: 90_000 })
  const rows = await ann.locator('.table tbody tr').allTextContents()
  expect(rows.map((row) => row.match(/\d+/g)!.map(Number))).toEqual(SECOND.map((s, i) => [i + 1, s + 1]))

  await ann.getByRole('button', { name: 'Write it into the record' }).click()
  await expect(ann.getByText('Written at both ends')).toBeVisible()
  await expect(ann.getByText('All saved')).toBeVisible()
  const { site } = await stored(request, id)
  const cable = Object.values(site.cables).find((c) => c.tag === 'U1')!
  const far = cable.stops.at(-1)!.id
  expect(Object.values(cable.cores).map((c) => [c.colour?.value, c.colourAt[far] ?? c.colour?.value])).toEqual(
    SECOND.map((s, i) => [`no. ${i + 1}`, `no. ${s + 1}`]),
  )
  await annHas.close()
  await samHas.close()
})

for (const [width, height, theme] of [
  [1280, 800, 'dusk'],
  [390, 844, 'noon'],
] as const)
  test(`cores: by tags and alone, keyboard and axe, nothing off the side, at ${width} × ${height}, ${theme}`, async ({
    page,
    request,
  }) => {
    await page.setViewportSize({ width, height })
    await page.addInitScript((t) => localStorage.setItem('field-thread.theme', t), theme)
    await named(page, 'Ann')
    const id = await ownProperty(request, `Cores ${width}`)
    await page.goto(`/p/${id}/cores`)
    await page.getByRole('link', { name: /Unmarked cable/ }).click()
    await page.getByRole('button', { name: /With tags/ }).focus()
    await page.keyboard.press('Enter')
    expect(await seriousFindings(page)).toEqual([])
    for (const _ of ['first', 'second']) await step(page).getByRole('button', { name: 'All off and flagged' }).click()
    const tags = (await page.locator('.bundles li .figure').allTextContents()).map((t) => t.replace(/\s/g, ' '))
    expect(tags).toHaveLength(7)
    await step(page).getByRole('button', { name: 'All hung' }).click()
    const ohms = tags.map((t) => t.replace(' Ω', '').replace(/ kΩ/, 'k').replace(/ MΩ/, 'M'))
    for (const [i, far] of SECOND.entries())
      if (i !== 2)
        await step(page)
          .getByLabel(String(far + 1), { exact: true })
          .fill(ohms[i]!)
    await step(page)
      .getByLabel(String(SECOND[0]! + 1), { exact: true })
      .fill('much')
    await step(page).getByRole('button', { name: 'Keep these' }).click()
    await expect(step(page).getByRole('alert')).toContainText('“much” is no reading')
    await step(page)
      .getByLabel(String(SECOND[0]! + 1), { exact: true })
      .fill(ohms[0]!)
    await page.keyboard.press('Enter')
    await expect(page.getByText('6 of 7 named')).toBeVisible()
    await expect(page.locator('.table tbody tr').nth(2)).toContainText(`${SECOND[2]! + 1}, broken`)
    expect(await seriousFindings(page)).toEqual([])
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    await page.getByRole('button', { name: 'Take the last answer back' }).click()
    await page.goBack()
    await expect(page.getByRole('heading', { name: 'Which core is which' })).toBeVisible()
  })
