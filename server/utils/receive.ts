import {
  kindOf,
  message,
  ownerIdOf,
  rebase,
  SCHEMA_VERSION,
  takeBack,
  type AnyFact,
  type FactBody,
  type Message,
} from '../../core/record'
import { liftMessage } from '../../core/formats'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../../core/refusal'
import { lookUp, sameJson, type Command, type Site, type Write } from '../../core/site'
import { actingAs, type Actor, type Within } from '../db/actor'
import { changesSince } from '../db/changes'
import { isDatabaseDown, type Database } from '../db/database'
import { controllersWorkedOn, findFacts, findPropertyAndFacts, insertFacts } from '../db/facts'
import { findBatch, storeStep } from '../db/journal'
import { tell, tellFacts } from '../db/notices'
import { findProperty, holdChanged, presentSite } from '../db/sites'
import { refusedBody } from './reply'

/**
 * What became of one message. Only `accepted`, `already` and `refused` are answers to it; one that `failed` was neither
 * taken nor refused and may be sent again.
 */
export type MessageReply =
  | { readonly id: string | null; readonly status: 'accepted' | 'already'; readonly revision?: number }
  | { readonly id: string | null; readonly status: 'failed' }
  | {
      readonly id: string | null
      readonly status: 'refused'
      readonly refusals: readonly Refusal[]
      readonly sentences: readonly string[]
    }

type Answer = Outcome<{ readonly status: 'accepted' | 'already'; readonly revision?: number }>
type Change = Message & { readonly body: Exclude<Message['body'], FactBody> }
type Fact = Message & { readonly body: FactBody }

const isFact = (m: Message): m is Fact => m.body.kind !== 'batch' && m.body.kind !== 'undo'
const ACCEPTED: Answer = accepted({ status: 'accepted' })
const ALREADY: Answer = accepted({ status: 'already' })

/** A request is not worked on for longer; what it has not come to is sent again by whoever sent it. */
const LONGEST_ms = 2000
/** All refusals of a request together; a sentence more helps nobody. */
const MOST_REFUSALS = 1000

/**
 * The one door for changes and facts: messages in their order, each all or nothing, each with its own answer. A message
 * sent again is answered `already` and changes nothing; an id used for something else is refused. Facts that follow
 * each other are stored together.
 * @returns a reply for each of the first messages: where time is short, not for all
 */
export async function receiveAll(
  db: Database,
  actor: Actor,
  property: string,
  raws: readonly unknown[],
): Promise<MessageReply[]> {
  const deadline = Date.now() + LONGEST_ms
  const present = raws.some(isOfEarlierPage)
    ? await actingAs(db, actor, (within) => presentSite(within, property))
    : null
  const beside = { site: present?.ok ? present.value.site : null, isHunt: () => false }
  // What an earlier page sent as one may be several by now, all under its id.
  const lifted = raws.map((raw) => liftMessage(raw, beside))
  const parsed = lifted.flat().map((raw) => readMessage(property, raw))
  const answers: (Answer | null)[] = []
  while (answers.length < parsed.length && (answers.length === 0 || Date.now() < deadline)) {
    const next = parsed[answers.length]!
    if (!next.ok) answers.push(next)
    else if (isFact(next.value))
      answers.push(...(await takeFacts(db, actor, property, factsFrom(parsed, answers.length))))
    else answers.push(...(await orNull(() => takeChange(db, actor, property, next.value as Change))))
  }
  const most = Math.max(1, Math.floor(MOST_REFUSALS / raws.length))
  let next = 0
  return raws.flatMap((raw, i): MessageReply[] => {
    const own = answers.slice(next, (next += lifted[i]!.length))
    return own.length < lifted[i]!.length ? [] : [replyOf(raw, own, most)]
  })
}

