import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { v7 } from 'uuid'
import { cellsOf, ratesOf } from '../core/failures'
import { readProperty } from '../core/formats'
import { tunedBy } from '../core/quote'
import { SCHEMA_VERSION } from '../core/record'
import { actingAs, type Actor } from './db/actor'
import { openDatabase, type Database } from './db/database'
import { keepCompanyRecord, companyRecord } from './db/company-records'
import { insertFacts } from './db/facts'
import { storeProperty } from './db/intake'
import { listProperties, type ListQuery } from './db/listing'
import { foundKinds, livesOfAll } from './db/part-lives'
import { takenMinutes } from './db/taken'
import { attendNext } from './utils/attend'
import { receiveAll } from './utils/receive'

const BASE = process.env.BASE_URL!
const DEMO = readFileSync(join(__dirname, '../demo/quarry-lake.json'), 'utf8')
const SITE = readProperty(DEMO)
const USUAL: ListQuery = {
  ...{ find: '', need: null, sort: 'name', down: false, offset: 0, limit: 100, archived: false, today: '2027-06-01' },
}

let db: Database
beforeAll(() => {
  db = openDatabase(process.env.DATABASE_URL!)
})
afterAll(() => db.destroy())

/** A company of its own, so that nobody else’s properties are among what is found. */
async function newCompany(): Promise<Actor> {
  const actor = { company: v7(), person: v7() }
  await db.insertInto('companies').values({ id: actor.company, name: 'Office test' }).execute()
  await actingAs(db, actor, ({ tx }) =>
    tx.insertInto('users').values({ id: actor.person, company: actor.company, name: 'Office test' }).execute(),
  )
  return actor
}
const keep = async (actor: Actor, name: string, demo: boolean): Promise<string> => {
  if (!SITE.ok) throw new Error('the demo file is broken')
  const id = v7()
  const { site, facts } = SITE.value
  const bare = {
    ...site,
    controllers: {},
    stations: {},
    cables: {},
    splices: {},
    devices: {},
    places: {},
    programs: {},
  }
  const of = demo ? site : ({ ...bare, pointsOfConnection: {}, defects: {}, systems: {} } as typeof site)
  const property = { ...SITE.value, id, site: { ...of, about: { ...of.about, name } } }
  const none = Object.fromEntries(Object.keys(facts).map((k) => [k, {}])) as unknown as typeof facts
  await actingAs(db, actor, (within) => storeProperty(within, { ...property, facts: demo ? facts : none }))
  return id
}
async function attendAll(actor: Actor): Promise<number> {
  let count = 0
  while ((await attendNext(db, actor, 0)) === 'done') count++
  return count
}

test('the list finds by name, box, station and finding, counts what asks for somebody, and shows the worst first', async () => {
  const actor = await newCompany()
  const found = async (more: Partial<ListQuery>) => {
    const { properties, total, needs } = await actingAs(db, actor, (w) => listProperties(w, { ...USUAL, ...more }))
    return { names: properties.map((p) => p.name), total, needs, first: properties[0] }
  }
  await keep(actor, 'Quiet yard', false)
  const lake = await keep(actor, 'Über lake', true)
  await keep(actor, 'Another yard', false)
  // Before anything is worked out it is listed already.
  expect((await found({})).names).toEqual(['Another yard', 'Quiet yard', 'Über lake'])
  expect(await attendAll(actor)).toBe(3)
  expect(await attendAll(actor)).toBe(0)
  expect(await found({ sort: 'need', down: true })).toMatchObject({
    names: ['Über lake', 'Another yard', 'Quiet yard'],
    needs: { all: 3, any: 1, faults: 1, visit: 1, findings: 0 },
    first: { astray: 7, faults: 1, visits: 6, visitDue: '2027-04-12' },
  })
  expect((await found({ today: '2027-04-11' })).needs).toMatchObject({ visit: 0 })
  for (const find of ['über', 'ticket law', 'B4', 'LAKE', 'er lak'])
    expect((await found({ find })).names).toEqual(['Über lake'])
  for (const find of ["'); drop", 'lake & yard', '%', '_', ':*', 'weeping'])
    expect((await found({ find })).total).toBe(0)
  expect(await found({ offset: 1, limit: 1, down: true })).toMatchObject({ names: ['Quiet yard'], total: 3 })

  // What is seen there is found by once it is worked out, and counts until it is done.
  const saw = (body: object) =>
    receiveAll(db, actor, lake, [
      { id: v7(), schema: SCHEMA_VERSION, property: lake, author: 'Ann', device: '', at: '2027-05-01T08:00:00Z', body },
    ])
  const at = { at: '2027-05-01T08:00:00Z', author: 'Ann' }
  const on = { kind: 'box', place: 'B4' }
  await saw({ kind: 'sighting', fact: { ...at, on, what: 'weeping_valve', severity: 'wastes', note: 'since winter' } })
  expect((await found({ find: 'weeping' })).total).toBe(0)
  // Whoever is writing still is not disturbed.
  expect(await attendNext(db, actor, 600)).toBe('later')
  expect(await attendAll(actor)).toBe(1)
  expect(await found({ find: 'weep winter', need: 'findings' })).toMatchObject({ names: ['Über lake'], total: 1 })
  const stranger = await newCompany()
  expect((await actingAs(db, stranger, (w) => listProperties(w, USUAL))).total).toBe(0)
})

