import type { Content } from 'pdfmake/interfaces'
import { heading, sheet, type Paper, type Print, type Say } from './sheet'
import { spans } from './spans'

/** The flags of one end of a cable: each end's own number and look, and what it is at the other end. */
export interface FlaggedEnd {
  readonly place: string
  readonly flags: readonly { readonly here: string; readonly there: string }[]
}

const ACROSS = 3

/** Flags for the cores of a cable at both its ends; each folds around its conductor, the same said on both halves. */
export function coreFlagsDoc(
  cable: string,
  ends: readonly FlaggedEnd[],
  { paper, say }: { paper: Paper; say: Say },
): Print {
  const flag = (f: FlaggedEnd['flags'][number] | undefined): Content =>
    f === undefined
      ? { text: '' }
      : {
          columns: [1, 2].map(() => ({
            stack: [
              { text: spans(f.here, 'Figures'), bold: true, fontSize: 13 },
              { text: spans(f.there), fontSize: 8.5 },
            ],
            alignment: 'center' as const,
          })),
        }
  const rows = ({ flags }: FlaggedEnd): Content[][] =>
    Array.from({ length: Math.ceil(flags.length / ACROSS) }, (_, i) =>
      Array.from({ length: ACROSS }, (_, k) => flag(flags[i * ACROSS + k])),
    )
  return sheet(paper, cable, [
    { text: spans(say('print.flags')), fontSize: 9 },
    ...ends.flatMap((end): Content[] => [
      heading(`${cable}, ${end.place}`),
      {
        layout: 'labels',
        table: { widths: Array.from({ length: ACROSS }, () => '*'), dontBreakRows: true, body: rows(end) as never },
      },
    ]),
  ])
}
