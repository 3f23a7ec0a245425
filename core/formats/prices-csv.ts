import type { Quote } from '../quote'
import { priceList, type PriceList } from '../record'
import { parseWith, refusal, refused, type Outcome } from '../refusal'
import { readCsvRecords, writeCsv } from './csv'

const COLUMNS = ['kind', 'code', 'name', 'value', 'unit', 'markup_pct', 'tax'] as const
type Row = Partial<Record<(typeof COLUMNS)[number], string>>
const SETTINGS = ['currency', 'decimals', 'tax', 'rounding', 'round_to'] as const
const MOST_ROWS = 6000

/** The same from the rows of a spreadsheet, its first row the heads. */
export function readPricesRows([heads = [], ...cells]: readonly (readonly string[])[]): Outcome<PriceList> {
  const fields = heads.map((h) => h.trim().toLowerCase())
  const rows = cells.filter((c) => c.some((cell) => cell.trim() !== ''))
  return readRows(
    rows.map((c) => Object.fromEntries(fields.map((f, i) => [f, c[i] ?? ''])) as Row),
    fields,
  )
}

/**
 * Reads a price list: a line a setting (`currency`, `decimals`, `tax`, `rounding`, `round_to`), a tax with its per
 * cent, or a price. Figures have a point and are kept as they are written.
 */
export function readPricesCsv(text: string): Outcome<PriceList> {
  const { rows, fields } = readCsvRecords<Row>(text)
  return readRows(rows, fields)
}

function readRows(rows: readonly Row[], fields: readonly string[]): Outcome<PriceList> {
  const missing = (['kind', 'code', 'value'] as const).filter((c) => !fields.includes(c))
  if (missing.length > 0) return refused(...missing.map((column) => refusal('no_column', ['line 1'], { column })))
  if (rows.length > MOST_ROWS) return refused(refusal('too_big', ['list'], { maximum: MOST_ROWS }))
  const cell = (row: Row, column: keyof Row) => (row[column] ?? '').trim()
  const wrong = rows.flatMap((row, i) =>
    ['setting', 'tax', 'price'].includes(cell(row, 'kind')) &&
    (cell(row, 'kind') !== 'setting' || SETTINGS.includes(cell(row, 'code') as never))
      ? []
      : [refusal('no_price_line', [`line ${i + 2}`], { text: `${cell(row, 'kind')} ${cell(row, 'code')}`.trim() })],
  )
  if (wrong.length > 0) return refused(...wrong)
  const of = (kind: string) => rows.filter((row) => cell(row, 'kind') === kind)
  const setting = (code: string) => of('setting').find((row) => cell(row, 'code') === code)
  const said = (code: string, usual: string) => {
    const row = setting(code)
    return row ? cell(row, 'value') : usual
  }
  return parseWith(priceList, {
    currency: said('currency', ''),
    decimals: Number(said('decimals', '2')),
    tax: said('tax', 'on_top'),
    rounding: said('rounding', 'half_up'),
    roundTo: said('round_to', '') || null,
    taxes: of('tax').map((row) => ({
      code: cell(row, 'code'),
      name: cell(row, 'name') || cell(row, 'code'),
      percent: cell(row, 'value'),
    })),
    prices: of('price').map((row) => ({
      code: cell(row, 'code'),
      name: cell(row, 'name') || cell(row, 'code'),
      unit: cell(row, 'unit') || 'piece',
      price: cell(row, 'value'),
      markup_pct: cell(row, 'markup_pct') || '0',
      tax: cell(row, 'tax') || null,
    })),
  })
}

/** The same as it is read. */
export const writePricesCsv = (list: PriceList): string => writeCsv(pricesRows(list))

/** A price list as the rows of a spreadsheet, its first row the heads. */
export const pricesRows = (list: PriceList): string[][] => [
  [...COLUMNS],
  ...(
    [
      ['currency', list.currency],
      ['decimals', String(list.decimals)],
      ['tax', list.tax],
      ['rounding', list.rounding],
      ...(list.roundTo === null ? [] : [['round_to', list.roundTo]]),
    ] as [string, string][]
  ).map(([code, value]) => ['setting', code, '', value, '', '', '']),
  ...list.taxes.map((t) => ['tax', t.code, t.name, t.percent, '', '', '']),
  ...list.prices.map((p) => ['price', p.code, p.name, p.price, p.unit, p.markup_pct, p.tax ?? '']),
]

/** A quote as lines, its taxes and its total below them. */
export const writeQuoteCsv = (quote: Quote): string =>
  writeCsv([
    ['place', 'code', 'name', 'quantity', 'unit', 'amount', 'currency'],
    ...quote.lines.map((l) => [l.place ?? '', l.code, l.name, l.quantity, l.unit, l.amount, quote.currency]),
    ...quote.taxes.map((t) => ['', t.code, t.name, t.percent, 'tax', t.amount, quote.currency]),
    ...(Number(quote.adjustment) === 0 ? [] : [['', '', '', '', 'rounding', quote.adjustment, quote.currency]]),
    ['', '', '', '', 'total', quote.total, quote.currency],
  ])
