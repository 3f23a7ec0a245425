import { expose } from 'comlink'
import pdfMake from 'pdfmake/build/pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { PAPER_pt, type Paper, type Print } from '../print/sheet'
import { spans } from '../print/spans'
import wordsRegular from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url'
import wordsBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url'
import figuresRegular from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff?url'
import figuresBold from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-700-normal.woff?url'
import otherRegular from 'pdfmake/build/fonts/Roboto/Roboto-Regular.ttf?url'
import otherBold from 'pdfmake/build/fonts/Roboto/Roboto-Medium.ttf?url'

/** The files of the fonts, by the names under which documents ask for them. */
const FILES = { wordsRegular, wordsBold, figuresRegular, figuresBold, otherRegular, otherBold } as const

let ready: Promise<void> | null = null

/** Fetches the fonts that are embedded: our own, and one for the characters that ours lack. */
async function withFonts(): Promise<void> {
  for (const [name, url] of Object.entries(FILES)) {
    const reply = await fetch(url)
    if (!reply.ok) throw new Error(`print: font ${name} is not there`)
    pdfMake.addVirtualFileSystem({ [name]: { data: new Uint8Array(await reply.arrayBuffer()) } as never })
  }
  const family = (normal: string, bold: string) => ({ normal, bold, italics: normal, bolditalics: bold })
  pdfMake.addTableLayouts(LAYOUTS)
  pdfMake.addFonts({
    Words: family('wordsRegular', 'wordsBold'),
    Figures: family('figuresRegular', 'figuresBold'),
    Other: family('otherRegular', 'otherBold'),
  })
}

/** How tables are ruled, by the names that prints use. */
const LAYOUTS = {
  rows: {
    hLineWidth: (i: number) => (i === 0 ? 0 : 0.6),
    vLineWidth: () => 0,
    paddingLeft: () => 2,
    paddingRight: () => 2,
  },
  labels: {
    hLineWidth: () => 0.4,
    vLineWidth: () => 0.4,
    hLineColor: () => '#999',
    vLineColor: () => '#999',
    paddingLeft: () => 10,
    paddingRight: () => 8,
    paddingTop: () => 8,
    paddingBottom: () => 4,
  },
}

/** The dashed line on which a landscape sheet is folded. */
function foldOf(paper: Paper): Content {
  const [short, long] = PAPER_pt[paper]
  const [x1, x2] = [long / 2, long / 2]
  return {
    canvas: [{ type: 'line', x1, y1: 12, x2, y2: short - 12, lineWidth: 0.6, lineColor: '#777', dash: { length: 4 } }],
  }
}

const work = {
  /** A print as the bytes of a PDF. */
  async render({ document, foot, folds }: Print): Promise<Uint8Array> {
    await (ready ??= withFonts())
    const whole: TDocumentDefinitions = {
      ...document,
      ...(folds ? { background: () => foldOf(document.pageSize as Paper) } : {}),
      ...(foot === null
        ? {}
        : {
            footer: (page, pages) => ({
              margin: [28, 8, 28, 0],
              fontSize: 8.5,
              columns: [
                { text: spans(foot), width: '*' },
                { text: `${page} / ${pages}`, width: 'auto', font: 'Figures' },
              ],
            }),
          }),
    }
    return new Uint8Array(await pdfMake.createPdf(whole).getBuffer())
  },
}
export type PrintWork = typeof work

expose(work)
