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
/** `Orchard row, box V5`: the box at the end of a line. */
const IN_BOX = /^(.*?),?\s+box\s+(\S{1,12})$/i
/** More rows than this are no list of one property's stations. */
const MOST_ROWS = 1000

/** A line that was not understood, with its cells as they were written. */
export interface RefusedLine {
  readonly line: number
  readonly cells: readonly string[]
  readonly refusals: readonly Refusal[]
}

/** What was read of a list. `left` is a list again: of the lines that were not understood, to be mended. */
export interface ReadLines {
  readonly rows: readonly StationRow[]
  readonly refused: readonly RefusedLine[]
  readonly left: string
}

/**
 * Reads a list of stations as it comes: CSV with a first line of column names, cells from a spreadsheet, or a line a
 * station (`3 Rose bed`, `Rose bed`); a line of a spreadsheet's list that has no cells of its own is read as such a
 * line. Stations without a number get the next free one. An empty cell leaves unknown what is unknown, and as it is
 * what is on record. What cannot be understood is told line by line beside what can; what is no list at all is refused.
 */
export function readStationLines(text: string, settings: Settings, taken: readonly string[] = []): Outcome<ReadLines> {
  const plain = text.replace(/^\uFEFF/, '').trim()
  if (plain === '') return refused(refusal('empty_list'))
  const isTable = /[\t;,]/.test(plain)
  const table = isTable
    ? readCsvRows(plain)
    : plain
        .split(/\r?\n/)
        .filter((l) => l.trim() !== '')
        .map((l) => cellsOfLine(l) ?? ['', l.trim()])
  if (table.length === 0) return refused(refusal('empty_list'))
  const head = table[0]!.map((c) => c.trim().toLowerCase())
  const named =
    head.includes('station') || (head.includes('name') && head.every((c) => (COLUMNS as readonly string[]).includes(c)))
  const unknown = named ? head.filter((c) => c !== '' && !(COLUMNS as readonly string[]).includes(c)) : []
  if (unknown.length > 0) return refused(...unknown.map((column) => refusal('unknown_column', ['line 1'], { column })))
  const body = named ? table.slice(1) : isTable ? table.map(inOwnShape) : table
  if (body.length === 0) return refused(refusal('empty_list'))
  if (body.length > MOST_ROWS) return refused(refusal('too_big', ['list'], { maximum: MOST_ROWS }))
  // Without a column of stations, the first column is the name.
  const columns = named
    ? (head as Column[])
    : body.some((r) => STATION.test(r[0]!.trim()) || r[0] === '')
      ? USUAL
      : USUAL.slice(1)
  const free = freeNumbers([...taken, ...body.map((r) => cellOf(r, columns, 'station')).filter((s) => s !== '')])
  const seen = new Set<string>()
  const rows: StationRow[] = []
  const wrong: RefusedLine[] = []
  body.forEach((cells, i) => {
    const row = rowOf(cells, columns, settings, free)
    const again = row.ok && seen.has(row.value.station.toLowerCase())
    if (row.ok && !again) {
      seen.add(row.value.station.toLowerCase())
      rows.push(row.value)
      return
    }
    const refusals = row.ok ? [refusal('station_twice', ['station'], { station: row.value.station })] : row.refusals
    const line = i + (named ? 2 : 1)
    const at = refusals.map((r) => ({ ...r, path: [`line ${line}`, ...r.path] }))
    wrong.push({ line, cells, refusals: at })
  })
  const left = [...(named && wrong.length > 0 ? [head] : []), ...wrong.map((w) => w.cells)]
  return accepted({
    rows,
    refused: wrong,
    left: left.map((cells) => cells.join(isTable ? '\t' : ' ').trim()).join('\n'),
  })
}

/** The same where nothing is taken in by halves: one line that is not understood refuses the whole. */
export function readStationList(
  text: string,
  settings: Settings,
  taken: readonly string[] = [],
): Outcome<StationRow[]> {
  const read = readStationLines(text, settings, taken)
  if (!read.ok) return read
  const refusals = read.value.refused.flatMap((line) => line.refusals)
  return refusals.length > 0 ? refused(...refusals.slice(0, 20)) : accepted([...read.value.rows])
}

/**
 * A line of plain text that begins with a number: its number, name and, where it says so, its box; null for another.
 */
function cellsOfLine(line: string): string[] | null {
  const numbered = NUMBERED.exec(line.trim())
  if (!numbered) return null
  const [, station, rest] = numbered as unknown as [string, string, string]
  const boxed = IN_BOX.exec(rest)
  return boxed ? [station, boxed[1]!, boxed[2]!] : [station, rest]
}

/** A line of a table that has one cell alone is a line of plain text; what it says is put in its cells. */
const inOwnShape = (cells: readonly string[]): string[] => {
  const filled = cells.filter((c) => c.trim() !== '')
  return (filled.length === 1 ? cellsOfLine(filled[0]!) : null) ?? [...cells]
}

/** Numbers from one up that no station has. */
function freeNumbers(taken: readonly string[]): () => string {
  const used = new Set(taken.map((t) => t.toLowerCase()))
  let next = 1
  return () => {
    while (used.has(String(next))) next++
    used.add(String(next))
    return String(next)
  }
}

/** The row that a line's cells say. */
function rowOf(
  cells: readonly string[],
  columns: readonly Column[],
  settings: Settings,
  free: () => string,
): Outcome<StationRow> {
  const tooMany = cells.slice(columns.length).some((c) => c.trim() !== '')
  return tooMany ? refused(refusal('too_many_columns')) : rowFrom(cells, columns, settings, free)
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
