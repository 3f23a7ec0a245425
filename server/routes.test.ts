import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { sql } from 'kysely'
import { v7 } from 'uuid'
import { WebSocket } from 'ws'
import { readProperty, type Property } from '../core/formats'
import { copyOf, shipped } from '../core/procedure'
import { SCHEMA_VERSION, type MessageBody } from '../core/record'
import { looseCommand, type Command } from '../core/site'
import { actingAs, DEFAULT_ACTOR, type Actor } from './db/actor'
import { openDatabase } from './db/database'
import { storeProperty } from './db/intake'
import { ownProcedures, type OwnProcedure } from './db/procedures'

const BASE = process.env.BASE_URL!
const DEMO = readFileSync(join(__dirname, '../demo/quarry-lake.json'), 'utf8')
const JSON_TYPE = { 'content-type': 'application/json' }

const post = (path: string, body: string, headers: Record<string, string> = JSON_TYPE) =>
  fetch(`${BASE}${path}`, { method: 'POST', headers, body })
const messageFor = (property: string, body: MessageBody, id = v7()) => ({
  id,
  schema: SCHEMA_VERSION,
  property,
  author: 'Route test',
  device: 'jest',
  at: new Date().toISOString(),
  body,
})
interface Replies {
  replies: {
    status: string
    revision?: number
    refusals?: { code: string; path: string[] }[]
    sentences?: string[]
  }[]
}
/** Sends messages as the outbox does: what the server had no time for is sent again. */
async function send(property: string, ...messages: unknown[]): Promise<{ status: number } & Replies> {
  const replies: Replies['replies'] = []
  for (;;) {
    const rest = JSON.stringify({ messages: messages.slice(replies.length) })
    const reply = await post(`/api/properties/${property}/messages`, rest)
    const body = (await reply.json()) as Replies
    replies.push(...(body.replies ?? []))
    if (!body.replies || replies.length >= messages.length) return { ...body, status: reply.status, replies }
  }
}
const batch = (base: number, ...commands: Command[]): MessageBody => ({ kind: 'batch', base, onTopOf: [], commands })
const rename = (id: string, value: string): Command => ({ do: 'set', in: 'stations', id, field: 'name', value })
async function freshCopy(): Promise<string> {
  const reply = await post('/api/properties?as=copy&name=Route%20test', DEMO)
  expect(reply.status).toBe(201)
  return ((await reply.json()) as { id: string }).id
}
const fileOf = async (id: string) => (await fetch(`${BASE}/api/properties/${id}/file`)).text()
const read = (text: string): Property => {
  const outcome = readProperty(text)
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}
const visitFact = { at: '2026-05-02T08:00:00Z', author: 'Route test', people: [] } as never
const jobFact = {
  at: '2026-05-02T08:00:00Z',
  author: 'Route test',
  kind: 'sweep',
  controller: 'A',
  title: 'Check',
  ground_C: 12,
  coil_C: null,
  meter: { name: '', openMark: 'OL', accuracy_ratio: 0.01, offset_ohm: 0.2, leadZero_ohm: 0, highest_ohm: 2e7 },
} as never
/** A visit and a job in it, as messages. */
const begun = (property: string) => {
  const visit = messageFor(property, { kind: 'visit', fact: visitFact })
  const job = messageFor(property, { kind: 'job', fact: { ...(jobFact as object), visit: visit.id } as never })
  return { visit, job }
}
const readingFact = (job: string, ohm: number) =>
  ({
    job,
    at: '2026-05-02T08:05:00Z',
    author: 'Route test',
    revision: 0,
    off: 'all_leads',
    ground_C: 12,
    meter: (jobFact as { meter: object }).meter,
    value: { kind: 'ohm', ohm },
    test: {
      kind: 'ohms',
      from: { kind: 'terminal', controller: 'A', terminal: '1' },
      to: { kind: 'terminal', controller: 'A', terminal: 'C' },
    },
  }) as never

test('a file goes in and comes out byte for byte; the same property again is refused, as a copy it is taken', async () => {
  const id = await freshCopy()
  const out = await fileOf(id)
  expect(await fileOf(id)).toBe(out)
  const copied = read(out)
  const original = read(DEMO)
  expect(copied.facts).toEqual(original.facts)
  expect(copied.site).toEqual({ ...original.site, about: { ...original.site.about, name: 'Route test' } })
  const again = await post('/api/properties', DEMO)
  expect(again.status).toBe(409)
  expect(await again.json()).toMatchObject({ refusals: [{ code: 'already_here' }] })
  const list = (await (await fetch(`${BASE}/api/properties?find=route%20test`)).json()) as {
    properties: { id: string; visits: number }[]
  }
  expect(list.properties.find((p) => p.id === id)).toMatchObject({
    visits: Object.keys(original.facts.visits).length,
    stations: Object.keys(original.site.stations).length,
  })
})

