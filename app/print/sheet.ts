import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { spans } from './spans'

export const PAPERS = ['A4', 'LETTER'] as const
export type Paper = (typeof PAPERS)[number]
/** Width and height of a page upright, points. */
export const PAPER_pt: Readonly<Record<Paper, readonly [number, number]>> = { A4: [595.28, 841.89], LETTER: [612, 792] }

/** Says a message in the reader’s language. */
export type Say = (key: string, params?: Record<string, string | number>) => string

/**
 * A print as data, so that it can go to where it is made: the document, the line at the foot of its pages, whether it
 * is folded in the middle. Layouts of tables go by name.
 */
export interface Print {
  readonly document: TDocumentDefinitions
  readonly foot: string | null
  readonly folds: boolean
}

/** What every print shares: its paper, its fonts, black on white for the sun, and a line at its foot. */
export function sheet(
  paper: Paper,
  title: string,
  content: Content[],
  { landscape = false, foot = '', folds = false }: { landscape?: boolean; foot?: string | null; folds?: boolean } = {},
): Print {
  return {
    document: {
      pageSize: paper,
      pageOrientation: landscape ? 'landscape' : 'portrait',
      pageMargins: [28, 28, 28, foot === null ? 28 : 40],
      info: { title, creator: 'Field Thread', producer: 'Field Thread' },
      defaultStyle: { font: 'Words', fontSize: 10.5, color: '#000' },
      content,
    },
    foot,
    folds,
  }
}

/** A small heading over a part of a print. */
export const heading = (text: string): Content => ({
  text: spans(text),
  bold: true,
  fontSize: 13,
  margin: [0, 12, 0, 4],
})
