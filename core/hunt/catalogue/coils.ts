import { coil_ohm, complex } from '../../circuit'
import { copperFactor } from '../../quantity'
import { getOrThrow, type Link } from '../../site'
import type { HuntContext } from '../context'
import { coilWeight, type OddsBasis } from '../odds'
import { alter, gone, logCells, none, type Cell, type Entry } from './cells'

/**
 * Shorted turns: what is left of a coil's ohms, and of its impedance under power. How the two go together depends on
 * where in the winding the turns lie and on the iron, so each has a factor of its own, even in the logarithm.
 */
const LEFT_ohm = { from: 0.08, to: 0.9, cells: 12 } as const
const LEFT_Z = { from: 0.06, to: 1, cells: 5 } as const
/** A shorted coil has what is left of the last turns and its leads. */
const SHORTED_ohm = 0.2
/** A latching coil's winding: a few ohms, no hum from alternating current. */
const LATCHING_ohm = 5
/** A coil of another kind than recorded: the usual windings. */
const OTHER_KINDS_ohm = [24, 33, 52] as const

export function coilFaults(context: HuntContext, basis: OddsBasis, today: string | null): Entry[] {
  const { site, climate } = context
  const warm = copperFactor(climate.coil_C)
  return [...context.coilElement]
    .filter(([, e]) => context.within(e))
    .flatMap(([device, element]): Entry[] => {
      const { condition, coilKind, installed } = getOrThrow(site.devices, device)
      const kind = coilKind === null ? '' : getOrThrow(site.coilKinds, coilKind).name
      const entry = {
        where: { kind: 'coil', device } as const,
        family: 'coil',
        weight:
          coilWeight(basis, kind, installed?.value ?? null, today) *
          (condition.state === 'suspect' ? basis.suspect : 1),
        elements: [element],
      } as const
      const own = coil_ohm(site, { kind: 'coil', device } as Extract<Link, { kind: 'coil' }>, 'value')
      const plain = (ohm: number) => alter(element, () => complex(ohm * warm))
      const scaledTo = (ohm: number) => alter(element, (z) => ({ re: (z.re * ohm) / own, im: (z.im * ohm) / own }))
      const others = OTHER_KINDS_ohm.filter((o) => Math.abs(o / own - 1) > 0.15)
      return [
        { ...entry, cause: 'coil_open', cells: [{ mods: gone(element) }] },
        { ...entry, cause: 'coil_short', cells: [{ mods: plain(SHORTED_ohm), shifted: [plain(2 * SHORTED_ohm)] }] },
        { ...entry, cause: 'coil_part', cells: partCells(element, own) },
        { ...entry, cause: 'coil_dc', cells: [{ mods: plain(LATCHING_ohm), shifted: [plain(LATCHING_ohm + 1.5)] }] },
        {
          ...entry,
          family: 'record',
          cause: 'coil_kind',
          cells: others.map((o): Cell => ({ mods: scaledTo(o), ohm: o })),
        },
        { ...entry, where: { kind: 'valve', device }, family: 'supply', cause: 'stuck_shut', cells: [{ mods: none }] },
        { ...entry, where: { kind: 'valve', device }, family: 'supply', cause: 'stuck_open', cells: [{ mods: none }] },
      ]
    })
}

/** Cells of a coil with shorted turns: a grid of both factors. At 0 Hz an impedance has no imaginary part. */
function partCells(element: number, own_ohm: number): Cell[] {
  const left = (dc: number, ac: number) =>
    alter(element, (z) => (z.im === 0 ? complex(z.re * dc) : complex(z.re * ac, z.im * ac)))
  return logCells(LEFT_ohm).flatMap((dc) =>
    logCells(LEFT_Z).map((ac) => ({
      mods: left(dc.ohm, ac.ohm),
      shifted: [left(dc.ohm + dc.sd, ac.ohm), left(dc.ohm, ac.ohm + ac.sd)],
      ohm: own_ohm * dc.ohm,
    })),
  )
}
