import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import type { Mode, WandReading } from '../trace'
import { readCsvRecords, writeCsv } from './csv'

/** A reading of a walk, or of a section across the line where `section` has a name. */
export interface TraceReading extends WandReading {
  readonly section: string
}

const COLUMNS = ['section', 'along_m', 'across_m', 'height_m', 'tilt_deg', 'mode', 'gain', 'reading'] as const
type Column = (typeof COLUMNS)[number]
type Row = Readonly<Partial<Record<Column, string>>>
const MODES: readonly Mode[] = ['null', 'peak']
/** Where figures may lie, and what an empty cell means; null where it must be written. */
const FIGURES: Readonly<
  Record<string, { readonly low: number; readonly high: number; readonly usual: number | null }>
> = {
  along_m: { low: -10_000, high: 10_000, usual: null },
  across_m: { low: -100, high: 100, usual: null },
  height_m: { low: 0, high: 3, usual: 0 },
  tilt_deg: { low: -90, high: 90, usual: 0 },
  gain: { low: 1e-6, high: 1e6, usual: 1 },
  reading: { low: 0, high: 1e9, usual: null },
}

/**
 * Reads the readings of a wand: `section` (empty along the path), `along_m`, `across_m` (left negative), `height_m` of
 * the wand’s coil above the ground (0), `tilt_deg` (0), `mode` (`null` or `peak`), `gain` (1), `reading`. A line that
 * cannot be understood refuses the whole, naming line and column.
 */
export function readTraceCsv(text: string): Outcome<TraceReading[]> {
  const { rows, fields } = readCsvRecords<Row>(text)
  const missing = ['mode', 'reading'].filter((name) => !fields.includes(name))
  if (missing.length > 0) return refused(...missing.map((column) => refusal('no_column', ['line 1'], { column })))
  const extra = fields.filter((name) => name !== '' && !COLUMNS.includes(name as Column))
  if (extra.length > 0)
    return refused(...extra.map((column) => refusal('unknown_trace_column', ['line 1'], { column })))
  const refusals: Refusal[] = []
  const readings = rows.flatMap((row, i): TraceReading[] => {
    const read = '__parsed_extra' in row ? refused(refusal('too_many_columns')) : readRow(row)
    if (read.ok) return [read.value]
    refusals.push(...read.refusals.map((r) => ({ ...r, path: [`line ${i + 2}`, ...r.path] })))
    return []
  })
  if (refusals.length > 0) return refused(...refusals.slice(0, 20))
  return readings.length === 0 ? refused(refusal('no_readings_there', ['line 2'])) : accepted(readings)
}

function readRow(row: Row): Outcome<TraceReading> {
  const cell = (name: Column) => (row[name] ?? '').trim()
  const section = cell('section').slice(0, 80)
  const wrong: Refusal[] = []
  const figure = (name: Exclude<Column, 'section' | 'mode'>, usual = FIGURES[name]!.usual): number => {
    const { low, high } = FIGURES[name]!
    const written = cell(name).replace(',', '.')
    const value = written === '' ? usual : Number(written)
    if (value !== null && value >= low && value <= high) return value
    wrong.push(refusal('not_a_figure', [name], { text: cell(name), low, high }))
    return NaN
  }
  const mode = MODES.find((m) => m === cell('mode').toLowerCase())
  if (!mode) wrong.push(refusal('not_one_of', ['mode'], { options: MODES.join(', ') }))
  const reading = {
    section,
    along_m: figure('along_m', section === '' ? null : 0),
    across_m: figure('across_m', section === '' ? 0 : null),
    height_m: figure('height_m'),
    tilt_deg: figure('tilt_deg'),
    mode: mode ?? 'peak',
    gain: figure('gain'),
    reading: figure('reading'),
  }
  return wrong.length > 0 ? refused(...wrong) : accepted(reading)
}

/** The same readings as CSV. */
export const writeTraceCsv = (readings: readonly TraceReading[]): string =>
  writeCsv([[...COLUMNS], ...readings.map((r) => COLUMNS.map((c) => r[c]))])
