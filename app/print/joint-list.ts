import type { Content } from 'pdfmake/interfaces'
import type { BoxJoints } from '../../core/card'
import { heading, type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** What the joints are said with: messages, and days. */
export interface JointWords {
  readonly say: Say
  readonly day: (at: string) => string
}

const behindText = (behind: BoxJoints['joints'][number]['behind'], say: JointWords['say']): string =>
  behind === null
    ? say('boxes.other')
    : behind.output === null
      ? say('boxes.behindCommon', { decoder: behind.tag })
      : say('boxes.behindOutput', { decoder: behind.tag, output: behind.output })

/** The joints of each box, a line each, to be ticked by hand. */
export const jointRows = (boxes: readonly BoxJoints[], { say, day }: JointWords): Content[] =>
  boxes.map(({ tag, name, joints }) => ({
    unbreakable: joints.length < 20,
    stack: [
      heading(name ? `${tag} · ${name}` : tag),
      {
        layout: 'rows',
        table: {
          widths: [12, 60, '*', 110, 96],
          dontBreakRows: true,
          body: joints.map((j) => [
            { canvas: [{ type: 'rect' as const, x: 0, y: 2, w: 9, h: 9, lineWidth: 0.8 }] },
            {
              text: spans(j.serves === 'common' ? say('print.common') : (j.terminal ?? behindText(j.behind, say))),
              bold: true,
            },
            { text: spans(j.conductors.map((c) => `${c.from} ${c.colour ?? ''}`.trim()).join(', ')) },
            { text: spans(say(`connector.${j.connector}`)) },
            { text: spans(j.made === null ? say('print.notMade') : say('print.made', { day: day(j.made) })) },
          ]),
        },
      },
    ],
  }))

/** The joints of every box, and the connectors they take: what goes into the van. */
export function jointListDoc(
  boxes: readonly BoxJoints[],
  connectors: readonly { readonly kind: string; readonly count: number }[],
  { paper, property, ...words }: { paper: Paper; property: string } & JointWords,
): Print {
  const { say } = words
  return sheet(
    paper,
    say('print.jointList'),
    [
      { text: spans(say('print.jointList')), bold: true, fontSize: 20 },
      { text: spans(property), margin: [0, 0, 0, 4] },
      { text: spans(connectors.map((c) => `${c.count} × ${say(`connector.${c.kind}`)}`).join(', ')), bold: true },
      ...jointRows(boxes, words),
    ],
    { foot: property },
  )
}
