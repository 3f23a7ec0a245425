import {
  climateOf,
  networkOf,
  solverOf,
  withFaults,
  type Climate,
  type Fault,
  type Network,
  type Solver,
} from '../circuit'
import {
  commonOf,
  entries,
  hangingOn,
  stationsOnScrews,
  terminalEnd,
  type ControllerId,
  type End,
  type Hanging,
  type Site,
  type TerminalId,
} from '../site'
import type { OhmsTest } from '../record'

/** A site at given temperatures, made ready to be asked. With faults in it, it is what the property would be then. */
export interface Scene {
  readonly site: Site
  readonly climate: Climate
  readonly network: Network
  readonly solver: Solver
  /** The solver of the site as recorded, without the faults. */
  readonly recorded: Solver
  readonly hanging: (controller: ControllerId) => ReadonlyMap<TerminalId, Hanging>
}

export function sceneOf(site: Site, climate: Climate = climateOf(site)): Scene {
  const network = networkOf(site, climate)
  const hung = new Map<ControllerId, ReadonlyMap<TerminalId, Hanging>>()
  const hanging = (controller: ControllerId) => {
    if (!hung.has(controller)) hung.set(controller, hangingOn(site, network.wiring, controller))
    return hung.get(controller)!
  }
  const solver = solverOf(network)
  return { site, climate, network, solver, recorded: solver, hanging }
}

export function sceneWith(scene: Scene, faults: readonly Fault[]): Scene {
  const network = withFaults(scene.network, faults)
  return { ...scene, network, solver: solverOf(network) }
}

/** Scenes of a site at other temperatures, each made once. */
export function scenesOf(site: Site): (ground_C: number, coil_C: number | null) => Scene {
  const made = new Map<string, Scene>()
  return (ground_C, coil_C) => {
    const key = `${ground_C} ${coil_C}`
    const scene = made.get(key) ?? sceneOf(site, climateOf(site, ground_C, coil_C))
    made.set(key, scene)
    return scene
  }
}

/** The node of a probe point, or null where nothing is joined to it. */
export const nodeAt = (scene: Scene, probe: End): number | null =>
  scene.network.nodeOf.get(scene.network.wiring.pointOf(probe)) ?? null

/** C to a terminal, leads off; null for a controller without a common. */
export function terminalTest(site: Site, controller: ControllerId, terminal: TerminalId): OhmsTest | null {
  const common = commonOf(site, controller)
  return common && { kind: 'ohms', from: terminalEnd(controller, terminal), to: terminalEnd(controller, common) }
}

/**
 * The terminals of a controller that a sweep reads, in the order of its door: those with a lead, a station or a role.
 */
export function sweepTerminals(
  site: Site,
  controller: ControllerId,
  hanging: ReadonlyMap<TerminalId, Hanging>,
): TerminalId[] {
  const meant = new Set<TerminalId>([
    ...stationsOnScrews(site, controller).map((s) => s.terminal),
    ...Object.values(site.pointsOfConnection).flatMap((p) =>
      p.terminal?.controller === controller ? [p.terminal.terminal] : [],
    ),
  ])
  return entries(site.controllers[controller]!.terminals)
    .filter(([id, t]) => (t.role === 'station' || t.role === 'master') && (meant.has(id) || hanging.get(id)?.landed))
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id]) => id)
}
