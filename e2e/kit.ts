import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import AxeBuilder from '@axe-core/playwright'
import { expect, type APIRequestContext, type FileChooser, type Locator, type Page } from '@playwright/test'
import { readProperty, type Property } from '../core/formats'

export const DEMO_FILE = fileURLToPath(new URL('../demo/quarry-lake.json', import.meta.url))

/** A property of this test's own, made from the demo; the demo itself stays as it is. */
export async function ownProperty(request: APIRequestContext, name: string): Promise<string> {
  const reply = await request.post(`/api/properties?as=copy&name=${encodeURIComponent(name)}`, {
    headers: { 'content-type': 'application/json' },
    data: readFileSync(DEMO_FILE, 'utf8'),
  })
  expect(reply.status()).toBe(201)
  return ((await reply.json()) as { id: string }).id
}

/** The property as the server has it. */
export async function stored(request: APIRequestContext, id: string): Promise<Property> {
  const outcome = readProperty(await (await request.get(`/api/properties/${id}/file`)).text())
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}

/** Picks what is called so from a field that offers several. */
export async function pick(field: Locator, label: string | RegExp): Promise<void> {
  await field.click()
  await field.page().getByRole('option', { name: label, exact: true }).first().click()
}

/** Opens a file by the button that asks for one. */
export async function openFile(
  page: Page,
  button: string,
  file: Parameters<FileChooser['setFiles']>[0],
): Promise<void> {
  const asked = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: button, exact: true }).click()
  await (await asked).setFiles(file)
}

/** Tabs to what has this accessible name: no pointer anywhere. */
export async function pressTo(page: Page, name: RegExp, most = 60): Promise<void> {
  for (let i = 0; i < most; i++) {
    const focused = await page.evaluate(() => {
      const at = document.activeElement
      if (at === document.body) return ''
      const named = at?.getAttribute('aria-labelledby')?.split(' ')[0]
      const label = named
        ? document.getElementById(named)?.textContent
        : at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement
          ? at.labels?.[0]?.textContent
          : null
      return (label || at?.getAttribute('aria-label') || at?.textContent || '').trim()
    })
    if (name.test(focused)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`pressTo: ${name} cannot be reached with Tab`)
}

/** Tabs to what has this accessible name and presses Enter on it. */
export async function pressByKey(page: Page, name: RegExp, most = 60): Promise<void> {
  await pressTo(page, name, most)
  await page.keyboard.press('Enter')
}

/** Counts every key that goes to the page. */
export function counting(page: Page) {
  let keys = 0
  return {
    count: () => keys,
    press: async (key: string) => {
      keys++
      await page.keyboard.press(key)
    },
    type: async (text: string) => {
      keys += text.length
      await page.keyboard.type(text)
    },
  }
}

/** Starts a sweep and ticks its cautions; leaves the cursor on the first reading. Returns the job's id. */
export async function beginSweep(
  page: Page,
  property: string,
  { openMark, others, controller }: { openMark?: 'a bare 1'; others?: string; controller?: string } = {},
): Promise<string> {
  await page.goto(`/p/${property}/test`)
  await page.getByRole('button', { name: 'Start a sweep' }).click()
  await page.getByLabel('Your name').fill('Sam')
  if (others) await page.getByLabel('Who else is here').fill(others)
  if (controller) await pick(page.locator('#sweep-controller'), controller)
  if (openMark) await page.getByLabel(openMark).check()
  await page.getByRole('button', { name: 'Begin' }).click()
  for (let i = 0; i < 3; i++) await page.locator('.cautions .primary').click()
  await expect(page.locator('#reading')).toBeVisible()
  return page.url().split('/').at(-1)!.split('?')[0]!
}

/** Begins a procedure by its button within a part of the page; comes out on its first step. */
export async function beginWork(page: Page, within: Page | Locator, procedure: string, name = 'Sam'): Promise<void> {
  await within.getByRole('button', { name: procedure, exact: true }).first().click()
  await page.getByLabel('Your name').fill(name)
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
  await expect(page.locator('.controls')).toBeVisible()
}

/** Ticks what can hurt at the step that is up, answers it, and waits for the next. */
export async function doStep(page: Page, answer: string | RegExp = 'Done'): Promise<void> {
  const step = page.locator('.card .count')
  const before = await step.textContent()
  for (const caution of await page.locator('.controls').getByRole('checkbox').all()) await caution.check()
  await page.locator('.controls').getByRole('button', { name: answer, exact: true }).click()
  await expect(step).not.toHaveText(before!)
}

/** A picture of 64 × 48 dots, with a place in its file as a camera writes it. */
const PHOTO = join(dirname(fileURLToPath(import.meta.url)), '../tests/photo-with-place.jpg')

/** Takes a photo by the button within a part of the page. */
export async function takePhoto(within: Page | Locator): Promise<void> {
  const page = 'page' in within ? within.page() : within
  for (const caution of await page.locator('.controls').getByRole('checkbox').all()) await caution.check()
  const asked = page.waitForEvent('filechooser')
  await within.getByRole('button', { name: 'Take or pick a photo' }).click()
  await (await asked).setFiles(PHOTO)
}

const running = () =>
  JSON.parse(readFileSync(process.env.RUNNING_NOTES!, 'utf8')) as { server: number; database: number }

/** Kills a part as a crash would; one that is being started again just now is down already. */
export function kill(part: 'server' | 'database'): void {
  try {
    process.kill(running()[part], 'SIGKILL')
  } catch {
    /* down already */
  }
}

export async function seriousFindings(page: Page): Promise<string[]> {
  // Only what is violated is described: naming all that passes takes a fifth of the time.
  const { violations } = await new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).analyze()
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes[0]?.html.slice(0, 140)}`)
}

/** Sound readings of the demo's Gatehouse at 14 °C, MV first, to a tenth of an ohm. */
export const SOUND = [
  '39.6',
  '33.4',
  '33.4',
  '33.4',
  '34.5',
  '34.5',
  '34.5',
  '35.7',
  '35.7',
  '37.1',
  '37.1',
  '38.2',
  '39.2',
  '33.2',
  '33.2',
  '34.6',
  '34.6',
  '36.0',
  '37.3',
]
