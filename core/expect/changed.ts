import { COMMON_METER } from '../record'
import { entries, getOrThrow, type Site } from '../site'
import { predict } from './predict'
import { sceneOf, sweepTerminals, terminalTest } from './scene'

/** The terminal whose expected ohms to common differ most between two records of a property, with by how much. */
export interface MostChanged {
  readonly terminal: string
  readonly by_ohm: number
}

/** What a change of the record does to what meters should read; null where no terminal is read in both. */
export function mostChanged(before: Site, after: Site): MostChanged | null {
  const [was, is] = [sceneOf(before), sceneOf(after)]
  const changes = entries(before.controllers).flatMap(([controller, { tag, terminals }]) =>
    sweepTerminals(before, controller, was.hanging(controller)).flatMap((terminal): MostChanged[] => {
      const test = terminalTest(before, controller, terminal)
      const [a, b] = test ? [predict(was, test, COMMON_METER), predict(is, test, COMMON_METER)] : [null, null]
      return a?.kind === 'ohms' && b?.kind === 'ohms'
        ? [{ terminal: `${tag}:${getOrThrow(terminals, terminal).tag}`, by_ohm: b.expected_ohm - a.expected_ohm }]
        : []
    }),
  )
  return changes.reduce<MostChanged | null>(
    (most, now) => (most === null || Math.abs(now.by_ohm) > Math.abs(most.by_ohm) ? now : most),
    null,
  )
}
