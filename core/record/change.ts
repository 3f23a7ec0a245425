import { accepted, refusal, refused, type Outcome } from '../refusal'
import { applyBatch, overlapping, undoCommands, type Applied, type Command, type Site, type Write } from '../site'

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

/**
 * Applies a batch to the site as it is now, though it may have been made on an older one. Refused only where a field it
 * writes has changed since its base, or where the result would break an invariant.
 * @param since the accepted batches after the base, oldest first
 * @param onTopOf ids of those among them that are the sender's own, on top of which this one was made
 */
export function rebase(
  now: Standing,
  base: number,
  commands: readonly Command[],
  since: readonly Accepted[],
  onTopOf: readonly string[] = [],
): Outcome<Applied> {
  if (base > now.revision) return refused(refusal('base_ahead', ['base']))
  const own = new Set(onTopOf)
  const theirs = since.filter((batch) => !own.has(batch.id)).flatMap((batch) => batch.writes)
  const intended = applyBatch(now.site, commands)
  if (!intended.ok) return intended
  const lost = overlapping([...intended.value.writes, ...addressesOf(commands)], theirs)
  return lost.length > 0 ? refused(...unique(lost).map((path) => refusal('conflict', path))) : intended
}

/** Takes a batch back: refused by name where anybody has changed one of its fields since. */
export function takeBack(now: Standing, batch: Accepted): Outcome<Applied & { readonly commands: readonly Command[] }> {
  const commands = undoCommands(now.site, batch.writes)
  if (!commands.ok) return commands
  const applied = applyBatch(now.site, commands.value)
  return applied.ok ? accepted({ ...applied.value, commands: commands.value }) : applied
}

/** Fields that a batch sets to what they are already count as written too: it was meant to be so. */
function addressesOf(commands: readonly Command[]): Write[] {
  return commands.map((c) => ({
    path:
      c.do === 'setAbout'
        ? ['about', c.field]
        : c.do === 'setSetting'
          ? ['settings', c.field]
          : c.do === 'set'
            ? [c.in, c.id, c.field]
            : [c.in, c.id],
    before: null,
    after: null,
  }))
}

const unique = (paths: readonly (readonly string[])[]) => [...new Map(paths.map((p) => [p.join('/'), p])).values()]
