import type { Work } from '../plan'
import type { PlaceId } from '../site'
import { settle } from '../splice'
import type { RepairPart } from './figures'
import type { RepairAsk, Tried, WorkKind } from './repair'

/** A repair that was made on paper: its joints settled and counted, with what else it takes. */
export function triedWith(
  { damage }: RepairAsk,
  work: Work,
  places: readonly PlaceId[],
  more: {
    readonly work?: Partial<Record<WorkKind, number>>
    readonly parts?: Partial<Record<RepairPart, number>>
    readonly wire?: Tried['wire']
    readonly dead?: Tried['after']['dead']
    readonly noSupply?: null
    readonly bypassed?: Tried['bypassed']
  } = {},
): Tried {
  const { joints, caps, screws, unheld } = settle(work, damage.site)
  return {
    after: {
      ...damage,
      site: work.site,
      dead: more.dead ?? damage.dead,
      noSupply: more.noSupply === undefined ? damage.noSupply : null,
    },
    unheld,
    bypassed: more.bypassed ?? [],
    work: { place: new Set(places).size, joint: joints, screw: screws, ...more.work },
    parts: { connector: joints, cap: caps, ...more.parts },
    wire: more.wire ?? null,
  }
}
