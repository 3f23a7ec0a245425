import {
  COLLECTIONS,
  entries,
  looseCommand,
  lookUp,
  sameJson,
  type CollectionName,
  type Command,
  type Site,
} from '../site'

/**
 * The fewest commands that make one site's records into another's: what is new, what is gone, the fields that differ.
 */
export function commandsBetween(before: Site, after: Site): Command[] {
  const commands: Command[] = []
  for (const name of Object.keys(COLLECTIONS) as CollectionName[]) {
    const [was, is] = [before[name], after[name]] as [Record<string, object>, Record<string, object>]
    for (const [id, record] of entries(is)) {
      const old = lookUp(was, id) as Record<string, unknown> | undefined
      if (!old) {
        commands.push(looseCommand({ do: 'create', in: name, id, record }))
        continue
      }
      for (const [field, value] of Object.entries(record))
        if (!sameJson(old[field], value)) commands.push(looseCommand({ do: 'set', in: name, id, field, value }))
    }
    for (const id of Object.keys(was)) if (lookUp(is, id) === undefined) commands.push({ do: 'remove', in: name, id })
  }
  return commands
}
