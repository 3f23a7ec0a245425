import { quarryLake } from '../../demo/quarry-lake'
import { knownBad, repairsFor, USUAL_FIGURES } from '../repair'
import type { ControllerId, Site } from '../site'
import { priceList, type PriceList, type QuoteLine } from '../record'
import { figuresBy, quoteLines, quoteOf } from '.'
import { drawnPrices, drawnLines, plainTotals } from '../../tests/drawn-prices'
import { pricesRows, readPricesCsv, readPricesRows, writePricesCsv } from '../formats'

const list = (more: Partial<PriceList> = {}): PriceList =>
  priceList.parse({
    currency: 'XTS',
    decimals: 2,
    tax: 'on_top',
    rounding: 'half_up',
    roundTo: null,
    taxes: [{ code: 'std', name: 'Standard', percent: '8.25' }],
    prices: [
      { code: 'work', name: 'Work', unit: 'h', price: '70', markup_pct: '0', tax: 'std' },
      { code: 'cap', name: 'Cap', unit: 'piece', price: '0.55', markup_pct: '20', tax: null },
    ],
    ...more,
  })
const LINES: QuoteLine[] = [
  { key: 'work', item: null, place: 'B1', code: 'work', unit: 'min', quantity: '41.5' },
  { key: 'caps', item: null, place: 'B2', code: 'cap', unit: 'piece', quantity: '3' },
]
function quote(of: PriceList) {
  const made = quoteOf(LINES, of)
  if (!made.ok) throw new Error(made.refusals[0]!.code)
  return made.value
}

test('minutes at an hour’s price, mark-up and tax: each rounded once, and every rounding said', () => {
  // 70 · 41.5 / 60 = 48.41666…; 3 · 0.55 · 1.2 = 1.98; 8.25 % of 48.42 = 3.99465.
  expect(quote(list())).toMatchObject({
    lines: [{ amount: '48.42', each: '7/6' }, { amount: '1.98' }],
    groups: [
      { place: 'B1', sum: '48.42' },
      { place: 'B2', sum: '1.98' },
    ],
    net: '50.40',
    taxes: [{ of: '48.42', amount: '3.99' }],
    total: '54.39',
    roundings: [
      { of: 'work', exact: '581/12', to: '48.42' },
      { of: 'tax std', to: '3.99' },
    ],
  })
  expect(quote(list({ tax: 'inclusive' }))).toMatchObject({ net: '50.40', taxes: [{ amount: '3.69' }], total: '50.40' })
  expect(quote(list({ roundTo: '0.05' }))).toMatchObject({ total: '54.40', adjustment: '0.01' })
  expect(quote(list({ roundTo: '0.05', rounding: 'down' }))).toMatchObject({ total: '54.35', adjustment: '-0.03' })
})

test('on drawn lists and lines totals are those of plain whole numbers, and a list comes back as it was written', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const prices = drawnPrices(seed)
    const lines = drawnLines(prices, seed)
    const made = quoteOf(lines, prices)
    if (!made.ok) throw new Error(JSON.stringify(made.refusals))
    const { net, taxes, total } = made.value
    expect([seed, net, taxes.map((t) => t.amount), total]).toEqual([seed, ...plainTotals(lines, prices)])
    expect(readPricesCsv(writePricesCsv(prices))).toEqual({ ok: true, value: prices })
    expect(readPricesRows(pricesRows(prices))).toEqual({ ok: true, value: prices })
  }
})

test('what a list lacks is asked for; a line that is none, a tax that is not there and a figure that is none are refused', () => {
  const lacks = quoteOf(
    [...LINES, { key: 'x', item: null, place: null, code: 'work', unit: 'm', quantity: '1' }],
    list(),
  )
  expect(lacks.ok ? [] : lacks.refusals.map((r) => [r.code, r.params])).toEqual([
    ['no_price', { code: 'work', unit: 'm' }],
  ])
  const read = (text: string) => {
    const made = readPricesCsv(text)
    return made.ok ? [] : made.refusals.map((r) => r.code)
  }
  const head = 'kind,code,value,unit,tax\nsetting,currency,XTS,,\n'
  expect(read('kind,code\n')).toEqual(['no_column'])
  expect(read(`${head}cost,work,3,h,\n`)).toEqual(['no_price_line'])
  expect(read(`${head}price,work,3,h,std\n`)).toHaveLength(1)
  expect(read(`${head}price,work,1e3,h,\n`)).toHaveLength(1)
  expect(read(`${head}price,work,3,h,\nprice,work,4,h,\n`)).toHaveLength(1)
  expect(read(`${head}price,work,3,h,\n`)).toEqual([])
})

