import { demoProperty } from '../../demo/quarry-lake'
import type { Write } from '../site'
import { timelineOf, type Change } from '.'

const write = (...path: string[]): Write => ({ path, before: undefined, after: 1 }) as unknown as Write
const change = (revision: number, at: string, author: string, ...writes: Write[]): Change => ({
  ...{ revision, at, author, writes },
})

test('what happened and by whom, the latest first: visits with what was read, changes of a person’s day together', () => {
  const facts = structuredClone(demoProperty().facts)
  facts.sightings.s = {
    ...{ at: '2026-05-02T08:00:00Z', author: 'Ann', what: 'leak', severity: 'wastes', note: 'elbow' },
    on: { kind: 'box', place: 'B4' as never },
  }
  facts.sightingTurns.t = { at: '2026-05-03T08:00:00Z', author: 'Bo', sighting: 's', to: 'done', why: '' }
  facts.sightings.none = { ...facts.sightings.s, at: '2026-05-04T08:00:00Z' }
  facts.sightingTurns.u = { at: '2026-05-04T09:00:00Z', author: 'Bo', sighting: 'none', to: 'struck', why: '' }
  const changes = [
    change(1, '2026-05-01T09:00:00Z', 'Ann', write('programs', 'p')),
    change(2, '2026-05-01T11:00:00Z', 'Ann', write('programs', 'p'), write('stations', '1')),
    change(3, '2026-05-01T10:00:00Z', 'Bo', write('temporaryStates', 'x')),
  ]
  const line = timelineOf(facts, changes)
  expect(line.slice(0, 5).map((h) => [h.kind, h.at.slice(0, 13), h.by, 'count' in h ? h.count : null])).toEqual([
    ['turned', '2026-05-03T08', ['Bo'], null],
    ['seen', '2026-05-02T08', ['Ann'], null],
    ['schedule', '2026-05-01T11', ['Ann'], 2],
    ['record', '2026-05-01T11', ['Ann'], 1],
    ['temporary', '2026-05-01T10', ['Bo'], 1],
  ])
  const visits = line.filter((h) => h.kind === 'visit')
  expect(visits).toHaveLength(Object.keys(facts.visits).length)
  expect(visits.reduce((sum, v) => sum + v.readings, 0)).toBe(Object.keys(facts.readings).length)
  const times = line.map((h) => Date.parse(h.at))
  expect(times).toEqual([...times].sort((a, b) => b - a))
})
