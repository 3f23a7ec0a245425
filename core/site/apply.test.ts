import fc from 'fast-check'
import { quarryLake } from '../../demo/quarry-lake'
import { ChangedFields, footprintOf, rebase, takeBack, type Accepted } from '../record'
import {
  applyBatch,
  brokenInvariants,
  COLLECTIONS,
  createRecord,
  Draft,
  emptySite,
  fieldsOf,
  looseCommand,
  MOST_RECORDS,
  getOrThrow,
  portsOf,
  sameJson,
  siteSchema,
  undoCommands,
  type CollectionName,
  type Command,
  type RecordOf,
  type Site,
} from './index'

const site = siteSchema.parse({
  ...quarryLake(),
  underlays: { plan: { name: 'Old plan', sha256: '0'.repeat(64), width_px: 800, height_px: 600 } },
  defects: {
    screw: { kind: 'bare', controller: 'A', terminal: '24' },
    worn: { kind: 'grip', end: { kind: 'port', device: 'V3', port: 'a' }, ohm: 12 },
  },
  temporaryStates: { bypass: { what: 'Master valve bypassed', since: '2027-03-01', place: 'B1' } },
})
const coil = Object.keys(site.coilKinds)[0]!
const names = Object.keys(COLLECTIONS) as CollectionName[]

/** Commands as a careless page might send them: real records changed, removed and copied, and plain nonsense. */
const anyCommand: fc.Arbitrary<Command> = fc.constantFrom(...names).chain((name) => {
  const ids = Object.keys(site[name])
  const id = fc.oneof(
    { weight: 6, arbitrary: fc.constantFrom(...ids) },
    fc.constantFrom('nobody', 'constructor', '__proto__', ''),
  )
  const fields = Object.keys(fieldsOf(name))
  const values = ids.flatMap((i) => Object.values((site[name] as Record<string, object>)[i]!))
  const loose: fc.Arbitrary<unknown> = fc.oneof(
    fc.record({ do: fc.constant('remove' as const), in: fc.constant(name), id }),
    fc.record({
      do: fc.constant('set' as const),
      in: fc.constant(name),
      id,
      field: fc.constantFrom(...fields, 'toString'),
      value: fc.oneof(fc.constantFrom(...values), fc.constantFrom(null, 3, '', 'x', -1)),
    }),
    fc.record({
      do: fc.constant('create' as const),
      in: fc.constant(name),
      id: fc.oneof(id, fc.constantFrom('new-1', 'new-2')),
      record: fc.oneof(fc.constantFrom(...Object.values(site[name])), fc.jsonValue()),
    }),
    fc.record({
      do: fc.constant('setSetting' as const),
      field: fc.constantFrom(...Object.keys(site.settings)),
      value: fc.oneof(fc.constantFrom<unknown>(0.05, 10, 50, 'metric', null, {}), fc.jsonValue()),
    }),
    fc.record({
      do: fc.constant('setAbout' as const),
      field: fc.constantFrom('name', 'contractor', 'origin', 'more'),
      value: fc.oneof(fc.string(), fc.jsonValue()),
    }),
  )
  return loose as fc.Arbitrary<Command>
})

test('an accepted batch keeps schema and invariants, and its undo restores the site; a refused one changes nothing', () => {
  const before = JSON.stringify(site)
  let accepted = 0
  fc.assert(
    fc.property(fc.array(anyCommand, { minLength: 1, maxLength: 2 }), (commands) => {
      const result = applyBatch(site, commands)
      if (result.ok) {
        accepted++
        expect(brokenInvariants(result.value.site)).toEqual([])
        expect(siteSchema.safeParse(result.value.site).success).toBe(true)
        const back = undoCommands(result.value.site, result.value.writes)
        const restored = back.ok && applyBatch(result.value.site, back.value)
        expect(restored && restored.ok && sameJson(restored.value.site, site)).toBe(true)
      } else expect(result.refusals.every((r) => r.code.length > 0)).toBe(true)
      expect(JSON.stringify(site)).toBe(before)
    }),
    { seed: 11, numRuns: 1000 },
  )
  expect(accepted).toBeGreaterThan(80) // else the property above says nothing
})

