import { parseGauge, parseLength } from '../quantity'
import { accepted, parseWith, refusal, refused, type Outcome } from '../refusal'
import { getOrThrow, type CableId, type Command, type Site } from '../site'
import { commandsBetween } from './difference'
import { leadOf, listCommands, withoutValve, type ListedRow } from './list'
import { stationRow, type StationRow } from './row'
import { capLoose, setDistance } from './run'
import { set, type Work } from './work'

export const CELLS = ['name', 'zone', 'box', 'at_m', 'cable', 'coil', 'colour'] as const
export type Cell = (typeof CELLS)[number]

/**
 * The commands that one cell of the list makes when it is written anew; an emptied cell makes its figure unknown
 * again.
 */
export function cellCommands(site: Site, row: ListedRow, cell: Cell, text: string): Outcome<Command[]> {
  const written = text.trim()
  if (written === '') return accepted(emptied(site, row, cell))
  const said: Record<string, unknown> = { station: row.station, [cell]: written }
  if (cell === 'at_m') {
    said.at_m = parseLength(written, site.settings.units.length)
    if (said.at_m === null) return refused(refusal('not_a_length', ['at'], { text: written }))
    if (row.box === null) return refused(refusal('no_box_yet', ['at']))
  }
  if (cell !== 'box' && cell !== 'name' && cell !== 'zone') said.box = row.box
  // A valve that moves to another box takes that box's distance along.
  if (cell === 'at_m' || cell === 'colour' || cell === 'coil')
    said.cable = row.run === null ? null : getOrThrow(site.cables, row.run).tag
  const parsed = parseWith(stationRow, said)
  return parsed.ok ? listCommands(site, [parsed.value as StationRow]) : parsed
}

function emptied(site: Site, row: ListedRow, cell: Cell): Command[] {
  const work: Work = { site }
  if (cell === 'name' || cell === 'zone') {
    if (row.stationId !== null) set(work, 'stations', row.stationId, cell, '')
    else if (row.device !== null && cell === 'name') set(work, 'devices', row.device, 'name', '')
  } else if (cell === 'at_m' && row.run !== null && row.place !== null) setDistance(work, row.run, row.place, null)
  else if (cell === 'coil' && row.device !== null) set(work, 'devices', row.device, 'coilKind', null)
  else if (cell === 'colour' && row.device !== null) {
    const lead = leadOf(site, row.device)
    if (lead) {
      const { cores } = getOrThrow(site.cables, lead.cable)
      set(work, 'cables', lead.cable, 'cores', {
        ...cores,
        [lead.core]: { ...getOrThrow(cores, lead.core), colour: null },
      })
    }
  } else if (cell === 'box' && row.stationId !== null && row.device !== null) {
    const touched = new Set<CableId>()
    set(work, 'stations', row.stationId, 'valves', [])
    withoutValve(work, row.device, touched)
    for (const cable of touched) capLoose(work, cable)
  }
  return commandsBetween(site, work.site)
}

/**
 * The commands that give a run or a lead another size; `settled` says that it is seen or decided, and not for the
 * sizing to choose.
 */
export function sizeCommands(site: Site, cable: CableId, text: string, settled: boolean): Outcome<Command[]> {
  const written = text.trim()
  const gauge = written === '' ? null : parseGauge(written, site.settings.market)
  if (written !== '' && gauge === null) return refused(refusal('not_a_size', ['size'], { text: written }))
  const work: Work = { site }
  set(work, 'cables', cable, 'gauge', gauge && { value: gauge, how: settled ? 'reported' : 'assumed' })
  return accepted(commandsBetween(site, work.site))
}
