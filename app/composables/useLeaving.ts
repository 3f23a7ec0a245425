import { v7 } from 'uuid'
import { leaveCommands, type HuntReport } from '../../core/hunt'
import { partKey, targetOfPart, type Part } from '../../core/record'
import { partsNamed, USUAL_SEVERITY } from '../../core/sightings'
import type { Command } from '../../core/site'
import { authorName } from '../lib/device'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'

/**
 * How what nobody mends now stays known: as a state of the ground that predictions count with from then on, or among
 * the findings; `listed` is there already.
 */
export type Leaving = 'record' | 'list' | 'listed'

/** Keeps what was found where nobody mends it now, so that it can be quoted and mended another day. */
export function useLeaving(report: Readonly<Ref<HuntReport | null>>, nameOf: (part: Part) => string) {
  const property = useProperty()
  const listed = computed(() => new Set(partsNamed(property.facts!).map(partKey)))
  const likeliest = (trouble: number) => report.value?.troubles[trouble]?.parts[0]
  /** Of the likeliest part of a trouble; null where nothing of it is a state of the ground. */
  const commandsFor = (trouble: number): readonly Command[] | null => {
    const part = likeliest(trouble)
    return part?.likeliest ? leaveCommands(property.site!, part.where, part.likeliest, v7(), today()) : null
  }
  function leaving(trouble: number): Leaving {
    if (commandsFor(trouble) !== null) return 'record'
    const part = likeliest(trouble)
    return part && listed.value.has(partKey(part.where)) ? 'listed' : 'list'
  }
  async function leave(trouble: number): Promise<void> {
    const commands = commandsFor(trouble)
    if (commands) return void (await property.change(commands))
    const part = likeliest(trouble)
    if (!part) return
    await property.record({
      kind: 'sighting',
      fact: {
        ...{ at: new Date().toISOString(), author: authorName(), on: targetOfPart(part.where) },
        ...{ what: 'named', part: part.where, severity: USUAL_SEVERITY.named, note: nameOf(part.where) },
      },
    })
  }
  return { leaving, leave }
}
