import { v7 } from 'uuid'
import { leaveCommands, type HuntReport } from '../../core/hunt'
import type { Command } from '../../core/site'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'

/** Puts what was found on record as it is, where nobody mends it now: predictions count with it from then on. */
export function useLeaving(report: Readonly<Ref<HuntReport | null>>) {
  const property = useProperty()
  /** Of the likeliest part of a trouble; null where nothing of it is a state of the ground. */
  const commandsFor = (trouble: number): readonly Command[] | null => {
    const part = report.value?.troubles[trouble]?.parts[0]
    return part?.likeliest ? leaveCommands(property.site!, part.where, part.likeliest, v7(), today()) : null
  }
  const canLeave = (trouble: number) => commandsFor(trouble) !== null
  async function leave(trouble: number): Promise<void> {
    const commands = commandsFor(trouble)
    if (commands) await property.change(commands)
  }
  return { canLeave, leave }
}
