import type { Procedure } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { sameJson } from '../../core/site'
import { fetchProcedures, type ServedProcedure } from './api'
import { db, plain } from './device-db'

/**
 * A procedure of the company’s own as this device has it: what the server keeps, and what was changed here and is not
 * with the server yet.
 */
export interface OwnProcedure {
  readonly id: string
  /** As the server has it; null where it has none. */
  readonly kept: Procedure | null
  /** The revision that `mine` was begun from; 0 of a new one. */
  readonly base: number
  /** As it was changed here. */
  readonly mine: Procedure | null
  /** A draft goes on being written; what is to be kept or removed is sent. */
  readonly wants: 'nothing' | 'draft' | 'keep' | 'remove'
  /** The server’s revision, where somebody else kept another since; 0 where they took it off. */
  readonly theirs: number | null
  readonly refusals: readonly Refusal[]
}

const asServed = ({ revision, procedure }: ServedProcedure): OwnProcedure => ({
  id: procedure.id,
  kept: procedure,
  base: revision,
  mine: null,
  wants: 'nothing',
  theirs: null,
  refusals: [],
})

/**
 * What this device has beside what the server has now. What was changed here stays; where the server’s has become
 * another since, the two stand side by side until somebody chooses.
 */
export function merged(here: readonly OwnProcedure[], served: readonly ServedProcedure[]): OwnProcedure[] {
  const there = new Map(served.map((s) => [s.procedure.id, s]))
  const changed = here.filter((own) => own.wants !== 'nothing')
  const untouched = served.filter((s) => !changed.some((own) => own.id === s.procedure.id)).map(asServed)
  const both = changed.flatMap((own): OwnProcedure[] => {
    const now = there.get(own.id)
    if (!now && own.wants === 'remove') return []
    // Kept there already: the answer was lost on its way.
    if (now && own.wants === 'keep' && sameJson(now.procedure, own.mine)) return [asServed(now)]
    const [kept, revision] = [now?.procedure ?? null, now?.revision ?? 0]
    return [{ ...own, kept, theirs: revision === own.base ? null : revision }]
  })
  return [...untouched, ...both].sort((a, b) => a.id.localeCompare(b.id))
}

/** What is followed in the garden: what was finished here, else what the server keeps; null where it is to go. */
export function standing({ kept, mine, wants, theirs }: OwnProcedure): Procedure | null {
  if (wants === 'remove') return null
  return wants === 'keep' && theirs === null ? mine : kept
}

/** Whether something of it has still to reach the server. */
export const isWaiting = ({ wants, theirs }: OwnProcedure): boolean =>
  theirs === null && (wants === 'keep' || wants === 'remove')

/** What this device has; nothing where it keeps nothing. */
export const proceduresHere = (): Promise<OwnProcedure[]> =>
  db().then(
    (d) => d.getAll('procedures'),
    () => [],
  )

/** Keeps one on the device, or lets it go; where it keeps nothing, the page still has it. */
export async function keepHere(id: string, now: OwnProcedure | null): Promise<void> {
  await db()
    .then((d) => (now ? d.put('procedures', plain(now)).then(() => undefined) : d.delete('procedures', id)))
    .catch(() => undefined)
}

/**
 * Brings what this device has up to what the server has now; null where nobody answered. `here` is asked once the
 * answer is there, so that what was written meanwhile is in it.
 */
export async function refreshed(
  here: () => readonly OwnProcedure[] | Promise<readonly OwnProcedure[]>,
  show: (now: readonly OwnProcedure[]) => void = () => undefined,
): Promise<readonly OwnProcedure[] | null> {
  const reply = await fetchProcedures()
  if (reply.kind !== 'ok') return null
  const before = await here()
  const now = merged(before, reply.value.procedures)
  show(now)
  const gone = before.filter(({ id }) => !now.some((o) => o.id === id))
  const other = now.filter((o) => !before.some((b) => sameJson(b, o)))
  await Promise.all([...gone.map(({ id }) => keepHere(id, null)), ...other.map((o) => keepHere(o.id, o))])
  return now
}
