import { getOrThrow, type DeviceId, type End, type SpliceId, type WirePoint } from '../site'
import type { HuntContext } from './context'

/**
 * The joint that holds one of a coil's leads: the coil's own end there, the core that comes from the cabinet, and the
 * joint's middle.
 */
export interface CoilJoint {
  readonly splice: SpliceId
  readonly port: WirePoint
  readonly core: WirePoint | null
  readonly middle: WirePoint
}

/** The joints of a coil: on its lead's side and on the common's; null where none is on record. */
export function coilJoints(
  context: HuntContext,
  device: DeviceId,
): { readonly lead: CoilJoint | null; readonly home: CoilJoint | null } {
  const {
    site,
    meterState: {
      powered: { parts, wiring },
    },
  } = context
  const at = (home: boolean): CoilJoint | null => {
    const own = parts.flatMap(({ of }) =>
      of.kind === 'leg' &&
      of.end.kind === 'port' &&
      of.end.device === device &&
      context.onCommon(wiring.pointOf(of.end)) === home
        ? [of]
        : [],
    )[0]
    if (!own) return null
    // The conductor that comes from the cabinet: of the joint's cores the one nearest along the copper.
    const walk = context.walk(home ? context.common : (context.terminalOf(device) ?? context.common))
    const far = (point: WirePoint) => walk.distance_m.get(point) ?? Infinity
    const cores = getOrThrow(site.splices, own.splice)
      .ends.filter((e: End) => e.kind === 'core')
      .map((e) => wiring.pointOf(e))
      .sort((a, b) => far(a) - far(b))
    return {
      splice: own.splice,
      port: wiring.pointOf(own.end),
      core: cores[0] ?? null,
      middle: `joint ${own.splice}` as WirePoint,
    }
  }
  return { lead: at(false), home: at(true) }
}
