import { getOrThrow, type DeviceId, type Link, type PlaceId, type SpliceId } from '../../site'
import type { HuntContext } from '../context'
import { gone, joined, type Entry } from './cells'

interface Leg {
  readonly element: number
  readonly link: Extract<Link, { kind: 'leg' }>
  readonly common: boolean
}

/**
 * A conductor that sits in another joint of its box than on record: left out of its own, and joined to what lies
 * there. Those of the common are left out: what is joined to it shows as a touch.
 */
export function misjoinedFaults(context: HuntContext): Entry[] {
  const { site, meterState } = context
  const { powered } = meterState
  const byPlace = new Map<PlaceId, Map<SpliceId, Leg[]>>()
  powered.parts.forEach(({ of }, element) => {
    if (of.kind !== 'leg' || !context.within(element)) return
    const splice = of.splice as SpliceId
    const { place } = getOrThrow(site.splices, splice)
    const here = byPlace.get(place) ?? new Map<SpliceId, Leg[]>()
    byPlace.set(place, here)
    here.set(splice, [...(here.get(splice) ?? []), { element, link: of, common: context.onCommon(of.a) }])
  })
  const cabinet = getOrThrow(site.controllers, context.controller).place
  const coilsAt = coilsByElement(context)
  return [...byPlace].flatMap(([place, joints]) => {
    if (place === cabinet) return []
    const leads = [...joints].filter(([, legs]) => legs.every((l) => !l.common))
    return leads.flatMap(([own, legs]) =>
      leads.flatMap(([other, [into]]): Entry[] =>
        own === other
          ? []
          : legs.map((leg) => ({
              where: { kind: 'joint', splice: own },
              cause: 'misjoined',
              family: 'record',
              weight: 1,
              at: leg.link.id,
              elements: [leg.element, into!.element],
              besides: [...new Set([...coilsAt(leg.element), ...coilsAt(into!.element)])],
              cells: [
                {
                  mods: {
                    alters: gone(leg.element).alters,
                    joins: joined({ node: outerOf(context, leg) }, { node: innerOf(context, into!) }, 1e-3).joins,
                  },
                },
              ],
            })),
      ),
    )
  })
}

/** The node of a joint itself, and of the conductor that one of its legs leads to. */
const innerOf = (context: HuntContext, { element, link }: Leg): number => nodes(context, element, link).inner
const outerOf = (context: HuntContext, { element, link }: Leg): number => nodes(context, element, link).outer
function nodes({ meterState: { powered } }: HuntContext, element: number, link: Leg['link']) {
  const { a, b } = powered.parts[element]!
  const end = powered.nodeOf.get(powered.wiring.pointOf(link.end))
  return end === a ? { inner: b, outer: a } : { inner: a, outer: b }
}

/** By element: the coils of the terminal whose wire it belongs to. */
function coilsByElement(context: HuntContext): (element: number) => readonly DeviceId[] {
  const { powered } = context.meterState
  const at = new Map<unknown, DeviceId[]>()
  for (const t of context.terminals)
    for (const { link } of context.walk(t).runs) at.set(link, [...(context.hanging.get(t)?.coils ?? [])])
  return (element) => at.get(powered.parts[element]!.of) ?? []
}