test('what an older page or file says still counts: a file of version 1, and a message of its schema from a queue that waited', async () => {
  const kept = JSON.parse(readFileSync(join(__dirname, '../tests/kept/property-v1.json'), 'utf8')) as Record<
    string,
    unknown
  >
  const id = v7()
  expect((await post('/api/properties', JSON.stringify({ ...kept, id }))).status).toBe(201)
  expect(JSON.parse(await fileOf(id))).toMatchObject({
    version: SCHEMA_VERSION,
    site: { settings: { sizing: { school: 'coil_minimum' }, material: { slackPerEnd_m: 1.5 } } },
  })
  const waited = {
    ...messageFor(id, batch(0, { do: 'setAbout', field: 'contractor', value: 'Waited long' })),
    schema: 1,
  }
  expect(await send(id, waited)).toMatchObject({ status: 200, replies: [{ status: 'accepted', revision: 1 }] })
  const newer = {
    ...messageFor(id, batch(1, { do: 'setAbout', field: 'contractor', value: 'Too new' })),
    schema: SCHEMA_VERSION + 1,
  }
  expect(await send(id, newer)).toMatchObject({
    replies: [{ status: 'refused', refusals: [{ code: 'newer_client' }] }],
  })
  expect(read(await fileOf(id)).site.about.contractor).toBe('Waited long')
})

test('settings of sizing and material are refused whole where one figure is wrong, and nothing of them is written', async () => {
  const id = await freshCopy()
  const { sizing, material } = read(await fileOf(id)).site.settings
  for (const [field, value] of [
    ['sizing', { ...sizing, together: 9 }],
    ['sizing', { ...sizing, school: 'guess' }],
    ['material', { ...material, stock: [{ gauge: { awg: 14 }, cents_per_m: -1 }] }],
    ['material', { ...material, spools_m: [0] }],
  ] as const)
    expect(await send(id, messageFor(id, batch(0, looseCommand({ do: 'setSetting', field, value }))))).toMatchObject({
      replies: [{ status: 'refused' }],
    })
  expect(read(await fileOf(id)).site.settings).toMatchObject({ sizing, material })
  expect(
    await send(id, messageFor(id, batch(0, { do: 'setSetting', field: 'sizing', value: { ...sizing, together: 2 } }))),
  ).toMatchObject({ replies: [{ status: 'accepted' }] })
})

test('a batch is taken once however often it is sent, journalled, and taken back by an undo', async () => {
  const id = await freshCopy()
  const before = await fileOf(id)
  const change = messageFor(id, batch(0, rename('A-1', 'Rose bed')))
  expect(await send(id, change)).toMatchObject({ status: 200, replies: [{ status: 'accepted', revision: 1 }] })
  expect(await send(id, change, change)).toMatchObject({ replies: [{ status: 'already' }, { status: 'already' }] })
  expect(await send(id, messageFor(id, { kind: 'undo', undoes: change.id }))).toMatchObject({
    replies: [{ status: 'accepted', revision: 2 }],
  })
  expect(read(await fileOf(id)).site).toEqual(read(before).site)
  expect((await send(id, { ...change, body: batch(0, rename('A-2', 'Other')) })).replies[0]).toMatchObject({
    status: 'refused',
    refusals: [{ code: 'id_taken' }],
  })
})

test('two people: other fields pass, the same field is refused by name, what was missed can be had, half a batch is never written', async () => {
  const id = await freshCopy()
  await send(id, messageFor(id, batch(0, rename('A-1', 'Rose bed'))))
  expect((await send(id, messageFor(id, batch(0, rename('A-2', 'Herb bed'))))).replies[0]).toMatchObject({
    status: 'accepted',
    revision: 2,
  })
  const clash = await send(id, messageFor(id, batch(0, rename('A-3', 'Should not be'), rename('A-1', 'Mine'))))
  expect(clash.status).toBe(409)
  expect(clash.replies[0]!.refusals).toEqual([
    expect.objectContaining({ code: 'conflict', path: ['stations', 'A-1', 'name'] }),
  ])
  const missed = (await (await fetch(`${BASE}/api/properties/${id}/steps?after=0`)).json()) as {
    steps: { revision: number; commands: Command[] }[]
  }
  expect(missed.steps.map((s) => [s.revision, s.commands])).toEqual([
    [1, [rename('A-1', 'Rose bed')]],
    [2, [rename('A-2', 'Herb bed')]],
  ])
  expect(clash.replies[0]!.sentences![0]).toContain('Station A-1, name')
  const { site } = read(await fileOf(id))
  expect(
    [site.stations['A-1' as never], site.stations['A-3' as never]].map((s) => (s as { name: string }).name),
  ).toEqual(['Rose bed', 'Gate hedge'])
})

