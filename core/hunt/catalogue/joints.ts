import type { Part } from '../../record'
import { getOrThrow, type Link, type SpliceId } from '../../site'
import type { HuntContext } from '../context'
import { jointWeight, type OddsBasis } from '../odds'
import { gone, seriesCells, type Entry } from './cells'
import { leakCells, type LeakSizes } from './leaks'

/** A joint of a common is as likely to fail as so much of its wire. */
const JOINT_AS_m = 20

export function jointFaults(context: HuntContext, basis: OddsBasis, leaks: LeakSizes, today: string | null): Entry[] {
  const {
    site,
    meterState: { powered },
  } = context
  const legs = new Map<string, number[]>()
  powered.parts.forEach(({ of }, element) => {
    if (of.kind === 'leg' && context.within(element)) legs.set(of.splice, [...(legs.get(of.splice) ?? []), element])
  })
  return [...legs].flatMap(([id, all]): Entry[] => {
    const splice = getOrThrow(site.splices, id)
    const where: Part = { kind: 'joint', splice: id as SpliceId }
    const weight =
      jointWeight(basis, splice.connector, splice.made?.value ?? null, today) *
      (splice.condition.state === 'suspect' ? basis.suspect : 1)
    // Two ends carry the same current: either leg stands for both.
    const shown = all.length === 2 ? all.slice(0, 1) : all
    return shown.flatMap((element): Entry[] => {
      const { of } = powered.parts[element]! as { of: Extract<Link, { kind: 'leg' }> }
      const common = context.onCommon(of.a) && of.end.kind === 'core' && all.length > 2
      const entry = {
        where,
        family: common ? 'common' : 'splice',
        weight: weight * (common ? JOINT_AS_m : 1),
        at: of.id,
        elements: [element],
      } as const
      return [
        { ...entry, cause: 'open', cells: [{ mods: gone(element) }] },
        { ...entry, cause: 'series', cells: seriesCells(element) },
        ...(common ? [] : [{ ...entry, cause: 'intermittent' as const, cells: [{ mods: gone(element) }] }]),
        ...(element === shown[0]
          ? [
              {
                ...entry,
                cause: 'leak' as const,
                cells: leakCells(leaks, { node: powered.parts[element]!.a }),
              },
            ]
          : []),
      ]
    })
  })
}
