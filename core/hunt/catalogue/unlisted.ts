import type { HuntContext } from '../context'
import { none, type Entry } from './cells'

/**
 * Of every thread that something is wrong with it which the catalogue does not know: readings through it then show
 * anything. Without it a figure that nothing listed explains would be left to slips of the meter's user.
 */
export const unlistedFaults = ({ controller, terminals }: HuntContext): Entry[] =>
  terminals.map((terminal) => ({
    where: { kind: 'thread', controller, terminal },
    cause: 'unlisted',
    family: 'unlisted',
    weight: 1,
    cells: [{ mods: none }],
    elements: [],
  }))
