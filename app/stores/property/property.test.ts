import { createPinia, setActivePinia } from 'pinia'
import { noFacts, type Message } from '../../../core/record'
import { applyBatch, Draft, type Command } from '../../../core/site'
import * as api from '../../lib/api'
import { keptProperty } from '../../lib/kept-properties'
import * as outbox from '../../lib/outbox'
import { useProperty } from '.'

jest.mock('../../lib/api')
jest.mock('../../lib/outbox')
jest.mock('../../lib/kept-properties', () => ({
  keptProperty: jest.fn(async () => null),
  keepProperty: async () => undefined,
  forgetProperty: async () => undefined,
}))
jest.mock('../../lib/device', () => ({ authorName: () => 'Jo', deviceId: () => 'mine' }))

const ID = '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b10'
const start = new Draft('Court').place('A', 'cabinet').controller('A', 'A', 2).site()
const rename = (name: string): Command => ({ do: 'setAbout', field: 'name', value: name })
const contractor = (name: string): Command => ({ do: 'setAbout', field: 'contractor', value: name })
const visit = { kind: 'visit' as const, fact: { at: '2026-04-11T10:00:00.000Z', author: 'Jo', people: [] as string[] } }

/** A server that does what the real one promises, and a device that keeps what it is given. */
function world() {
  const server = {
    site: start,
    revision: 0,
    steps: [] as { commands: Command[]; step: api.Step }[],
    facts: noFacts(),
    up: true,
    refuses: (_: Message) => false,
  }
  const device = { waiting: [] as Message[], refused: [] as outbox.Rejected[] }
  const whole = (): api.Whole => ({
    id: ID,
    revision: server.revision,
    archived: false,
    site: server.site,
    facts: server.facts,
    steps: [],
  })
  const change = (id: string, commands: Command[], by = 'others') => {
    const applied = applyBatch(server.site, commands)
    if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
    server.site = applied.value.site
    const revision = ++server.revision
    const writes = [...applied.value.writes]
    server.steps.push({ commands, step: { id, revision, author: by, device: by, at: '', undoes: null, writes } })
    return revision
  }
  const take = (m: Message): api.MessageReply => {
    if (server.refuses(m))
      return { id: m.id, status: 'refused', refusals: [{ code: 'conflict', path: [], params: {} }] }
    return m.body.kind === 'batch'
      ? { id: m.id, status: 'accepted', revision: change(m.id, [...m.body.commands], 'mine') }
      : { id: m.id, status: 'accepted' }
  }
  jest.mocked(api.fetchProperty).mockImplementation(async () => ({ kind: 'ok', value: whole() }))
  jest
    .mocked(api.postMessages)
    .mockImplementation(async (_, messages) =>
      server.up
        ? { kind: 'ok', value: { replies: (messages as Message[]).map(take) } }
        : ({ kind: 'unreachable' } as const),
    )
  jest.mocked(api.fetchMissed).mockImplementation(async (_, after) => ({
    kind: 'ok',
    value: {
      steps: server.steps.filter((s) => s.step.revision > after).map((s) => ({ ...s.step, commands: s.commands })),
    },
  }))
  jest.mocked(outbox.keptFor).mockImplementation(async () => [...device.waiting])
  jest.mocked(outbox.refusedFor).mockImplementation(async () => [...device.refused])
  jest.mocked(outbox.keep).mockImplementation(async (m) => void device.waiting.push(m))
  jest.mocked(outbox.settleKept).mockImplementation(async (taken, refused) => {
    const gone = new Set([...taken, ...refused.map((r) => r.message)].map((m) => m.id))
    device.waiting = device.waiting.filter((m) => !gone.has(m.id))
    device.refused.push(...refused)
  })
  jest.mocked(outbox.settleRefused).mockImplementation(async (m, again) => {
    device.refused = device.refused.filter((r) => r.message.id !== m.id)
    if (again) device.waiting.push(m)
  })
  return { server, device, change }
}
const settled = async () => {
  for (let i = 0; i < 30; i++) await Promise.resolve()
}

beforeEach(() => {
  jest.useFakeTimers()
  setActivePinia(createPinia())
})
afterEach(() => jest.useRealTimers())

