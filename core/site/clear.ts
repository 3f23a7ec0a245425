import type { Finding } from './check'
import { setField, type Command } from './command'
import { SOUND } from './condition'
import type { CableId, CoreId, StopId } from './ids'
import { getOrThrow, lookUp } from './look-up'
import type { Site } from './site'

/** What takes something known to be wrong off the record once it is mended; null of what no single repair mends. */
export function clearCommands(site: Site, { code, path }: Finding): Command[] | null {
  const [collection, id, field, core, , stop] = path as string[]
  if (collection === 'defects') return [{ do: 'remove', in: 'defects', id: id! }]
  if (code !== 'known_open' && code !== 'known_suspect') return null
  if (collection === 'cables' && field === 'cores') {
    const { cores } = getOrThrow(site.cables, id as CableId)
    const record = lookUp(cores, core!)
    if (!record) return null
    const { [stop as StopId]: _mended, ...conditions } = record.conditions
    return [setField('cables', id!, 'cores', { ...cores, [core as CoreId]: { ...record, conditions } })]
  }
  return [setField(collection as 'devices', id!, 'condition', SOUND)]
}
