import { gaugeText, parseGauge, parseLength } from '../quantity'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import type { Settings, Site } from '../site'
import { readCsvRows, writeCsv } from './csv'
import { MASTER, RELAY, rowsOf, stationRow, type StationRow } from '../plan'

const COLUMNS = ['station', 'name', 'zone', 'cable', 'box', 'at', 'coil', 'colour', 'gauge', 'kind'] as const
type Column = (typeof COLUMNS)[number]
/** Columns of a list without a first line of names. */
const USUAL: readonly Column[] = ['station', 'name', 'box', 'at', 'coil']
const STATION = new RegExp(`^([^\\s:,]{1,12}:)?(\\d{1,4}|${MASTER}|${RELAY})$`, 'i')
/** A row of plain text: a number or MV, a point or bracket perhaps, and a name. */
const NUMBERED = new RegExp(`^((?:[^\\s:,]{1,12}:)?(?:\\d{1,4}|${MASTER}|${RELAY}))[.):]?\\s+(.*)$`, 'i')
/** More rows than this are no list of one property's stations. */
const MOST_ROWS = 1000

/**
 * Reads a list of stations as it comes: CSV with a first line of column names, cells from a spreadsheet, or a line a
 * station (`3 Rose bed`, `Rose bed`). Stations without a number get the next free one. An empty cell leaves unknown
 * what is unknown, and as it is what is on record. A row that cannot be understood refuses the whole, naming line and
 * column.
 */
export function readStationList(
  text: string,
  settings: Settings,
  taken: readonly string[] = [],
): Outcome<StationRow[]> {
  const plain = text.replace(/^\uFEFF/, '').trim()
  if (plain === '') return refused(refusal('empty_list'))
  const table = /[\t;,]/.test(plain)
    ? readCsvRows(plain)
    : plain
        .split(/\r?\n/)
        .filter((l) => l.trim() !== '')
        .map((l) => {
          const m = NUMBERED.exec(l.trim())
          return m ? [m[1]!, m[2]!] : ['', l.trim()]
        })
  if (table.length === 0) return refused(refusal('empty_list'))
  const head = table[0]!.map((c) => c.trim().toLowerCase())
  const named =
    head.includes('station') || (head.includes('name') && head.every((c) => (COLUMNS as readonly string[]).includes(c)))
  const unknown = named ? head.filter((c) => c !== '' && !(COLUMNS as readonly string[]).includes(c)) : []
  if (unknown.length > 0) return refused(...unknown.map((column) => refusal('unknown_column', ['line 1'], { column })))
  const body = named ? table.slice(1) : table
  if (body.length === 0) return refused(refusal('empty_list'))
  if (body.length > MOST_ROWS) return refused(refusal('too_big', ['list'], { maximum: MOST_ROWS }))
  // Without a column of stations, the first column is the name.
  const columns = named
    ? (head as Column[])
    : body.some((r) => STATION.test(r[0]!.trim()) || r[0] === '')
      ? USUAL
      : USUAL.slice(1)
  const used = new Set(taken.map((t) => t.toLowerCase()))
  body.forEach((r) => {
    const s = cellOf(r, columns, 'station')
    if (s !== '') used.add(s.toLowerCase())
  })
  let next = 1
  const free = () => {
    while (used.has(String(next))) next++
    used.add(String(next))
    return String(next)
  }
  const refusals: Refusal[] = []
  const seen = new Set<string>()
  const rows = body.flatMap((cells, i): StationRow[] => {
    const at = `line ${i + (named ? 2 : 1)}`
    const row =
      cells.length > columns.length && cells.slice(columns.length).some((c) => c.trim() !== '')
        ? refused(refusal('too_many_columns'))
        : rowFrom(cells, columns, settings, free)
    if (!row.ok) {
      refusals.push(...row.refusals.map((r) => ({ ...r, path: [at, ...r.path] })))
      return []
    }
    if (seen.has(row.value.station.toLowerCase())) {
      refusals.push(refusal('station_twice', [at, 'station'], { station: row.value.station }))
      return []
    }
    seen.add(row.value.station.toLowerCase())
    return [row.value]
  })
  return refusals.length > 0 ? refused(...refusals.slice(0, 20)) : accepted(rows)
}

const cellOf = (cells: readonly string[], columns: readonly Column[], name: Column) => {
  const i = columns.indexOf(name)
  return i < 0 ? '' : (cells[i] ?? '').trim()
}

function rowFrom(
  cells: readonly string[],
  columns: readonly Column[],
  settings: Settings,
  free: () => string,
): Outcome<StationRow> {
  const cell = (name: Column) => cellOf(cells, columns, name)
  const wrong: Refusal[] = []
  const at_m = cell('at') === '' ? null : parseLength(cell('at'), settings.units.length)
  if (cell('at') !== '' && at_m === null) wrong.push(refusal('not_a_length', ['at'], { text: cell('at') }))
  const gauge = cell('gauge') === '' ? null : parseGauge(cell('gauge'), settings.market)
  if (cell('gauge') !== '' && gauge === null) wrong.push(refusal('not_a_size', ['gauge'], { text: cell('gauge') }))
  const parsed = parseWith(stationRow, {
    station: cell('station') || free(),
    name: cell('name'),
    zone: cell('zone'),
    cable: cell('cable') || null,
    box: cell('box') || null,
    at_m,
    coil: cell('coil') || null,
    colour: cell('colour') || null,
    gauge,
    kind: cell('kind').toLowerCase() || null,
  })
  return wrong.length > 0 || !parsed.ok ? refused(...wrong, ...(parsed.ok ? [] : parsed.refusals)) : parsed
}

/**
 * The stations of a property as CSV in the columns that `readStationList` takes; lengths in metres, with their unit.
 */
export function writeStationList(site: Site): string {
  const rows = rowsOf(site).map((r) => ({
    ...r,
    at: r.at_m === null ? '' : `${r.at_m} m`,
    gauge: r.gauge === null ? '' : gaugeText(r.gauge),
  }))
  return writeCsv([COLUMNS, ...rows.map((r) => COLUMNS.map((column) => r[column] ?? ''))])
}
