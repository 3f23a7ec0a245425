import {
  commonOf,
  entries,
  getOrThrow,
  terminalEnd,
  type ControllerId,
  type DeviceId,
  type End,
  type Link,
  type SpliceId,
} from '../site'
import { complex, minus, plus, size, times, type Complex } from './complex'
import type { Engine, Solution } from './engine'
import type { Face } from './impedance'

export interface CoilAnswer {
  readonly device: DeviceId
  readonly volt_V: number
  readonly current_A: number
  readonly face: Face
  readonly minimum_V: number
  /** Whether it has what its face asks for: the pull-in minimum starting, the holding minimum running. */
  readonly enough: boolean
}
export interface ConductorAnswer {
  readonly link: Extract<Link, { kind: 'stretch' }>
  readonly current_A: number
  readonly volt_V: number
}
/** The most volts lost between any two ends of a joint. */
export interface JointAnswer {
  readonly splice: SpliceId
  readonly volt_V: number
  readonly current_A: number
}
export interface SupplyAnswer {
  readonly controller: ControllerId
  readonly current_A: number
  readonly terminal_V: number
  readonly load_VA: number
  readonly rating_VA: number | null
}

export interface Answer {
  readonly coils: readonly CoilAnswer[]
  readonly conductors: readonly ConductorAnswer[]
  readonly joints: readonly JointAnswer[]
  readonly supplies: readonly SupplyAnswer[]
}

/** Below this a coil is not being run: 1 mV is a millionth of a working coil's power. */
const DEAD_V = 1e-3

/** What a solution means for the parts of the site. Coils without volts are left out. */
export function answerOf({ powered }: Engine, solution: Solution): Answer {
  const { site, parts, conditions } = powered
  const coils: CoilAnswer[] = []
  const conductors: ConductorAnswer[] = []
  const legs = new Map<SpliceId, { volts: Complex; amps: Complex }[]>()
  parts.forEach(({ a, b, of }, element) => {
    const across = minus(solution.volts(a), solution.volts(b))
    const y = solution.admittance(element)
    const amps = y === null ? complex(0) : times(across, y)
    if (of.kind === 'stretch') conductors.push({ link: of, current_A: size(amps), volt_V: size(across) })
    else if (of.kind === 'leg') legs.set(of.splice, [...(legs.get(of.splice) ?? []), { volts: across, amps }])
    else if (of.kind === 'coil' && size(across) > DEAD_V) {
      const device = getOrThrow(site.devices, of.device)
      const kind = device.coilKind === null ? null : getOrThrow(site.coilKinds, device.coilKind)
      const face = conditions.faces.get(of.device) ?? 'inrush'
      const minimum_V = minimumOf(kind, face)
      coils.push({
        device: of.device,
        volt_V: size(across),
        current_A: size(amps),
        face,
        minimum_V,
        enough: size(across) >= minimum_V,
      })
    }
  })
  const joints = [...legs].map(([splice, its]): JointAnswer => {
    let volt_V = 0
    for (const { volts } of its) for (const other of its) volt_V = Math.max(volt_V, size(minus(volts, other.volts)))
    return { splice, volt_V, current_A: its.reduce((sum, { amps }) => sum + size(amps), 0) / 2 }
  })
  const supplies = powered.sources
    .filter((s) => s.feeds === 'terminals')
    .map((source): SupplyAnswer => {
      let total = complex(0)
      // Terminals that a jumper joins are one node, and its current is that of both.
      const nodes = new Set(
        entries(getOrThrow(site.controllers, source.controller).terminals)
          .filter(([id]) => id !== commonOf(site, source.controller))
          .map(([id]) => powered.nodeOf.get(powered.wiring.pointOf(terminalEnd(source.controller, id) as End))),
      )
      for (const node of nodes) {
        const amps = node === undefined ? undefined : solution.closed_A.get(node)
        if (amps) total = plus(total, amps)
      }
      for (const { a, b, y, of } of parts)
        if (of.kind === 'live' && of.controller === source.controller)
          total = plus(total, times(minus(solution.volts(b), solution.volts(a)), y))
      const terminal_V = size(minus(solution.volts(source.hot), solution.volts(source.common)))
      return {
        controller: source.controller,
        current_A: size(total),
        terminal_V,
        load_VA: size(total) * terminal_V,
        rating_VA: getOrThrow(site.controllers, source.controller).transformer?.rating_VA ?? null,
      }
    })
  return { coils, conductors, joints, supplies }
}

/** Volts across a coil that its face asks for, by its sheet or the usual figures. */
export const minimumOf = (kind: { minimum_V: number; holdMinimum_V: number } | null, face: Face): number =>
  face === 'inrush' ? (kind?.minimum_V ?? USUAL_MINIMUM_V.inrush) : (kind?.holdMinimum_V ?? USUAL_MINIMUM_V.holding)
const USUAL_MINIMUM_V = { inrush: 19, holding: 15 } as const
