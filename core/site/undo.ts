import { accepted, refusal, refused, type Outcome } from '../refusal'
import { sameJson, valueAt } from './apply'
import { looseCommand, type Command, type Write } from './command'
import type { CollectionName, Site } from './site'

/**
 * The commands that put back what a batch wrote. Refused, naming each field, where somebody has changed it since:
 * undo takes back my own work only.
 */
export function undoCommands(site: Site, writes: readonly Write[]): Outcome<Command[]> {
  const changed = writes.filter((w) => !sameJson(valueAt(site, w.path), w.after))
  if (changed.length > 0) return refused(...changed.map((w) => refusal('changed_since', w.path)))
  return accepted([...writes].reverse().map(restoring))
}

function restoring({ path, before, after }: Write): Command {
  const [first, second, third] = path as [string, string, string | undefined]
  if (first === 'about') return looseCommand({ do: 'setAbout', field: second, value: before })
  if (first === 'settings') return looseCommand({ do: 'setSetting', field: second, value: before })
  const collection = first as CollectionName
  if (third !== undefined) return looseCommand({ do: 'set', in: collection, id: second, field: third, value: before })
  if (before === null) return { do: 'remove', in: collection, id: second }
  if (after === null) return looseCommand({ do: 'create', in: collection, id: second, record: before })
  throw new Error(`restoring: a write of the whole record ${path.join('/')} has both a before and an after`)
}
