import { accepted, refusal, refused, type Outcome, type Refusal, type RefusalCode } from '../refusal'
import { createRecord, getOrThrow, setField, type Command, type ControllerId, type ProgramId, type Site } from '../site'
import type { CalendarDate } from './days'
import { programsOf, recordedRuns, recordOf } from './on-record'
import type { Program } from './program'
import { figure, MOST_min, readDays, readSeasonal, readStarts } from './read'
import { stationKey, stationsInOrder, type StationOn } from './station'

/** What is written of a whole program, above its minutes. */
export const PROGRAM_CELLS = ['name', 'starts', 'days', 'seasonal_pct'] as const
export type ProgramCell = (typeof PROGRAM_CELLS)[number]

type Runs = Program<StationOn>['runs']
const isAt = (station: StationOn) => (run: Runs[number]) => stationKey(run.station) === stationKey(station)
const setRuns = (id: ProgramId, runs: Runs): Command[] => [setField('programs', id, 'runs', recordedRuns(runs))]

/** A station’s minutes in a program, its runs in their order: `10`, or `10 + 10` where it runs twice. */
export const minutesText = ({ runs }: Program<StationOn>, station: StationOn): string =>
  runs
    .filter(isAt(station))
    .map((r) => r.minutes)
    .join(' + ')

/** One run’s minutes as they are typed: `10`, `7.5`, or hours as `1:30`. */
function minutesIn(text: string): number | null {
  const hours = /^(\d{1,3}):([0-5]\d)$/.exec(text.trim())
  return hours ? figure(String(Number(hours[1]) * 60 + Number(hours[2])), 0, MOST_min) : figure(text, 0, MOST_min)
}

/**
 * A station’s minutes in a program, as they are typed. Runs that are there keep their place; new ones go in where the
 * door has the station. Nothing typed takes the station out.
 */
export function minutesCommands(site: Site, program: ProgramId, station: StationOn, text: string): Outcome<Command[]> {
  const { controller } = getOrThrow(site.programs, program)
  const { runs } = programsOf(site, controller).find((p) => p.id === program)!
  const typed = minutesTyped(text)
  if (!typed) return refused(noMinutes(text))
  return accepted(setRuns(program, withMinutes(site, controller, runs, station, typed)))
}

/** Minutes of a station as they are typed, one for each of its runs; null where one is none. */
function minutesTyped(text: string): number[] | null {
  const typed = text.trim() === '' ? [] : text.split('+').map(minutesIn)
  return typed.includes(null) ? null : (typed as number[])
}
const noMinutes = (text: string, ...at: string[]) =>
  refusal('no_minutes', [...at, 'minutes'], { text: text.trim(), most: MOST_min })

/**
 * Runs in which a station has these minutes. Its runs that are there keep their place; further ones come behind its
 * last, or before the first that the door has later.
 */
function withMinutes(
  site: Site,
  controller: ControllerId,
  before: Runs,
  station: StationOn,
  wanted: readonly number[],
): Runs {
  const minutes = [...wanted]
  const runs = before.flatMap((run) => {
    if (!isAt(station)(run)) return [run]
    const own = minutes.shift()
    return own === undefined ? [] : [{ ...run, minutes: own }]
  })
  if (minutes.length === 0) return runs
  const order = stationsInOrder(site, controller).map(([, s]) => stationKey(s))
  const place = (s: StationOn) => order.indexOf(stationKey(s))
  const own = runs.findLastIndex(isAt(station))
  const later = runs.findIndex((r) => place(r.station) > place(station))
  const at = own >= 0 ? own + 1 : later >= 0 ? later : runs.length
  return [...runs.slice(0, at), ...minutes.map((m) => ({ station, minutes: m })), ...runs.slice(at)]
}

/**
 * What stands above a program’s minutes, as it is typed.
 * @param today from which `every 3` counts where no date is typed
 */
