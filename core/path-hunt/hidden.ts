import type { outputsOn } from '../path'
import type { PathTest } from '../record'
import type { PathFault } from './faults'

/** What a device does by itself, with the path as sound as ever. */
const ONLY_AT_ITSELF: ReadonlySet<PathFault['kind']> = new Set(['renumbered', 'coil_open', 'coil_short', 'coil_leak'])

/** Whether a fault cannot show in a test: most of them show in few, and need no reckoning in the others. */
export function hiddenOn(outputs: ReturnType<typeof outputsOn>): (fault: PathFault, test: PathTest) => boolean {
  /** The numbers that a fault of a device may move. */
  const moved = (fault: PathFault): readonly number[] => {
    if (fault.where.kind !== 'device') return []
    const { device } = fault.where
    const own = outputs.filter((o) => o.decoder === device || o.coils.includes(device))
    return [
      ...own.flatMap((o) => o.address ?? []),
      ...(fault.kind === 'renumbered' ? own.map((_, i) => fault.as + i) : []),
    ]
  }
  const numbersOf = new Map<PathFault, readonly number[]>()
  return (fault, test) => {
    if (fault.kind === 'leak') return test.kind !== 'reports' && test.kind !== 'legs_earth' && test.kind !== 'looked'
    if (fault.where.kind !== 'device' || !ONLY_AT_ITSELF.has(fault.kind)) return false
    if ('device' in test) return test.device !== fault.where.device
    if (!('number' in test)) return test.kind !== 'looked'
    if (!numbersOf.has(fault)) numbersOf.set(fault, moved(fault))
    return test.number === null || !numbersOf.get(fault)!.includes(test.number)
  }
}
