import { createHash } from 'node:crypto'
import { createReadStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 } from 'uuid'
import { propertyPieces, writeProperty } from '../core/formats'
import { noFacts, SCHEMA_VERSION, type Facts, type MessageBody } from '../core/record'
import type { Command, Site } from '../core/site'
import { demoProperty } from '../demo/quarry-lake'
import { actingAs, DEFAULT_ACTOR } from '../server/db/actor'
import type { Database } from '../server/db/database'
import { storeProperty } from '../server/db/intake'
import { propertyToWrite } from '../server/db/outgoing'
import { takeIn } from '../server/utils/intake'
import { receiveAll } from '../server/utils/receive'
import { manyStations } from './property'

// What one message costs at the door, and how it grows: a reading on 20 and on 5000 stations, a batch of 5000 commands
// beside the plain reading of its JSON, a file of 5000 stations and 200 000 readings beside the same. Processor time
// of this process only.

const demo = demoProperty()
const cpu_ms = async (work: () => Promise<unknown>): Promise<number> => {
  const before = process.cpuUsage()
  await work()
  const { user, system } = process.cpuUsage(before)
  return (user + system) / 1000
}
const quantile = (of: readonly number[], q: number) => [...of].sort((a, b) => a - b)[Math.floor(of.length * q)]!
const messageFor = (property: string, body: MessageBody) => ({
  id: v7(),
  schema: SCHEMA_VERSION,
  property,
  author: 'Bench',
  device: 'bench',
  at: new Date().toISOString(),
  body,
})

/** So many readings are sent first, that are not counted: code is compiled while it is new. */
const WARMING = 100

/** Processor time of a reading: alone in a request, the same one sent again, and of each in a queue of a hundred. */
async function readingOn(db: Database, stations: number) {
  const id = v7()
  const site = manyStations(stations)
  await actingAs(db, DEFAULT_ACTOR, (within) => storeProperty(within, { id, revision: 0, site, facts: noFacts() }))
  const pattern = demo.facts.readings['autumn-2025-1']!
  const controller = Object.keys(site.controllers)[0]! as never
  const visit = messageFor(id, { kind: 'visit', fact: demo.facts.visits['autumn-2025']! })
  const job = messageFor(id, { kind: 'job', fact: { ...demo.facts.jobs['autumn-2025']!, visit: visit.id, controller } })
  await receiveAll(db, DEFAULT_ACTOR, id, [visit, job])
  const newReading = () => messageFor(id, { kind: 'reading', fact: { ...pattern, job: job.id, revision: 0 } })
  const [alone, again, queued] = [[] as number[], [] as number[], [] as number[]]
  for (let i = 0; i < 400 + WARMING; i++) {
    const reading = newReading()
    const [first_ms, second_ms] = [
      await cpu_ms(() => receiveAll(db, DEFAULT_ACTOR, id, [reading])),
      await cpu_ms(() => receiveAll(db, DEFAULT_ACTOR, id, [reading])),
    ]
    if (i < WARMING) continue
    alone.push(first_ms)
    again.push(second_ms)
  }
  for (let i = 0; i < 40; i++) {
    const hundred = Array.from({ length: 100 }, newReading)
    queued.push((await cpu_ms(() => receiveAll(db, DEFAULT_ACTOR, id, hundred))) / 100)
  }
  const of = (times: readonly number[]) => ({ median: quantile(times, 0.5), p95: quantile(times, 0.95) })
  return { alone_ms: of(alone), again_ms: of(again), queued_ms: of(queued) }
}

/** Processor time of a batch of 5000 commands, over that of reading its JSON. */
async function batchOverParse(db: Database, commands: readonly Command[], site: Site): Promise<number> {
  const id = v7()
  await actingAs(db, DEFAULT_ACTOR, (within) => storeProperty(within, { id, revision: 0, site, facts: noFacts() }))
  // The document is read once a revision; what is measured is what every further batch costs.
  const first: Command = { do: 'setAbout', field: 'contractor', value: 'Bench' }
  await receiveAll(db, DEFAULT_ACTOR, id, [messageFor(id, { kind: 'batch', base: 0, onTopOf: [], commands: [first] })])
  const text = JSON.stringify(messageFor(id, { kind: 'batch', base: 1, onTopOf: [], commands: [...commands] }))
  const parse_ms = quantile(
    await Promise.all(Array.from({ length: 9 }, () => cpu_ms(async () => JSON.parse(text)))),
    0.5,
  )
  const taken_ms = await cpu_ms(async () => {
    const [reply] = await receiveAll(db, DEFAULT_ACTOR, id, [JSON.parse(text)])
    if (reply?.status !== 'accepted') throw new Error(JSON.stringify(reply).slice(0, 400))
  })
  return taken_ms / parse_ms
}

/**
 * A file of many stations and readings opened, and saved again: the same bytes come out. Seconds, and over reading its
 * JSON.
 */
async function fileOf(db: Database, site: Site, facts: Facts) {
  const folder = mkdtempSync(join(tmpdir(), 'bench-'))
  const file = join(folder, 'property.json')
  const text = writeProperty({ ...demo, id: v7(), site, facts })
  writeFileSync(file, text)
  const start = performance.now()
  JSON.parse(text)
  const parse_s = (performance.now() - start) / 1000
  const begun = performance.now()
  const spooled = {
    bytes: Buffer.byteLength(text),
    read: () => createReadStream(file),
    pictures: [],
    readPicture: () => Promise.reject(new Error('no pictures')),
    remove: () => Promise.resolve(),
  }
  const taken = await takeIn(db, DEFAULT_ACTOR, spooled, { copy: null, token: null, isGone: () => false })
  if (!taken.ok) throw new Error(JSON.stringify(taken.refusals))
  const taken_s = (performance.now() - begun) / 1000
  const saving = performance.now()
  const saved = createHash('sha256')
  await actingAs(db, DEFAULT_ACTOR, async (within) => {
    for await (const piece of propertyPieces((await propertyToWrite(within, taken.value))!)) saved.update(piece)
  })
  const saved_s = (performance.now() - saving) / 1000
  rmSync(folder, { recursive: true })
  return {
    megabytes: Math.round(text.length / 1e6),
    stations: Object.keys(site.stations).length,
    readings: Object.keys(facts.readings).length,
    equal: saved.digest('hex') === createHash('sha256').update(text).digest('hex'),
    taken_s,
    saved_s,
    ratio: taken_s / parse_s,
  }
}

/** All figures of the door. `manyReadings` makes facts of so many readings. */
export async function recordDoor(db: Database, manyReadings: (count: number) => Facts) {
  const [small, large] = [await readingOn(db, 20), await readingOn(db, 5000)]
  const create = Array.from({ length: 5000 }, (_, i): Command => ({
    do: 'create',
    in: 'places',
    id: `p${i}`,
    record: { tag: `P${i}`, kind: 'valve_box' },
  }))
  const set = Array.from({ length: 5000 }, (_, i): Command => ({
    do: 'set',
    in: 'stations',
    id: `A-${i + 1}`,
    field: 'name',
    value: `Bed ${i}`,
  }))
  return {
    reading_ms: { small, large },
    readingGrowth: large.alone_ms.median / small.alone_ms.median,
    queuedGrowth: large.queued_ms.median / small.queued_ms.median,
    createOverParse: await batchOverParse(db, create, demo.site),
    setOverParse: await batchOverParse(db, set, manyStations(5000)),
    file: await fileOf(db, manyStations(5000), manyReadings(200_000)),
  }
}