export function headCommands(
  program: ProgramId,
  cell: ProgramCell,
  text: string,
  today: CalendarDate,
): Outcome<Command[]> {
  const plain = text.trim()
  const refuse = (code: RefusalCode) => refused(refusal(code, [cell], { text: plain }))
  switch (cell) {
    case 'name':
      return plain === '' ? refuse('no_program_name') : accepted([setField('programs', program, 'name', plain)])
    case 'starts': {
      const starts = readStarts(plain)
      return starts ? accepted([setField('programs', program, 'starts_s', starts)]) : refuse('no_start_time')
    }
    case 'days': {
      const days = readDays(/^every\s+\d{1,3}$/i.test(plain) ? `${plain} from ${today}` : plain)
      return days === undefined ? refuse('no_such_days') : accepted([setField('programs', program, 'days', days)])
    }
    case 'seasonal_pct': {
      const read = readSeasonal(plain)
      if (read === null) return refuse('no_seasonal')
      return accepted([setField('programs', program, 'seasonal_pct', typeof read === 'number' ? read : [...read])])
    }
  }
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'
/** The next letter that no program of the controller has. */
export function freeName(names: readonly string[]): string {
  const letter = [...LETTERS].find((l) => !names.includes(l))
  if (letter !== undefined) return letter
  let n = names.length + 1
  while (names.includes(String(n))) n++
  return String(n)
}

const nextOrder = (site: Site, controller: ControllerId) =>
  Math.max(-1, ...Object.values(site.programs).flatMap((p) => (p.controller === controller ? [p.order] : []))) + 1

/** One more program: an empty one, or as `like` has it, under the next free letter. */
export function addProgram(site: Site, controller: ControllerId, id: string, like?: Program<StationOn>): Command[] {
  const name = freeName(programsOf(site, controller).map((p) => p.name))
  const blank = { starts_s: [], days: null, seasonal_pct: 100, runs: [] }
  return [createRecord('programs', id, recordOf(controller, nextOrder(site, controller), { ...blank, ...like, name }))]
}

/**
 * Puts the programs of a controller in place of those on record: one of the same name is changed field by field, others
 * come and go.
 */
export function replacePrograms(
  site: Site,
  controller: ControllerId,
  programs: readonly Program<StationOn>[],
  id: () => string,
): Command[] {
  const known = programsOf(site, controller)
  const gone = known.filter((k) => programs.every((p) => p.name !== k.name))
  return [
    ...gone.map((k): Command => ({ do: 'remove', in: 'programs', id: k.id })),
    ...programs.flatMap((program, order): Command[] => {
      const record = recordOf(controller, order, program)
      const was = known.find((k) => k.name === program.name)
      if (!was) return [createRecord('programs', id(), record)]
      const before = getOrThrow(site.programs, was.id)
      return (['order', 'starts_s', 'days', 'seasonal_pct', 'runs'] as const).flatMap((field) =>
        JSON.stringify(before[field]) === JSON.stringify(record[field])
          ? []
          : [setField('programs', was.id, field, record[field])],
      )
    }),
  ]
}

/** A controller’s stations as they stand in its grid: those on record, and whatever else its programs run. */
export function gridStations(site: Site, controller: ControllerId): { station: StationOn; name: string }[] {
  const named = stationsInOrder(site, controller).map(([, s]) => ({
    station: { terminal: s.terminal, address: s.address },
    name: s.name,
  }))
  const known = new Set(named.map((n) => stationKey(n.station)))
  const others = programsOf(site, controller).flatMap((p) => p.runs.map((r) => r.station))
  const unnamed = new Map(others.filter((s) => !known.has(stationKey(s))).map((s) => [stationKey(s), s]))
  return [...named, ...[...unnamed.values()].map((station) => ({ station, name: '' }))]
}

/** Cells pasted from a table, below and right of one: what is typed in each, row by row. */
export const pastedCells = (text: string): string[][] =>
  text
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'))

/** Minutes pasted into the grid, from a station and a program on; all of them or none. */
export function pasteMinutes(
  site: Site,
  controller: ControllerId,
  from: { readonly station: StationOn; readonly program: ProgramId },
  cells: readonly (readonly string[])[],
): Outcome<Command[]> {
  const stations = gridStations(site, controller).map((s) => s.station)
  const programs = programsOf(site, controller)
  const row = stations.findIndex((s) => stationKey(s) === stationKey(from.station))
  const column = programs.findIndex((p) => p.id === from.program)
  const wrong: Refusal[] = []
  const next = new Map<ProgramId, Runs>()
  cells.forEach((line, i) =>
    line.forEach((text, j) => {
      const [station, program] = [stations[row + i], programs[column + j]]
      if (!station || !program) return
      const runs = next.get(program.id) ?? program.runs
      const typed = minutesTyped(text)
      if (typed) next.set(program.id, withMinutes(site, controller, runs, station, typed))
      else wrong.push(noMinutes(text, `line ${i + 1}`))
    }),
  )
  return wrong.length > 0 ? refused(...wrong) : accepted([...next].flatMap(([id, runs]) => setRuns(id, runs)))
}