test('any past revision can be had, across snapshots, and no other', async () => {
  const id = await freshCopy()
  for (let from = 0; from < 120; from += 40)
    await send(
      id,
      ...Array.from({ length: 40 }, (_, i) => messageFor(id, batch(from + i, rename('A-1', `Bed ${from + i + 1}`)))),
    )
  const nameAt = async (revision: number) => {
    let reply = await fetch(`${BASE}/api/properties/${id}/revisions/${revision}`)
    // A busy machine may have no connection to spare for seven at once: it says so, and is asked again.
    for (let again = 0; reply.status === 503 && again < 20; again++) {
      await new Promise((done) => setTimeout(done, 500))
      reply = await fetch(`${BASE}/api/properties/${id}/revisions/${revision}`)
    }
    return reply.status === 200
      ? (((await reply.json()) as { site: Property['site'] }).site.stations['A-1' as never]!['name'] as string)
      : reply.status
  }
  expect(await Promise.all([0, 1, 49, 50, 51, 120, 121].map(nameAt))).toEqual([
    'Entrance bed',
    'Bed 1',
    'Bed 49',
    'Bed 50',
    'Bed 51',
    'Bed 120',
    404,
  ])
  expect((await fetch(`${BASE}/api/properties/${id}/revisions/first`)).status).toBe(400)
  const older = async (before: string) => {
    const reply = await fetch(`${BASE}/api/properties/${id}/steps?before=${before}`)
    return reply.status === 200
      ? ((await reply.json()) as { steps: { revision: number }[] }).steps.map((s) => s.revision)
      : reply.status
  }
  expect(await older('71')).toEqual(Array.from({ length: 50 }, (_, i) => 70 - i))
  expect([await older('1'), await older('now')]).toEqual([[], 400])
}, 300_000)

test('a queue made without an answer between goes in as it was made', async () => {
  const id = await freshCopy()
  const first = messageFor(id, batch(0, rename('A-1', 'One')))
  const second = messageFor(id, { ...batch(0, rename('A-1', 'Two')), onTopOf: [first.id] } as MessageBody)
  expect((await send(id, first, second)).replies.map((r) => r.status)).toEqual(['accepted', 'accepted'])
  expect((await send(id, messageFor(id, batch(0, rename('A-1', 'Three'))))).replies[0]!.status).toBe('refused')
})

test('many at once on one property: every batch gets its own revision, none is lost', async () => {
  const id = await freshCopy()
  const sent = await Promise.all(
    Array.from({ length: 18 }, (_, i) => send(id, messageFor(id, batch(0, rename(`A-${i + 1}`, `Bed ${i}`))))),
  )
  expect(sent.map((s) => s.replies[0]!.revision).sort((a, b) => a! - b!)).toEqual(
    Array.from({ length: 18 }, (_, i) => i + 1),
  )
  expect(
    Object.values(read(await fileOf(id)).site.stations)
      .map((s) => s.name)
      .filter((n) => n.startsWith('Bed ')),
  ).toHaveLength(18)
})

test('facts: a visit before its job before its readings, twice counts once, and a reading of no job is refused', async () => {
  const id = await freshCopy()
  const { visit, job } = begun(id)
  const reading = messageFor(id, { kind: 'reading', fact: readingFact(job.id, 34.4) })
  expect((await send(id, reading)).replies[0]).toMatchObject({
    status: 'refused',
    refusals: [{ code: 'fact_points_nowhere' }],
  })
  expect((await send(id, visit, job, reading, reading)).replies.map((r) => r.status)).toEqual([
    'accepted',
    'accepted',
    'accepted',
    'already',
  ])
  const astray = [
    messageFor(id, { kind: 'job', fact: { ...(jobFact as object), visit: visit.id, controller: 'Q' } as never }),
    messageFor(id, { kind: 'reading', fact: { ...(readingFact(job.id, 1) as object), revision: 7 } as never }),
  ]
  expect((await send(id, ...astray)).replies.map((r) => r.refusals![0]!.code)).toEqual([
    'points_nowhere',
    'reading_ahead',
  ])
  const { site } = read(await fileOf(id))
  const stations = Object.keys(site.stations).map((s): Command => ({ do: 'remove', in: 'stations', id: s }))
  const programs = Object.keys(site.programs).map((p): Command => ({ do: 'remove', in: 'programs', id: p }))
  const splices = Object.entries(site.splices)
    .filter(([, s]) => s.connector === 'terminal')
    .map(([s]): Command => ({ do: 'remove', in: 'splices', id: s }))
  const gone = batch(
    0,
    ...stations,
    ...programs,
    ...splices,
    { do: 'remove', in: 'pointsOfConnection', id: 'lake' },
    { do: 'remove', in: 'controllers', id: 'A' },
  )
  expect((await send(id, messageFor(id, gone))).replies[0]!.refusals).toMatchObject([{ code: 'has_visits' }])
  const { facts } = read(await fileOf(id))
  expect(facts.readings[reading.id]!.value).toEqual({ kind: 'ohm', ohm: 34.4 })
})

