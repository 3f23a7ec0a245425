import Papa from 'papaparse'
import { readText } from '../expect'
import type { Meter, OhmsTest, ReadingValue } from '../record'
import { accepted, refusal, type Outcome, type Refusal } from '../refusal'
import { commonOf, entries, terminalEnd, type End, type Site } from '../site'

/** One line of a sweep's log. `label` is as written, `A:3` or `A:3–A:5`. */
export interface CsvReading { readonly line: number; readonly label: string; readonly test: OhmsTest; readonly value: ReadingValue }

const COLUMNS = ['terminal', 'reading', 'to']

/**
 * Reads a log of readings: columns `terminal` (`A:3`, or `3` where the property has one controller), `reading` (`34.6`,
 * `1.2k`, `OL`) and, if wanted, `to` (another terminal; C where empty). Columns in any order, separated by comma,
 * semicolon or tab. A line that cannot be understood refuses the whole, naming line and column.
 */
export function readReadingsCsv(text: string, site: Site, meter: Meter): Outcome<CsvReading[]> {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true, skipEmptyLines: 'greedy', transformHeader: (h) => h.trim().toLowerCase(),
  })
  const fields = parsed.meta.fields ?? []
  const missing = ['terminal', 'reading'].filter((name) => !fields.includes(name))
  if (missing.length > 0) return { ok: false, refusals: missing.map((column) => refusal('no_column', ['line 1'], { column })) }
  const extra = fields.filter((name) => name !== '' && !COLUMNS.includes(name))
  if (extra.length > 0) return { ok: false, refusals: extra.map((column) => refusal('unknown_column', ['line 1'], { column })) }
  const refusals: Refusal[] = []
  const readings: CsvReading[] = []
  parsed.data.forEach((row, i) => {
    const line = i + 2
    const at = (column: string) => [`line ${line}`, column]
    if ('__parsed_extra' in row) return refusals.push(refusal('too_many_columns', [`line ${line}`]))
    const from = probeAt(site, row.terminal ?? '')
    const to = (row.to ?? '').trim() === '' ? homeOf(site, from) : probeAt(site, row.to!)
    const value = readText(row.reading ?? '', meter)
    if (!from) refusals.push(refusal('no_such_terminal', at('terminal'), { terminal: row.terminal ?? '' }))
    else if (!to) refusals.push(refusal('no_such_terminal', at('to'), { terminal: row.to ?? 'C' }))
    if (!value.ok) refusals.push(refusal(`reading_${value.code}`, at('reading'), { text: row.reading ?? '', highest: meter.highest_ohm }))
    if (from && to && value.ok) readings.push({
      line, label: (row.terminal ?? '').trim() + (row.to?.trim() ? ` to ${row.to.trim()}` : ''), test: { kind: 'ohms', from, to }, value: value.value,
    })
    return undefined
  })
  return refusals.length > 0 ? { ok: false, refusals: refusals.slice(0, 20) } : accepted(readings)
}

/** A terminal by its tags, `A:3`; the controller's may be left out where there is only one. */
export function probeAt(site: Site, written: string): End | null {
  const parts = written.trim().split(':')
  const controllers = entries(site.controllers)
  const [controllerTag, terminalTag] = parts.length === 2 ? parts as [string, string] : [controllers.length === 1 ? controllers[0]![1].tag : '', parts[0]!]
  const found = controllers.find(([, c]) => c.tag.toLowerCase() === controllerTag.toLowerCase())
  const terminal = found && entries(found[1].terminals).find(([, t]) => t.tag.toLowerCase() === terminalTag.toLowerCase())
  return parts.length <= 2 && found && terminal ? terminalEnd(found[0], terminal[0]) : null
}

function homeOf(site: Site, from: End | null): End | null {
  if (from?.kind !== 'terminal') return null
  const common = commonOf(site, from.controller)
  return common && terminalEnd(from.controller, common)
}