/** A core of the demo broken, and a coil of it dead. */
function broken(): Site {
  const demo = { ...quarryLake(), defects: {} }
  const K1 = demo.cables['K1' as never] as Site['cables'][never]
  const core = K1.cores['brown' as never]
  const open = { state: 'open' as const, since: null, note: '' }
  return {
    ...demo,
    cables: {
      ...demo.cables,
      K1: { ...K1, cores: { ...K1.cores, brown: { ...core, conditions: { B2: open } } } },
    } as Site['cables'],
    devices: { ...demo.devices, V9: { ...demo.devices['V9' as never], condition: open } } as Site['devices'],
  }
}

test('what the record knows to be bad becomes lines: a call-out, the walk, and for each its work and its material', () => {
  const site = broken()
  const known = knownBad(site)
  expect(known.map((k) => k.where)).toEqual([
    { kind: 'coil', device: 'V9' },
    { kind: 'run', cable: 'K1', core: 'brown', from: 'B2', to: 'B3' },
  ])
  expect(known[1]!.without.cables).toEqual(quarryLake().cables)
  const A = 'A' as ControllerId
  const repairs = known.flatMap(({ where, without }) => {
    const option = repairsFor(without, A, where, '2027-05-01')[0]!
    return option.possible ? [{ where, option }] : []
  })
  const lines = quoteLines(site, A, repairs)
  expect(lines.map((l) => [l.key, l.place, l.quantity, l.unit])).toEqual([
    ['call out', null, '1', 'visit'],
    ['walk', null, expect.stringMatching(/^\d/), 'min'],
    ['1 coil work', 'B5', '39', 'min'],
    // Two joints with a tenth in reserve take three connectors.
    ['1 coil connector', 'B5', '3', 'piece'],
    ['1 coil coil', 'B5', '1', 'piece'],
    ['2 two_on_lead work', 'B3', '16', 'min'],
    ['2 two_on_lead connector', 'B3', '2', 'piece'],
    ['2 two_on_lead cap', 'B3', '2', 'piece'],
  ])
})

test('repairs are ranked by a company’s own prices, mark-ups with them; what has no price is as usual', () => {
  const price = (code: string, unit: 'h' | 'piece' | 'm', of: string, markup_pct = '0') => ({
    ...{ code, name: code, unit, price: of, markup_pct, tax: null },
  })
  const own = list({
    prices: [price('work', 'h', '30'), price('coil', 'piece', '10', '50'), price('wire_1mm2', 'm', '0.4')],
  })
  const figures = figuresBy(own)
  expect([figures.cents_per_min, figures.parts_cents.coil, figures.parts_cents.valve]).toEqual([
    50,
    1500,
    USUAL_FIGURES.parts_cents.valve,
  ])
  expect(figures.wire_cents_per_m).toEqual({ wire_1mm2: 40 })
  expect(figuresBy(null)).toBe(USUAL_FIGURES)
  const { where, without } = knownBad(broken())[1]!
  const optionsBy = (hour: string) =>
    repairsFor(
      without,
      'A' as ControllerId,
      where,
      '2027-05-01',
      figuresBy(list({ prices: [price('work', 'h', hour)] })),
    )
  for (const option of optionsBy('60'))
    if (option.possible) expect(option.cents).toBe(Math.round(option.minutes * 100 + option.material_cents))
  const first = (hour: string) => optionsBy(hour).flatMap((o) => (o.possible ? [o] : []))
  const [cheap, dear] = [first('1'), first('900')]
  expect(cheap[0]!.cents).toBe(Math.min(...cheap.map((o) => o.cents)))
  expect(dear[0]!.minutes).toBe(Math.min(...dear.filter((o) => !o.isTemporary).map((o) => o.minutes)))
})
