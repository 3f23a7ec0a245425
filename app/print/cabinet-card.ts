import type { Column, Content, TableCell } from 'pdfmake/interfaces'
import type { CabinetCard, CardLine } from '../../core/card'
import { tagAndName } from '../../core/site'
import { shadesOf } from '../lib/colours'
import { type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** Lines of one half of the card; as many as are read at arm’s length. */
const LINES_A_HALF = 13

/** The colour of a conductor as it is recorded, to be held beside the wire: stripes as two bars. */
function swatch(colour: string | null): Column {
  const { main, stripe, known } = shadesOf(colour)
  const fills = known ? (stripe === null ? [main] : [main, stripe, main]) : ['#ffffff']
  const width = 22 / fills.length
  return {
    width: 26,
    margin: [0, 3, 0, 0],
    canvas: [
      ...fills.map((fill, i) => ({ type: 'rect' as const, x: i * width, y: 0, w: width, h: 9, color: fill })),
      { type: 'rect', x: 0, y: 0, w: 22, h: 9, lineWidth: 0.8, lineColor: '#000' },
    ],
  }
}

function lineOf(line: CardLine, say: Say, ohms: (ohm: number) => string, day: (at: string) => string): TableCell[] {
  const { label, name, zone, conductors, boxes, baseline, expected_ohm } = line
  const reading = baseline
    ? [
        { text: spans(ohms(baseline.ohm), 'Figures'), bold: true, fontSize: 12 },
        { text: spans(day(baseline.at)), fontSize: 8 },
      ]
    : expected_ohm === null
      ? [{ text: '' }]
      : [
          { text: spans(ohms(expected_ohm), 'Figures'), fontSize: 12 },
          { text: spans(say('print.expected')), fontSize: 8 },
        ]
  const wires = conductors.map((c): Content => ({
    columns: [
      swatch(c.colour),
      { text: spans(`${c.from} ${c.colour ?? say('print.noColour')}`.trim()), fontSize: 9.5 },
    ],
  }))
  const called = line.role === 'common' ? say('print.common') : name
  return [
    { text: spans(label, 'Figures'), bold: true, fontSize: 17 },
    {
      stack: [
        { text: spans(zone && zone !== name ? `${called} · ${zone}` : called), bold: true, fontSize: 11.5 },
        ...wires,
      ],
    },
    { text: spans(boxes.join(' '), 'Figures'), bold: true, fontSize: 13 },
    { stack: reading, alignment: 'right' },
  ]
}

/**
 * The card for the door: terminals, colours, boxes, zones, ohms and their day, spares, what is
 * temporary, a way to the record.
 */
export function cabinetCardDoc(
  card: CabinetCard,
  options: {
    readonly paper: Paper
    readonly url: string
    readonly today: string
    readonly say: Say
    readonly ohms: (ohm: number) => string
    readonly day: (at: string) => string
    /** What its programs are, for a page of their own; nothing where it has none. */
    readonly programs: Content[]
  },
): Print {
  const { paper, url, today, say, ohms, day, programs } = options
  const half = (lines: readonly CardLine[]): Content => ({
    layout: 'rows',
    table: {
      widths: [30, '*', 34, 62],
      dontBreakRows: true,
      body: lines.map((line) => lineOf(line, say, ohms, day)),
    },
  })
  const spares = card.spares.map((s) => `${s.from} ${s.colour ?? say('print.noColour')}`.trim()).join(', ')
  const foot: Content[] = [
    ...(card.master
      ? [{ text: spans(say('print.master', { ...card.master })), bold: true, margin: [0, 6, 0, 0] } as Content]
      : []),
    {
      text: spans(
        spares === '' ? say('print.noSpares') : say('print.spares', { count: card.spares.length, list: spares }),
      ),
      fontSize: 9,
      margin: [0, 4, 0, 0],
    },
    ...card.temporary.map((s): Content => ({
      text: spans(say('print.temporary', { what: s.what, since: day(`${s.since}T12:00:00`) })),
      bold: true,
      margin: [0, 4, 0, 0],
    })),
    {
      margin: [0, 8, 0, 0],
      columnGap: 8,
      columns: [
        { qr: url, fit: 84, width: 92 },
        { text: spans(say('print.scan')), fontSize: 9, margin: [0, 6, 0, 0] },
      ],
    },
  ]
  const pages: Content[] = []
  const perPage = 2 * LINES_A_HALF
  const count = Math.max(1, Math.ceil(card.lines.length / perPage))
  for (let p = 0; p < count; p++) {
    const lines = card.lines.slice(p * perPage, (p + 1) * perPage)
    const split = p === count - 1 ? Math.min(LINES_A_HALF, Math.ceil(lines.length * 0.58)) : LINES_A_HALF
    const isLast = p === count - 1
    pages.push({
      ...(isLast ? {} : { pageBreak: 'after' as const }),
      columnGap: 36,
      columns: [
        {
          width: '*',
          stack: [
            {
              text: spans(tagAndName(card.controller)),
              bold: true,
              fontSize: 20,
            },
            { text: spans(card.property), fontSize: 10.5, margin: [0, 0, 0, 6] },
            half(lines.slice(0, split)),
          ],
        },
        { width: '*', stack: [...(lines.length > split ? [half(lines.slice(split))] : []), ...(isLast ? foot : [])] },
      ],
    })
  }
  if (programs.length > 0) pages.push({ pageBreak: 'before', stack: programs })
  return sheet(paper, `${card.property} · ${card.controller.name}`, pages, {
    landscape: true,
    folds: true,
    foot: say('print.cardFoot', { contractor: card.contractor, day: today }),
  })
}
