import { PLACES, tabAt } from './places'

test('every address within a property belongs to the tab that is nearest to it', () => {
  const at = (path: string) => {
    const found = tabAt(path)
    return found && `${found.place.key} ${found.tab.path}`
  }
  expect(['', '/plan', '/plan/map', '/boxes/b7', '/test/compare', '/test/some-job', '/work/mended'].map(at)).toEqual([
    'threads ',
    'plan /plan',
    'plan /plan/map',
    'cabinet /boxes',
    'test /test/compare',
    'test /test',
    'work /work/mended',
  ])
  expect([at('/nowhere'), at('/planned')]).toEqual([null, null])
  expect(PLACES.filter((p) => p.atThumb)).toHaveLength(4)
})
