import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import {
  daysText,
  readPrograms,
  seasonalText,
  startsText,
  type Program,
  type ProgramCells,
  type StationOn,
} from '../schedule'
import { entries, getOrThrow, outputsOf, pathOf, type ControllerId, type Site, type TerminalId } from '../site'
import { readCsvRecords, writeCsv } from './csv'

const COLUMNS = ['program', 'starts', 'days', 'seasonal_pct', 'station', 'minutes'] as const
const MOST_ROWS = 20_000

/**
 * Reads the programs of a controller: a line a station, in the order of running; a program’s starts, days and per cent
 * stand on its first line. A station is a screw by its tag, or a number on the controller’s path.
 */
export function readProgramsCsv(text: string, site: Site, controller: ControllerId): Outcome<Program<StationOn>[]> {
  const { rows, fields } = readCsvRecords<Partial<ProgramCells>>(text)
  const missing = (['program', 'station', 'minutes'] as const).filter((c) => !fields.includes(c))
  if (missing.length > 0) return refused(...missing.map((column) => refusal('no_column', ['line 1'], { column })))
  if (rows.length > MOST_ROWS) return refused(refusal('too_big', ['list'], { maximum: MOST_ROWS }))
  const cells = (row: Partial<ProgramCells>) =>
    Object.fromEntries(COLUMNS.map((c) => [c, row[c] ?? ''])) as unknown as ProgramCells
  const { programs, wrong } = readPrograms(rows.map((row, i) => ({ line: i + 2, cells: cells(row) })))
  const stations = stationsByTag(site, controller)
  const unknown: Refusal[] = []
  const known = programs.map(({ runs, ...program }) => ({
    ...program,
    runs: runs.flatMap(({ station, minutes, line }) => {
      const on = stations.get(station)
      if (!on) unknown.push(refusal('no_such_station', [`line ${line}`, 'station'], { tag: station }))
      return on ? [{ station: on, minutes }] : []
    }),
  }))
  return wrong.length + unknown.length > 0 ? refused(...wrong, ...unknown) : accepted(known)
}

/** The same as it is read. */
export function writeProgramsCsv(
  programs: readonly Program<StationOn>[],
  tagOf: (station: StationOn) => string,
): string {
  return writeCsv([
    [...COLUMNS],
    ...programs.flatMap(({ name, starts_s, days, seasonal_pct, runs }) => {
      const head = [name, startsText(starts_s), daysText(days), seasonalText(seasonal_pct)]
      const lines = runs.length === 0 ? [null] : runs
      return lines.map((run, i) => [
        ...(i === 0 ? head : [name, '', '', '']),
        run ? tagOf(run.station) : '',
        run ? run.minutes : '',
      ])
    }),
  ])
}

/** Screws that run something, by their tags, and numbers on the path; a screw comes before a number like it. */
function stationsByTag(site: Site, controller: ControllerId): ReadonlyMap<string, StationOn> {
  const path = pathOf(site, controller)
  const onPath = new Set(path?.decoders.map((d) => d.device) ?? [])
  const numbers = [
    ...outputsOf(site).flatMap((o) => (onPath.has(o.decoder) ? (o.address ?? []) : [])),
    ...entries(site.stations).flatMap(([, s]) => (s.controller === controller ? (s.address ?? []) : [])),
  ]
  const first = path?.pairs[0]?.[0]
  return new Map<string, StationOn>([
    ...numbers.map((address) => [String(address), { terminal: first as TerminalId, address }] as const),
    ...entries(getOrThrow(site.controllers, controller).terminals).flatMap(([terminal, t]) =>
      t.role === 'common' || t.role === 'path' ? [] : [[t.tag, { terminal, address: null }] as const],
    ),
  ])
}
