import type { Content, TableCell } from 'pdfmake/interfaces'
import type { Quote } from '../../core/quote'
import { photoRows, type PrintedPhoto } from './photos'
import { heading, type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** Something that a quote is for, as the customer reads it. */
export interface PrintedItem {
  readonly says: string
  /** Null before the customer has answered. */
  readonly accepted: boolean | null
  /** The thread that it lies on, as it was found: SVG. */
  readonly strip: string | null
  /** As it will be, where the repair changes its way: SVG. */
  readonly after: string | null
}
export interface QuotePrint {
  readonly paper: Paper
  readonly property: string
  readonly contractor: string
  /** The day it was sent, and the last on which it may be accepted. */
  readonly day: string
  readonly until: string | null
  readonly note: string
  readonly taxIn: 'inclusive' | 'on_top'
  readonly items: readonly PrintedItem[]
  /** The total of what was accepted, where it is not all of it. */
  readonly agreed: string | null
  /** Who answered, when, and the signature as SVG. */
  readonly answer: { readonly says: string; readonly signature: string | null } | null
  readonly before: readonly PrintedPhoto[]
  readonly after: readonly PrintedPhoto[]
  readonly say: Say
}

const PHOTO_pt = 170

/** A quote for the customer: what is to be done and where, lines by place, taxes, the total, photos, the answer. */
export function quoteDoc(quote: Quote, options: QuotePrint): Print {
  const { paper, property, contractor, day, until, note, items, answer, say } = options
  const content: Content[] = [
    { text: spans(say('quotes.title')), bold: true, fontSize: 20 },
    { text: spans(property), margin: [0, 0, 0, 2] },
    { text: spans([day, until === null ? '' : say('sent.until', { day: until })].filter(Boolean).join(' · ')) },
    ...(note === '' ? [] : [{ text: spans(note), margin: [0, 6, 0, 0] as [number, number, number, number] }]),
    heading(say('quotes.what')),
    ...items.map((item): Content => itemOf(item, say)),
    heading(say('quotes.total')),
    {
      layout: 'rows',
      table: {
        widths: ['*', 110, 80],
        dontBreakRows: true,
        body: [...lineRows(quote, say), ...sumRows(quote, options)],
      },
    },
    ...photosOf(say('quotes.before'), options.before),
    ...photosOf(say('quotes.after'), options.after),
    ...answerOf(answer, say),
  ]
  return sheet(paper, `${property} · ${say('quotes.title')}`, content, {
    foot: say('quotes.foot', { contractor, day }),
  })
}

const itemOf = ({ says, accepted, strip, after }: PrintedItem, say: Say): Content => ({
  unbreakable: true,
  margin: [0, 0, 0, 4],
  stack: [
    {
      columns: [
        {
          width: 14,
          canvas: [
            { type: 'rect', x: 0, y: 2, w: 9, h: 9, lineWidth: 0.8 },
            ...(accepted === true
              ? [
                  {
                    type: 'polyline' as const,
                    lineWidth: 1.4,
                    points: [
                      { x: 1.5, y: 6 },
                      { x: 4, y: 9 },
                      { x: 8, y: 3 },
                    ],
                  },
                ]
              : []),
          ],
        },
        { text: spans(accepted === false ? `${says} (${say('sent.item.declined')})` : says) },
      ],
    },
    ...(strip === null ? [] : [{ svg: strip, width: 420, margin: [14, 2, 0, 2] } as Content]),
    ...(after === null
      ? []
      : [
          { text: spans(say('quotes.then')), fontSize: 9, margin: [14, 0, 0, 0] } as Content,
          { svg: after, width: 420, margin: [14, 2, 0, 2] } as Content,
        ]),
  ],
})

const right = (text: string, bold = false): TableCell => ({ text: spans(text, 'Figures'), alignment: 'right', bold })

const lineRows = (quote: Quote, say: Say): TableCell[][] =>
  quote.groups.flatMap(({ place, sum }): TableCell[][] => [
    [{ text: spans(place ?? say('quotes.whole')), bold: true, colSpan: 2 }, {}, right(sum, true)],
    ...quote.lines
      .filter((l) => l.place === place)
      .map((l): TableCell[] => [
        { text: spans(l.name) },
        right(`${l.quantity} ${say(`quotes.units.${l.unit}`)}`),
        right(l.amount),
      ]),
  ])

function sumRows(quote: Quote, { taxIn, agreed, say }: QuotePrint): TableCell[][] {
  const row = (text: string, amount: string): TableCell[] => [{ text: spans(text), colSpan: 2 }, {}, right(amount)]
  const strong = (text: string, amount: string): TableCell[] => [
    { text: spans(text), bold: true, fontSize: 13, colSpan: 2 },
    {},
    right(amount, true),
  ]
  const { currency } = quote
  return [
    ...(taxIn === 'on_top' ? [row(say('quotes.net'), quote.net)] : []),
    ...quote.taxes.map((t) => row(say(taxIn === 'on_top' ? 'quotes.tax' : 'quotes.taxIn', { ...t }), t.amount)),
    ...(Number(quote.adjustment) === 0 ? [] : [row(say('quotes.adjustment'), quote.adjustment)]),
    strong(say('quotes.sum', { currency }), quote.total),
    ...(agreed === null ? [] : [strong(say('sent.agreedSum', { currency }), agreed)]),
  ]
}

const photosOf = (title: string, photos: readonly PrintedPhoto[]): Content[] =>
  photos.length === 0 ? [] : [heading(title), ...photoRows(photos, PHOTO_pt)]

/** Who accepted it; before the answer a line to sign on. */
const answerOf = (answer: QuotePrint['answer'], say: Say): Content[] =>
  answer === null
    ? [
        { text: spans(say('quotes.sign')), fontSize: 9, margin: [0, 28, 0, 22] },
        { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 320, y2: 0, lineWidth: 0.8 }] },
      ]
    : [
        {
          unbreakable: true,
          margin: [0, 20, 0, 0],
          stack: [
            ...(answer.signature === null ? [] : [{ svg: answer.signature, width: 180 }]),
            { text: spans(answer.says) },
          ],
        },
      ]