/** The reply to a message: the first answer that is none or a refusal, else the last. */
function replyOf(raw: unknown, answers: readonly (Answer | null)[], most: number): MessageReply {
  const id = idOf(raw)
  const answer = answers.find((a) => !a?.ok) ?? answers.at(-1) ?? null
  if (answer === null) return { id, status: 'failed' }
  if (answer.ok) return { id, ...answer.value }
  return { id, status: 'refused', ...refusedBody(answer.refusals, most) }
}

const isOfEarlierPage = (raw: unknown) =>
  typeof raw === 'object' && raw !== null && 'schema' in raw && raw.schema !== SCHEMA_VERSION

/** A sender's own spelling of its id, to know the reply by. */
function idOf(raw: unknown): string | null {
  return typeof raw === 'object' && raw !== null && 'id' in raw && typeof raw.id === 'string'
    ? raw.id.slice(0, 64)
    : null
}

function readMessage(property: string, raw: unknown): Outcome<Message> {
  const version = typeof raw === 'object' && raw !== null && 'schema' in raw ? raw.schema : undefined
  if (typeof version === 'number' && version > SCHEMA_VERSION) return refused(refusal('newer_client', ['schema']))
  const parsed = parseWith(message, raw)
  if (!parsed.ok) return parsed
  return parsed.value.property === property
    ? (parsed as Outcome<Message>)
    : refused(refusal('wrong_property', ['property']))
}

/** The facts that follow each other from a place on. */
function factsFrom(parsed: readonly Outcome<Message>[], from: number): Fact[] {
  const facts: Fact[] = []
  for (let i = from; i < parsed.length; i++) {
    const next = parsed[i]!
    if (!next.ok || !isFact(next.value)) break
    facts.push(next.value)
  }
  return facts
}

/**
 * Facts together, and where that fails for no reason of the database's, one by one, so that one does not stop the
 * rest.
 */
async function takeFacts(db: Database, actor: Actor, property: string, facts: Fact[]): Promise<(Answer | null)[]> {
  const [together] = await orNull(() => actingAs(db, actor, (within) => storeFacts(within, property, facts)))
  if (together) return together
  const answers: (Answer | null)[] = []
  for (const fact of facts)
    answers.push(...(await orNull(async () => (await actingAs(db, actor, (w) => storeFacts(w, property, [fact])))[0]!)))
  return answers
}

/** The result, or null where something unforeseen stood in the way; a database that is away is told to the caller. */
async function orNull<T>(work: () => Promise<T>): Promise<[T | null]> {
  try {
    return [await work()]
  } catch (error) {
    if (isDatabaseDown(error)) throw error
    console.error(error)
    return [null]
  }
}

async function storeFacts(within: Within, property: string, messages: readonly Fact[]): Promise<Answer[]> {
  const needsSite = messages.some((m) => kindOf(m.body.kind).needsSite)
  const present = needsSite ? await presentSite(within, property, 'share') : null
  if (present && !present.ok) return messages.map(() => present)
  const owners = messages.flatMap(({ body }) => {
    const { owner } = kindOf(body.kind)
    return owner ? [{ kind: owner.kind, id: ownerIdOf(body.kind, body.fact)! }] : []
  })
  const own = messages.map(({ id, body }) => ({ kind: body.kind, id }))
  const known = await findPropertyAndFacts(within, property, [...own, ...owners])
  if (!known) return messages.map(() => refused(refusal('no_such_property')))
  const { found, revision } = known
  const site = present?.value.site ?? null
  const context = { revision, hasController: (id: string) => lookUp(site!.controllers, id) !== undefined }
  const fresh: { readonly at: number; readonly kind: FactBody['kind']; readonly id: string; readonly fact: AnyFact }[] =
    []
  const answers = messages.map(({ id, body }, at): Answer => {
    const there = found.get(body.kind, id)
    if (there) return sameFact(there, body.fact)
    const { owner, misfit } = kindOf(body.kind)
    const wrong = misfit(body.fact, context)
    if (wrong) return refused({ ...wrong, path: ['body', 'fact', ...wrong.path] })
    const ownerId = ownerIdOf(body.kind, body.fact)
    if (owner && !found.get(owner.kind, ownerId!))
      return refused(refusal('fact_points_nowhere', ['body', 'fact'], { id: ownerId! }))
    found.add(body.kind, id, body.fact)
    fresh.push({ at, kind: body.kind, id, fact: body.fact })
    return ACCEPTED
  })
  if (fresh.length === 0) return answers
  const isNew = await insertFacts(within, property, fresh)
  const raced = fresh.filter((f) => !isNew(f.kind, f.id))
  const mine = fresh.flatMap(({ kind, id, fact }) => (isNew(kind, id) ? [{ kind, id, fact }] : []))
  if (mine.length > 0) await tellFacts(within, property, mine)
  const theirs = await findFacts(within, property, raced)
  for (const { at, kind, id, fact } of raced) answers[at] = sameFact(theirs.get(kind, id)!, fact)
  return answers
}

