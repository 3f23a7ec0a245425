import { entries, type ControllerId, type TerminalId } from '../site'
import { set, type Work } from './work'

/** Has the programs of a controller run one screw where they ran another. */
export function runInstead(work: Work, controller: ControllerId, from: TerminalId, to: TerminalId): void {
  for (const [id, { controller: of, runs }] of entries(work.site.programs)) {
    if (of !== controller || runs.every((r) => r.terminal !== from)) continue
    set(
      work,
      'programs',
      id,
      'runs',
      runs.map((r) => (r.terminal === from && r.address === null ? { ...r, terminal: to } : r)),
    )
  }
}
