import { entries, portsOf, type DeviceId } from '../../core/site'
import type { Network } from './network'
import type { Powered } from './power'
import type { Real } from './real'

/** Sequencers as they stand, by the output that had power last, counted from 0. */
export type Standing = ReadonlyMap<DeviceId, number>

/** The sequencers of a property as power comes and goes. */
export interface Turning {
  /**
   * Power has come to what this has it come to: those that get it step, where they were without for long enough.
   * @param at_s when; null for a moment of its own, long after any other
   * @returns the points that are joined through them now
   */
  readonly turn: (powered: Powered, at_s: number | null) => [number, number][]
  /** Power is off everywhere of a sudden. */
  readonly rest: (at_s: number) => void
}

/** Sequencers that begin as they stand; those of which nothing is said have had power at their last output. */
export function turningOf({ site, wiring, world }: Real, network: Network, standing: Standing): Turning {
  const sequencers = entries(site.devices).flatMap(([device, d]) => {
    if (d.kind !== 'sequencer') return []
    const point = (port: string) => network.number(wiring.pointOf({ kind: 'port', device, port }))
    const outputs = portsOf(d).filter((p) => p.startsWith('out_'))
    return [
      {
        off_s: d.off_ms / 1000,
        input: point('in'),
        common: point('common'),
        outputs: outputs.map(point),
        last: standing.get(device) ?? outputs.length - 1,
        isOn: false,
        away_since_s: -Infinity,
      },
    ]
  })
  const leave = (q: (typeof sequencers)[number], at_s: number) => {
    if (q.isOn) q.away_since_s = at_s
    q.isOn = false
  }
  return {
    turn: (powered, at_s) =>
      sequencers.flatMap((q): [number, number][] => {
        const isLive = powered.linked(q.input, q.common) && powered.across(q.input, q.common) >= world.step_V
        if (!isLive) {
          if (at_s !== null) leave(q, at_s)
          return []
        }
        if (at_s === null || (!q.isOn && at_s - q.away_since_s >= q.off_s)) q.last = (q.last + 1) % q.outputs.length
        if (at_s !== null) q.isOn = true
        return [[q.input, q.outputs[q.last]!]]
      }),
    rest: (at_s) => sequencers.forEach((q) => leave(q, at_s)),
  }
}
