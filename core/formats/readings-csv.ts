import { readText } from '../expect'
import {
  answerOf,
  fieldTest,
  instant,
  optionOf,
  testKindOf,
  testKinds,
  WIRING_STATES,
  type FieldTest,
  type FieldTestKind,
  type Meter,
  type Reading,
  type ReadingValue,
  type WiringState,
} from '../record'
import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { commonOf, entries, getOrThrow, terminalEnd, type DeviceId, type End, type Site } from '../site'
import { readCsvRecords, writeCsv } from './csv'
import { deviceAt, endWritten, jointAt } from './written-end'

/** One line of a log of readings. `label` is as written, `A:3` or `A:3 to A:5`; `at` where the line has its moment. */
export interface CsvReading {
  readonly line: number
  readonly label: string
  readonly test: FieldTest
  readonly value: ReadingValue
  readonly at: string | null
  readonly state?: WiringState
}

const COLUMNS = ['terminal', 'reading', 'to', 'test', 'at', 'state']
type Row = Readonly<Record<string, string | undefined>>

/**
 * Reads a log of readings: columns `terminal` (`A:3`, or `3` where the property has one controller; for `supply` the
 * controller's tag; for a test at a coil the valve's, `V3`; for `look` and `remake` a joint by an end in it, `V3.a`
 * or `K1/white@B4<`) and `reading` (`34.6`, `1.2k`, `OL`; volts; `heard` or `not heard`; a lamp's word; the valves
 * that water, `V3 V5`, or `none`; `flows` or `dry`; `sound` or `bad`; metres to where a tone is lost, or `through`),
 * and, if wanted, `to` (another terminal or `earth`; C where empty), `test` (ohms where empty), `at` (a moment with
 * its offset from UTC) and `state` (`dry`, `wet`, `hot` or `moved`, where that was looked to). Columns in any order,
 * separated by comma, semicolon or tab. A line that cannot be understood refuses the whole, naming line and column.
 */
export function readReadingsCsv(text: string, site: Site, meter: Meter): Outcome<CsvReading[]> {
  const { rows, fields } = readCsvRecords<Row>(text)
  const missing = ['terminal', 'reading'].filter((name) => !fields.includes(name))
  if (missing.length > 0) return refused(...missing.map((column) => refusal('no_column', ['line 1'], { column })))
  const extra = fields.filter((name) => name !== '' && !COLUMNS.includes(name))
  if (extra.length > 0) return refused(...extra.map((column) => refusal('unknown_column', ['line 1'], { column })))
  const refusals: Refusal[] = []
  const readings: CsvReading[] = []
  rows.forEach((row, i) => {
    const line = i + 2
    const read = '__parsed_extra' in row ? refused(refusal('too_many_columns')) : readRow(row, site, meter)
    if (read.ok) readings.push({ line, ...read.value })
    else refusals.push(...read.refusals.map((r) => ({ ...r, path: [`line ${line}`, ...r.path] })))
  })
  return refusals.length > 0 ? refused(...refusals.slice(0, 20)) : accepted(readings)
}

function readRow(row: Row, site: Site, meter: Meter): Outcome<Omit<CsvReading, 'line'>> {
  const cell = (name: string) => (row[name] ?? '').trim()
  const kind = cell('test') === '' ? 'ohms' : testKinds.find((k) => k === cell('test').toLowerCase())
  if (!kind) return refused(refusal('not_one_of', ['test'], { options: testKinds.join(', ') }))
  const [test, value] = [testOf(kind, site, cell('terminal'), cell('to')), valueOf(kind, site, cell('reading'), meter)]
  const moment =
    cell('at') === '' || instant.safeParse(cell('at')).success
      ? []
      : [refusal('bad_moment', ['at'], { text: cell('at') })]
  const state = WIRING_STATES.find((s) => s === cell('state').toLowerCase())
  const stateless =
    cell('state') === '' || state ? [] : [refusal('not_one_of', ['state'], { options: WIRING_STATES.join(', ') })]
  const wrong = [...(test.ok ? [] : test.refusals), ...(value.ok ? [] : value.refusals), ...moment, ...stateless]
  if (!test.ok || !value.ok || wrong.length > 0) return refused(...wrong)
  return accepted({
    label: cell('terminal') + (cell('to') ? ` to ${cell('to')}` : ''),
    test: test.value,
    value: value.value,
    at: cell('at') || null,
    ...(state ? { state } : {}),
  })
}

