import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { CLONE, giveUp, say } from './lib/plain.mjs'

// One picture of each main view, from the demo as it is loaded, into docs/screenshots. Needs the application running.

const base = process.env.BASE_URL ?? 'http://127.0.0.1:4747'
const target = process.env.TARGET ?? join(CLONE, 'docs', 'screenshots')
const only = process.argv[2] ?? ''
const { chromium } = await import('@playwright/test')
mkdirSync(target, { recursive: true })

const desk = { width: 1280, height: 800 }
const phone = { width: 390, height: 844 }
const demo = '/p/0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b10'

/** Begins a sweep in this browser alone: the server is told nothing, so the demo stays as it is. */
async function sweepBegun(page, readings) {
  await page.route('**/messages', (route) => route.abort())
  await page.goto(`${base}${demo}/test`)
  await page.getByRole('button', { name: 'Start a sweep' }).click()
  await page.getByLabel('Your name').fill('Jo')
  await page.getByRole('button', { name: 'Begin' }).click()
  for (let i = 0; i < 3; i++) await page.locator('.cautions .primary').click()
  const typed = page.locator('#reading')
  for (const reading of readings) {
    await typed.fill(reading)
    await typed.press('Enter')
  }
  await page.locator('.conclusion').first().waitFor({ state: 'attached', timeout: 60000 })
}

/** Begins a change of a coil in this browser alone, and reads the old coil. */
async function coilChanged(page) {
  await page.route('**/messages', (route) => route.abort())
  await page.goto(`${base}${demo}/work/procedures`)
  await page.getByRole('button', { name: 'Begin Change a coil' }).click()
  await page.getByLabel('Your name').fill('Jo')
  await page.getByLabel('Find a box').fill('far willows')
  await page.getByRole('button', { name: /Far willows/ }).click()
  const tickAll = async () => {
    for (const caution of await page.locator('.controls').getByRole('checkbox').all()) await caution.check()
  }
  await page.locator('.controls').waitFor()
  await tickAll()
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await page.getByText('Step 2 of 17').waitFor()
  await tickAll()
  await page.getByRole('textbox', { name: 'Ohms' }).fill('17.4')
  await page.getByRole('button', { name: 'Keep' }).click()
  await page.getByRole('button', { name: 'Take back' }).waitFor()
  await page.evaluate(() => document.activeElement?.blur())
}

/** Looks for the lost box over made-up ground, in this browser alone. */
async function boxTraced(page) {
  await page.route('**/messages', (route) => route.abort())
  await page.goto(`${base}${demo}/trace`)
  await page.getByRole('button', { name: 'Trace a wire' }).click()
  await page.getByRole('combobox', { name: 'Wire' }).click()
  await page.getByRole('option', { name: 'L17', exact: true }).click()
  await page.getByLabel('Your name').fill('Jo')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await page.getByRole('button', { name: 'Across', exact: true }).click()
  await page.locator('summary').filter({ hasText: 'Wand' }).click()
  await page.getByRole('button', { name: 'Practise on made-up ground' }).click()
  for (const at of ['40', '46', '51']) {
    await page.getByLabel('Cross it at, m along').fill(at)
    for (let i = 0; i < 9; i++) {
      await page.getByRole('button', { name: /^Read / }).click()
      await page.locator('.dots .read').nth(i).waitFor()
    }
    if (at !== '51') await page.getByRole('button', { name: /Cross the line/ }).click()
  }
  await page.getByText('Hand digging starts here').waitFor()
  await page.waitForTimeout(2500)
}

/** Begins to sort the unmarked cable in groups, up to the first twist, in this browser alone. */
async function coresJoined(page) {
  await page.route('**/messages', (route) => route.abort())
  await page.goto(`${base}${demo}/cores`)
  await page.getByRole('link', { name: /Unmarked cable/ }).click()
  await page.getByRole('button', { name: /In groups/ }).click()
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'All off and flagged' }).click()
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Nothing rings' }).click()
  await page.getByRole('button', { name: 'Twisted so' }).waitFor()
}

const PRICES = `kind,code,name,value,unit,markup_pct,tax
setting,currency,,XTS,,,
setting,decimals,,2,,,
tax,std,Standard,7.7,,,
price,call_out,Call-out,60,visit,,std
price,work,Work,71,h,,std
price,lid,Lid,18.50,piece,25,std
price,connector,Gel connector,1.50,piece,20,std
price,cap,Cap,0.60,piece,20,std
`
/** Notes a finding and quotes it beside what is known to be bad, in this browser alone. */
async function quoted(page) {
  await page.route('**/messages', (route) => route.abort())
  await page.route('**/company/prices', (route) =>
    route.request().method() === 'GET' ? route.continue() : route.abort(),
  )
  await found(page)
  await page.getByRole('link', { name: 'Quote', exact: true }).click()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Open a price list (CSV, XLSX)' }).click()
  await (await choosing).setFiles({ name: 'prices.csv', mimeType: 'text/csv', buffer: Buffer.from(PRICES) })
  await page.locator('.due').first().waitFor({ timeout: 60000 })
  await page.getByRole('button', { name: 'A line for it' }).first().click()
  await page.locator('.sums').evaluate((el) => el.scrollIntoView({ block: 'end' }))
}

/** Notes what was seen at a box, in this browser alone. */
async function found(page) {
  await page.route('**/messages', (route) => route.abort())
  await page.goto(`${base}${demo}/work/findings?box=B6`)
  for (const what of ['Lid that stands proud', 'Wet box']) {
    await page.getByRole('button', { name: what }).click()
    await page.getByRole('button', { name: 'Keep it' }).click()
  }
  await page.getByText('Kept: Wet box.').waitFor()
}

