import { sql } from 'kysely'
import { v7 } from 'uuid'
import { demoProperty } from '../demo/quarry-lake'
import { noFacts, type Facts } from '../core/record'
import { pastOf, statesOf } from '../core/history'
import { sceneOf, scenesOf } from '../core/expect'
import { emptySite } from '../core/site'
import { recordDoor } from './record-door'
import { openDatabase } from '../server/db/database'
import { actingAs, DEFAULT_ACTOR, type Within } from '../server/db/actor'
import { readFacts } from '../server/db/facts'
import { storeProperty } from '../server/db/intake'
import { fillOffice, listOf, viewTimes } from './list-views'
import { presentSite } from '../server/db/sites'

// How the lists grow: properties from 200 to 10 000, readings of one property from 500 to 5000. The reference of the
// list is the plainest query that gives a row a property; of a whole property, parsing its file's JSON. Seconds gate
// nothing.

const db = openDatabase(process.env.DATABASE_URL ?? '')
const RUNS = 7
const within = <T>(work: (w: Within) => Promise<T>) => actingAs(db, DEFAULT_ACTOR, work)

async function median_ms(work: () => unknown): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < RUNS; i++) {
    const start = performance.now()
    await work()
    times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[RUNS >> 1]!
}

const demo = demoProperty()
/** The demo's autumn sweep again and again, a day apart, at whole degrees. */
function manyReadings(count: number): Facts {
  const facts = noFacts()
  const pattern = Object.entries(demo.facts.readings).filter(([, r]) => r.job === 'autumn-2025')
  let made = 0
  for (let n = 0; made < count; n++) {
    const at = new Date(Date.UTC(2006, 0, 1) + n * 86_400_000).toISOString()
    const ground_C = 5 + (n % 15)
    facts.visits[`v${n}`] = { ...demo.facts.visits['autumn-2025']!, at }
    facts.jobs[`v${n}`] = { ...demo.facts.jobs['autumn-2025']!, visit: `v${n}`, at, ground_C }
    for (const [id, reading] of pattern.slice(0, count - made)) {
      facts.readings[`r${n}-${id}`] = { ...reading, job: `v${n}`, at, ground_C }
      made++
    }
  }
  return facts
}

const sizes: Record<string, number>[] = []
let stored = 0
for (const properties of [200, 2000, 10_000]) {
  for (; stored < properties; stored++) {
    const facts = noFacts()
    for (let k = 0; k < 3; k++) facts.visits[`v${k}`] = demo.facts.visits['autumn-2025']!
    const site = emptySite(`Property ${stored}`)
    await within((w) => storeProperty(w, { id: v7(), revision: 0, site, facts }))
  }
  const list_ms = await median_ms(() => within(listOf))
  const plain_ms = await median_ms(() => db.selectFrom('properties').select(['id', 'name']).execute())
  sizes.push({ properties, list_ms, plain_ms, ratio: list_ms / plain_ms })
}
const readings: Record<string, number>[] = []
for (const count of [500, 5000]) {
  const facts = manyReadings(count)
  const id = v7()
  await within((w) => storeProperty(w, { ...demo, id, facts }))
  const text = JSON.stringify(facts)
  const whole_ms = await median_ms(() => within(async (w) => [await presentSite(w, id), await readFacts(w, id)]))
  const parse_ms = await median_ms(() => JSON.parse(text))
  const past_ms = await median_ms(() => pastOf({ ...facts }))
  const states_ms = await median_ms(() => {
    statesOf(sceneOf(demo.site), scenesOf(demo.site), { ...facts })
  })
  readings.push({ readings: count, whole_ms, parse_ms, past_ms, states_ms, ratio: whole_ms / parse_ms })
}
// Ten thousand properties, a million readings: what of it a view of the list takes.
await within((w) => fillOffice(w, 100))
await sql`ANALYZE`.execute(db)
const views = await viewTimes(within)
const door = await recordDoor(db, manyReadings)
await db.destroy()

/** The power of ten in time for a power of ten in size, from the first to the last. */
const growth = (of: Record<string, number>[], size: string, name: string) =>
  Math.log10(of.at(-1)![name]! / of[0]![name]!) / Math.log10(of.at(-1)![size]! / of[0]![size]!)
const result = {
  properties: sizes,
  readings,
  views,
  worstView_ms: views[0]!.p95_ms,
  door,
  listGrowth: growth(sizes, 'properties', 'list_ms'),
  plainGrowth: growth(sizes, 'properties', 'plain_ms'),
  wholeGrowth: growth(readings, 'readings', 'whole_ms'),
  statesGrowth: growth(readings, 'readings', 'states_ms'),
}
if (!process.argv.includes('--json')) {
  console.table(sizes)
  console.table(readings)
  console.table(views)
  console.log(door)
  console.log('Growth: the power of ten in time for a power of ten in size; 1 is linear.')
}
console.log(JSON.stringify(result))