describe('each invariant is refused by its own code', () => {
  const base = new Draft('small')
    .place('A', 'cabinet')
    .place('B')
    .controller('A', 'A', 2)
    .coilKind('k', 33)
    .valve('V', 'B', 'k')
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 10],
      ],
      cores: ['red', 'white'],
    })
    .join('A', ['A:1', 'K.red>'])
    .station('A:1', 'One', ['V'])
    .site()
  const cases: [string, Command[]][] = [
    ['tag_twice', [{ do: 'set', in: 'places', id: 'B', field: 'tag', value: 'A' }]],
    ['points_nowhere', [{ do: 'remove', in: 'places', id: 'B' }]],
    [
      'terminal_taken',
      [{ do: 'create', in: 'stations', id: 's2', record: { controller: 'A', terminal: '1', name: 'Again' } }],
    ],
    [
      'end_in_two_joints',
      [
        {
          do: 'create',
          in: 'splices',
          id: 'j',
          record: {
            place: 'A',
            connector: 'cap',
            ends: [{ kind: 'core', cable: 'K', core: 'red', stop: 'A', side: 'leaves' }],
          },
        },
      ],
    ],
    [
      'no_such_end',
      [
        {
          do: 'create',
          in: 'splices',
          id: 'j',
          record: { place: 'A', ends: [{ kind: 'core', cable: 'K', core: 'red', stop: 'A', side: 'arrives' }] },
        },
      ],
    ],
    [
      'end_elsewhere',
      [
        {
          do: 'create',
          in: 'splices',
          id: 'j',
          record: { place: 'A', ends: [{ kind: 'port', device: 'V', port: 'a' }] },
        },
      ],
    ],
    [
      'cap_holds_one',
      [
        {
          do: 'create',
          in: 'splices',
          id: 'j',
          record: {
            place: 'B',
            connector: 'cap',
            ends: ['a', 'b'].map((port) => ({ kind: 'port', device: 'V', port })),
          },
        },
      ],
    ],
    ['landing_needs_terminal', [{ do: 'set', in: 'splices', id: 'A-j1', field: 'connector', value: 'gel_nut' }]],
    [
      'stop_before',
      [
        {
          do: 'set',
          in: 'cables',
          id: 'K',
          field: 'stops',
          value: [
            { id: 'A', place: 'A', at_m: { value: 12, how: 'seen' } },
            { id: 'B', place: 'B', at_m: { value: 10, how: 'seen' } },
          ],
        },
      ],
    ],
    [
      'not_an_inner_stop',
      [{ do: 'set', in: 'cables', id: 'K', field: 'cores', value: { red: { cutAt: ['B'] }, white: {} } }],
    ],
    ['no_such_record', [{ do: 'set', in: 'devices', id: 'constructor', field: 'name', value: 'x' }]],
    ['unknown_field', [looseCommand({ do: 'set', in: 'devices', id: 'V', field: 'hasOwnProperty', value: 'x' })]],
    ['bad_key', [{ do: 'create', in: 'places', id: '__proto__', record: { tag: 'Z', kind: 'other' } }]],
    [
      'bad_value',
      [{ do: 'create', in: 'coilKinds', id: 'c', record: { name: 'c', resistance_ohm: 90, inrush_A: 0.4 } }],
    ],
  ]
  test.each(cases)('%s', (code, commands) => {
    const result = applyBatch(base, commands)
    expect(result.ok ? [] : result.refusals.map((r) => r.code)).toContain(code)
  })
})

test('two people: other fields of one record pass, the same field is refused by name, and undo takes back only my own', () => {
  const rename = (id: string, value: string): Command => ({ do: 'set', in: 'stations', id, field: 'name', value })
  const fields = (since: Accepted[]) => new ChangedFields(since.map(footprintOf))
  const change = (now: Site, revision: number, base: number, commands: Command[], since: Accepted[]) =>
    rebase({ site: now, revision }, base, commands, (path) => fields(since).since(path, base, new Set()))
  const first = change(site, 0, 0, [rename('A-1', 'Front bed')], [])
  if (!first.ok) throw new Error('the first change was refused')
  const since: Accepted[] = [{ id: 'b1', revision: 1, writes: first.value.writes }]
  const zone = change(
    first.value.site,
    1,
    0,
    [{ do: 'set', in: 'stations', id: 'A-1', field: 'zone', value: 'Front' }],
    since,
  )
  expect(zone.ok && zone.value.site.stations['A-1' as never]).toMatchObject({ name: 'Front bed', zone: 'Front' })
  const clash = change(first.value.site, 1, 0, [rename('A-1', 'Side bed')], since)
  expect(clash).toMatchObject({ ok: false, refusals: [{ code: 'conflict', path: ['stations', 'A-1', 'name'] }] })
  const gone = change(first.value.site, 1, 0, [{ do: 'remove', in: 'stations', id: 'A-1' }], since)
  expect(gone).toMatchObject({ ok: false, refusals: [{ code: 'conflict' }] })
  const later = change(first.value.site, 1, 1, [rename('A-1', 'Rose bed')], [])
  expect(later.ok && takeBack({ site: later.value.site, revision: 2 }, since[0]!)).toMatchObject({
    ok: false,
    refusals: [{ code: 'changed_since', path: ['stations', 'A-1', 'name'] }],
  })
  const back = takeBack({ site: first.value.site, revision: 1 }, since[0]!)
  expect(back.ok && sameJson(back.value.site, site)).toBe(true)
})