test('the doors: content type, size, JSON, addresses, hosts and origins each have their refusal', async () => {
  const statusOf = async (reply: Promise<Response>) => {
    const r = await reply
    return [r.status, ((await r.json()) as { sentences: string[] }).sentences[0]!.length > 20]
  }
  expect(await statusOf(post('/api/properties', DEMO, { 'content-type': 'text/plain' }))).toEqual([415, true])
  expect(await statusOf(post(`/api/properties/${v7()}/messages`, `"${'x'.repeat(5_100_000)}"`))).toEqual([413, true])
  expect(await statusOf(post('/api/properties', DEMO.slice(0, 5000)))).toEqual([422, true])
  expect(await statusOf(post('/api/properties?as=elephant', DEMO))).toEqual([400, true])
  const packed = await fetch(`${BASE}/api/properties/${read(DEMO).id}`)
  expect([
    packed.headers.get('content-encoding'),
    packed.headers.get('cache-control'),
    ((await packed.json()) as { revision: number }).revision,
  ]).toEqual(['gzip', 'no-store', 0])
  const plain = await fetch(`${BASE}/api/properties/${read(DEMO).id}/file`, {
    headers: { 'accept-encoding': 'identity' },
  })
  expect([plain.headers.get('content-encoding'), await plain.text()]).toEqual([null, DEMO])
  expect(await statusOf(fetch(`${BASE}/api/properties/nobody`))).toEqual([400, true])
  expect(await statusOf(fetch(`${BASE}/api/properties/${v7()}`))).toEqual([404, true])
  expect(await statusOf(fetch(`${BASE}/api/no-such-thing`))).toEqual([404, true])
  expect(await statusOf(post('/api/properties', DEMO, { ...JSON_TYPE, origin: 'http://elsewhere.example' }))).toEqual([
    403,
    true,
  ])
  const hostStatus = await new Promise((done) => {
    const { port } = new URL(BASE)
    request({ host: '127.0.0.1', port, path: '/api/properties', headers: { host: `rebound.example:${port}` } }, (r) => {
      r.resume()
      done(r.statusCode)
    }).end()
  })
  expect(hostStatus).toBe(403)
})

/** Values that do not belong where they are put. */
const junk = fc.constantFrom<unknown>(
  null,
  true,
  -1,
  1e300,
  0.5,
  '',
  'x',
  '__proto__',
  'Ω\u0000',
  '\ud800',
  [],
  {},
  [[]],
  { constructor: 1 },
  'a'.repeat(400),
)
function mutated(value: unknown, steps: readonly number[], put: unknown): unknown {
  if (typeof value !== 'object' || value === null || steps.length === 0) return put
  const keys = Object.keys(value)
  const key = keys[steps[0]! % Math.max(1, keys.length)]
  if (key === undefined) return put
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...value }) as Record<string, unknown>
  if (put === undefined && steps.length === 1) delete copy[key]
  else copy[key] = mutated(copy[key], steps.slice(1), put)
  return copy
}
const damage = fc.record({
  steps: fc.array(fc.nat(40), { minLength: 1, maxLength: 7 }),
  put: fc.oneof({ weight: 3, arbitrary: junk }, fc.constant(undefined)),
})

test('what a page of an earlier version kept is taken in: its visit is a visit and a job, its finding names ids', async () => {
  const id = await freshCopy()
  const { at, author, ...rest } = jobFact as unknown as { at: string; author: string }
  const { kind: _kind, ...old } = rest as { kind?: string }
  const earlier = (body: object) => ({ ...messageFor(id, body as never), schema: 4 })
  const visit = earlier({ kind: 'visit', fact: { at, author, ...old } })
  const { job: _job, ...reading } = readingFact('', 34) as unknown as Record<string, unknown>
  const finding = { visit: visit.id, at, author, part: 'run K1 white 0 1', says: 'x', belief: null, how: '' }
  const sent = [
    visit,
    earlier({ kind: 'reading', fact: { ...reading, visit: visit.id } }),
    earlier({ kind: 'finding', fact: finding }),
    earlier({ kind: 'finding', fact: { ...finding, part: 'run K1 white 98 99' } }),
  ] as never[]
  expect((await send(id, ...sent)).replies.map((r) => r.status)).toEqual(Array(4).fill('accepted'))
  expect((await send(id, ...sent)).replies.map((r) => r.status)).toEqual(Array(4).fill('already'))
  const { facts, site } = read(await fileOf(id))
  expect(facts.jobs[visit.id]).toEqual({ ...(jobFact as object), visit: visit.id })
  expect(Object.values(facts.readings).filter((r) => r.job === visit.id)).toHaveLength(1)
  const [from, to] = site.cables['K1' as never]!.stops.map((s) => s.id)
  expect(Object.values(facts.findings).map((f) => f.where)).toEqual([
    { kind: 'run', cable: 'K1', core: 'white', from, to },
    null,
  ])
})

test('broken files and bodies by the hundred: never a 5xx, never half written, always a sentence', async () => {
  const id = await freshCopy()
  const { revision } = read(await fileOf(id))
  const before = await fileOf(id)
  const file = JSON.parse(DEMO) as unknown
  const { visit, job } = begun(id)
  const whole = {
    messages: [
      messageFor(id, batch(revision, rename('A-1', 'Never'))),
      visit,
      job,
      messageFor(id, { kind: 'reading', fact: readingFact(job.id, 3) }),
    ],
  }
  const wrong: string[] = []
  await fc.assert(
    fc.asyncProperty(damage, fc.boolean(), async ({ steps, put }, asFile) => {
      if (asFile) {
        const reply = await post('/api/properties', JSON.stringify(mutated(file, steps, put)))
        const body = (await reply.json()) as { sentences?: string[] }
        if (
          reply.status >= 500 ||
          (reply.status !== 201 && !body.sentences?.every((s) => s.length > 15 && !s.startsWith('refusal.')))
        )
          wrong.push(`${reply.status} ${JSON.stringify([steps, put])}`)
      } else {
        const reply = await post(`/api/properties/${id}/messages`, JSON.stringify(mutated(whole, steps, put)))
        if (reply.status >= 500) wrong.push(`${reply.status} ${JSON.stringify([steps, put])}`)
      }
    }),
    { seed: 5, numRuns: 300 },
  )
  expect(wrong).toEqual([])
  // Messages of a damaged body that were themselves whole may have been taken; the site they left is whole either way.
  expect(read(await fileOf(id)).site.about).toEqual(read(before).site.about)
}, 600_000)

