import type { FieldTest } from '../../core/record'
import { commonOf, entries, getOrThrow, terminalEnd, type ControllerId, type Site } from '../../core/site'

/** Every terminal that a sweep asks, in the order of the door, with the controller's common. */
export const sweepOf = (site: Site, controller: ControllerId): FieldTest[] => {
  const common = commonOf(site, controller)
  if (common === null) return []
  return entries(getOrThrow(site.controllers, controller).terminals)
    .sort(([, a], [, b]) => a.order - b.order)
    .filter(
      ([id, t]) =>
        (t.role === 'station' || t.role === 'master') &&
        Object.values(site.splices).some((s) =>
          s.ends.some((e) => e.kind === 'terminal' && e.controller === controller && e.terminal === id),
        ),
    )
    .map(([terminal]): FieldTest => ({
      kind: 'ohms',
      from: terminalEnd(controller, terminal),
      to: terminalEnd(controller, common),
    }))
}
