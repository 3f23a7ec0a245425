import { set, type Work } from '../plan'
import { applyBatch, endKey, entries, type PlaceId, type Site, type SpliceId } from '../site'
import { boxJoints } from './box'
import { wayCommandsOf } from './box-commands'

/**
 * Settles the connectors of joints whose ends have changed since: each by the first way in which what is carried holds
 * it.
 * @returns joints that were opened or are new, caps that are new, and places with one that nothing holds
 */
export function settle(work: Work, since: Site): { joints: number; caps: number; screws: number; unheld: PlaceId[] } {
  const changed = (id: SpliceId) =>
    JSON.stringify(since.splices[id]?.ends.map(endKey)) !== JSON.stringify(work.site.splices[id]!.ends.map(endKey))
  const touched = entries(work.site.splices).filter(([id]) => changed(id))
  const joints = touched.filter(([, s]) => s.connector !== 'terminal' && s.connector !== 'cap')
  for (const [id, s] of joints) {
    if (s.connector !== 'unknown') set(work, 'splices', id, 'connector', 'unknown')
    if (s.ticks.length > 0) set(work, 'splices', id, 'ticks', [])
    if (s.made !== null) set(work, 'splices', id, 'made', null)
    if (s.condition.state !== 'sound') set(work, 'splices', id, 'condition', { ...s.condition, state: 'sound' })
  }
  const unheld: PlaceId[] = []
  const ids = new Set(joints.map(([id]) => id))
  for (const place of new Set(joints.map(([, s]) => s.place)))
    for (const joint of boxJoints(work.site, place)) {
      if (!joint.holds.some((h) => ids.has(h.splice))) continue
      const [way] = joint.ways
      if (!way) {
        unheld.push(place)
        continue
      }
      const laid = applyBatch(work.site, wayCommandsOf(work.site, joint, way))
      if (laid.ok) work.site = laid.value.site
      else unheld.push(place)
    }
  return {
    joints: joints.length,
    caps: touched.filter(([, s]) => s.connector === 'cap').length,
    screws: touched.filter(([, s]) => s.connector === 'terminal').length,
    unheld,
  }
}
