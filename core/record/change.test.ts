import fc from 'fast-check'
import { quarryLake } from '../../demo/quarry-lake'
import { applyBatch, brokenInvariants, looseCommand, sameJson, valueAt, type Command, type Site } from '../site'
import { footprintOf, rebase, takeBack, type Accepted } from './change'
import { ChangedFields } from './changed-fields'

const start = quarryLake()
const rename = (station: string, value: string): Command => ({
  do: 'set',
  in: 'stations',
  id: station,
  field: 'name',
  value,
})
const zone = (station: string, value: string): Command => ({
  do: 'set',
  in: 'stations',
  id: station,
  field: 'zone',
  value,
})
const remove = (station: string): Command => ({ do: 'remove', in: 'stations', id: station })
const setting = (field: string, value: unknown) => looseCommand({ do: 'setSetting', field, value })

const changedByOthers = (journal: readonly Accepted[], base: number, own: readonly string[]) => {
  const fields = new ChangedFields(journal.map(footprintOf))
  return (path: readonly string[]) => fields.since(path, base, new Set(own))
}

/** What an editor does in a row: a batch, taking back its last accepted one, or looking at what the server has. */
type Act = readonly Command[] | 'undo' | 'look'

/**
 * The server and two editors who look only when they look; a batch is made on what its editor saw, and its own before
 * it.
 */
function play(order: readonly (0 | 1)[], scripts: readonly [readonly Act[], readonly Act[]]) {
  let site: Site = start
  const journal: Accepted[] = []
  const editors = [
    { base: 0, own: [] as string[], next: 0 },
    { base: 0, own: [] as string[], next: 0 },
  ]
  const refusedBy: string[][] = [[], []]
  for (const who of order) {
    const editor = editors[who]!
    const index = editor.next++
    const act = scripts[who][index]!
    const id = `${who}-${index}`
    if (act === 'look') {
      editor.base = journal.length
      editor.own = []
      continue
    }
    const before = JSON.stringify(site)
    const last = journal.findLast((b) => b.id.startsWith(`${who}-`))
    const outcome =
      act === 'undo'
        ? last && takeBack({ site, revision: journal.length }, last)
        : rebase(
            { site, revision: journal.length },
            editor.base,
            act,
            changedByOthers(journal, editor.base, editor.own),
          )
    editor.own.push(id)
    if (outcome?.ok) {
      site = outcome.value.site
      journal.push({ id, revision: journal.length + 1, writes: outcome.value.writes })
    } else {
      refusedBy[who]!.push(...(outcome?.refusals.map((r) => `${r.code} ${r.path.join('.')}`) ?? ['nothing']))
      expect(JSON.stringify(site)).toBe(before)
    }
    expect(brokenInvariants(site)).toEqual([])
  }
  return { site, journal, refusedBy }
}

/** Every way to lay two rows into one without changing the order within either. */
function interleavings(a: number, b: number): (0 | 1)[][] {
  if (a === 0 || b === 0) return [[...new Array<0>(a).fill(0), ...new Array<1>(b).fill(1)]]
  return [
    ...interleavings(a - 1, b).map((rest): (0 | 1)[] => [0, ...rest]),
    ...interleavings(a, b - 1).map((rest): (0 | 1)[] => [1, ...rest]),
  ]
}

test('work on different fields is taken in every order, and every order ends in the same site', () => {
  const scripts: [Act[], Act[]] = [
    [[rename('A-1', 'Rose bed')], [rename('A-1', 'Rose bank'), rename('A-2', 'Herbs')], [setting('ground_C', 11)]],
    [[zone('A-1', 'Front')], [rename('A-3', 'Hedge')], [zone('A-1', 'Gate')]],
  ]
  const all = interleavings(3, 3)
  expect(all).toHaveLength(20)
  const ends = all.map((order) => play(order, scripts))
  for (const end of ends) {
    expect(end.refusedBy).toEqual([[], []])
    expect(sameJson(end.site, ends[0]!.site)).toBe(true)
  }
  expect(valueAt(ends[0]!.site, ['stations', 'A-1'])).toMatchObject({ name: 'Rose bank', zone: 'Gate' })
})