const sameFact = (there: AnyFact, sent: AnyFact): Answer =>
  sameJson(there, sent) ? ALREADY : refused(refusal('id_taken', ['id']))

/** Takes a change in; what it made is kept at hand once it is certain to stand. */
async function takeChange(db: Database, actor: Actor, property: string, m: Change): Promise<Answer> {
  let keep = () => {}
  const answer = await actingAs(db, actor, async (within): Promise<Answer> => {
    const row = await findProperty(within, property, 'update')
    if (!row) return refused(refusal('no_such_property'))
    const before = await findBatch(within, property, m.id)
    if (before)
      return sameChange(m, before)
        ? accepted({ status: 'already', revision: before.revision })
        : refused(refusal('id_taken', ['id']))
    const present = await presentSite(within, property)
    if (!present?.ok) return present ?? refused(refusal('no_such_property'))
    const now = present.value
    const changed = await changedSite(within, m, now)
    if (!changed.ok) return changed
    const { site, writes, commands } = changed.value
    const worked = (await controllersWorkedOn(within, property)).filter((id) => !lookUp(site.controllers, id))
    if (worked.length > 0) return refused(...worked.map((id) => refusal('has_visits', ['controllers', id])))
    const revision = now.revision + 1
    const bytes = await storeStep(within, site, {
      id: m.id,
      property,
      revision,
      authorName: m.author,
      device: m.device,
      at: m.at,
      commands,
      writes,
      undoes: m.body.kind === 'undo' ? m.body.undoes : null,
    })
    await tell(within, property, { kind: 'revision', revision, by: m.id })
    keep = () => holdChanged(within, property, site, revision, bytes)
    return accepted({ status: 'accepted', revision })
  })
  keep()
  return answer
}

type Changed = Outcome<{
  readonly site: Site
  readonly writes: readonly Write[]
  readonly commands: readonly Command[]
}>

async function changedSite(within: Within, m: Change, now: { site: Site; revision: number }): Promise<Changed> {
  if (m.body.kind === 'undo') {
    const step = await findBatch(within, m.property, m.body.undoes)
    return step ? takeBack(now, step) : refused(refusal('no_such_batch', ['body', 'undoes']))
  }
  const { base, commands, onTopOf } = m.body
  const changes = await changesSince(within, m.property, base, now.revision)
  if (!changes) return refused(refusal('too_far_behind', ['base'], { base, latest: now.revision }))
  const own = new Set(onTopOf)
  const applied = rebase(now, base, commands, (path) => changes.since(path, base, own))
  return applied.ok ? accepted({ ...applied.value, commands }) : applied
}

function sameChange(m: Change, stored: { commands: readonly Command[]; undoes: string | null }): boolean {
  return m.body.kind === 'undo'
    ? stored.undoes === m.body.undoes
    : stored.undoes === null && sameJson(stored.commands, m.body.commands)
}
