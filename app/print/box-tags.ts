import type { Content } from 'pdfmake/interfaces'
import type { BoxTag } from '../../core/card'
import { type Paper, PAPER_pt, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** Tags on a sheet: two across and five down, a common size of label. */
const [ACROSS, DOWN] = [2, 5]
const MARGIN_pt = 28

/** A tag for the lid of every box: its name large, what stands in it, and a way to its page. */
export function boxTagsDoc(
  tags: readonly BoxTag[],
  { paper, urlOf, say, property }: { paper: Paper; urlOf: (tag: BoxTag) => string; say: Say; property: string },
): Print {
  const [width, height] = PAPER_pt[paper]
  const cell_pt = { width: (width - 2 * MARGIN_pt) / ACROSS, height: (height - 2 * MARGIN_pt - 12) / DOWN }
  const cell = (tag: BoxTag | undefined): Content =>
    tag === undefined
      ? { text: '' }
      : {
          columns: [
            {
              width: '*',
              stack: [
                { text: spans(tag.tag, 'Figures'), bold: true, fontSize: 30 },
                ...(tag.name ? [{ text: spans(tag.name), fontSize: 10 }] : []),
                ...tag.valves.slice(0, 5).map((v) => ({
                  text: [{ text: spans(`${v.terminal} `, 'Figures'), bold: true }, { text: spans(v.name) }],
                  fontSize: 9.5,
                })),
                ...(tag.valves.length > 5
                  ? [{ text: spans(say('print.moreValves', { count: tag.valves.length - 5 })), fontSize: 9 }]
                  : []),
                { text: spans(property), fontSize: 7.5, margin: [0, 3, 0, 0] },
              ],
            },
            { width: 84, qr: urlOf(tag), fit: 80, alignment: 'right' },
          ],
        }
  const rows: Content[][] = []
  for (let i = 0; i < tags.length; i += ACROSS) rows.push(Array.from({ length: ACROSS }, (_, k) => cell(tags[i + k])))
  return sheet(
    paper,
    say('print.boxTags'),
    [
      {
        layout: 'labels',
        table: {
          widths: Array.from({ length: ACROSS }, () => cell_pt.width - 19),
          heights: cell_pt.height - 13,
          dontBreakRows: true,
          body: rows as never,
        },
      },
    ],
    { foot: null },
  )
}