test('the database killed: 503 with a sentence, and everything acknowledged is there when it is back', async () => {
  const id = await freshCopy()
  const { visit, job } = begun(id)
  const acknowledged: string[] = []
  const notes = JSON.parse(readFileSync(process.env.RUNNING_NOTES!, 'utf8')) as { database: number }
  await send(id, visit, job)
  let [sawDown, killed] = [false, false]
  for (let i = 0; i < 400 && !(sawDown && acknowledged.length > 60); i++) {
    const message = messageFor(id, { kind: 'reading', fact: readingFact(job.id, i) })
    if (acknowledged.length > 20 && !killed) {
      process.kill(notes.database, 'SIGKILL')
      killed = true
    }
    const reply = await post(`/api/properties/${id}/messages`, JSON.stringify({ messages: [message] }))
    const body = (await reply.json()) as Partial<Replies> & { sentences?: string[] }
    if (reply.status === 200 && body.replies![0]!.status === 'accepted') acknowledged.push(message.id)
    else {
      expect([reply.status, JSON.stringify(body).includes('cannot be reached')]).toEqual([503, true])
      sawDown = true
      await new Promise((done) => setTimeout(done, 200))
    }
  }
  expect(sawDown).toBe(true)
  const { facts } = read(await fileOf(id))
  expect(acknowledged.filter((a) => !facts.readings[a])).toEqual([])
}, 300_000)

test('pictures: kept once under the SHA-256 of their bytes, whatever they are called; anything else is refused; they ride in the zip', async () => {
  const id = await freshCopy()
  const png = Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    Buffer.from('a picture for the test'),
  ])
  const sha256 = createHash('sha256').update(png).digest('hex')
  const put = async (at: string, body: Buffer) => {
    const reply = await fetch(`${BASE}/api/properties/${id}/pictures/${at}`, {
      method: 'PUT',
      headers: { 'content-type': 'image/png' },
      body: new Uint8Array(body),
    })
    return [reply.status, ((await reply.json()) as { refusals?: { code: string }[] }).refusals?.[0]?.code]
  }
  expect(await Promise.all([put(sha256, png), put(sha256, png)])).toEqual([
    [200, undefined],
    [200, undefined],
  ])
  expect(
    await put(
      sha256.replace(/^./, (c) => (c === '0' ? '1' : '0')),
      png,
    ),
  ).toEqual([400, 'other_bytes'])
  expect(await put('short', png)).toEqual([400, 'bad_picture_address'])
  expect(await put(sha256, Buffer.from('<svg onload="alert(1)"/>'))).toEqual([415, 'not_a_picture'])
  expect(await put(sha256, Buffer.alloc(5_300_000))).toEqual([413, 'too_large'])
  const got = await fetch(`${BASE}/api/properties/${id}/pictures/${sha256}`)
  expect([
    got.status,
    got.headers.get('content-type'),
    got.headers.get('x-content-type-options'),
    Buffer.from(await got.arrayBuffer()).equals(png),
  ]).toEqual([200, 'image/png', 'nosniff', true])
  expect((await fetch(`${BASE}/api/properties/${id}/pictures/${'0'.repeat(64)}`)).status).toBe(404)
  await send(
    id,
    messageFor(
      id,
      batch(0, {
        do: 'create',
        in: 'underlays',
        id: 'plan',
        record: { name: 'Plan', sha256, width_px: 10, height_px: 10 },
      }),
    ),
  )
  const files = unzipSync(new Uint8Array(await (await fetch(`${BASE}/api/properties/${id}/file?as=zip`)).arrayBuffer()))
  expect([Object.keys(files).sort(), Buffer.from(files[`pictures/${sha256}`]!).equals(png)]).toEqual([
    [`pictures/${sha256}`, 'property.json'],
    true,
  ])
  expect(strFromU8(files['property.json']!)).toBe(await fileOf(id))
})

test('every answer says what a page may do with it: nothing from elsewhere, no frame, no guessing of kinds', async () => {
  const policies = await Promise.all(
    ['/', '/p/x', '/api/properties', '/icon.svg', '/nothing/here'].map(async (path) => {
      const { headers } = await fetch(`${BASE}${path}`, { headers: { accept: 'text/html' } })
      return [path, headers.get('content-security-policy') ?? '', headers.get('x-content-type-options')] as const
    }),
  )
  for (const [path, policy, sniff] of policies) {
    expect([path, sniff, policy.includes("frame-ancestors 'none'")]).toEqual([path, 'nosniff', true])
    expect(policy.replace("style-src 'self' 'unsafe-inline'", '')).not.toContain("'unsafe-inline'")
    expect(policy).toContain("default-src 'none'")
  }
  const page = await fetch(`${BASE}/`)
  const inline = [...(await page.text()).matchAll(/<script(?![^>]*src=)[^>]*>([\s\S]*?)<\/script>/g)].map((m) => m[1]!)
  expect(inline.length).toBeGreaterThan(0)
})

