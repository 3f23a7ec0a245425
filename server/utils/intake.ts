import { contextOf, readHead, readParts } from '../../core/formats'
import { accepted, refusal, refused, type Outcome } from '../../core/refusal'
import { actingAs, type Actor } from '../db/actor'
import type { Database } from '../db/database'
import { beginProperty, storeParts } from '../db/intake'
import { storePicture } from '../db/pictures'
import type { Spooled } from './spool'

/** How far a file has been taken in, by the token its sender chose. */
export interface Progress {
  readonly done: number
  readonly of: number
}
const underWay = new Map<string, Progress>()
export const progressOf = (token: string): Progress | null => underWay.get(token) ?? null

/** How a file is to be taken in: as itself, or under an id and a name of its own. */
export interface Wanted {
  readonly copy: { readonly id: string; readonly name: string | null } | null
  readonly token: string | null
  /** Whoever sent it has gone away. */
  readonly isGone: () => boolean
}

/** Ends an intake that nobody waits for any more; nothing of it is kept. */
class Abandoned extends Error {}
/** Takes back what was begun of a file that is refused. */
class Refusing extends Error {
  constructor(readonly outcome: Outcome<never>) {
    super('refused')
  }
}

/** Takes a property file in, whole with its pictures or not at all. @returns the id it is under */
export async function takeIn(db: Database, actor: Actor, file: Spooled, wanted: Wanted): Promise<Outcome<string>> {
  const head = await readHead(watched(file, wanted, 0))
  if (!head.ok) return head
  const { copy } = wanted
  const site = copy?.name
    ? { ...head.value.site, about: { ...head.value.site.about, name: copy.name } }
    : head.value.site
  const property = { ...head.value, site, id: copy?.id ?? head.value.id }
  try {
    return await actingAs(db, actor, async (within) => {
      if (!(await beginProperty(within, property)))
        throw new Refusing(refused(refusal('already_here', ['id'], { id: property.id, name: site.about.name })))
      const parts = readParts(watched(file, wanted, file.bytes), property, contextOf(site, property.revision))
      const stored = await storeParts(within, property, parts)
      if (!stored.ok) throw new Refusing(stored)
      for (const sha256 of file.pictures) {
        const picture = await file.readPicture(sha256)
        if (!picture.ok) throw new Refusing(picture)
        const kept = await storePicture(within, property.id, sha256, picture.value)
        if (kept !== 'kept') throw new Refusing(refused(refusal(kept, ['pictures', sha256])))
      }
      return accepted(property.id)
    })
  } catch (error) {
    if (error instanceof Refusing) return error.outcome
    if (error instanceof Abandoned) return refused(refusal('abandoned'))
    throw error
  } finally {
    if (wanted.token !== null) underWay.delete(wanted.token)
  }
}

/** The file's bytes, with what has been read of them counted and other requests let through between. */
async function* watched(file: Spooled, { token, isGone }: Wanted, before: number): AsyncGenerator<Uint8Array> {
  let done = before
  for await (const chunk of file.read()) {
    if (isGone()) throw new Abandoned()
    yield chunk
    done += chunk.length
    if (token !== null) underWay.set(token, { done, of: 2 * file.bytes })
    await new Promise(setImmediate)
  }
}
