import type { Part } from '../record'
import {
  entries,
  getOrThrow,
  type Cable,
  type CableId,
  type Condition,
  type ControllerId,
  type CoreId,
  type DefectId,
  type Site,
  type TerminalAt,
} from '../site'
import { leadWays, type Way } from './lead'

/** A property with what was found wrong in it: the record with the part broken, and what no record can say of it. */
export interface Damage {
  readonly site: Site
  /** Screws that give nothing. */
  readonly dead: readonly TerminalAt[]
  /** A controller that gives nothing at all. */
  readonly noSupply: ControllerId | null
  /** Stretches of core that are no good. */
  readonly ways: readonly Way[]
}

const OPEN: Condition = { state: 'open', since: null, note: '' }

/** The property as it was found: the part that a finding names does not do its work. */
export function asFound(site: Site, where: Part): Damage {
  const plain: Damage = { site, dead: [], noSupply: null, ways: [] }
  switch (where.kind) {
    case 'joint':
      return { ...plain, site: withRecord(site, 'splices', where.splice, { condition: OPEN }) }
    case 'coil':
    case 'valve':
      return { ...plain, site: withRecord(site, 'devices', where.device, { condition: OPEN }) }
    case 'run': {
      const way = wayOf(site, where)
      return { ...plain, site: broken(site, [way]), ways: [way] }
    }
    case 'touch': {
      const way = wayOf(site, where)
      const touch = {
        kind: 'touch',
        cable: where.cable,
        core: where.core,
        other: where.other,
        from: where.from,
        ohm: 0,
      }
      const defects = { ...site.defects, [freeDefect(site)]: { ...touch, since: null, note: '' } } as Site['defects']
      return { ...plain, site: { ...site, defects }, ways: [way] }
    }
    case 'thread': {
      const ways = leadWays(site, where)
      return { ...plain, site: broken(site, ways), ways }
    }
    case 'terminal':
      return { ...plain, dead: [where] }
    case 'supply':
      return { ...plain, noSupply: where.controller }
    case 'pair':
      return { ...plain, site: swapped(site, where) }
    case 'sensor':
    case 'water':
      return plain
  }
}

const freeDefect = (site: Site): DefectId => {
  let n = 1
  while (`found-${n}` in site.defects) n++
  return `found-${n}` as DefectId
}

/** A stretch by its stops, as their numbers along the cable. */
function wayOf(site: Site, { cable, core, from, to }: { cable: CableId; core: CoreId; from: string; to: string }): Way {
  const { stops } = getOrThrow(site.cables, cable)
  const [i, j] = [stops.findIndex((s) => s.id === from), stops.findIndex((s) => s.id === to)]
  return { cable, core, from: Math.min(i, j), to: Math.max(i, j) }
}

function withRecord<K extends 'splices' | 'devices'>(site: Site, collection: K, id: string, fields: object): Site {
  const records = site[collection] as Record<string, object>
  return id in records ? { ...site, [collection]: { ...records, [id]: { ...records[id], ...fields } } } : site
}

/** Stretches that are known to be open. */
function broken(site: Site, ways: readonly Way[]): Site {
  const cables = { ...site.cables } as Record<CableId, Cable>
  for (const { cable: id, core, from, to } of ways) {
    const cable = cables[id]!
    const record = getOrThrow(cable.cores, core)
    const conditions = { ...record.conditions }
    for (let i = from; i < to; i++) conditions[cable.stops[i]!.id] = OPEN
    cables[id] = { ...cable, cores: { ...cable.cores, [core]: { ...record, conditions } } }
  }
  return { ...site, cables }
}

/** Each of two screws with what lies under the other. */
function swapped(site: Site, { controller, one, two }: Extract<Part, { kind: 'pair' }>): Site {
  const other = (terminal: string) => (terminal === one ? two : terminal === two ? one : null)
  const splices = Object.fromEntries(
    entries(site.splices).map(([id, s]) => [
      id,
      {
        ...s,
        ends: s.ends.map((e) => {
          const to = e.kind === 'terminal' && e.controller === controller ? other(e.terminal) : null
          return to === null ? e : { ...e, terminal: to }
        }),
      },
    ]),
  )
  return { ...site, splices: splices as Site['splices'] }
}
