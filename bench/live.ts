import { readFileSync } from 'node:fs'
import { v7 } from 'uuid'
import { SCHEMA_VERSION, type MessageBody } from '../core/record'
import { listening, type Listening } from '../tests/listening'

// How soon a mark from one of many phones is on all the others: npm run -s bench:live -- [--phones N] [--marks N], with
// BASE_URL naming a server that runs. Answers with the 50th and 95th part of a hundred, ms, from sending to all.

const BASE = process.env.BASE_URL ?? 'http://127.0.0.1:4747'
const asked = (name: string, usual: number): number => {
  const at = process.argv.indexOf(name)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [PHONES, MARKS] = [asked('--phones', 20), asked('--marks', 200)]
const JSON_TYPE = { 'content-type': 'application/json' }

async function send(property: string, id: string, body: MessageBody): Promise<void> {
  const message = { id, schema: SCHEMA_VERSION, property, author: 'Bench', device: 'bench', at: now(), body }
  const reply = await fetch(`${BASE}/api/properties/${property}/messages`, {
    method: 'POST',
    headers: JSON_TYPE,
    body: JSON.stringify({ messages: [message] }),
  })
  if (!reply.ok) throw new Error(`messages: ${reply.status} ${await reply.text()}`)
}
const now = () => new Date().toISOString()

const demo = readFileSync(new URL('../demo/quarry-lake.json', import.meta.url), 'utf8')
const taken = await fetch(`${BASE}/api/properties?as=copy&name=Live%20bench`, {
  method: 'POST',
  headers: JSON_TYPE,
  body: demo,
})
const { id: property } = (await taken.json()) as { id: string }
const [visit, job] = [v7(), v7()]
await send(property, visit, { kind: 'visit', fact: { at: now(), author: 'Bench', people: [] } })
const meter = {
  name: '',
  openMark: 'OL',
  accuracy_ratio: 0.01,
  offset_ohm: 0.2,
  leadZero_ohm: 0,
  highest_ohm: 2e7,
} as const
const traces = { cable: null, from: null, box: null }
await send(property, job, {
  kind: 'job',
  fact: {
    visit,
    at: now(),
    author: 'Bench',
    kind: 'trace',
    controller: 'A',
    title: '',
    ground_C: 12,
    coil_C: null,
    meter,
    traces,
  } as never,
})

const sent = new Map<string, number>()
const arrived = new Map<string, number>()
const took: number[] = []
const phones: Listening[] = []
for (let i = 0; i < PHONES; i++)
  phones.push(
    await listening(BASE, property, (what) => {
      if (what.kind !== 'facts') return
      for (const { id } of what.facts as { id: string }[]) {
        const count = (arrived.get(id) ?? 0) + 1
        arrived.set(id, count)
        if (count === PHONES && sent.has(id)) took.push(performance.now() - sent.get(id)!)
      }
    }),
  )
// Every phone marks in its turn, several at a time, as a crew that spreads out would.
const turns = Array.from({ length: MARKS }, (_, i) => i)
const mark = async () => {
  for (let i = turns.pop(); i !== undefined; i = turns.pop()) {
    const id = v7()
    sent.set(id, performance.now())
    const at = { x_m: i, y_m: i / 2 }
    await send(property, id, {
      kind: 'mark',
      fact: { job, at: now(), author: 'Bench', marked: { kind: 'way', at, by: 'map', within_m: 1, note: '' } },
    })
  }
}
await Promise.all(Array.from({ length: PHONES }, mark))
await new Promise((resolve) => setTimeout(resolve, 1500))
for (const phone of phones) phone.end()
await fetch(`${BASE}/api/properties/${property}/archive`, {
  method: 'PUT',
  headers: JSON_TYPE,
  body: '{"archived":true}',
})
await fetch(`${BASE}/api/properties/${property}`, { method: 'DELETE' })
took.sort((a, b) => a - b)
const part = (q: number) => Math.round(took[Math.min(took.length - 1, Math.floor(q * took.length))]! * 10) / 10
console.log(
  JSON.stringify({ phones: PHONES, marks: MARKS, heardByAll: took.length, p50_ms: part(0.5), p95_ms: part(0.95) }),
)
