import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { createRequire } from 'node:module'
import type { Browser, Download } from '@playwright/test'
import jsQR from 'jsqr'

const require = createRequire(join(process.cwd(), 'package.json'))
const READER = dirname(require.resolve('pdfjs-dist/build/pdf.mjs'))

/** A page of a PDF as a general-purpose reader sees it: its size in points, its words, and what its codes say. */
export interface ReadPage {
  readonly width_pt: number
  readonly height_pt: number
  readonly text: string
  readonly codes: readonly string[]
}

/** Dots an inch at which pages are looked at. */
const DPI = 150

/** Reads a PDF in a browser page of its own: words by a PDF reader, codes by a QR reader from the page as a picture. */
export async function readPdf(browser: Browser, download: Download): Promise<ReadPage[]> {
  const data = [...readFileSync((await download.path())!)]
  const page = await (await browser.newContext()).newPage()
  await page.route('http://reader.test/**', (route) => {
    const { pathname } = new URL(route.request().url())
    return pathname === '/'
      ? route.fulfill({ contentType: 'text/html', body: '<title>reader</title>' })
      : route.fulfill({ contentType: 'text/javascript', body: readFileSync(join(READER, pathname)) })
  })
  await page.goto('http://reader.test/')
  const seen = await page.evaluate(
    async ({ bytes, scale }) => {
      const address = '/pdf.mjs'
      const reader = (await import(address)) as typeof import('pdfjs-dist')
      reader.GlobalWorkerOptions.workerSrc = '/pdf.worker.mjs'
      const pdf = await reader.getDocument({ data: new Uint8Array(bytes) }).promise
      const pages = []
      for (let n = 1; n <= pdf.numPages; n++) {
        const sheet = await pdf.getPage(n)
        const viewport = sheet.getViewport({ scale })
        const canvas = Object.assign(document.createElement('canvas'), {
          width: viewport.width,
          height: viewport.height,
        })
        const context = canvas.getContext('2d')!
        await sheet.render({ canvas, canvasContext: context, viewport }).promise
        const { items } = await sheet.getTextContent()
        const { width, height } = canvas
        pages.push({
          width_pt: viewport.width / scale,
          height_pt: viewport.height / scale,
          text: items.map((i) => ('str' in i ? i.str : '')).join(' '),
          picture: {
            width,
            height,
            data: btoa(
              Array.from(context.getImageData(0, 0, width, height).data, (b) => String.fromCharCode(b)).join(''),
            ),
          },
        })
      }
      return pages
    },
    { bytes: data, scale: DPI / 72 },
  )
  await page.context().close()
  return seen.map(({ picture, ...rest }) => ({ ...rest, codes: codesIn(picture) }))
}

/** Pixels of a window that holds a code with the white around it, and how far windows are apart. */
const [WINDOW_px, STEP_px] = [320, 90]

/** Every code of a page, looked for window by window, since a reader takes several near each other for none. */
function codesIn({ width, height, data }: { width: number; height: number; data: string }): string[] {
  const pixels = Buffer.from(data, 'base64')
  const codes = new Set<string>()
  for (let top = 0; top < height; top += STEP_px)
    for (let left = 0; left < width; left += STEP_px) {
      const [wide, high] = [Math.min(WINDOW_px, width - left), Math.min(WINDOW_px, height - top)]
      const window = new Uint8ClampedArray(wide * high * 4)
      for (let y = 0; y < high; y++)
        window.set(pixels.subarray(((top + y) * width + left) * 4, ((top + y) * width + left + wide) * 4), y * wide * 4)
      const code = jsQR(window, wide, high, { inversionAttempts: 'dontInvert' })
      if (code?.data) codes.add(code.data)
    }
  return [...codes]
}