/** Sends the quote and has it accepted: the crew's way through it, in this browser alone. */
async function ordered(page) {
  await quoted(page)
  await page.getByRole('button', { name: 'Send it' }).click()
  const sent = page.locator('.sent')
  await sent.getByRole('button', { name: 'The customer’s answer' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name of who answers').fill('R. Owner')
  const glass = await dialog.locator('canvas').boundingBox()
  await page.mouse.move(glass.x + 30, glass.y + 40)
  await page.mouse.down()
  for (let i = 0; i < 15; i++) await page.mouse.move(glass.x + 30 + 10 * i, glass.y + 40 + 20 * Math.sin(i))
  await page.mouse.up()
  await dialog.getByRole('button', { name: 'Accept', exact: true }).click()
  await sent.getByRole('button', { name: /^Work order/ }).click()
  await page.getByRole('heading', { name: /^D9/ }).waitFor()
}

/** Views, each a picture; those that go into one stand side by side in it. */
const VIEWS = [
  { name: 'properties', size: desk, path: '/' },
  {
    name: 'threads',
    size: desk,
    path: `${demo}?station=A:9`,
    then: (page) => page.locator('.conclusion').first().waitFor(),
  },
  { name: 'list', size: desk, path: `${demo}/plan` },
  {
    name: 'map',
    size: desk,
    path: `${demo}/plan/map`,
    then: (page) =>
      page
        .getByRole('button', { name: 'B4', exact: true })
        .click()
        .then(() => page.getByRole('button', { name: 'All in view' }).click()),
  },
  { name: 'wiring', size: desk, path: `${demo}/plan/wiring` },
  { name: 'controller', size: desk, path: `${demo}/controller` },
  {
    name: 'box',
    into: 'phones',
    size: phone,
    path: `${demo}/boxes/B3`,
    then: (page) => page.locator('.joints').evaluate((el) => el.scrollIntoView()),
  },
  { name: 'sizes', size: desk, path: `${demo}/plan/sizes` },
  { name: 'material', size: desk, path: `${demo}/plan/material` },
  {
    name: 'schedule',
    size: desk,
    path: `${demo}/plan/schedule`,
    then: async (page) => {
      await page.getByLabel('From', { exact: true }).fill('2027-01-04')
      await page.getByRole('button', { name: 'Start it when its turn comes' }).waitFor()
      await page
        .locator('.found')
        .first()
        .evaluate((el) => el.scrollIntoView())
    },
  },
  {
    name: 'diagnose',
    size: desk,
    path: `${demo}/diagnose?job=spring-2026`,
    then: (page) => page.locator('.stand:not(.stale)').waitFor({ timeout: 60000 }),
  },
  { name: 'record', size: desk, path: `${demo}/record` },
  { name: 'cards', size: desk, path: `${demo}/record/cards` },
  {
    name: 'work',
    size: desk,
    path: demo,
    then: async (page) => {
      await coilChanged(page)
      await page.goto(`${base}${demo}/work`)
      await page.getByRole('heading', { name: 'Today’s visit' }).waitFor()
    },
  },
  { name: 'step', into: 'phones', size: phone, path: demo, then: (page) => coilChanged(page) },
  { name: 'path-dusk', size: desk, path: `${demo}/path?on=17`, dusk: true },
  { name: 'trace', size: desk, path: demo, then: (page) => boxTraced(page) },
  { name: 'cores', into: 'phones', size: phone, path: demo, then: (page) => coresJoined(page) },
  {
    name: 'sweep',
    into: 'phones',
    size: phone,
    path: demo,
    then: async (page) => {
      await sweepBegun(page, ['39.6', '34.0', '41.3'])
      await page.locator('#reading').fill('34.2')
    },
  },
  { name: 'findings', into: 'phones', size: phone, path: demo, then: (page) => found(page) },
  { name: 'order', into: 'phones', size: phone, path: demo, then: (page) => ordered(page) },
  { name: 'quote', size: desk, path: demo, then: (page) => quoted(page) },
  { name: 'fails', size: desk, path: '/failures' },
]

const browser = await chromium
  .launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
  .catch(() => giveUp('Chromium is missing. Run npm test once; it installs what it needs.'))
const sideBySide = new Map()
for (const { name, into, size, path, then, dusk } of VIEWS.filter((v) => (v.into ?? v.name).includes(only))) {
  const context = await browser.newContext({
    viewport: size,
    locale: 'en-GB',
    timezoneId: 'UTC',
    colorScheme: dusk ? 'dark' : 'light',
    hasTouch: size === phone,
    isMobile: size === phone,
  })
  // Nobody is told of these visits: each picture is of somebody who is here alone.
  await context.route('**/here', (route) => route.abort())
  const page = await context.newPage()
  await page.goto(`${base}${path}`)
  // Listening to what others write never ends: what is waited for is the page itself.
  await page.locator('main').waitFor()
  await page.waitForTimeout(1500)
  await then?.(page)
  await page.waitForTimeout(700)
  const picture = await page.screenshot(into ? {} : { path: join(target, `${name}.png`) })
  if (into) sideBySide.set(into, [...(sideBySide.get(into) ?? []), { picture, size }])
  else say(`${name}.png`)
  await context.close()
}
for (const [name, all] of sideBySide) {
  const gap = 24
  const width = all.reduce((sum, { size }) => sum + size.width + gap, gap)
  const page = await browser.newPage({ viewport: { width, height: phone.height + 2 * gap } })
  const images = all.map(({ picture }) => `<img src="data:image/png;base64,${picture.toString('base64')}">`).join('')
  await page.setContent(
    `<body style="margin:0;padding:${gap}px;display:flex;gap:${gap}px;background:#c9ced3;box-sizing:border-box">${images}`,
  )
  await page.screenshot({ path: join(target, `${name}.png`) })
  say(`${name}.png`)
}
await browser.close()
