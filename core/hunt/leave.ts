import type { Part } from '../record'
import {
  createRecord,
  endKey,
  getOrThrow,
  lengthBetween_m,
  setField,
  stopIndex,
  stopPositions_m,
  type Command,
  type Condition,
  type Defect,
  type End,
  type Site,
} from '../site'
import { climateOf, wire_ohmPerM } from '../circuit'
import type { LikelyFault } from './hunt'

/**
 * What puts a part that is not mended on record as it is, so that predictions count with it from now on: a part that is
 * open by its condition, what has ohms as a defect. Null of what is no lasting state of the ground: a coil to be
 * changed, leads to be put under their own screws, what comes and goes with wet or heat.
 * @param id of the defect, if it makes one
 */
export function leaveCommands(
  site: Site,
  where: Part,
  { cause, at, along, ohm, states }: LikelyFault,
  id: string,
  since: string,
): readonly Command[] | null {
  if (states.length > 0) return null
  const open: Condition = { state: 'open', since, note: '' }
  const told = { since, note: '' }
  const defect = (record: Defect) => [createRecord('defects', id, record)]
  switch (where.kind) {
    case 'coil':
      return cause === 'coil_open' ? [setField('devices', where.device, 'condition', open)] : null
    case 'joint': {
      const end = getOrThrow(site.splices, where.splice).ends.find((e) => `${where.splice}|${endKey(e)}` === at)
      if (!end) return null
      if (cause === 'open') return defect({ kind: 'grip', end, ohm: null, ...told })
      if (ohm === null || (cause !== 'series' && cause !== 'leak')) return null
      return defect({ kind: cause === 'series' ? 'grip' : 'leak', end, ohm: tenths(ohm), ...told })
    }
    case 'run': {
      const { cable, core, from } = where
      const { cores } = getOrThrow(site.cables, cable)
      const record = getOrThrow(cores, core)
      if (cause === 'open')
        return [
          setField('cables', cable, 'cores', {
            ...cores,
            [core]: { ...record, conditions: { ...record.conditions, [from]: open } },
          }),
        ]
      if (ohm === null) return null
      if (cause === 'series') return defect({ kind: 'series', cable, core, from, ohm: tenths(ohm), ...told })
      const end: End = { kind: 'core', cable, core, stop: from, side: 'leaves' }
      return cause === 'leak' ? defect({ kind: 'leak', end, ohm: tenths(ohm), ...told }) : null
    }
    case 'touch': {
      const { cable, core, other, from } = where
      if (ohm === null) return null
      const more = ohm + wayTo_ohm(site, where, along ?? 0.5)
      return defect({ kind: 'touch', cable, core, other, from, ohm: tenths(more), ...told })
    }
    default:
      return null
  }
}

/**
 * How many open parts and defects were put on record on a day (`YYYY-MM-DD`), as leaving them does, on whichever
 * controller of the property. What was left later says nothing of a hunt that is looked at again.
 */
export function leftOn(site: Site, day: string): number {
  const conditions = [
    ...Object.values(site.devices).map((d) => d.condition),
    ...Object.values(site.cables).flatMap(({ cores }) =>
      Object.values(cores).flatMap((c) => Object.values(c.conditions)),
    ),
  ]
  const open = conditions.filter((c) => c?.state === 'open')
  return [...open, ...Object.values(site.defects)].filter((r) => r?.since === day).length
}

const tenths = (ohm: number) => Math.round(ohm * 10) / 10

/** Ohms of both cores from the stop at which a stretch begins to where they touch along it. */
function wayTo_ohm(site: Site, where: Extract<Part, { kind: 'touch' }>, along: number): number {
  const cable = getOrThrow(site.cables, where.cable)
  const [from, to] = [where.from, where.to].map((stop) => stopIndex(cable, stop)) as [number, number]
  const length_m = along * lengthBetween_m(stopPositions_m(cable), from, to).value
  const perM = (core: typeof where.core) =>
    wire_ohmPerM(site, { kind: 'stretch', cable: where.cable, core } as never, climateOf(site)).value
  return length_m * (perM(where.core) + perM(where.other))
}
