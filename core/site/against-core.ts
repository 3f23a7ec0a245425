import type { CableId, CoreId } from './ids'
import { entries, getOrThrow } from './look-up'
import type { Site } from './site'

/** Why a core is no good for anything new. */
export type AgainstCore = 'broken' | 'suspect' | 'touches' | 'leaks' | 'in_series'

/** What is on record against a core; null of one that nothing is known against. */
export function knownAgainst(site: Site, id: CableId, core: CoreId): AgainstCore | null {
  const cable = getOrThrow(site.cables, id)
  const record = getOrThrow(cable.cores, core)
  const states = [cable.condition, record.condition, ...Object.values(record.conditions)].map((c) => c.state)
  if (states.includes('open')) return 'broken'
  if (states.includes('suspect')) return 'suspect'
  for (const [, d] of entries(site.defects)) {
    if (d.kind === 'series' && d.cable === id && d.core === core) return 'in_series'
    if (d.kind === 'touch' && d.cable === id && (d.core === core || d.other === core)) return 'touches'
    if (d.kind === 'leak' && d.end.kind === 'core' && d.end.cable === id && d.end.core === core) return 'leaks'
  }
  return null
}
