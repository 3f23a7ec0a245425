import type { Sequenced } from '../sequencer'
import type { TerminalId } from '../site'
import type { Program } from './program'
import type { StationOn } from './station'

type Runs = Program<StationOn>['runs']

/** The sequencer that a run energises, by its place in the list; -1 where none. */
const feeds = (sequencers: readonly Sequenced[], { terminal, address }: StationOn) =>
  address === null ? sequencers.findIndex((q) => q.fedBy.includes(terminal)) : -1

/**
 * Runs with another station between any two of one sequencer, so that it has time without power. Each sequencer’s runs
 * keep their order, and whatever need not move keeps its place.
 * @returns null where there are too few others to stand between
 */
export function keptApart(runs: Runs, sequencers: readonly Sequenced[]): Runs | null {
  const forward = spread(runs, sequencers)
  if (forward) return forward
  const backward = spread([...runs].reverse(), sequencers)
  return backward && [...backward].reverse()
}

function spread(runs: Runs, sequencers: readonly Sequenced[]): Runs | null {
  const left = [...runs]
  const done: Runs[number][] = []
  while (left.length > 0) {
    const last = done.at(-1)
    const before = last ? feeds(sequencers, last.station) : -1
    const next = left.findIndex((r) => before < 0 || feeds(sequencers, r.station) !== before)
    if (next < 0) return null
    done.push(...left.splice(next, 1))
  }
  return done
}

/**
 * Runs in which jumpered screws come in the order of their sequencer’s outputs: they change places among themselves.
 * @param outputOf the output whose valve a screw is meant to run; null where it has none of its own
 */
export function inOutputOrder(
  runs: Runs,
  sequenced: Sequenced,
  outputOf: (terminal: TerminalId) => number | null,
): Runs {
  const places = runs.flatMap((r, i) =>
    r.station.address === null && sequenced.fedBy.includes(r.station.terminal) ? [i] : [],
  )
  const sorted = places
    .map((i) => runs[i]!)
    .sort((a, b) => (outputOf(a.station.terminal) ?? 0) - (outputOf(b.station.terminal) ?? 0))
  return runs.map((run, i) => (places.includes(i) ? sorted[places.indexOf(i)]! : run))
}
