import { accepted, refusal, refused, type Outcome } from '../refusal'
import { applyBatch, undoCommands, type Applied, type Command, type Site, type Write } from '../site'
import type { Footprint } from './changed-fields'

/** A batch that was accepted: the revision it made, and what it wrote. */
export interface Accepted {
  readonly id: string
  readonly revision: number
  readonly writes: readonly Write[]
}

/** A site at a revision. */
export interface Standing {
  readonly site: Site
  readonly revision: number
}

/** Whether an address was written by somebody else since the batch at hand was made. */
export type ChangedByOthers = (path: readonly string[]) => boolean

/**
 * Applies a batch to the site as it is now, though it may have been made on an older one. Refused only where a field it
 * writes has changed since its base, or where the result would break an invariant.
 */
export function rebase(
  now: Standing,
  base: number,
  commands: readonly Command[],
  changed: ChangedByOthers,
): Outcome<Applied> {
  if (base > now.revision) return refused(refusal('base_ahead', ['base']))
  // Fields that a batch sets to what they are already count as written too: it was meant to be so.
  const lost = commands.map(addressOf).filter(changed)
  if (lost.length > 0) return conflicts(lost)
  const intended = applyBatch(now.site, commands)
  if (!intended.ok) return intended
  const also = intended.value.writes.map((w) => w.path).filter(changed)
  return also.length > 0 ? conflicts(also) : intended
}

const conflicts = (paths: readonly (readonly string[])[]) =>
  refused(...[...new Map(paths.map((p) => [p.join('/'), p])).values()].map((path) => refusal('conflict', path)))

/** Takes a batch back: refused by name where anybody has changed one of its fields since. */
export function takeBack(now: Standing, batch: Accepted): Outcome<Applied & { readonly commands: readonly Command[] }> {
  const commands = undoCommands(now.site, batch.writes)
  if (!commands.ok) return commands
  const applied = applyBatch(now.site, commands.value)
  return applied.ok ? accepted({ ...applied.value, commands: commands.value }) : applied
}

/** The address that a command writes: a record, a field of it, or a field of what stands beside the collections. */
export function addressOf(command: Command): readonly string[] {
  switch (command.do) {
    case 'setAbout':
      return ['about', command.field]
    case 'setSetting':
      return ['settings', command.field]
    case 'set':
      return [command.in, command.id, command.field]
    default:
      return [command.in, command.id]
  }
}

/** A batch as others see it who may be in its way. */
export const footprintOf = ({ id, revision, writes }: Accepted): Footprint => ({
  id,
  revision,
  paths: writes.map((w) => w.path),
})