/** What a socket's opening is answered with. */
const upgrade = (path: string, origin: string): Promise<number> =>
  new Promise((done) => {
    const { host, port } = new URL(BASE)
    const headers = {
      host,
      origin,
      connection: 'Upgrade',
      upgrade: 'websocket',
      'sec-websocket-version': '13',
      'sec-websocket-key': Buffer.alloc(16, 7).toString('base64'),
    }
    const asked = request({ host: '127.0.0.1', port, path, headers })
    asked.on('upgrade', (_reply, socket) => {
      socket.destroy()
      done(101)
    })
    asked.on('response', (reply) => done(reply.statusCode!))
    asked.on('error', () => done(0))
    asked.end()
  })

test('sockets: only where one is listened to and for our own pages; floods of lines, long frames and crowds are turned away', async () => {
  const own = new URL(BASE).origin
  expect(await upgrade('/', own)).toBe(404)
  expect(await upgrade('/', 'http://elsewhere.example')).toBe(403)
  expect(await upgrade('/meter', 'http://elsewhere.example')).toBe(403)
  const meter = `${BASE.replace('http', 'ws')}/meter?property=${await freshCopy()}`
  const closing = (act: (socket: WebSocket) => void) =>
    new Promise<number>((done) => {
      const socket = new WebSocket(meter)
      socket.onopen = () => act(socket)
      socket.onclose = ({ code }) => done(code)
    })
  expect(await closing((s) => s.send('x'.repeat(20_000)))).toBe(1009)
  expect(await closing((s) => Array.from({ length: 500 }, () => s.send('READ?')))).toBe(1009)
  const crowd = Array.from({ length: 40 }, () => new WebSocket(meter))
  let turnedAway = 0
  for (const socket of crowd) socket.onclose = () => turnedAway++
  for (let wait = 0; turnedAway < 24 && wait < 300; wait++) await new Promise((done) => setTimeout(done, 200))
  expect(turnedAway).toBeGreaterThanOrEqual(24)
  expect((await fetch(`${BASE}/api/health`)).status).toBe(200)
  for (const socket of crowd) socket.close()
}, 600_000)

test('a name is held to one rule at every door, and a record that cannot be read is told of, given back as its file, and can go', async () => {
  expect((await post('/api/properties?as=copy&name=a%09b', DEMO)).status).toBe(400)
  const id = await freshCopy()
  const db = openDatabase(process.env.DATABASE_URL!)
  const spoil = (site: string) =>
    sql`UPDATE properties SET site = jsonb_set(site, '{about,name}', ${site}::jsonb), revision = revision + 1 WHERE id = ${id}`.execute(
      db,
    )
  await spoil('"a\\tb"')
  const whole = await fetch(`${BASE}/api/properties/${id}`)
  expect([whole.status, await whole.json()]).toMatchObject([
    422,
    { refusals: [{ code: 'unreadable_record' }, { path: ['site', 'about', 'name'] }] },
  ])
  const change = await send(id, messageFor(id, batch(1, rename('A-1', 'x'))))
  expect(change.replies[0]).toMatchObject({ status: 'refused', refusals: [{ path: ['site', 'about', 'name'] }] })
  const file = await fileOf(id)
  expect(JSON.parse(file)).toMatchObject({ id, site: { about: { name: 'a\tb' } }, jobs: { 'spring-2026': {} } })
  await sql`UPDATE properties SET schema_version = 99 WHERE id = ${id}`.execute(db)
  await spoil('"later"')
  expect(await (await fetch(`${BASE}/api/properties/${id}`)).json()).toMatchObject({
    refusals: [{ code: 'unreadable_record' }, { code: 'newer_record' }],
  })
  const remove = async () => (await fetch(`${BASE}/api/properties/${id}`, { method: 'DELETE' })).status
  const archive = (archived: boolean) =>
    fetch(`${BASE}/api/properties/${id}/archive`, {
      method: 'PUT',
      headers: JSON_TYPE,
      body: JSON.stringify({ archived }),
    })
  const listed = async (query: string) =>
    (
      (await (await fetch(`${BASE}/api/properties?${query}`)).json()) as { properties: { id: string }[] }
    ).properties.some((p) => p.id === id)
  expect(await remove()).toBe(409)
  expect((await archive(true)).status).toBe(200)
  expect([await listed('find=route'), await listed('find=route&archived=yes')]).toEqual([false, true])
  expect([await remove(), await remove()]).toEqual([200, 404])
  const gone = await sql<{ left: number }>`SELECT count(*)::int AS left FROM facts WHERE property = ${id}`.execute(db)
  expect(gone.rows[0]!.left).toBe(0)
  // What was deleted can be had back from its file, mended.
  expect((await post('/api/properties', file.replace('a\\tb', 'a b'))).status).toBe(201)
  await db.destroy()
})

