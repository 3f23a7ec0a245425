import { noFacts, type Facts, type Finding, type Part, type SightingState } from '../record'
import type { DeviceId, PlaceId } from '../site'
import { partsNamed, sightingsIn } from '.'

const minute = (n: number) => `2027-05-01T08:${String(n).padStart(2, '0')}:00Z`
const box = (place: string) => ({ kind: 'box' as const, place: place as PlaceId })

function facts(turns: readonly (readonly [string, SightingState])[] = []): Facts {
  const made = noFacts()
  made.sightings.lid = {
    at: minute(1),
    author: 'Sam',
    on: box('B1'),
    what: 'lid_proud',

    severity: 'danger',
    note: '',
  }
  made.sightings.wet = {
    at: minute(2),
    author: 'Sam',
    on: box('B2'),
    what: 'wet_box',

    severity: 'later',
    note: '',
  }
  made.sightings.leak = {
    at: minute(3),
    author: 'Ann',
    on: box('B2'),
    what: 'leak',

    severity: 'wastes',
    note: 'elbow',
  }
  turns.forEach(([sighting, to], i) => {
    made.sightingTurns[`t${i}`] = { at: minute(10 + i), author: 'Ann', sighting, to, why: '' }
  })
  return made
}
const listed = (of: Facts) => sightingsIn(of).map((s) => `${s.id} ${s.state}`)

test('open before settled, the worst first; the latest change counts; what is struck out is listed no more, and kept', () => {
  expect(listed(facts())).toEqual(['lid open', 'leak open', 'wet open'])
  const turned = facts([
    ['lid', 'quoted'],
    ['lid', 'accepted'],
    ['wet', 'struck'],
  ])
  expect(listed(turned)).toEqual(['leak open', 'lid accepted'])
  expect(Object.keys(turned.sightings)).toContain('wet')
  expect(listed(facts([...(['struck', 'open'] as const).map((to) => ['wet', to] as const)]))).toContain('wet open')
})

test('what a wet check saw is among it, by its step; an answer taken back is not', () => {
  const made = facts()
  made.jobs.j = {
    ...{ visit: 'v', at: minute(0), author: 'Sam', kind: 'procedure', controller: 'A', title: '', ground_C: 15 },
    follows: { id: 'wet_check', on: { kind: 'controller', controller: 'A' } },
  } as unknown as Facts['jobs'][string]
  const step = (id: string, n: number, key: string, answer: object) => {
    made.steps[id] = {
      job: 'j',
      at: minute(n),
      author: 'Sam',
      step: key,
      heeded: true,
      answer,
    } as Facts['steps'][string]
  }
  step('s1', 20, 'zone@terminal A 5', { kind: 'chosen', option: 'head_broken' })
  step('s2', 21, 'zone@coil D4 104', { kind: 'chosen', option: 'leaks' })
  step('s3', 22, 'zone@terminal A 6', { kind: 'chosen', option: 'waters_well' })
  step('s4', 23, 'zone@terminal A 7', { kind: 'chosen', option: 'head_tilted' })
  step('s5', 24, 'zone@terminal A 7', { kind: 'undone' })
  const seen = sightingsIn(made).filter((s) => s.id.startsWith('s'))
  expect(seen.map((s) => [s.id, s.seen.what, s.seen.on])).toEqual([
    ['s2', 'leak', { kind: 'coil', device: 'D4' }],
    ['s1', 'head_broken', { kind: 'terminal', controller: 'A', terminal: '5' }],
  ])
})

test('a part that a hunt named goes by the quote of its repair, and is done when that is, or when a later hunt mends it', () => {
  const coil: Part = { kind: 'coil', device: 'V18' as DeviceId }
  const named = (changes: (facts: Facts) => void) => {
    const made = noFacts()
    made.sightings.early = {
      ...{ at: minute(1), author: 'Sam', on: { kind: 'coil', device: 'V18' as DeviceId } },
      ...{ what: 'named', part: coil, severity: 'stops', note: 'the coil of Far willows' },
    }
    changes(made)
    return [listed(made)[0], partsNamed(made).length]
  }
  const quote = (facts: Facts, at: string) => {
    facts.quotes.q = {
      ...{ at, author: 'Ann', until: null, note: '', prices: {} as never, lines: [] },
      items: [{ key: 'coil V18', of: { kind: 'repair', where: coil, option: 'coil' }, says: 'Coil', usual_min: 20 }],
    }
  }
  const answer = (facts: Facts, accepted: string[]) => {
    facts.quoteTurns.a = {
      ...{ at: minute(4), author: 'Ann', quote: 'q' },
      to: { kind: 'answered', accepted, name: 'Owner', signature: null },
    }
  }
  const work = { at: minute(5), author: 'Sam', quote: 'q', item: 'coil V18', minutes: null, used: [], undone: false }
  const found = (at: string): Finding => ({
    ...{ job: 'j', at, author: 'Sam', where: coil, says: 'the coil', belief: 0.99, how: '' },
  })
  expect(named(() => {})).toEqual(['early open', 1])
  expect(named((f) => quote(f, minute(3)))).toEqual(['early quoted', 1])
  // A quote that was sent before speaks of another time.
  expect(named((f) => quote(f, minute(0)))).toEqual(['early open', 1])
  const agreed = (f: Facts) => {
    quote(f, minute(3))
    answer(f, ['coil V18'])
  }
  expect(named(agreed)).toEqual(['early accepted', 1])
  expect(named((f) => (agreed(f), (f.worksDone.w = work)))).toEqual(['early done', 0])
  expect(named((f) => (agreed(f), answer(f, [])))).toEqual(['early declined', 0])
  expect(named((f) => (f.findings.f = found(minute(2))))).toEqual(['early done', 0])
  expect(named((f) => (f.findings.f = found(minute(0))))).toEqual(['early open', 1])
})
