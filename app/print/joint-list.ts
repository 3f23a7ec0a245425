import type { Content } from 'pdfmake/interfaces'
import { heading, type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/** A box with its joints as they are to be made or were. */
export interface BoxJoints {
  readonly box: string
  readonly name: string
  readonly joints: readonly {
    readonly serves: string
    readonly conductors: string
    readonly connector: string
    readonly made: string
  }[]
}

/** The joints of every box, and the connectors they take: what goes into the van. */
export function jointListDoc(
  boxes: readonly BoxJoints[],
  connectors: readonly { readonly kind: string; readonly count: number }[],
  { paper, say, property }: { paper: Paper; say: Say; property: string },
): Print {
  const rows = (box: BoxJoints): Content => ({
    unbreakable: box.joints.length < 20,
    stack: [
      heading(box.name ? `${box.box} · ${box.name}` : box.box),
      {
        layout: 'rows',
        table: {
          widths: [12, 60, '*', 110, 96],
          dontBreakRows: true,
          body: box.joints.map((j) => [
            { canvas: [{ type: 'rect' as const, x: 0, y: 2, w: 9, h: 9, lineWidth: 0.8 }] },
            { text: spans(j.serves), bold: true },
            { text: spans(j.conductors) },
            { text: spans(j.connector) },
            { text: spans(j.made) },
          ]),
        },
      },
    ],
  })
  return sheet(
    paper,
    say('print.jointList'),
    [
      { text: spans(say('print.jointList')), bold: true, fontSize: 20 },
      { text: spans(property), margin: [0, 0, 0, 4] },
      { text: spans(connectors.map((c) => `${c.count} × ${c.kind}`).join(', ')), bold: true },
      ...boxes.filter((b) => b.joints.length > 0).map(rows),
    ],
    { foot: property },
  )
}
