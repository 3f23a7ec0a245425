import { poweredTurns, type Sequenced, type SequencerEvent } from '../sequencer'
import type { ControllerId, Site } from '../site'
import { dateOf } from './days'
import { programsOf, running } from './on-record'

const DAY_s = 86_400

/**
 * The turns that the programs on record have given a sequencer since it was last heard of, as events for its count:
 * from a second of UTC until another. None where the time zone is none.
 */
export function programTurns(
  site: Site,
  controller: ControllerId,
  sequenced: Sequenced,
  from_s: number,
  to_s: number,
): SequencerEvent[] {
  if (!Number.isFinite(from_s) || to_s <= from_s) return []
  // A local date may begin before that of UTC, and end after it.
  const days = Math.ceil((to_s - from_s) / DAY_s) + 3
  const from = dateOf(Math.floor(from_s / DAY_s) - 1)
  const run = running(site, controller, programsOf(site, controller), { from, days })
  if (!run.ok) return []
  const on = run.value.ran.runs
    .filter((r) => r.station.address === null && sequenced.fedBy.includes(r.station.terminal))
    .filter((r) => r.start_s > from_s && r.start_s < to_s)
    .map((r) => ({ from_s: r.start_s, to_s: r.end_s }))
  return poweredTurns(on, [], { outputs: sequenced.outputs.length, off_ms: sequenced.off_ms }, 0)
    .filter((turn) => !turn.isHeld)
    .map((turn) => ({ at_s: turn.from_s, kind: 'turned', times: 1 }))
}
