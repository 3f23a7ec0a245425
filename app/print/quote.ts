import type { Content, TableCell } from 'pdfmake/interfaces'
import type { Quote } from '../../core/quote'
import { heading, type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** A quote for the customer: lines by place, taxes, the total, and a line to sign on. */
export function quoteDoc(
  quote: Quote,
  {
    paper,
    property,
    contractor,
    today,
    taxIn,
    repairs,
    say,
  }: {
    readonly paper: Paper
    readonly property: string
    readonly contractor: string
    readonly today: string
    readonly taxIn: 'inclusive' | 'on_top'
    /** What is repaired and how, a sentence each. */
    readonly repairs: readonly string[]
    readonly say: Say
  },
): Print {
  const right = (text: string, bold = false): TableCell => ({ text: spans(text, 'Figures'), alignment: 'right', bold })
  const rows = quote.groups.flatMap(({ place, sum }): TableCell[][] => [
    [{ text: spans(place ?? say('quotes.whole')), bold: true, colSpan: 2 }, {}, right(sum, true)],
    ...quote.lines
      .filter((l) => l.place === place)
      .map((l): TableCell[] => [
        { text: spans(l.name) },
        right(`${l.quantity} ${say(`quotes.units.${l.unit}`)}`),
        right(l.amount),
      ]),
  ])
  const sums: TableCell[][] = [
    ...(taxIn === 'on_top' ? [[{ text: spans(say('quotes.net')) }, {}, right(quote.net)]] : []),
    ...quote.taxes.map((t): TableCell[] => [
      { text: spans(say(taxIn === 'on_top' ? 'quotes.tax' : 'quotes.taxIn', { ...t })), colSpan: 2 },
      {},
      right(t.amount),
    ]),
    ...(Number(quote.adjustment) === 0
      ? []
      : [[{ text: spans(say('quotes.adjustment')) }, {}, right(quote.adjustment)]]),
    [
      { text: spans(say('quotes.sum', { currency: quote.currency })), bold: true, fontSize: 13, colSpan: 2 },
      {},
      right(quote.total, true),
    ],
  ]
  const content: Content[] = [
    { text: spans(say('quotes.title')), bold: true, fontSize: 20 },
    { text: spans(property), margin: [0, 0, 0, 6] },
    ...(repairs.length > 0 ? [{ ul: repairs.map((r) => ({ text: spans(r) })) }] : []),
    heading(say('quotes.total')),
    { layout: 'rows', table: { widths: ['*', 110, 80], dontBreakRows: true, body: [...rows, ...sums] } },
    { text: spans(say('quotes.sign')), fontSize: 9, margin: [0, 28, 0, 22] },
    { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 320, y2: 0, lineWidth: 0.8 }] },
  ]
  return sheet(paper, `${property} · ${say('quotes.title')}`, content, {
    foot: say('quotes.foot', { contractor, day: today }),
  })
}
