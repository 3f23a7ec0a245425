import type { Transaction } from 'kysely'
import { message, rebase, SCHEMA_VERSION, takeBack, type Message, type Standing } from '../../core/record'
import { parseWith, refusal, refused, type Outcome, type Refusal } from '../../core/refusal'
import { lookUp, sameJson, type Command, type Site, type Write } from '../../core/site'
import type { Database } from '../db/database'
import {
  batchesSince,
  controllersVisited,
  findBatch,
  insertFact,
  lockSite,
  missingOwner,
  storeStep,
} from '../db/properties'
import type { Tables } from '../db/tables'
import { refusedBody } from './reply'

/** What became of one message. `missed` are the batches that its sender had not seen, where that was the obstacle. */
export type MessageReply =
  | {
      readonly id: string | null
      readonly status: 'accepted' | 'already'
      readonly revision?: number
      readonly writes?: readonly Write[]
    }
  | {
      readonly id: string | null
      readonly status: 'refused'
      readonly refusals: readonly Refusal[]
      readonly sentences: readonly string[]
      readonly missed?: readonly { id: string; revision: number; commands: readonly Command[] }[]
    }

type Within = Transaction<Tables>

/**
 * The one door for changes and facts: one message, one transaction, all or nothing. A message sent again is answered
 * `already` and changes nothing; an id used for something else is refused.
 */
export async function receive(db: Database, property: string, raw: unknown): Promise<MessageReply> {
  const version = typeof raw === 'object' && raw !== null && 'schema' in raw ? raw.schema : undefined
  const id =
    typeof raw === 'object' && raw !== null && 'id' in raw && typeof raw.id === 'string' ? raw.id.slice(0, 64) : null
  if (typeof version === 'number' && version > SCHEMA_VERSION) return no(id, refusal('newer_client', ['schema']))
  const parsed = parseWith(message, raw)
  if (!parsed.ok) return no(id, ...parsed.refusals)
  const m = parsed.value
  if (m.property.toLowerCase() !== property) return no(id, refusal('wrong_property', ['property']))
  return db.transaction().execute(async (tx): Promise<MessageReply> => {
    const now = await lockSite(tx, property)
    if (!now) return no(m.id, refusal('no_such_property'))
    return m.body.kind === 'batch' || m.body.kind === 'undo' ? change(tx, m, now) : fact(tx, m, now)
  })
}

const no = (id: string | null, ...refusals: Refusal[]): MessageReply => ({
  id,
  status: 'refused',
  ...refusedBody(refusals),
})

async function change(tx: Within, m: Message, now: Standing): Promise<MessageReply> {
  const before = await findBatch(tx, m.id)
  if (before)
    return sameChange(m, before)
      ? { id: m.id, status: 'already', revision: before.revision, writes: before.writes }
      : no(m.id, refusal('id_taken', ['id']))
  const base = m.body.kind === 'batch' ? m.body.base : now.revision
  const since = await batchesSince(tx, m.property, base)
  const result =
    m.body.kind === 'batch'
      ? withCommands(rebase(now, base, m.body.commands, since, m.body.onTopOf), m.body.commands)
      : await undone(tx, m, now)
  if (!result.ok) {
    const missed = since.map(({ id, revision, commands }) => ({ id, revision, commands }))
    return { ...no(m.id, ...result.refusals), missed } as MessageReply
  }
  const { site, writes, commands } = result.value
  const visited = (await controllersVisited(tx, m.property)).filter((id) => !lookUp(site.controllers, id))
  if (visited.length > 0) return no(m.id, ...visited.map((id) => refusal('has_visits', ['controllers', id])))
  const revision = now.revision + 1
  await storeStep(tx, site, {
    id: m.id,
    property: m.property,
    revision,
    authorName: m.author,
    device: m.device,
    at: m.at,
    commands,
    writes,
    undoes: m.body.kind === 'undo' ? m.body.undoes : null,
  })
  return { id: m.id, status: 'accepted', revision, writes }
}

type Changed = Outcome<{
  readonly site: Site
  readonly writes: readonly Write[]
  readonly commands: readonly Command[]
}>

const withCommands = (applied: ReturnType<typeof rebase>, commands: readonly Command[]): Changed =>
  applied.ok ? { ok: true, value: { ...applied.value, commands } } : applied

async function undone(tx: Within, m: Message, now: Standing): Promise<Changed> {
  const undoes = m.body.kind === 'undo' ? m.body.undoes : ''
  const step = await findBatch(tx, undoes)
  return step?.property === m.property ? takeBack(now, step) : refused(refusal('no_such_batch', ['body', 'undoes']))
}

function sameChange(
  m: Message,
  stored: { property: string; commands: readonly Command[]; undoes: string | null },
): boolean {
  if (stored.property !== m.property.toLowerCase()) return false
  return m.body.kind === 'undo'
    ? stored.undoes === m.body.undoes.toLowerCase()
    : m.body.kind === 'batch' && sameJson(stored.commands, m.body.commands)
}

async function fact(tx: Within, m: Message, now: Standing): Promise<MessageReply> {
  if (m.body.kind === 'batch' || m.body.kind === 'undo') throw new Error('fact: the message is a change')
  if (m.body.kind === 'visit' && !lookUp(now.site.controllers, m.body.fact.controller))
    return no(
      m.id,
      refusal('points_nowhere', ['body', 'fact', 'controller'], {
        id: m.body.fact.controller,
        collection: 'controllers',
      }),
    )
  if (m.body.kind === 'reading' && m.body.fact.revision > now.revision)
    return no(
      m.id,
      refusal('reading_ahead', ['body', 'fact', 'revision'], { revision: m.body.fact.revision, latest: now.revision }),
    )
  const missing = await missingOwner(tx, m.property, m.body.fact)
  if (missing !== null) return no(m.id, refusal('fact_points_nowhere', ['body', 'fact'], { id: missing }))
  const there = await insertFact(tx, m.property, m.id, m.body.kind, m.body.fact)
  if (there === null) return { id: m.id, status: 'accepted' }
  return sameJson(there, m.body.fact) ? { id: m.id, status: 'already' } : no(m.id, refusal('id_taken', ['id']))
}
