import type { Content, TableCell } from 'pdfmake/interfaces'
import { startsText, timeText, type DoorSheet } from '../../core/schedule'
import { type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** What the sheet is said with: messages, days, and the days of a program. */
export interface SheetWords {
  readonly say: Say
  readonly days: (days: DoorSheet['programs'][number]['days']) => string
  readonly percent: (seasonal: DoorSheet['programs'][number]['seasonal_pct']) => string
}

const figures = (text: string, fontSize = 10.5): TableCell => ({ text: spans(text, 'Figures'), bold: true, fontSize })

/** Programs side by side, with the minutes of each station below. */
function programTable({ programs, lines }: DoorSheet, { say, days, percent }: SheetWords): Content {
  const head = (label: string, cells: readonly TableCell[]): TableCell[] => [
    { text: spans(label), bold: true, colSpan: 2 },
    {},
    ...cells,
  ]
  return {
    layout: 'rows',
    table: {
      widths: [30, '*', ...programs.map(() => Math.min(120, 300 / programs.length))],
      headerRows: 4,
      dontBreakRows: true,
      body: [
        head(
          say('schedule.cell.name'),
          programs.map((p) => ({ text: spans(p.name), bold: true, fontSize: 17 })),
        ),
        head(
          say('schedule.cell.starts'),
          programs.map((p) => figures(startsText(p.starts_s).replaceAll('-', say('schedule.sheetBlank')))),
        ),
        head(
          say('schedule.cell.days'),
          programs.map((p) => ({ text: spans(days(p.days)) })),
        ),
        head(
          say('schedule.cell.seasonal_pct'),
          programs.map((p) => ({ text: spans(percent(p.seasonal_pct)), fontSize: 9 })),
        ),
        ...lines.map((line): TableCell[] => [
          figures(line.tag, 13),
          { text: spans(line.name) },
          ...line.minutes.map((m) => figures(m, 12)),
        ]),
      ],
    },
  }
}

const titleOf = ({ controller }: DoorSheet, say: Say) =>
  say('schedule.sheetTitle', { controller: `${controller.tag} ${controller.name}`.trim() })

/** What the controller is set to, to be set again by hand when it forgets. */
export function doorSheetContent(of: DoorSheet, words: SheetWords): Content[] {
  const { say } = words
  const w = of.window_s
  const hours = w ? `${timeText(w.opens % 86_400)} – ${timeText(w.closes % 86_400)}` : say('schedule.allDay')
  return [
    { text: spans(titleOf(of, say)), bold: true, fontSize: 20 },
    { text: spans(of.property), margin: [0, 0, 0, 4] },
    programTable(of, words),
    { text: spans(say('schedule.sheetRules', { hours })), fontSize: 9, margin: [0, 8, 0, 0] },
  ]
}

/** The sheet for the door by itself. */
export const doorSheetDoc = (of: DoorSheet, words: SheetWords & { paper: Paper; today: string }): Print =>
  sheet(words.paper, `${of.property} · ${titleOf(of, words.say)}`, doorSheetContent(of, words), {
    foot: words.say('print.cardFoot', { contractor: of.contractor, day: words.today }),
  })
