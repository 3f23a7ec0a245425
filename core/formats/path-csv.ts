import { parseLength, type Units } from '../quantity'
import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { entries, getOrThrow, lookUp, outputsOf, type DeviceId, type PathAt, type Site } from '../site'
import { readCsvRows, writeCsv } from './csv'

const COLUMNS = ['box', 'metres', 'valves', 'from'] as const
const MOST_ROWS = 2000
const TAG = /^[^\s:,]{1,12}$/

/** A line of a pasted path, as `core/path` plans it. */
interface Row {
  readonly line: number
  readonly box: string
  readonly from: string | null
  readonly length_m: number | null
  readonly valves: readonly string[]
}

/**
 * Reads the boxes of a path as they are pasted, a line each: box, length from the box before (in the property’s unit
 * where none is written), what it waters (names parted by `+`), and the box the path comes from where that is not the
 * line before. A first line of column names may give them in any order.
 */
export function readPathLines(text: string, units: Units): Outcome<Row[]> {
  const plain = text.replace(/^\uFEFF/, '').trim()
  if (plain === '') return refused(refusal('empty_list'))
  const table = readCsvRows(plain)
  const head = table[0]!.map((c) => c.trim().toLowerCase())
  const isNamed = head.includes('box')
  const unknown = isNamed ? head.filter((c) => c !== '' && !(COLUMNS as readonly string[]).includes(c)) : []
  if (unknown.length > 0) return refused(...unknown.map((column) => refusal('unknown_column', ['line 1'], { column })))
  const columns = isNamed ? head : COLUMNS
  const body = isNamed ? table.slice(1) : table
  if (body.length === 0) return refused(refusal('empty_list'))
  if (body.length > MOST_ROWS) return refused(refusal('too_big', ['list'], { maximum: MOST_ROWS }))
  const wrong: Refusal[] = []
  const rows = body.map((cells, i): Row => {
    const line = i + (isNamed ? 2 : 1)
    const cell = (name: (typeof COLUMNS)[number]) => (cells[columns.indexOf(name)] ?? '').trim()
    for (const name of ['box', 'from'] as const)
      if ((name === 'box' || cell(name) !== '') && !TAG.test(cell(name)))
        wrong.push(refusal('bad_tag', [`line ${line}`, name], { tag: cell(name) }))
    const length_m = cell('metres') === '' ? null : parseLength(cell('metres'), units.length)
    if (cell('metres') !== '' && length_m === null)
      wrong.push(refusal('not_a_length', [`line ${line}`, 'metres'], { text: cell('metres') }))
    return {
      line,
      box: cell('box'),
      from: cell('from') === '' ? null : cell('from'),
      length_m,
      valves: cell('valves')
        .split('+')
        .map((v) => v.trim().slice(0, 80))
        .filter((v) => v !== ''),
    }
  })
  return wrong.length > 0 ? refused(...wrong) : accepted(rows)
}

const REGISTER = ['number', 'decoder', 'output', 'box', 'serial', 'power', 'drives', 'leads', 'waters'] as const

/** The register of a path as rows, the head first: a line for every number, as it is programmed by and looked up in. */
export function registerRows(site: Site, path: PathAt): (string | number)[][] {
  const on = new Set(path.decoders.map((d) => d.device))
  const names = new Map(
    entries(site.stations).flatMap(([, s]) =>
      s.controller === path.controller && s.address !== null ? [[s.address, s.name] as const] : [],
    ),
  )
  return [
    [...REGISTER],
    ...outputsOf(site)
      .filter((o) => on.has(o.decoder))
      .sort((a, b) => (a.address ?? Infinity) - (b.address ?? Infinity))
      .map(({ decoder, port, address }) => {
        const d = getOrThrow(site.devices, decoder)
        if (d.kind !== 'decoder') throw new Error('registerRows: no decoder')
        return [
          address ?? '',
          d.tag ?? decoder,
          Number(port.slice('out_'.length)),
          lookUp(site.places, d.place)?.tag ?? '',
          d.serial,
          d.power,
          d.drives,
          d.leads[port] ?? '',
          names.get(address ?? -1) ?? '',
        ]
      }),
  ]
}

/** A line of a register that came back: what was programmed into a decoder. */
export interface RegisterLine {
  readonly decoder: DeviceId
  readonly addresses: readonly number[]
  readonly serial: string
  readonly power: 'low' | 'high'
}

/**
 * Reads a register that was filled in elsewhere: lines of one decoder give the numbers of its outputs in their order.
 * @param table the head first, cells as text
 */
export function readRegister(table: readonly (readonly string[])[], site: Site, path: PathAt): Outcome<RegisterLine[]> {
  const head = (table[0] ?? []).map((c) => c.trim().toLowerCase())
  const missing = (['number', 'decoder'] as const).filter((c) => !head.includes(c))
  if (missing.length > 0) return refused(...missing.map((column) => refusal('no_column', ['line 1'], { column })))
  const byTag = new Map(path.decoders.map(({ device }) => [getOrThrow(site.devices, device).tag ?? device, device]))
  const wrong: Refusal[] = []
  const lines = new Map<
    DeviceId,
    { numbers: [output: number, address: number][]; serial: string; power: 'low' | 'high' }
  >()
  table.slice(1).forEach((cells, i) => {
    const cell = (name: (typeof REGISTER)[number]) => (cells[head.indexOf(name)] ?? '').trim()
    const at = [`line ${i + 2}`]
    const device = byTag.get(cell('decoder'))
    const number = /^\d{1,4}$/.test(cell('number')) ? Number(cell('number')) : null
    if (!device) wrong.push(refusal('decoder_unknown', [...at, 'decoder'], { tag: cell('decoder') }))
    if (number === null) wrong.push(refusal('not_within', [...at, 'number'], { low: 0, high: 9999 }))
    if (!device || number === null) return
    const line = lines.get(device) ?? { numbers: [], serial: cell('serial').slice(0, 40), power: 'low' }
    if (cell('power') === 'high') line.power = 'high'
    line.numbers.push([Number(cell('output')) || line.numbers.length + 1, number])
    lines.set(device, line)
  })
  if (wrong.length > 0) return refused(...wrong)
  return accepted(
    [...lines].map(([decoder, { numbers, serial, power }]) => ({
      decoder,
      addresses: numbers.sort(([a], [b]) => a - b).map(([, n]) => n),
      serial,
      power,
    })),
  )
}

export const readRegisterCsv = (text: string, site: Site, path: PathAt): Outcome<RegisterLine[]> =>
  readRegister(readCsvRows(text), site, path)

export const writeRegisterCsv = (site: Site, path: PathAt): string => writeCsv(registerRows(site, path))
