import type { Part } from '../record'
import { isInUse } from './in-use'
import { entries, endKey, getOrThrow, SOUND, type CableId, type DefectId, type Site, type SpliceId } from '../site'

/** A part that the record knows to be bad, and the record without that knowledge. */
export interface KnownBad {
  readonly where: Part
  readonly without: Site
}

/**
 * Everything on record that is known to be bad and was left so, each as the part that a repair mends. What is out of use,
 * as a core whose place a spare has taken, asks for none.
 */
export function knownBad(site: Site): KnownBad[] {
  const found: KnownBad[] = []
  for (const [splice, s] of entries(site.splices))
    if (s.condition.state === 'open')
      found.push({
        where: { kind: 'joint', splice },
        without: { ...site, splices: { ...site.splices, [splice]: { ...s, condition: SOUND } } },
      })
  for (const [device, d] of entries(site.devices))
    if (d.kind === 'coil' && d.condition.state === 'open')
      found.push({
        where: { kind: 'coil', device },
        without: { ...site, devices: { ...site.devices, [device]: { ...d, condition: SOUND } } },
      })
  for (const [id, cable] of entries(site.cables)) found.push(...badStretches(site, id, cable))
  for (const [id] of entries(site.defects)) {
    const where = partOf(site, id)
    if (!where) continue
    const { [id]: _gone, ...defects } = site.defects
    found.push({ where, without: { ...site, defects } })
  }
  return found
}

function badStretches(site: Site, id: CableId, cable: Site['cables'][CableId]): KnownBad[] {
  return entries(cable.cores).flatMap(([core, record]) =>
    cable.stops.slice(0, -1).flatMap((stop, i): KnownBad[] => {
      if (record.conditions[stop.id]?.state !== 'open' || !isInUse(site, id, core, i)) return []
      const { [stop.id]: _gone, ...conditions } = record.conditions
      const cores = { ...cable.cores, [core]: { ...record, conditions } }
      return [
        {
          where: { kind: 'run', cable: id, core, from: stop.id, to: cable.stops[i + 1]!.id },
          without: { ...site, cables: { ...site.cables, [id]: { ...cable, cores } } },
        },
      ]
    }),
  )
}

/** The part that a defect lies on; null of one that no single repair of a part mends. */
function partOf(site: Site, id: DefectId): Part | null {
  const defect = getOrThrow(site.defects, id)
  switch (defect.kind) {
    case 'grip': {
      const joint = entries(site.splices).find(([, s]) => s.ends.some((e) => endKey(e) === endKey(defect.end)))
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
