import type { Content } from 'pdfmake/interfaces'
import type { CabinetCard } from '../../core/card'
import { type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

const ACROSS = 4

/** A small label for every screw, and under it a flag that folds around its conductor: the same said on both halves. */
export function terminalLabelsDoc(cards: readonly CabinetCard[], { paper, say }: { paper: Paper; say: Say }): Print {
  const labels = cards.flatMap((card) =>
    card.lines.map((line) => ({
      ...line,
      controller: card.controller.tag,
      said: line.role === 'common' ? say('print.common') : line.name,
    })),
  )
  const label = (l: (typeof labels)[number] | undefined): Content =>
    l === undefined
      ? { text: '' }
      : {
          stack: [
            { text: spans(`${l.controller}:${l.label}`, 'Figures'), bold: true, fontSize: 15 },
            { text: spans(l.said), fontSize: 8.5 },
            { text: spans(l.boxes.join(' '), 'Figures'), fontSize: 8.5 },
          ],
        }
  const flag = (l: (typeof labels)[number] | undefined): Content =>
    l === undefined
      ? { text: '' }
      : {
          columns: [1, 2].map(() => ({
            text: spans(`${l.controller}:${l.label}`, 'Figures'),
            bold: true,
            fontSize: 13,
            alignment: 'center' as const,
          })),
        }
  const table = (cell: (l: (typeof labels)[number] | undefined) => Content): Content => {
    const rows: Content[][] = []
    for (let i = 0; i < labels.length; i += ACROSS)
      rows.push(Array.from({ length: ACROSS }, (_, k) => cell(labels[i + k])))
    return {
      layout: 'labels',
      table: { widths: Array.from({ length: ACROSS }, () => '*'), dontBreakRows: true, body: rows as never },
    }
  }
  return sheet(paper, say('print.terminalLabels'), [
    table(label),
    { text: spans(say('print.flags')), fontSize: 9, margin: [0, 14, 0, 4] },
    table(flag),
  ])
}
