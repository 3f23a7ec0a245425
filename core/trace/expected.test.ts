import { quarryLake } from '../../demo/quarry-lake'
import type { CableId, PlaceId } from '../site'
import { expectedAlong, foundBeside, wayOf, type Find } from '.'

const found = (kind: Find['kind'], mid: number): Find =>
  ({ kind, p: 0.9, along_m: { low: mid - 0.5, mid, high: mid + 0.5 } }) as Find

test('along the dome’s path the record expects its decoders and Ts, and sets what was met beside them', () => {
  const site = quarryLake()
  const cable = 'K5' as CableId
  const way = wayOf(site, { cable, from: 'D' as PlaceId, method: 'pair' } as never)
  const expected = expectedAlong(site, cable, way)
  const by = (kind: string) => expected.filter((e) => e.kind === kind).map((e) => site.places[e.place]!.tag)
  expect([by('local'), by('step'), by('spread_end')]).toEqual([['D2', 'D3', 'D4', 'D5'], ['D2', 'D4'], ['D5']])
  expect(expected.find((e) => site.places[e.place]!.tag === 'D3')!.decoders).toHaveLength(2)
  const at = (tag: string, kind: string) =>
    expected.find((e) => site.places[e.place]!.tag === tag && e.kind === kind)!.along_m
  // One met three metres off, a rise where nothing is on record, and an end far short of the last box: a break.
  const finds = [
    found('local', at('D3', 'local') + 3),
    found('local', at('D3', 'local') + 20),
    found('end', at('D4', 'local') + 8),
  ]
  const rows = foundBeside(expected, finds)
  expect(
    rows.filter((r) => r.find !== null).map((r) => [r.find, r.expected && site.places[r.expected.place]!.tag]),
  ).toEqual([
    [0, 'D3'],
    [1, null],
    [2, null],
  ])
  expect(rows.filter((r) => r.expected !== null)).toHaveLength(expected.length)
  expect(expectedAlong(site, null, way)).toEqual([])
})