test('figures at the edge of what is counted are refused in a sentence, and one id has one spelling', async () => {
  const id = await freshCopy()
  const file = JSON.parse(DEMO) as Record<string, unknown>
  const reply = await post('/api/properties?as=copy', JSON.stringify({ ...file, revision: 2 ** 31 - 1 }))
  expect([reply.status, await reply.json()]).toMatchObject([
    422,
    { refusals: [{ code: 'too_big', path: ['revision'] }] },
  ])
  expect(await send(id, messageFor(id, batch(2 ** 31, rename('A-1', 'x'))))).toMatchObject({ status: 422 })
  const change = messageFor(id, batch(0, rename('A-1', 'Rose bed')))
  const { visit, job } = begun(id)
  const reading = { ...messageFor(id, { kind: 'reading', fact: readingFact(job.id, 0) }) }
  const shouted = [change, visit, job, reading].map((m) => ({ ...m, id: m.id.toUpperCase() }))
  expect((await send(id, change, visit, job, reading)).replies.map((r) => r.status)).toEqual(Array(4).fill('accepted'))
  expect((await send(id, ...shouted)).replies.map((r) => r.status)).toEqual(Array(4).fill('already'))
  const nought = JSON.stringify({ messages: [reading] }).replace('"ohm":0', '"ohm":-0')
  const again = await post(`/api/properties/${id}/messages`, nought)
  expect(await again.json()).toMatchObject({ replies: [{ status: 'already' }] })
  // The same id for many properties at once: each has its own.
  const others = await Promise.all(Array.from({ length: 6 }, freshCopy))
  const sent = await Promise.all(
    others.map((other) => send(other, messageFor(other, batch(0, rename('A-1', 'y')), change.id))),
  )
  expect(sent.map((s) => s.status)).toEqual(Array(6).fill(200))
})

test('a large batch and a flood of conflicts: answered in bounded words, while others are answered at once', async () => {
  const id = await freshCopy()
  const create: Command[] = Array.from({ length: 5000 }, (_, i) => ({
    do: 'create',
    in: 'places',
    id: `p${i}`,
    record: { tag: `P${i}`, kind: 'valve_box' },
  }))
  // How long an answer takes on this machine while nothing else is asked.
  let quiet = 0
  for (let i = 0; i < 20; i++) {
    const start = performance.now()
    await fetch(`${BASE}/api/health`)
    quiet = Math.max(quiet, performance.now() - start)
  }
  let slowest = 0
  let going = true
  const watching = (async () => {
    while (going) {
      const start = performance.now()
      await fetch(`${BASE}/api/health`)
      slowest = Math.max(slowest, performance.now() - start)
      await new Promise((done) => setTimeout(done, 20))
    }
  })()
  expect((await send(id, messageFor(id, batch(0, ...create)))).replies[0]).toMatchObject({ status: 'accepted' })
  const move = create.map((_, i): Command => ({ do: 'set', in: 'places', id: `p${i}`, field: 'name', value: `n${i}` }))
  expect((await send(id, messageFor(id, batch(1, ...move)))).replies[0]).toMatchObject({ status: 'accepted' })
  const flood = Array.from({ length: 400 }, () =>
    messageFor(id, batch(1, { do: 'set', in: 'places', id: 'p1', field: 'name', value: 'x' })),
  )
  const reply = await post(`/api/properties/${id}/messages`, JSON.stringify({ messages: flood }))
  const text = await reply.text()
  expect([reply.status, text.length < 1_000_000]).toEqual([409, true])
  going = false
  await watching
  expect(slowest).toBeLessThan(3000 + 20 * quiet)
}, 300_000)

test('the database keeps companies apart by itself: what another one has is not there for whoever asks here', async () => {
  const db = openDatabase(process.env.DATABASE_URL!)
  const other: Actor = { company: v7(), person: v7() }
  await sql`INSERT INTO companies VALUES (${other.company}, 'Another company')`.execute(db)
  await actingAs(db, other, ({ tx }) =>
    sql`INSERT INTO users VALUES (${other.person}, ${other.company}, 'Them')`.execute(tx),
  )
  const id = v7()
  await actingAs(db, other, (within) => storeProperty(within, { ...read(DEMO), id }))
  const count = (actor: Actor, table: string) =>
    actingAs(db, actor, async ({ tx }) => {
      const { rows } = await sql<{
        n: number
      }>`SELECT count(*)::int AS n FROM ${sql.table(table)} WHERE company = ${other.company}`.execute(tx)
      return rows[0]!.n
    })
  for (const table of ['properties', 'facts', 'snapshots', 'users']) {
    expect([table, await count(DEFAULT_ACTOR, table)]).toEqual([table, 0])
    expect([table, (await count(other, table)) > 0]).toEqual([table, true])
  }
  const written = actingAs(db, DEFAULT_ACTOR, ({ tx }) =>
    sql`INSERT INTO users VALUES (${v7()}, ${other.company}, 'Spy')`.execute(tx),
  )
  await expect(written).rejects.toThrow(/row-level security/)
  for (const path of ['', '/file', '/steps?before=9', '/revisions/0', `/pictures/${'0'.repeat(64)}`])
    expect(await (await fetch(`${BASE}/api/properties/${id}${path}`)).text()).not.toContain('Observatory')
  expect(await send(id, messageFor(id, { kind: 'visit', fact: visitFact }))).toMatchObject({ status: 404 })
  // The same id is free here: another company's is nobody's business.
  expect((await post('/api/properties', DEMO.replace(read(DEMO).id, id))).status).toBe(201)
  await db.destroy()
})

