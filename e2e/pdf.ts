import { readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { createRequire } from 'node:module'
import type { Browser, Download } from '@playwright/test'
import type readCode from 'jsqr'

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

/** Pixels of a window that holds a code with the white around it, and how far windows are apart. */
const [WINDOW_px, STEP_px] = [320, 90]

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
  await page.addScriptTag({ path: require.resolve('jsqr') })
  const seen = await page.evaluate(
    async ({ bytes, scale, window_px, step_px }) => {
      const address = '/pdf.mjs'
      const reader = (await import(address)) as typeof import('pdfjs-dist')
      const { jsQR } = globalThis as unknown as { jsQR: typeof readCode }
      reader.GlobalWorkerOptions.workerSrc = '/pdf.worker.mjs'
      const pdf = await reader.getDocument({ data: new Uint8Array(bytes) }).promise

      /** Every code of a page, looked for window by window, since a reader takes several near each other for none. */
      const codesIn = (context: CanvasRenderingContext2D): string[] => {
        const { width, height } = context.canvas
        const codes = new Set<string>()
        for (let top = 0; top < height; top += step_px)
          for (let left = 0; left < width; left += step_px) {
            const [wide, high] = [Math.min(window_px, width - left), Math.min(window_px, height - top)]
            const { data } = context.getImageData(left, top, wide, high)
            let dark = 0
            for (let i = 0; i < data.length; i += 4) if (data[i]! < 128) dark++
            // Words alone are thinner than a code.
            if (dark < 0.07 * wide * high) continue
            const code = jsQR(data, wide, high, { inversionAttempts: 'dontInvert' })
            if (code?.data) codes.add(code.data)
          }
        return [...codes]
      }

      const pages = []
      for (let n = 1; n <= pdf.numPages; n++) {
        const sheet = await pdf.getPage(n)
        const viewport = sheet.getViewport({ scale })
        const { width, height } = viewport
        const canvas = Object.assign(document.createElement('canvas'), { width, height })
        const context = canvas.getContext('2d', { willReadFrequently: true })!
        await sheet.render({ canvas, canvasContext: context, viewport }).promise
        const { items } = await sheet.getTextContent()
        pages.push({
          width_pt: width / scale,
          height_pt: height / scale,
          text: items.map((i) => ('str' in i ? i.str : '')).join(' '),
          codes: codesIn(context),
        })
      }
      return pages
    },
    { bytes: data, scale: DPI / 72, window_px: WINDOW_px, step_px: STEP_px },
  )
  await page.context().close()
  return seen
}
