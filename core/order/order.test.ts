import { quarryLake } from '../../demo/quarry-lake'
import { predict, sceneOf, terminalTest } from '../expect'
import { apart_m, whereIs } from '../map'
import { quoteLines } from '../quote'
import { quotesIn } from '../quoted'
import { COMMON_METER, noFacts, partKey, type PriceList, type QuotedItem } from '../record'
import { knownBad, repairsFor } from '../repair'
import type { ControllerId, PlaceId, Site, TerminalId } from '../site'
import { workOrder } from '.'

const A = 'A' as ControllerId
const open = { state: 'open' as const, since: null, note: '' }
function broken(): Site {
  const demo = { ...quarryLake(), defects: {} }
  const K1 = demo.cables['K1' as never] as Site['cables'][never]
  const core = K1.cores['brown' as never]
  return {
    ...demo,
    cables: {
      ...demo.cables,
      K1: { ...K1, cores: { ...K1.cores, brown: { ...core, conditions: { B2: open } } } },
    } as Site['cables'],
    devices: { ...demo.devices, V9: { ...demo.devices['V9' as never], condition: open } } as Site['devices'],
  }
}
const PRICES: PriceList = {
  ...{ currency: 'XTS', decimals: 2, tax: 'on_top', rounding: 'half_up', roundTo: null, taxes: [] },
  prices: (
    [
      ['call_out', 'visit'],
      ['work', 'h'],
      ['coil', 'piece'],
      ['connector', 'piece'],
      ['cap', 'piece'],
    ] as const
  ).map(([code, unit]) => ({ code, name: code, unit, price: '10', markup_pct: '0', tax: null })),
}

test('the work of an accepted quote: places by foot, the procedure and what is read afterwards, what goes into the van; less by what is done', () => {
  const site = broken()
  const repairs = knownBad(site).flatMap(({ where, without }) => {
    const option = repairsFor(without, A, where, '2027-05-01').find((o) => o.possible)
    return option?.possible ? [{ where, option }] : []
  })
  const items = repairs.map(({ where, option }): QuotedItem => ({
    ...{
      key: partKey(where),
      of: { kind: 'repair', where, option: option.code },
      says: option.code,
      usual_min: option.minutes,
    },
  }))
  const far = { key: 'lid', of: { kind: 'line' as const }, says: 'Lid', usual_min: null }
  const lines = [
    ...quoteLines(site, A, repairs),
    { key: 'lid', item: 'lid', place: 'B7', code: 'work', unit: 'min' as const, quantity: '12.5' },
  ]
  const facts = noFacts()
  const at = '2027-05-01T08:00:00Z'
  facts.quotes.q = { at, author: 'Ann', items: [...items, far], lines, prices: PRICES, until: null, note: '' }
  const orderNow = () => workOrder(site, quotesIn(facts)[0]!)
  expect(orderNow().stops).toEqual([])
  facts.quoteTurns.t = {
    ...{ quote: 'q', at, author: 'Ann' },
    to: { kind: 'answered', accepted: [...items.map((i) => i.key), 'lid'], name: 'Owner', signature: null },
  }
  const order = orderNow()
  expect([...order.stops].map((s) => [s.place, s.items.map((i) => i.item.says)]).sort()).toEqual([
    ['B3', ['two_on_lead']],
    ['B5', ['coil']],
    ['B7', ['Lid']],
  ])
  expect(order.minutes).toBeCloseTo(39 + 16 + 12.5, 9)
  expect(order.parts.map((p) => [p.code, p.quantity])).toEqual([
    ['connector', 5],
    ['coil', 1],
    ['cap', 2],
  ])
  // No order of the three places is shorter on foot, there and back.
  const spot = (place: string) => whereIs(site.places[place as PlaceId]!)!
  const home = spot(site.controllers[A]!.place)
  const way = (of: string[]) => {
    const points = [home, ...of.map(spot), home]
    return points.slice(1).reduce((sum, p, i) => sum + apart_m(points[i]!, p), 0)
  }
  const all = [
    ['B3', 'B5', 'B7'],
    ['B3', 'B7', 'B5'],
    ['B5', 'B3', 'B7'],
  ].map(way)
  expect(order.walk_m).toBeCloseTo(Math.min(...all), 6)
  expect(way(order.stops.map((s) => s.place!))).toBeCloseTo(order.walk_m, 6)
  // A coil is changed by its procedure; then its own thread reads what the record without the fault expects.
  const coil = order.stops.find((s) => s.place === 'B5')!.items[0]!
  expect([coil.isBad, order.stops.find((s) => s.place === 'B7')!.items[0]!.isBad]).toEqual([true, false])
  expect(coil.by?.procedure.id).toBe('coil_change')
  const mended = quarryLake()
  const test = terminalTest(mended, A, '9' as TerminalId)!
  const expected = predict(sceneOf(knownBad(site)[0]!.without), test, COMMON_METER)
  expect(coil.toRead.map((r) => r.expected.terminal)).toEqual(['9'])
  expect(coil.toRead[0]!.expected.expectation).toEqual(expected)

  facts.worksDone.w = {
    ...{ quote: 'q', item: items[0]!.key, at, author: 'Ann', minutes: 30, used: [], undone: false },
  }
  expect(orderNow().stops.flatMap((s) => s.items.map((i) => i.item.key))).not.toContain(items[0]!.key)
  expect(orderNow().parts.map((p) => p.code)).not.toContain('coil')
  facts.worksDone.x = { ...facts.worksDone.w, at: '2027-05-02T08:00:00Z', undone: true }
  expect(orderNow().stops.flatMap((s) => s.items)).toHaveLength(3)
})
