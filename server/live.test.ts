import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { v7 } from 'uuid'
import { copyOf, shipped } from '../core/procedure'
import { SCHEMA_VERSION, type MessageBody, type News } from '../core/record'
import { listening, type Listening } from '../tests/listening'
import { DEFAULT_ACTOR } from './db/actor'
import { openDatabase } from './db/database'
import { Live } from './utils/live'

const BASE = process.env.BASE_URL!
const DEMO = readFileSync(join(__dirname, '../demo/quarry-lake.json'), 'utf8')
const JSON_TYPE = { 'content-type': 'application/json' }

const lines: Listening[] = []
const listen = async (property: string): Promise<Listening> => {
  const line = await listening(BASE, property)
  lines.push(line)
  return line
}
afterEach(() => {
  for (const line of lines.splice(0)) line.end()
})

const post = (path: string, body: string, method = 'POST') =>
  fetch(`${BASE}${path}`, { method, headers: JSON_TYPE, body })
async function copyOfDemo(name: string): Promise<string> {
  const reply = await post(`/api/properties?as=copy&name=${encodeURIComponent(name)}`, DEMO)
  return ((await reply.json()) as { id: string }).id
}
/** Sends messages together; the id of the last one. */
const send = async (property: string, ...bodies: MessageBody[]): Promise<string> => {
  const at = new Date().toISOString()
  const messages = bodies.map((body) => ({
    id: v7(),
    schema: SCHEMA_VERSION,
    property,
    author: 'Live',
    device: 'live',
    at,
    body,
  }))
  const reply = await post(`/api/properties/${property}/messages`, JSON.stringify({ messages }))
  expect(await reply.json()).toMatchObject({ replies: bodies.map(() => ({ status: 'accepted' })) })
  return messages.at(-1)!.id
}
const visit = (people: string[] = []): MessageBody => ({
  kind: 'visit',
  fact: { at: '2026-05-02T08:00:00Z', author: 'Live', people },
})
const JOB = {
  at: '2026-05-02T08:00:00Z',
  author: 'Live',
  kind: 'procedure',
  controller: 'A',
  title: '',
  ground_C: 12,
  coil_C: null,
  meter: { name: '', openMark: 'OL', accuracy_ratio: 0.01, offset_ohm: 0.2, leadZero_ohm: 0, highest_ohm: 2e7 },
}
const rename = (base: number): MessageBody => ({
  kind: 'batch',
  base,
  onTopOf: [],
  commands: [{ do: 'setAbout', field: 'contractor', value: 'Lantern Grounds' }],
})

test('what one writes is told to all who listen to that property, as it is certain, and to nobody else', async () => {
  const [mine, another] = [await copyOfDemo('Live one'), await copyOfDemo('Live other')]
  const [a, b, elsewhere] = [await listen(mine), await listen(mine), await listen(another)]
  const stands = a.heard.find((w) => w.kind === 'stands') as { revision: number; facts: number }
  const id = await send(mine, visit())
  for (const line of [a, b]) {
    const told = await line.until((w) => w.kind === 'facts')
    expect(told).toMatchObject({ facts: [{ kind: 'visit', id, fact: { author: 'Live' } }] })
  }
  const change = await send(mine, rename(stands.revision))
  expect(await b.until((w) => w.kind === 'revision')).toEqual({ kind: 'revision', revision: 1, by: change })
  // More than one notice carries comes in several; one fact that is too large for any is told of.
  const crew = Array.from({ length: 20 }, (_, i) => `${i} ${'ß'.repeat(70)}`)
  await send(mine, ...Array.from({ length: 6 }, () => visit(crew)))
  const heardOf = () => b.heard.flatMap((w) => (w.kind === 'facts' ? (w.facts as unknown[]) : [])).length
  await b.until(() => heardOf() === 7)
  const copy = copyOf(shipped('commission')!, 'our_large', 'Large')
  const own = { ...copy, steps: copy.steps.map((step) => ({ ...step, says: 'ß'.repeat(300) })) }
  const large = { ...JOB, visit: id, follows: { id: own.id, on: { kind: 'property' as const }, own } }
  await send(mine, { kind: 'job', fact: large as never })
  await b.until((w) => w.kind === 'large')
  const late = await listen(mine)
  expect(late.heard[0]).toMatchObject({ kind: 'stands', revision: 1, facts: stands.facts + 8 })
  expect(elsewhere.heard.filter((w) => w.kind !== 'stands')).toEqual([])
})

test('who is there is told, to whoever comes later too, until they leave; what is no presence is refused', async () => {
  const property = await copyOfDemo('Live here')
  const line = await listen(property)
  const who = { device: 'phone-1', name: 'Sam', doing: { tab: 'places.cores', job: null, box: null } }
  const here = (body: unknown) => post(`/api/properties/${property}/here`, JSON.stringify(body), 'PUT')
  expect((await here(who)).status).toBe(200)
  expect(await line.until((w) => w.kind === 'here')).toMatchObject({ who })
  const later = await listen(property)
  expect(await later.until((w) => w.kind === 'here')).toMatchObject({ who })
  expect((await here({ ...who, doing: null })).status).toBe(200)
  await later.until((w) => w.kind === 'here' && (w.who as { doing: unknown }).doing === null)
  const last = await listen(property)
  const wrong = await here({ ...who, doing: { tab: 'somewhere else' } })
  expect([wrong.status, await wrong.json()]).toMatchObject([400, { sentences: [expect.stringContaining('tab')] }])
  expect(last.heard.filter((w) => w.kind === 'here')).toEqual([])
  const live = (id: string, accept = 'text/event-stream') =>
    fetch(`${BASE}/api/properties/${id}/live`, { headers: { accept } })
  expect([(await live(v7())).status, (await live('x')).status, (await live(property, 'text/html')).status]).toEqual([
    404, 400, 406,
  ])
})

test('another process of the server hears the same by the database, and hears of a gap when its line to that was cut', async () => {
  const property = await copyOfDemo('Live beside')
  const beside = new Live(process.env.DATABASE_URL!)
  const heard: (News | null)[] = []
  const { leave } = await beside.listen(DEFAULT_ACTOR.company, property, (news) => heard.push(news))
  const id = await send(property, visit())
  const until = async (found: () => boolean) => {
    for (let i = 0; i < 100 && !found(); i++) await new Promise((resolve) => setTimeout(resolve, 50))
    expect(found()).toBe(true)
  }
  await until(() => heard.some((n) => n?.kind === 'facts' && n.facts[0]!.id === id))
  const db = openDatabase(process.env.DATABASE_URL!)
  await sql`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN %' AND pid <> pg_backend_pid()`.execute(
    db,
  )
  await until(() => heard.includes(null))
  const later = await send(property, visit())
  await until(() => heard.some((n) => n?.kind === 'facts' && n.facts[0]!.id === later))
  leave()
  await beside.end()
  await db.destroy()
})