test('work on the same field: in every order exactly one of them gets it, the other is refused by that field’s name', () => {
  const scripts: [Act[], Act[]] = [
    [[zone('A-2', 'x')], [rename('A-1', 'Mine'), zone('A-5', 'y')]],
    [[rename('A-1', 'Theirs')], [zone('A-6', 'z')]],
  ]
  for (const order of interleavings(2, 2)) {
    const { site, refusedBy } = play(order, scripts)
    const first = order.indexOf(1) < order.lastIndexOf(0) ? 'Theirs' : 'Mine'
    expect(valueAt(site, ['stations', 'A-1', 'name'])).toBe(first)
    expect(refusedBy).toEqual(
      first === 'Theirs' ? [['conflict stations.A-1.name'], []] : [[], ['conflict stations.A-1.name']],
    )
    expect(valueAt(site, ['stations', 'A-5', 'zone'])).toBe(first === 'Mine' ? 'y' : 'Dome terrace')
  }
})

test('who looks before writing may write over; who did not may not', () => {
  const scripts: [Act[], Act[]] = [[[rename('A-1', 'First')]], ['look', [rename('A-1', 'Second')]]]
  const results = interleavings(1, 2).map((order) => [
    order.join(''),
    play(order, scripts)
      .refusedBy.map((r) => r.length)
      .join(),
  ])
  expect(results).toEqual([
    ['011', '0,0'],
    ['101', '0,1'],
    ['110', '1,0'],
  ])
})

test('a record taken away and a field of it changed cannot both be, whichever comes first', () => {
  for (const order of interleavings(1, 1)) {
    const { refusedBy, journal } = play(order, [[[remove('A-4')]], [[rename('A-4', 'Islands')]]])
    expect(journal).toHaveLength(1)
    expect(refusedBy.flat()).toHaveLength(1)
    expect(refusedBy.flat()[0]).toMatch(/^(conflict|no_such_record) stations\.A-4/)
  }
})

test('undo takes back one’s own work in every order, and never what the other has changed since', () => {
  const scripts: [Act[], Act[]] = [
    [[rename('A-1', 'Mine')], 'undo'],
    ['look', [rename('A-1', 'Theirs')]],
  ]
  for (const order of interleavings(2, 2)) {
    const { site, refusedBy } = play(order, scripts)
    const name = valueAt(site, ['stations', 'A-1', 'name'])
    if (refusedBy[0]!.some((r) => r.startsWith('changed_since'))) expect(name).toBe('Theirs')
    else expect(['Entrance bed', 'Theirs']).toContain(name)
    expect(refusedBy.flat().every((r) => /^(changed_since|conflict) stations\.A-1\.name$|^nothing$/.test(r))).toBe(true)
  }
})

test('one’s own waiting batches are no strangers: the same field twice in a row without an answer between', () => {
  const { refusedBy, site } = play([0, 0, 0], [[[rename('A-1', 'a')], [rename('A-1', 'b')], [rename('A-1', 'c')]], []])
  expect(refusedBy[0]).toEqual([])
  expect(valueAt(site, ['stations', 'A-1', 'name'])).toBe('c')
  const alone = applyBatch(start, [rename('A-1', 'c')])
  expect(alone.ok && sameJson(alone.value.site, site)).toBe(true)
})

test('which fields changed since, asked of the index, is what going through every batch finds', () => {
  const path = fc.oneof(
    fc.tuple(fc.constantFrom('a', 'b'), fc.constantFrom('1', '2')),
    fc.tuple(fc.constantFrom('a', 'b'), fc.constantFrom('1', '2'), fc.constantFrom('x', 'y')),
  )
  const meets = (p: readonly string[], q: readonly string[]) => p.every((step, i) => i >= q.length || step === q[i])
  fc.assert(
    fc.property(
      fc.array(fc.array(path, { minLength: 1, maxLength: 3 }), { maxLength: 12 }),
      path,
      fc.nat(12),
      fc.uniqueArray(fc.nat(12)),
      (batches, asked, base, own) => {
        const journal = batches.map((paths, i) => ({ id: String(i + 1), revision: i + 1, paths }))
        const plain = journal.some(
          (b) => b.revision > base && !own.includes(b.revision) && b.paths.some((p) => meets(asked, p)),
        )
        expect(new ChangedFields(journal).since(asked, base, new Set(own.map(String)))).toBe(plain)
      },
    ),
    { seed: 4, numRuns: 2000 },
  )
})