function testOf(kind: FieldTestKind, site: Site, terminal: string, to: string): Outcome<FieldTest> {
  const made = (on: object): Outcome<FieldTest> => accepted(fieldTest.parse({ kind, ...on }))
  switch (testKindOf(kind).on) {
    case 'controller': {
      const tag = terminal.split(':')[0]!.toLowerCase()
      const controller = entries(site.controllers).find(([, c]) => c.tag.toLowerCase() === tag)
      const options = Object.values(site.controllers).map((c) => c.tag)
      return controller
        ? made({ controller: controller[0] })
        : refused(refusal('no_such_controller', ['terminal'], { tag: terminal, options: options.join(', ') }))
    }
    case 'joint': {
      const splice = jointAt(site, terminal)
      return splice ? made({ splice }) : refused(refusal('no_such_joint', ['terminal'], { written: terminal }))
    }
    case 'coil': {
      const device = deviceAt(site, terminal)
      return device ? made({ device }) : refused(refusal('no_such_valve', ['terminal'], { written: terminal }))
    }
    case 'beside': {
      const [device, live] = [deviceAt(site, terminal), probeAt(site, to)]
      if (!device) return refused(refusal('no_such_valve', ['terminal'], { written: terminal }))
      return live ? made({ device, live }) : refused(refusal('no_such_terminal', ['to'], { terminal: to }))
    }
    default:
  }
  const from = probeAt(site, terminal)
  if (!from) return refused(refusal('no_such_terminal', ['terminal'], { terminal }))
  switch (testKindOf(kind).on) {
    case 'moved': {
      const onto = probeAt(site, to)
      return onto ? made({ at: from, onto }) : refused(refusal('no_such_terminal', ['to'], { terminal: to }))
    }
    case 'points': {
      const far =
        to === '' ? homeOf(site, from) : to.toLowerCase() === 'earth' ? earthBy(site, from) : probeAt(site, to)
      return far ? made({ from, to: far }) : refused(refusal('no_such_terminal', ['to'], { terminal: to || 'C' }))
    }
    default:
      return made({ at: from })
  }
}

function valueOf(kind: FieldTestKind, site: Site, text: string, meter: Meter): Outcome<ReadingValue> {
  switch (testKindOf(kind).answer) {
    case 'ohms': {
      const read = readText(text, meter)
      return read.ok
        ? accepted(read.value)
        : refused(refusal(`reading_${read.code}`, ['reading'], { text, highest: meter.highest_ohm }))
    }
    case 'volts': {
      const volt = figure(text, 'V')
      return volt <= 300
        ? accepted({ kind: 'volt', volt })
        : refused(refusal('reading_not_volts', ['reading'], { text }))
    }
    case 'tone': {
      const lost_m = text.toLowerCase() === 'through' ? null : figure(text, 'm')
      return lost_m === null || lost_m <= 20_000
        ? accepted({ kind: 'tone', lost_m })
        : refused(refusal('not_one_of', ['reading'], { options: 'metres, through' }))
    }
    case 'waters': {
      const valves = text.toLowerCase() === 'none' ? [] : text.split(/[\s+]+/).map((written) => deviceAt(site, written))
      return valves.every((v): v is DeviceId => v !== null)
        ? accepted({ kind: 'waters', valves })
        : refused(refusal('no_such_valve', ['reading'], { written: text }))
    }
    default: {
      const { options } = answerOf(kind)
      const chosen = options.find((o) => o.written === text.toLowerCase())
      return chosen
        ? accepted(chosen.value)
        : refused(refusal('not_one_of', ['reading'], { options: options.map((o) => o.written).join(', ') }))
    }
  }
}