test('a company’s prices and views: kept whole or not at all, the second of two at once is told, others see nothing', async () => {
  const actor = await newCompany()
  const prices = (price: string) => ({ currency: 'XTS', price })
  const kept = (of: Actor, base: number, record: unknown) =>
    actingAs(db, of, (w) => keepCompanyRecord(w, 'prices', base, record))
  expect(await actingAs(db, actor, (w) => companyRecord(w, 'prices'))).toEqual({ revision: 0, record: null })
  const both = await Promise.all([kept(actor, 0, prices('1')), kept(actor, 0, prices('2'))])
  expect(both.filter((r) => r === 1)).toHaveLength(1)
  const { record } = await actingAs(db, actor, (w) => companyRecord(w, 'prices'))
  // Sent again it is done already; from a revision that is gone it is not.
  expect(await kept(actor, 0, record)).toBe(1)
  expect(await kept(actor, 1, prices('3'))).toBe(2)
  expect(await kept(actor, 1, prices('4'))).toBeNull()
  expect(await actingAs(db, await newCompany(), (w) => companyRecord(w, 'prices'))).toEqual({
    revision: 0,
    record: null,
  })
})

test('at the door: what is no list of prices is refused by name, what is not kept is not there, a question that is none is told', async () => {
  const put = (kind: string, body: unknown) =>
    fetch(`${BASE}/api/company/${kind}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  const refused = async (reply: Promise<Response>) => {
    const { refusals } = (await (await reply).json()) as { refusals?: { code: string; path: unknown[] }[] }
    return [(await reply).status, refusals?.[0]?.code, refusals?.[0]?.path]
  }
  const views = (await (await fetch(`${BASE}/api/company/views`)).json()) as { revision: number; record: unknown[] }
  const view = { name: 'Due', looking: { find: '', need: 'visit', sort: 'due', down: false } }
  expect(
    await refused(put('views', { base: views.revision, record: [{ ...view, looking: { need: 'beer' } }] })),
  ).toEqual([...[400, 'not_one_of', ['record', 0, 'looking', 'need']]])
  expect(await refused(put('prices', { base: 0, record: { currency: 'gold' } }))).toMatchObject([400, 'bad_value', {}])
  expect(await refused(put('cellar', { base: 0, record: {} }))).toMatchObject([404, 'no_company_record', {}])
  expect((await put('views', { base: views.revision, record: [...(views.record ?? []), view] })).status).toBe(200)
  expect(await refused(put('views', { base: views.revision, record: [] }))).toMatchObject([
    409,
    'company_changed_since',
    {},
  ])
  expect(await refused(fetch(`${BASE}/api/properties?need=beer`))).toMatchObject([400, 'not_one_of', ['query', 'need']])
})

test('how long repairs really took comes from the latest word of each item that was done, of this company’s works alone', async () => {
  const actor = await newCompany()
  const at = '2027-05-01T08:00:00Z'
  const item = (key: string, usual_min: number | null) => ({
    ...{ key, says: key, usual_min },
    of: { kind: 'repair', where: { kind: 'coil', device: 'V9' }, option: 'coil' },
  })
  const prices = {
    currency: 'XTS',
    decimals: 2,
    tax: 'on_top',
    rounding: 'half_up',
    roundTo: null,
    taxes: [],
    prices: [],
  }
  const lines = [{ key: 'l', item: null, place: null, code: 'work', unit: 'min', quantity: '5' }]
  const quote = {
    at,
    author: 'Ann',
    until: null,
    note: '',
    prices,
    lines,
    items: [item('a', 40), item('b', 20), item('c', null)],
  }
  const done = (key: string, minutes: number | null, on: string, undone = false) => ({
    ...{ kind: 'workDone' as const, id: v7() },
    fact: { quote: 'q', item: key, at: on, author: 'Ann', minutes, used: [], undone } as never,
  })
  for (const name of ['One', 'Two']) {
    const property = await keep(actor, name, false)
    await actingAs(db, actor, (w) => insertFacts(w, property, [{ kind: 'quote', id: 'q', fact: quote as never }]))
    const works = [done('a', 10, '2027-05-02T08:00:00Z'), done('a', 30, '2027-05-03T08:00:00Z')]
    works.push(done('b', 5, '2027-05-02T08:00:00Z'), done('b', null, '2027-05-03T08:00:00Z', true))
    works.push(done('c', 99, '2027-05-02T08:00:00Z'))
    await actingAs(db, actor, (w) => insertFacts(w, property, works))
  }
  const taken = await actingAs(db, actor, takenMinutes)
  expect(taken).toEqual([{ code: 'coil', count: 2, usual_min: 80, taken_min: 60 }])
  // Two works against the weight of three usual ones: (60 + 120) / (80 + 120).
  expect(tunedBy(taken)('coil')).toBeCloseTo(0.9, 12)
  expect(tunedBy(taken)('sequencer')).toBe(1)
  expect(tunedBy([{ ...taken[0]!, count: 1 }])('coil')).toBe(1)
  expect(await actingAs(db, await newCompany(), takenMinutes)).toEqual([])
})

test('what failed is counted over all properties of a company, by kind and age, out of journals and findings', async () => {
  const actor = await newCompany()
  const [lake, pond] = [await keep(actor, 'Lake', true), await keep(actor, 'Pond', true)]
  await keep(actor, 'Yard', false)
  if (!SITE.ok) throw new Error('the demo file is broken')
  const { site, facts } = SITE.value
  const [job] = Object.entries(facts.jobs).find(([, j]) => j.at > '2026')!
  const [splice, joint] = Object.entries(site.splices).find(([, s]) => s.connector === 'nut_and_gel_tube')!
  const finding = { job, at: '2027-04-01T09:00:00Z', author: 'Ann', says: '', belief: null, how: '' }
  const mended = { ...finding, where: { kind: 'joint', splice } } as never
  await actingAs(db, actor, (w) => insertFacts(w, lake, [{ kind: 'finding', id: v7(), fact: mended }]))
  const noted = { state: 'open', since: null, note: '' }
  const commands = [{ do: 'set', in: 'splices', id: splice, field: 'condition', value: noted }]
  const about = { schema: SCHEMA_VERSION, property: pond, author: 'Ann', device: '', at: '2027-05-01T08:00:00Z' }
  await receiveAll(db, actor, pond, [{ ...about, id: v7(), body: { kind: 'batch', base: 0, commands } }])
  await attendAll(actor)
  const cells = cellsOf(await actingAs(db, actor, livesOfAll), '2027-06-01')
  const twists = ratesOf(cells).joint.kinds.find((k) => k.of === 'nut_and_gel_tube')!
  const all = Object.values(site.splices).filter((s) => s.connector === 'nut_and_gel_tube').length
  expect([twists.failed, twists.now]).toEqual([2, 2 * all - 1])
  expect(ratesOf(cells).joint.kinds.reduce((sum, k) => sum + k.failed, 0)).toBe(2)
  expect(joint.connector).toBe('nut_and_gel_tube')
  expect(twists.perYear!.low).toBeLessThan(twists.failed / twists.years)
  expect(await actingAs(db, actor, foundKinds)).toEqual({ joint: 1 })
  expect(await actingAs(db, await newCompany(), livesOfAll)).toEqual([])
})
