import { demoProperty } from '../../demo/quarry-lake'
import { randomSite } from '../../tests/random-site'
import { applyBatch, emptySite, sameJson, type Site } from '../site'
import { commandsBetween } from './difference'

const after = (from: Site, to: Site): Site => {
  const applied = applyBatch(from, commandsBetween(from, to))
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const same = (a: Site, b: Site) => sameJson({ ...a, about: 0, settings: 0 }, { ...b, about: 0, settings: 0 })

test('from any property to any other: the commands make the one into the other, and none are needed between equals', () => {
  const sites = [emptySite('none'), demoProperty().site, ...[1, 2, 3, 4].map((seed) => randomSite(seed).site)]
  for (const from of sites) {
    for (const to of sites) {
      expect(same(after(from, to), to)).toBe(true)
      expect(commandsBetween(to, after(from, to))).toEqual([])
    }
    expect(commandsBetween(from, structuredClone(from))).toEqual([])
  }
})

test('only what differs is written: one field, one record', () => {
  const { site } = demoProperty()
  const renamed = {
    ...site,
    stations: { ...site.stations, 'A-1': { ...(site.stations['A-1' as never] as object), name: 'Roses' } },
  } as unknown as Site
  expect(commandsBetween(site, renamed)).toEqual([
    { do: 'set', in: 'stations', id: 'A-1', field: 'name', value: 'Roses' },
  ])
  const { 'A-1': _gone, ...stations } = site.stations as Record<string, unknown>
  expect(commandsBetween(site, { ...site, stations } as unknown as Site)).toEqual([
    { do: 'remove', in: 'stations', id: 'A-1' },
  ])
})
