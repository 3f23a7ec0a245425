import type { Content, TableCell } from 'pdfmake/interfaces'
import type { Certificate, Figure } from '../../core/card'
import { heading, type Paper, type Print, type Say, sheet } from './sheet'
import { spans } from './spans'

/**
 * What certifies a commissioning: every figure, who and when, what does not fit and why it was
 * taken, what was left out.
 */
export function certificateDoc(
  certificate: Certificate,
  options: {
    readonly paper: Paper
    readonly url: string
    readonly say: Say
    readonly ohms: (ohm: number) => string
    readonly when: (at: string) => string
    readonly degrees: (at_C: number) => string
    readonly stepText: (step: Certificate['open'][number]) => string
  },
): Print {
  const { paper, url, say, ohms, when, degrees, stepText } = options
  const cell = (text: string, more: object = {}): TableCell => ({ text: spans(text), ...more })
  const figure = (f: Figure | null): TableCell =>
    f === null
      ? cell('–')
      : {
          stack: [
            { text: spans(f.ohm === null ? say('print.open') : ohms(f.ohm), 'Figures'), bold: true },
            { text: spans(say(`verdict.${f.verdict}`)), fontSize: 8 },
          ],
        }
  const reasons = certificate.lines.flatMap((l) =>
    l.ohm?.reason ? [say('print.accepted', { label: l.label, reason: l.ohm.reason })] : [],
  )
  const said: Content[] = [
    { text: spans(say('print.certificate')), bold: true, fontSize: 22 },
    { text: spans(`${certificate.property} · ${certificate.controller}`), fontSize: 13, margin: [0, 2, 0, 8] },
    {
      columns: [
        {
          width: '*',
          stack: [
            say('print.byWhom', { people: certificate.people.join(', ') || '?' }),
            say('print.fromTo', { from: when(certificate.from), to: when(certificate.to) }),
            say('print.conditions', {
              ground: degrees(certificate.ground_C),
              meter: certificate.meter || say('print.aMeter'),
            }),
            certificate.supply_V === null
              ? say('print.noSupply')
              : say('print.supply', { volts: certificate.supply_V }),
          ].map((text) => ({ text: spans(text), margin: [0, 1, 0, 1] as [number, number, number, number] })),
        },
        { width: 104, qr: url, fit: 100 },
      ],
    },
    heading(say('print.threads')),
    {
      layout: 'rows',
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: [28, '*', 62, 70, 44, 48, 84],
        body: [
          (['terminal', 'station', 'toCommon', 'toEarth', 'volts', 'heard', 'water'] as const).map((h) =>
            cell(say(`print.column.${h}`), { bold: true, fontSize: 9 }),
          ),
          ...certificate.lines.map((l) => [
            { text: spans(l.label, 'Figures'), bold: true },
            cell(l.name),
            figure(l.ohm),
            figure(l.earth),
            cell(l.volt === null ? '–' : `${l.volt} V`),
            cell(l.heard === null ? '–' : say(l.heard ? 'procedureChoice.heard' : 'procedureChoice.not_heard')),
            cell(l.zone === null ? '–' : say(`procedureChoice.${l.zone}`)),
          ]),
        ],
      },
    },
    ...(certificate.coils.length > 0
      ? [
          heading(say('print.coils')),
          {
            ul: certificate.coils.map((c) => ({
              text: spans(
                `${c.name}: ${c.ohm === null ? '–' : c.ohm.ohm === null ? say('print.open') : ohms(c.ohm.ohm)}`,
              ),
            })),
          } as Content,
        ]
      : []),
    ...list(say('print.reasons'), reasons),
    ...list(
      say('print.leftOut'),
      certificate.leftOut.map(({ step, reason }) => `${stepText(step)} ${say('print.because', { reason })}`),
    ),
    ...list(say('print.stillOpen'), certificate.open.map(stepText)),
    {
      margin: [0, 28, 0, 0],
      unbreakable: true,
      columns: ['print.signCrew', 'print.signOwner'].map((key) => ({
        stack: [
          { canvas: [{ type: 'line' as const, x1: 0, y1: 0, x2: 220, y2: 0, lineWidth: 0.8 }] },
          { text: spans(say(key)), fontSize: 9, margin: [0, 3, 0, 0] as [number, number, number, number] },
        ],
      })),
    },
  ]
  return sheet(paper, say('print.certificate'), said, {
    foot: say('print.certificateFoot', { contractor: certificate.contractor }),
  })
}

const list = (title: string, lines: readonly string[]): Content[] =>
  lines.length === 0 ? [] : [heading(title), { ul: lines.map((text) => ({ text: spans(text), fontSize: 10 })) }]
