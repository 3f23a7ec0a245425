import { getOrThrow, type PlaceId, type TerminalId } from '../../site'
import type { HuntContext } from '../context'
import type { Cause } from '../odds'
import { joined, none, type Entry } from './cells'

/** How many times likelier two leads are mistaken for each other than any two. */
const [NEXT_ON_THE_DOOR, IN_ONE_BOX] = [4, 3]

/**
 * Leads one screw beside their own, and what dies in the cabinet. Leads are mistaken for a neighbour's before any
 * other's.
 */
export function cabinetFaults(context: HuntContext): Entry[] {
  const { controller, terminals, site } = context
  const stations = terminals.filter((t) => context.stationAt(t) !== null)
  const placeAt = (t: TerminalId): PlaceId | null => {
    const v = context.valvesOf(t)[0]
    return v === undefined ? null : getOrThrow(site.devices, v).place
  }
  const pair = (i: number, j: number, cause: 'swapped' | 'doubled', weight: number): Entry => {
    const [one, two] = [stations[i]!, stations[j]!]
    return {
      where: { kind: 'pair', controller, one, two },
      cause,
      family: 'record',
      weight,
      elements: [],
      cells: [
        { mods: cause === 'swapped' ? none : joined({ node: context.wire(one) }, { node: context.wire(two) }, 1e-3) },
      ],
      besides: [...context.valvesOf(one), ...context.valvesOf(two)],
    }
  }
  const pairs = stations.flatMap((one, i) =>
    stations.slice(i + 1).flatMap((two, k): Entry[] => {
      const j = i + 1 + k
      const near = j === i + 1 ? NEXT_ON_THE_DOOR : placeAt(one) === placeAt(two) ? IN_ONE_BOX : 1
      return [pair(i, j, 'swapped', near), ...(j === i + 1 ? [pair(i, j, 'doubled', 1), pair(j, i, 'doubled', 1)] : [])]
    }),
  )
  const cabinet = (kind: 'supply' | 'sensor' | 'water', cause: Cause): Entry => ({
    where: { kind, controller },
    cause,
    family: 'supply',
    weight: 1,
    cells: [{ mods: none }],
    elements: [],
  })
  return [
    ...pairs,
    cabinet('supply', 'supply_dead'),
    cabinet('water', 'water_off'),
    ...(getOrThrow(site.controllers, controller).sensor.closedBy === 'nothing'
      ? []
      : [cabinet('sensor', 'sensor_open')]),
    ...terminals.map((terminal): Entry => ({
      where: { kind: 'terminal', controller, terminal },
      cause: 'terminal_dead',
      family: 'supply',
      weight: 1,
      cells: [{ mods: none }],
      elements: [],
    })),
  ]
}
