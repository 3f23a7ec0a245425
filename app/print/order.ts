import type { Content } from 'pdfmake/interfaces'
import type { WorkOrder } from '../../core/order'
import { ohmsWithUnit } from '../../core/quantity'
import { getOrThrow, type PlaceId, type Site } from '../../core/site'
import type { Speaker } from '../../words'
import { sayTitle } from '../../words/procedure'
import { heading, type Paper, type Print, sheet } from './sheet'
import { spans } from './spans'

interface OrderPrint {
  readonly paper: Paper
  readonly property: string
  readonly day: string
  readonly placeText: (place: PlaceId | null) => string
  readonly length: (length_m: number) => string
  readonly speaker: Speaker
  readonly site: Site
}

/**
 * A work order for the crew: the places in the order of walking, what is done and read there, and what is taken along.
 */
export function orderDoc(order: WorkOrder, options: OrderPrint): Print {
  const { paper, property, day, placeText, length, speaker, site } = options
  const { t } = speaker
  const ticked = (stack: Content[]): Content => ({
    columns: [
      { width: 16, canvas: [{ type: 'rect', x: 0, y: 2, w: 9, h: 9, lineWidth: 0.8 }] },
      { width: '*', stack },
    ],
    margin: [0, 2, 0, 4],
    unbreakable: true,
  })
  const content: Content[] = [
    { text: spans(t('order.title', {})), bold: true, fontSize: 20 },
    { text: spans(`${property} · ${day}`) },
    { text: spans(t('order.walk', { length: length(order.walk_m), minutes: Math.round(order.minutes) })) },
    ...order.stops.flatMap(({ place, items }): Content[] => [
      heading(placeText(place)),
      ...items.map(({ item, minutes, by, toRead }) =>
        ticked([
          { text: spans(`${item.says} (${t('order.minutes', { minutes: Math.round(minutes) })})`), bold: true },
          ...(by ? [{ text: spans(t('order.follow', { title: sayTitle(by.procedure, speaker) })) }] : []),
          ...toRead.map(({ controller, expected: { terminal, expectation } }) => ({
            text: spans(
              t('order.read', {
                label: getOrThrow(getOrThrow(site.controllers, controller).terminals, terminal).tag,
                ohms: expectation.kind === 'ohms' ? ohmsWithUnit(expectation.expected_ohm) : t('order.open', {}),
              }),
            ),
          })),
        ]),
      ),
    ]),
    heading(t('order.van', {})),
    ...(order.parts.length === 0 ? [{ text: spans(t('order.nothing', {})) }] : []),
    ...order.parts.map((p) => ticked([{ text: spans(`${p.quantity} ${t(`quotes.units.${p.unit}`, {})}  ${p.name}`) }])),
  ]
  return sheet(paper, `${property} · ${t('order.title', {})}`, content, { foot: `${property}, ${day}` })
}