/** A figure with or without its unit; not a number for anything else. */
const figure = (text: string, unit: string): number =>
  new RegExp(`^\\d+([.,]\\d+)?\\s*${unit}?$`, 'i').test(text) ? parseFloat(text.replace(',', '.')) : NaN

/** The log of some readings in the columns that `readReadingsCsv` takes; figures keep all their digits. */
export function writeReadingsCsv(site: Site, readings: readonly Reading[]): string {
  const stated = readings.some((r) => r.state !== undefined)
  const rows = readings.map(({ test, value, at, meter, state }) => [
    placeText(site, test),
    otherText(site, test),
    test.kind,
    valueText(site, test, value, meter),
    at,
    ...(stated ? [state ?? ''] : []),
  ])
  return writeCsv([['terminal', 'to', 'test', 'reading', 'at', ...(stated ? ['state'] : [])], ...rows])
}

/** What stands under `to`: the other terminal of a test that has one. */
function otherText(site: Site, test: FieldTest): string {
  switch (test.kind) {
    case 'ohms':
      return tagOf(site, test.to)
    case 'swap_test':
      return tagOf(site, test.onto)
    case 'coil_beside':
      return tagOf(site, test.live)
    default:
      return ''
  }
}

function placeText(site: Site, test: FieldTest): string {
  if (test.kind === 'ohms') return tagOf(site, test.from)
  if (test.kind === 'supply') return getOrThrow(site.controllers, test.controller).tag
  if ('splice' in test) return endWritten(site, test.splice)
  return 'device' in test ? valveText(site, test.device) : tagOf(site, test.at)
}

const valveText = (site: Site, device: DeviceId): string => getOrThrow(site.devices, device).tag ?? device

function valueText(site: Site, test: FieldTest, value: ReadingValue, meter: Meter): string {
  switch (value.kind) {
    case 'ohm':
      return Number.isInteger(value.ohm) && meter.openMark === '1'
        ? value.ohm.toFixed(1)
        : value.ohm === 1
          ? '1.0'
          : String(value.ohm)
    case 'open':
      return 'OL'
    case 'volt':
      return String(value.volt)
    case 'waters':
      return value.valves.length === 0 ? 'none' : value.valves.map((v) => valveText(site, v)).join(' ')
    case 'tone':
      return value.lost_m === null ? 'through' : String(value.lost_m)
    default:
      return optionOf(test.kind, value).written
  }
}

/** A terminal by its tags, `A:3`; the controller's may be left out where there is only one. */
export function probeAt(site: Site, written: string): Extract<End, { kind: 'terminal' }> | null {
  const parts = written.trim().split(':')
  const controllers = entries(site.controllers)
  const [controllerTag, terminalTag] =
    parts.length === 2
      ? (parts as [string, string])
      : [controllers.length === 1 ? controllers[0]![1].tag : '', parts[0]!]
  const found = controllers.find(([, c]) => c.tag.toLowerCase() === controllerTag.toLowerCase())
  const terminal =
    found && entries(found[1].terminals).find(([, t]) => t.tag.toLowerCase() === terminalTag.toLowerCase())
  return parts.length <= 2 && found && terminal
    ? (terminalEnd(found[0], terminal[0]) as Extract<End, { kind: 'terminal' }>)
    : null
}

function tagOf(site: Site, end: End): string {
  if (end.kind !== 'terminal') return end.kind
  const controller = getOrThrow(site.controllers, end.controller)
  return `${controller.tag}:${getOrThrow(controller.terminals, end.terminal).tag}`
}

function homeOf(site: Site, from: Extract<End, { kind: 'terminal' }>): End | null {
  const common = commonOf(site, from.controller)
  return common && terminalEnd(from.controller, common)
}

const earthBy = (site: Site, from: Extract<End, { kind: 'terminal' }>): End => ({
  kind: 'earth',
  place: getOrThrow(site.controllers, from.controller).place,
})
