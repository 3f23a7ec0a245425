import type { Running } from './on-record'
import type { StationOn } from './station'

/** One start of a program as it runs, from its first station to the end of its last. */
export interface ProgramRun {
  readonly program: number
  readonly from_s: number
  readonly to_s: number
  readonly stations: readonly StationOn[]
}

/** The starts that run something, each as a whole. */
export function programRuns({ ran }: Running): ProgramRun[] {
  const byStart = new Map<number, Running['ran']['runs'][number][]>()
  for (const run of ran.runs) byStart.set(run.by, [...(byStart.get(run.by) ?? []), run])
  return [...byStart.values()].map((runs) => ({
    program: runs[0]!.program,
    from_s: runs[0]!.start_s,
    to_s: Math.max(...runs.map((r) => r.end_s)),
    stations: runs.map((r) => r.station),
  }))
}