test('a batch costs what it writes: thousands of commands read each collection once, in one record or in many', () => {
  const many: Command[] = Array.from({ length: 5000 }, (_, i) => ({
    do: 'create',
    in: 'places',
    id: `p${i}`,
    record: { tag: `P${i}`, kind: 'valve_box' },
  }))
  let reads = 0
  const watched = {
    ...site,
    places: new Proxy(site.places, {
      ownKeys: (target) => {
        reads++
        return Reflect.ownKeys(target)
      },
    }),
  }
  const made = applyBatch(watched, many)
  expect(made.ok && Object.keys(made.value.site.places).length).toBe(5000 + Object.keys(site.places).length)
  expect(reads).toBeLessThan(5)
  const same: Command[] = many.map((_, i) => ({ do: 'set', in: 'coilKinds', id: coil, field: 'name', value: `n${i}` }))
  expect(applyBatch(site, same)).toMatchObject({
    ok: true,
    value: { writes: [{ path: ['coilKinds', coil, 'name'], after: 'n4999' }] },
  })
})

test('fields that are tied together may be set one after the other; what does not fit at the end is refused with its command', () => {
  const set = (field: string, value: unknown) => looseCommand({ do: 'set', in: 'coilKinds', id: coil, field, value })
  expect(applyBatch(site, [set('resistance_ohm', 900), set('inrush_A', 0.01), set('holding_A', 0.01)]).ok).toBe(true)
  expect(applyBatch(site, [set('name', 'x'), set('resistance_ohm', 900)])).toMatchObject({
    ok: false,
    refusals: [{ code: 'bad_value', params: { command: 0 } }],
  })
})

test('a site of more records than can be read is refused with the number', () => {
  const commands: Command[] = Array.from({ length: MOST_RECORDS + 1 }, (_, i) => ({
    do: 'create',
    in: 'places',
    id: `p${i}`,
    record: { tag: `P${i}`, kind: 'valve_box' },
  }))
  expect(applyBatch(emptySite('Too large'), commands)).toMatchObject({
    ok: false,
    refusals: [{ code: 'site_too_large', params: { records: MOST_RECORDS + 1 } }],
  })
})

test('a device has the ports of its kind, and as many outputs as it is said to have; what a kind lacks cannot be set', () => {
  const made = (device: RecordOf<'devices'>) => applyBatch(site, [createRecord('devices', 'd', device)])
  const ports = (device: RecordOf<'devices'>) => {
    const applied = made(device)
    return applied.ok
      ? portsOf(getOrThrow(applied.value.site.devices, 'd')).filter((p) => p.startsWith('out_')).length
      : null
  }
  const place = Object.keys(site.places)[0]!
  expect([ports({ kind: 'decoder', place }), ports({ kind: 'decoder', place, outputs: 6 })]).toEqual([2, 6])
  expect([ports({ kind: 'sequencer', place }), ports({ kind: 'coil', place })]).toEqual([4, 0])
  const set = (field: string, value: unknown) => looseCommand({ do: 'set', in: 'devices', id: 'd', field, value })
  const refused = (device: RecordOf<'devices'>, field: string, value: unknown) => {
    const applied = applyBatch(site, [createRecord('devices', 'd', device), set(field, value)])
    return applied.ok ? null : applied.refusals[0]!.code
  }
  expect(refused({ kind: 'decoder', place }, 'outputs', 3)).toBeNull()
  expect(refused({ kind: 'coil', place }, 'outputs', 3)).toBe('unknown_field')
  expect(refused({ kind: 'coil', place }, 'kind', 'relay')).toBeNull()
  expect(refused({ kind: 'decoder', place }, 'outputs', 99)).toBe('too_big')
})