test('what is written without a signal is shown and kept at once, and leaves the device when the server has it', async () => {
  const { server, device } = world()
  const property = useProperty()
  await property.load(ID)
  server.up = false
  const id = await property.record(visit)
  await property.change([rename('Yard')])
  await settled()
  expect([property.pending, property.line, device.waiting.length]).toEqual([2, 'down', 2])
  expect([property.facts!.visits[id], property.site!.about.name]).toEqual([visit.fact, 'Yard'])
  server.up = true
  await property.send()
  await settled()
  expect([property.pending, property.line, device.waiting.length]).toEqual([0, 'up', 0])
  expect([property.held!.facts.visits[id], property.held!.site.about.name]).toEqual([visit.fact, 'Yard'])
})

test('what others changed meanwhile is under one’s own change once it is taken: both stand, in the server’s order', async () => {
  const { server, change } = world()
  const property = useProperty()
  await property.load(ID)
  change('0198f2a0-0000-7000-8000-000000000001', [contractor('Lantern Grounds')])
  await property.change([rename('Yard')])
  await settled()
  expect(property.held).toMatchObject({ revision: 2, site: { about: { name: 'Yard', contractor: 'Lantern Grounds' } } })
  expect(property.held!.steps.map((s) => s.revision)).toEqual([2, 1])
  expect(property.site).toEqual(server.site)
})

test('what is refused stays on the device until somebody lets go of it; sent again it is meant for the site of now', async () => {
  const { server, device, change } = world()
  const property = useProperty()
  await property.load(ID)
  server.refuses = (m) => m.body.kind === 'batch'
  const mine = await property.change([rename('Yard')])
  await settled()
  expect([property.pending, property.rejected.map((r) => r.message.id)]).toEqual([0, [mine]])
  expect([property.site!.about.name, device.refused.length]).toEqual(['Court', 1])
  change('0198f2a0-0000-7000-8000-000000000002', [contractor('Lantern Grounds')])
  await property.load(ID)
  server.refuses = () => false
  const sent = jest.mocked(api.postMessages).mock
  await property.sendAgain(mine!)
  await settled()
  expect((sent.calls.at(-1)![1][0] as Message).body).toMatchObject({ kind: 'batch', base: 1, onTopOf: [] })
  expect([property.rejected.length, device.refused.length, server.site.about.name]).toEqual([0, 0, 'Yard'])
})

test('a reading that is written while the property is being read anew is still there, and so is what an earlier page left', async () => {
  const { server, device } = world()
  const property = useProperty()
  await property.load(ID)
  server.up = false
  let answer = () => {}
  jest.mocked(outbox.keptFor).mockImplementationOnce(
    () => new Promise((resolve) => (answer = () => resolve([]))), // asked before what comes next was written
  )
  const loading = property.load(ID)
  const id = await property.record(visit)
  answer()
  await loading
  expect([property.pending, property.facts!.visits[id]]).toEqual([1, visit.fact])

  const { people: _people, ...old } = { ...visit.fact, controller: 'A', title: 'Old', ground_C: 12, coil_C: null }
  const earlier = { ...device.waiting[0]!, id: '0198f2a0-0000-7000-8000-000000000003', schema: 4 }
  device.waiting.push({ ...earlier, body: { kind: 'visit', fact: old } } as never)
  await property.load(ID)
  expect(property.facts!.jobs[earlier.id]).toMatchObject({ visit: earlier.id, kind: 'sweep', title: 'Old' })
  // It is sent as it was kept, and answered as one.
  server.up = true
  await property.send()
  await settled()
  const sent = jest.mocked(api.postMessages).mock.calls.at(-1)![1] as Message[]
  expect(sent.filter((m) => m.id === earlier.id).map((m) => m.schema)).toEqual([4])
  expect([property.pending, property.held!.facts.jobs[earlier.id]?.title]).toEqual([0, 'Old'])
})

test('what the device keeps is shown while nobody answers; what the server knows no more is not', async () => {
  world()
  const whole = { id: ID, revision: 3, archived: false, site: start, facts: noFacts(), steps: [] }
  jest.mocked(keptProperty).mockResolvedValue({ whole, seen: '2026-04-11T10:00:00.000Z' })
  const property = useProperty()
  jest.mocked(api.fetchProperty).mockResolvedValue({ kind: 'unreachable' })
  await property.load(ID)
  expect([property.status, property.line, property.held?.revision]).toEqual(['ready', 'down', 3])
  setActivePinia(createPinia())
  const gone = useProperty()
  jest.mocked(api.fetchProperty).mockResolvedValue({ kind: 'refused', status: 404, refusals: [] })
  await gone.load(ID)
  expect([gone.status, gone.held]).toEqual(['missing', null])
  jest.mocked(keptProperty).mockResolvedValue(null)
})
