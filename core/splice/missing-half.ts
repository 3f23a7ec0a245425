import { accepted, type Outcome } from '../refusal'
import {
  applyBatch,
  entries,
  getOrThrow,
  lookUp,
  stopIndex,
  terminalEnd,
  type Command,
  type ControllerId,
  type End,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../site'
import { endsAt, joinCommands, type EndHere } from './record'

type CoreEnd = Extract<End, { kind: 'core' }>

/** A conductor that nobody uses between a box and a cabinet: its end at either. */
export interface SpareHome {
  readonly controller: ControllerId
  readonly box: EndHere
  readonly cabinet: EndHere
}

const isFree = ({ splice, capped }: EndHere) => splice === null || capped
const coreOf = ({ seen }: EndHere): CoreEnd | null => (seen.end.kind === 'core' ? seen.end : null)

/**
 * Where the tone of a valve ends in a box on no mate, the half from there to the cabinet is missing: every spare that
 * could be it, free at both ends, in one piece between them and not known to be broken.
 */
export function sparesHome(site: Site, box: PlaceId): SpareHome[] {
  const here = endsAt(site, box).filter((e) => coreOf(e) && isFree(e))
  return entries(site.controllers).flatMap(([controller, { place }]) => {
    if (place === box) return []
    const there = endsAt(site, place).filter((e) => coreOf(e) && isFree(e))
    return here.flatMap((e): SpareHome[] => {
      const mate = there.find((o) => isOnePiece(site, coreOf(e)!, coreOf(o)!))
      return mate ? [{ controller, box: e, cabinet: mate }] : []
    })
  })
}

/** Whether two ends are those of one piece of one core that is whole. */
function isOnePiece(site: Site, a: CoreEnd, b: CoreEnd): boolean {
  if (a.cable !== b.cable || a.core !== b.core || a.side === b.side) return false
  const cable = getOrThrow(site.cables, a.cable)
  const core = lookUp(cable.cores, a.core)!
  const [first, last] = a.side === 'leaves' ? [a, b] : [b, a]
  const [from, to] = [stopIndex(cable, first.stop), stopIndex(cable, last.stop)]
  if (from >= to || core.condition.state === 'open') return false
  const between = cable.stops.slice(from, to)
  return between.every((s, i) => core.conditions[s.id]?.state !== 'open' && (i === 0 || !core.cutAt.includes(s.id)))
}

/** Conductors in a box that are joined to nobody: one of them leads to the valve. */
export const leadsWaiting = (site: Site, box: PlaceId): EndHere[] =>
  endsAt(site, box).filter((e) => isFree(e) && e.seen.end.kind !== 'terminal')

/** Joins the lead to the spare in the box, and lands the spare on a terminal: both ends in one change, or neither. */
export function missingHalfCommands(
  site: Site,
  box: PlaceId,
  lead: End,
  spare: SpareHome,
  terminal: TerminalId,
): Outcome<Command[]> {
  const joined = joinCommands(site, box, [lead, spare.box.seen.end], 'unknown')
  if (!joined.ok) return joined
  const applied = applyBatch(site, joined.value)
  if (!applied.ok) return applied
  const { place } = getOrThrow(site.controllers, spare.controller)
  const at = terminalEnd(spare.controller, terminal)
  const landed = joinCommands(applied.value.site, place, [at, spare.cabinet.seen.end], 'terminal')
  return landed.ok ? accepted([...joined.value, ...landed.value]) : landed
}
