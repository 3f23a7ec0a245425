import type { Sequenced } from '../sequencer'
import { sequencersOf } from '../sequencer'
import { deviceName, entries, type TerminalId } from '../site'
import { localText, shownAt, type WallClock } from './clock'
import type { Judged, ScheduleFinding } from './finding'
import type { Run } from './runs'
import type { StationOn } from './station'

/** A turn of a sequencer: what energised it, and the output that then had power. */
export interface Turn {
  readonly run: Run<StationOn>
  readonly output: number
  /** It had too little time without power to step. */
  readonly isHeld: boolean
}

/** The turns that runs give a sequencer, which steps each time power returns after long enough without. */
export function turnsOf({ fedBy, off_ms, outputs }: Sequenced, runs: readonly Run<StationOn>[], next = 0): Turn[] {
  const turns: Turn[] = []
  let [output, off_s] = [next, -Infinity]
  for (const run of runs) {
    if (run.station.address !== null || !fedBy.includes(run.station.terminal)) continue
    const isHeld = (run.start_s - off_s) * 1000 < off_ms
    if (turns.length > 0 && !isHeld) output = (output + 1) % outputs.length
    turns.push({ run, output, isHeld })
    off_s = Math.max(off_s, run.end_s)
  }
  return turns
}

/** Outputs with a coil that have no turn on a date on which another has one, counted from 1. */
function missedOutputs({ outputs }: Sequenced, turns: readonly Turn[], clock: WallClock): number[] {
  const byDate = new Map<string, Set<number>>()
  for (const { run, output } of turns) {
    const { date } = shownAt(clock, run.start_s)
    byDate.set(date, (byDate.get(date) ?? new Set()).add(output))
  }
  return outputs.flatMap((coils, i) =>
    coils.length > 0 && [...byDate.values()].some((on) => !on.has(i)) ? [i + 1] : [],
  )
}

/** Sequencer rules: time without power between its runs, each output its own valve, none left out. */
export function sequencerFindings({ site, controller, ran, clock }: Judged): ScheduleFinding[] {
  const stations = entries(site.stations).filter(([, s]) => s.controller === controller && s.address === null)
  return sequencersOf(site, controller).flatMap((sequenced): ScheduleFinding[] => {
    const turns = turnsOf(sequenced, ran.runs)
    if (turns.length === 0) return []
    const called = { sequencer: deviceName(site, sequenced.device) }
    const valvesAt = (terminal: TerminalId) =>
      stations
        .flatMap(([, s]) => (s.terminal === terminal ? s.valves : []))
        .filter((v) => sequenced.outputs.flat().includes(v))
    const held = turns.find((t) => t.isHeld)
    // One screw run as often as there are valves has no valve of its own; jumpered screws have one each.
    const wrong = turns.find((t) => {
      const meant = valvesAt(t.run.station.terminal)
      return meant.length === 1 && !sequenced.outputs[t.output]!.includes(meant[0]!)
    })
    const missed = missedOutputs(sequenced, turns, clock)
    const at = (t: Turn) => localText(clock, t.run.start_s)
    const found: Omit<ScheduleFinding, 'about'>[] = []
    if (held) found.push({ code: 'sequencer_adjacent', params: { ...called, at: at(held), off_ms: sequenced.off_ms } })
    if (wrong) found.push({ code: 'sequencer_order', params: { ...called, at: at(wrong), output: wrong.output + 1 } })
    if (missed.length > 0) found.push({ code: 'sequencer_missed', params: { ...called, outputs: missed.join(', ') } })
    return found.map((f) => ({ ...f, about: { sequencer: sequenced.device } }))
  })
}
