import type { Content } from 'pdfmake/interfaces'
import type { CabinetCard, CardLine, Handover, OpenPoint } from '../../core/card'
import { tagAndName } from '../../core/site'
import { jointRows, type JointWords } from './joint-list'
import { planSvg } from './plan-svg'
import { heading, type Paper, PAPER_pt, type Print, sheet } from './sheet'
import { photoRows, PHOTOS_ACROSS, type PrintedPhoto } from './photos'
import { spans } from './spans'

interface Options extends JointWords {
  readonly paper: Paper
  readonly url: string
  readonly today: string
  readonly ohms: (ohm: number) => string
  readonly length: (length_m: number) => string
  readonly openText: (point: OpenPoint) => string
  readonly photos: readonly PrintedPhoto[]
  /** Photos that are neither on this device nor with a server that answers. */
  readonly missing: number
}

const MARGIN_pt = 28

/** The booklet for the owner and whoever works here next: open points, map, every door, every joint, photos. */
export function handoverDoc(handover: Handover, options: Options): Print {
  const { paper, url, today, say, length, openText, photos, missing } = options
  const [width, height] = PAPER_pt[paper]
  const inside = width - 2 * MARGIN_pt
  const drawn = handover.map && planSvg(handover.map, { width: inside, height: height * 0.52 }, length)
  const nowhere = handover.map?.nowhere ?? []
  const content: Content[] = [
    {
      columns: [
        {
          width: '*',
          stack: [
            { text: spans(handover.property), bold: true, fontSize: 26 },
            { text: spans(say('print.handover')), fontSize: 13, margin: [0, 2, 0, 2] },
            { text: spans([handover.contractor, today].filter((x) => x !== '').join(' · ')) },
            { text: spans(say('print.scan')), fontSize: 9, margin: [0, 6, 0, 0] },
          ],
        },
        { width: 100, qr: url, fit: 96 },
      ],
    },
    heading(say('print.openPoints')),
    handover.open.length === 0
      ? { text: spans(say('print.noOpenPoints')) }
      : { ul: handover.open.map((point) => ({ text: spans(openText(point)) })) },
    ...(drawn
      ? [
          heading(say('print.map')),
          { svg: drawn.svg, width: drawn.width } as Content,
          ...(nowhere.length > 0
            ? [{ text: spans(say('print.notDrawn', { tags: nowhere.join(', ') })), fontSize: 9 } as Content]
            : []),
        ]
      : []),
    ...handover.cards.map((card, i) => doorOf(card, options, i === 0)),
    ...(handover.boxes.length > 0 ? [chapter(say('print.jointList')), ...jointRows(handover.boxes, options)] : []),
    ...(photos.length + missing > 0 ? photoPages(photos, missing, (inside - 2 * 8) / PHOTOS_ACROSS, options) : []),
  ]
  return sheet(paper, `${handover.property} · ${say('print.handover')}`, content, {
    foot: say('print.certificateFoot', { contractor: handover.contractor }),
  })
}

const chapter = (text: string, onNewPage = true): Content => ({
  text: spans(text),
  bold: true,
  fontSize: 18,
  ...(onNewPage ? { pageBreak: 'before' as const } : { margin: [0, 18, 0, 0] }),
})

/** Lines of a door that are kept together on a page. */
const TOGETHER = 24

/** A controller's threads: what is under each screw, where it leads, what it reads. */
function doorOf(card: CabinetCard, { say, ohms, day }: Options, isFirst: boolean): Content {
  const spares = card.spares.map((s) => `${s.from} ${s.colour ?? say('print.noColour')}`.trim()).join(', ')
  const wires = ({ conductors }: CardLine) =>
    conductors.map((c) => `${c.from} ${c.colour ?? say('print.noColour')}`.trim()).join(', ')
  const title = chapter(tagAndName(card.controller), isFirst)
  const rest: Content[] = [
    ...(card.master ? [{ text: spans(say('print.master', { ...card.master })), bold: true } as Content] : []),
    {
      layout: 'rows',
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: [28, '*', '*', 46, 56, 112],
        body: [
          (['terminal', 'station', 'conductors', 'boxes', 'expected', 'baseline'] as const).map((key) => ({
            text: spans(say(`print.column.${key}`)),
            bold: true,
            fontSize: 9,
          })),
          ...card.lines.map((line) => [
            { text: spans(line.label, 'Figures'), bold: true },
            { text: spans(line.role === 'common' ? say('print.common') : line.name) },
            { text: spans(wires(line)) },
            { text: spans(line.boxes.join(' '), 'Figures') },
            { text: spans(line.expected_ohm === null ? '–' : ohms(line.expected_ohm), 'Figures') },
            {
              text: line.baseline
                ? [...spans(ohms(line.baseline.ohm), 'Figures'), { text: ` ${day(line.baseline.at)}`, fontSize: 8 }]
                : spans('–'),
            },
          ]),
        ],
      },
    },
    {
      text: spans(
        spares === '' ? say('print.noSpares') : say('print.spares', { count: card.spares.length, list: spares }),
      ),
      fontSize: 9,
      margin: [0, 6, 0, 0],
    },
  ]
  const isShort = card.lines.length <= TOGETHER
  return isFirst ? { stack: [title, ...rest] } : { unbreakable: isShort, stack: [title, ...rest] }
}

/** Photos with what they show, three side by side. */
function photoPages(photos: readonly PrintedPhoto[], missing: number, width: number, { say }: Options): Content[] {
  return [
    chapter(say('print.photos')),
    ...photoRows(photos, width),
    ...(missing > 0 ? [{ text: spans(say('print.photosMissing', { count: missing })), fontSize: 9 } as Content] : []),
  ]
}