test('a company’s own procedures: kept with our cautions in them, in place of what was seen, by their own company alone', async () => {
  const { steps, ...rest } = copyOf(shipped('gel_crimp')!, 'route_crimp', 'Route crimp')
  const ours = { ...rest, steps }
  const put = async (base: number, procedure: object, id = ours.id) => {
    const reply = await fetch(`${BASE}/api/procedures/${id}`, {
      method: 'PUT',
      headers: JSON_TYPE,
      body: JSON.stringify({ base, procedure }),
    })
    const body = (await reply.json()) as { revision?: number; refusals?: { code: string }[]; sentences?: string[] }
    expect(reply.status < 400 || body.sentences!.length > 0).toBe(true)
    return [reply.status, body.revision ?? body.refusals![0]!.code]
  }
  const take = async (base: number | string) =>
    (await fetch(`${BASE}/api/procedures/${ours.id}?base=${base}`, { method: 'DELETE' })).status
  const mine = async () => {
    const body = (await (await fetch(`${BASE}/api/procedures`)).json()) as { procedures: OwnProcedure[] }
    return body.procedures.filter((p) => p.procedure.id === ours.id)
  }
  expect(await put(0, ours)).toEqual([200, 1])
  expect(await put(0, ours)).toEqual([200, 1])
  const said = { ...ours, title: 'Said otherwise' }
  expect(await put(0, said)).toEqual([409, 'procedure_changed_since'])
  expect(await put(1, said)).toEqual([200, 2])
  expect(await put(2, { ...ours, steps: steps.filter((s) => s.id !== 'home') })).toEqual([422, 'step_gone'])
  expect(await put(2, { ...ours, steps: [] })).toEqual([400, 'too_small'])
  expect(await put(2, ours, 'another_name')).toEqual([400, 'procedure_other_name'])
  expect(await mine()).toEqual([{ revision: 2, procedure: said }])
  const db = openDatabase(process.env.DATABASE_URL!)
  const stranger: Actor = { ...DEFAULT_ACTOR, company: '00000000-0000-7000-8000-00000000aaaa' }
  expect(await actingAs(db, stranger, ownProcedures)).toEqual([])
  await db.destroy()
  expect([await take('x'), await take(1), await take(2), await take(2)]).toEqual([400, 409, 200, 200])
  expect(await mine()).toEqual([])
})

test('a file with its past: revisions and undo go on where they were; its pictures come with it, or nothing does', async () => {
  const id = await freshCopy()
  const change = messageFor(id, batch(0, rename('A-1', 'Rose bed')))
  await send(id, change, messageFor(id, batch(1, rename('A-2', 'Herb bed'))))
  const withPast = await (await fetch(`${BASE}/api/properties/${id}/file?journal=yes`)).text()
  const copied = (
    (await (await post('/api/properties?as=copy&name=With%20a%20past', withPast)).json()) as { id: string }
  ).id
  const nameAt = async (revision: number) =>
    ((await (await fetch(`${BASE}/api/properties/${copied}/revisions/${revision}`)).json()) as Property).site.stations[
      'A-1' as never
    ]!['name']
  expect([await nameAt(0), await nameAt(1)]).toEqual(['Entrance bed', 'Rose bed'])
  expect(await send(copied, messageFor(copied, { kind: 'undo', undoes: change.id }))).toMatchObject({
    replies: [{ status: 'accepted', revision: 3 }],
  })
  const sha256 = createHash('sha256').update('a').digest('hex')
  const packed = (bytes: string) => zipSync({ 'property.json': strToU8(DEMO), [`pictures/${sha256}`]: strToU8(bytes) })
  const before = (await (await fetch(`${BASE}/api/properties?find=whole`)).json()) as { total: number }
  const refused = await fetch(`${BASE}/api/properties?as=copy&name=Whole`, {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: packed('b') as never,
  })
  expect([refused.status, await refused.json()]).toMatchObject([
    422,
    { refusals: [{ code: 'other_bytes', path: ['pictures', sha256] }] },
  ])
  expect(await (await fetch(`${BASE}/api/properties?find=whole`)).json()).toMatchObject({ total: before.total })
  const bomb = zipSync({ 'property.json': new Uint8Array(20_000_000) })
  const inflated = await fetch(`${BASE}/api/properties`, {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: bomb as never,
  })
  expect([inflated.status, ((await inflated.json()) as { sentences: string[] }).sentences[0]!.length > 20]).toEqual([
    422,
    true,
  ])
}, 300_000)
