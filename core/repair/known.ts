import { partKey, type Part } from '../record'
import { isInUse } from './in-use'
import { entries, endKey, getOrThrow, SOUND, type CableId, type DefectId, type Site, type SpliceId } from '../site'

/** A part that the record knows to be bad, and the record without that knowledge. */
export interface KnownBad {
  readonly where: Part
  readonly without: Site
}

/** Something on record against a part, and how it is taken off. */
interface Against {
  readonly where: Part
  readonly off: (site: Site) => Site
}

/**
 * Everything on record that is known to be bad and was left so, each part once, as a repair mends it. What is out of
 * use, as a core whose place a spare has taken, asks for none. A leak stands for the joint that holds its end: that is
 * made anew first, and read again.
 */
export function knownBad(site: Site): KnownBad[] {
  const found = new Map<string, KnownBad>()
  for (const { where, off } of [
    ...badJoints(site),
    ...badCoils(site),
    ...entries(site.cables).flatMap(([id, cable]) => badStretches(site, id, cable)),
    ...badByDefects(site),
  ]) {
    const key = partKey(where)
    found.set(key, { where, without: off(found.get(key)?.without ?? site) })
  }
  return [...found.values()]
}

const badJoints = (site: Site): Against[] =>
  entries(site.splices).flatMap(([splice, { condition }]) =>
    condition.state === 'open' ? [{ where: { kind: 'joint', splice }, off: (of) => sound(of, 'splices', splice) }] : [],
  )

const badCoils = (site: Site): Against[] =>
  entries(site.devices).flatMap(([device, { kind, condition }]) =>
    kind === 'coil' && condition.state === 'open'
      ? [{ where: { kind: 'coil', device }, off: (of) => sound(of, 'devices', device) }]
      : [],
  )

function sound(site: Site, collection: 'splices' | 'devices', id: string): Site {
  const records = site[collection] as Readonly<Record<string, object>>
  return { ...site, [collection]: { ...records, [id]: { ...records[id], condition: SOUND } } }
}

function badStretches(site: Site, id: CableId, cable: Site['cables'][CableId]): Against[] {
  return entries(cable.cores).flatMap(([core, record]) =>
    cable.stops.slice(0, -1).flatMap((stop, i): Against[] => {
      if (record.conditions[stop.id]?.state !== 'open' || !isInUse(site, id, core, i)) return []
      return [
        {
          where: { kind: 'run', cable: id, core, from: stop.id, to: cable.stops[i + 1]!.id },
          off: (of) => {
            const own = getOrThrow(of.cables, id)
            const { [stop.id]: _gone, ...conditions } = getOrThrow(own.cores, core).conditions
            const cores = { ...own.cores, [core]: { ...getOrThrow(own.cores, core), conditions } }
            return { ...of, cables: { ...of.cables, [id]: { ...own, cores } } }
          },
        },
      ]
    }),
  )
}

const badByDefects = (site: Site): Against[] =>
  entries(site.defects).flatMap(([id]) => {
    const where = partOf(site, id)
    const off = (of: Site): Site => {
      const { [id]: _gone, ...defects } = of.defects
      return { ...of, defects }
    }
    return where ? [{ where, off }] : []
  })

/** The part that a defect lies on; null of one that no single repair of a part mends. */
function partOf(site: Site, id: DefectId): Part | null {
  const defect = getOrThrow(site.defects, id)
  switch (defect.kind) {
    case 'grip':
    case 'leak': {
      const key = endKey(defect.end)
      const joint = entries(site.splices).find(
        ([, s]) => s.connector !== 'cap' && s.ends.some((e) => endKey(e) === key),
      )
      return joint ? { kind: 'joint', splice: joint[0] as SpliceId } : null
    }
    case 'series':
    case 'touch': {
      const { cable, core, from } = defect
      const stops = site.cables[cable]?.stops ?? []
      const at = stops.findIndex((s) => s.id === from)
      const next = stops[at + 1]
      const cores = defect.kind === 'touch' ? [core, defect.other] : [core]
      if (!next || !cores.every((c) => isInUse(site, cable, c, at))) return null
      const stretch = { cable, core, from, to: next.id }
      return defect.kind === 'series' ? { kind: 'run', ...stretch } : { kind: 'touch', ...stretch, other: defect.other }
    }
    default:
      return null
  }
}
