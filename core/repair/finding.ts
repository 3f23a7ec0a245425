import * as z from 'zod'
import { part, type Part } from '../record'
import { accepted, parseWith, refusal, refused, type Outcome, type Path } from '../refusal'
import { lookUp, type Site } from '../site'

/** What was found, as a file gives it: the part that is bad. */
export const repairFinding = z.strictObject({ where: part })

/** Reads a finding; refused where what it names is not on record. */
export function readFinding(site: Site, text: string): Outcome<Part> {
  let written: unknown
  try {
    written = JSON.parse(text)
  } catch {
    return refused(refusal('not_json', []))
  }
  const read = parseWith(repairFinding, written)
  if (!read.ok) return read
  const missing = missingOf(site, read.value.where)
  return missing ? refused(refusal('no_such_record', missing.path, { id: missing.id })) : accepted(read.value.where)
}

/** Whether all that a part names is on record still. */
export const isPartOnRecord = (site: Site, where: Part): boolean => missingOf(site, where) === null

/** What of a part is not on record; null where all of it is. */
function missingOf(site: Site, where: Part): { path: Path; id: string } | null {
  const lacks = (is: unknown, field: string, id: string) => (is === undefined ? { path: ['where', field], id } : null)
  switch (where.kind) {
    case 'joint':
      return lacks(lookUp(site.splices, where.splice), 'splice', where.splice)
    case 'coil':
    case 'valve':
      return lacks(lookUp(site.devices, where.device), 'device', where.device)
    case 'run':
    case 'touch': {
      const cable = lookUp(site.cables, where.cable)
      const stop = (id: string) => cable?.stops.find((s) => s.id === id)
      const isTurned = where.from === where.to
      return (
        lacks(cable, 'cable', where.cable) ??
        lacks(lookUp(cable!.cores, where.core), 'core', where.core) ??
        (where.kind === 'touch' ? lacks(lookUp(cable!.cores, where.other), 'other', where.other) : null) ??
        lacks(stop(where.from), 'from', where.from) ??
        lacks(isTurned ? undefined : stop(where.to), 'to', where.to)
      )
    }
    default: {
      const controller = lookUp(site.controllers, where.controller)
      const terminals = controller?.terminals ?? {}
      return (
        lacks(controller, 'controller', where.controller) ??
        ('terminal' in where ? lacks(lookUp(terminals, where.terminal), 'terminal', where.terminal) : null) ??
        (where.kind === 'pair'
          ? (lacks(lookUp(terminals, where.one), 'one', where.one) ??
            lacks(lookUp(terminals, where.two), 'two', where.two))
          : null)
      )
    }
  }
}
