import { sequencedSite } from '../../tests/sequenced-site'
import { applyBatch, type ControllerId, type Site, type TerminalId } from '../site'
import {
  changeCommands,
  daysText,
  mendOf,
  minutesCommands,
  minutesText,
  pasteMinutes,
  programsOf,
  proposalsFor,
  readDays,
  readStarts,
  replacePrograms,
  review,
  startsText,
  type Program,
  type ScheduleFinding,
  type StationOn,
} from '.'

const A = 'A' as ControllerId
const at = (terminal: string): StationOn => ({ terminal: terminal as TerminalId, address: null })
type Written = readonly [name: string, starts: string, days: string, runs: Readonly<Record<string, number>> | string]
/** Programs by their door: `1 10, 2 5` keeps an order that is not the screws'. */
const written = (...programs: Written[]): Program<StationOn>[] =>
  programs.map(([name, starts, days, runs]) => ({
    name,
    starts_s: readStarts(starts)!,
    days: readDays(days)!,
    seasonal_pct: 100,
    runs: (typeof runs === 'string'
      ? runs.split(', ').map((r) => r.split(' ') as [string, string])
      : Object.entries(runs)
    ).map(([station, minutes]) => ({ station: at(station), minutes: Number(minutes) })),
  }))
const told = (programs: readonly Program<StationOn>[]) =>
  programs.map(
    (p) =>
      `${p.name} ${startsText(p.starts_s)} ${daysText(p.days)}: ${p.runs.map((r) => `${r.station.terminal} ${r.minutes}`).join(', ')}`,
  )
let made = 0
const id = () => `made-${++made}`
function on(site: Site, commands: Parameters<typeof applyBatch>[1]): Site {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const withPrograms = (site: Site, programs: readonly Program<StationOn>[]) =>
  on(site, replacePrograms(site, A, programs, id))
function judged(site: Site) {
  const programs = programsOf(site, A)
  const reviewed = review(site, A, programs, { from: '2027-05-03', days: 14 })
  if (!reviewed.ok) throw new Error('zone')
  return { site, controller: A, programs, reviewed: reviewed.value }
}
const saying = ({ code, params }: ScheduleFinding) => `${code} ${params.station ?? params.program ?? ''}`.trim()

/** What a site says of its programs, and after the mend of the first finding of a code. */
function mended(site: Site, code: string): { before: string[]; after: string[]; programs: string[] } | null {
  const mending = judged(site)
  const finding = mending.reviewed.findings.find((f) => f.code === code)!
  const change = mendOf(mending, finding)
  if (!change) return null
  const next = judged(on(site, changeCommands(site, A, change, id)))
  return {
    before: mending.reviewed.findings.map(saying),
    after: next.reviewed.findings.map(saying),
    programs: told(next.programs),
  }
}
const ALL = '1 10, 4 5, 2 5, 5 5'

test('each mend takes its finding away and brings no other', () => {
  const capped = { mostMinutes: 30, mostStarts: 1, mostPrograms: 1 }
  const hours = { window_s: { opens: 22 * 3600, closes: 6 * 3600 } }
  const cases: [string, Site, string[]][] = [
    [
      'start_waits',
      withPrograms(sequencedSite(), written(['A', '06:00', 'daily', ALL], ['B', '06:10 - 18:00', 'Mon Thu', '2 30'])),
      [
        'A 06:00 Mon Tue Wed Thu Fri Sat Sun: 1 10, 4 5, 2 5, 5 5',
        // The start left blank stays so.
        'B 06:25 - 18:00 Mon Thu: 2 30',
      ],
    ],
    [
      'overlap',
      withPrograms(
        sequencedSite({ startsRun: 'overlap' }, 100),
        written(['A', '06:00', 'odd', ALL], ['B', '06:10', 'daily', '2 30']),
      ),
      ['A 06:00 odd: 1 10, 4 5, 2 5, 5 5', 'B 06:25 Mon Tue Wed Thu Fri Sat Sun: 2 30'],
    ],
    [
      'window_exceeded',
      withPrograms(sequencedSite(hours), written(['A', '05:50', 'odd', ALL], ['B', '21:00', 'even', '2 300'])),
      // Together they would pass midnight, where one date's run would meet the other's.
      ['A 22:00 odd: 1 10, 4 5, 2 5, 5 5', 'B 22:25 even: 2 300'],
    ],
    [
      'over_run_cap',
      withPrograms(sequencedSite({ mostMinutes: 30 }), written(['A', '06:00', 'daily', '1 75, 4 6, 2 6, 5 6'])),
      ['A 06:00 06:31 07:02 Mon Tue Wed Thu Fri Sat Sun: 1 25, 4 2, 2 2, 5 2'],
    ],
    [
      'too_many_starts',
      withPrograms(sequencedSite({ mostStarts: 2 }), written(['A', '06:00 07:00 08:00', 'daily', ALL])),
      [
        'A 06:00 07:00 Mon Tue Wed Thu Fri Sat Sun: 1 10, 4 5, 2 5, 5 5',
        'B 08:00 Mon Tue Wed Thu Fri Sat Sun: 1 10, 4 5, 2 5, 5 5',
      ],
    ],
    [
      'too_many_programs',
      withPrograms(
        sequencedSite(capped),
        written(['A', '06:00', 'odd', '1 10, 4 5'], ['B', '07:00', 'odd', '2 5, 5 5']),
      ),
      ['A 06:00 odd: 1 10, 4 5, 2 5, 5 5'],
    ],
    [
      'master_with_nothing',
      withPrograms(sequencedSite(), written(['A', '06:00', 'daily', `3 5, ${ALL}`])),
      ['A 06:00 Mon Tue Wed Thu Fri Sat Sun: 1 10, 4 5, 2 5, 5 5'],
    ],
    [
      'never_runs',
      withPrograms(sequencedSite(), written(['A', '06:00', 'daily', '4 5, 2 5, 5 7'])),
      ['A 06:00 Mon Tue Wed Thu Fri Sat Sun: 4 5, 2 5, 5 7, 1 5'],
    ],
    [
      'sequencer_adjacent',
      withPrograms(sequencedSite(), written(['A', '06:00', 'daily', '1 10, 2 5, 4 5, 5 6'])),
      ['A 06:00 Mon Tue Wed Thu Fri Sat Sun: 1 10, 4 5, 2 5, 5 6'],
    ],
    [
      'sequencer_order',
      withPrograms(sequencedSite(), written(['A', '06:00', 'daily', '5 5, 1 10, 4 6, 2 5'])),
      ['A 06:00 Mon Tue Wed Thu Fri Sat Sun: 4 6, 1 10, 5 5, 2 5'],
    ],
  ]
  for (const [code, site, programs] of cases) {
    const done = mended(site, code)!
    expect([code, done.before.length > 0, done.after]).toEqual([code, true, []])
    expect([code, done.programs]).toEqual([code, programs])
  }
})

test('where two stations alone are of one sequencer a delay is put between; more than fits its hours has no mend', () => {
  const alone = withPrograms(sequencedSite(), written(['A', '06:00', 'daily', '4 5, 5 5']))
  expect(mended(alone, 'sequencer_adjacent')!.after.filter((s) => s.startsWith('sequencer'))).toEqual([])
  const long = { window_s: { opens: 0, closes: 3600 } }
  expect(
    mended(withPrograms(sequencedSite(long), written(['A', '01:00', 'daily', '1 50, 2 20'])), 'window_exceeded'),
  ).toBeNull()
})

test('one screw with two valves gets its second turn in a program of its own, clear of the first', () => {
  const site = sequencedSite()
  // Screw 5 has no wire and no station: screw 4 alone feeds the sequencer.
  const joints = Object.entries(site.splices).find(([, s]) =>
    s.ends.some((e) => e.kind === 'terminal' && e.terminal === '5'),
  )!
  const single = on(site, [
    {
      do: 'set',
      in: 'splices',
      id: joints[0],
      field: 'ends',
      value: joints[1].ends.filter((e) => e.kind !== 'terminal' || e.terminal !== '5'),
    },
    { do: 'remove', in: 'stations', id: 'A-5' },
    { do: 'set', in: 'stations', id: 'A-4', field: 'valves', value: ['V4', 'V5'] },
  ])
  const done = mended(withPrograms(single, written(['A', '06:00', 'daily', '1 10, 2 5, 4 5'])), 'sequencer_missed')!
  expect(done.after).toEqual([])
  expect(done.programs[1]).toBe('B 06:21 Mon Tue Wed Thu Fri Sat Sun: 4 5')
})

test('proposals: fewest starts within the hours, by box, by volts; none where nothing would change', () => {
  const site = withPrograms(
    sequencedSite({ window_s: { opens: 4 * 3600, closes: 7 * 3600 }, mostMinutes: 60 }),
    written(['A', '04:30 06:00', 'daily', '1 45, 4 5, 2 5, 5 5']),
  )
  const [fewest] = proposalsFor(site, A, programsOf(site, A))
  expect([fewest!.code, told(fewest!.changed.programs)]).toEqual([
    'fewest_starts',
    ['A 04:00 05:00 Mon Tue Wed Thu Fri Sat Sun: 1 45, 4 5, 2 5, 5 5'],
  ])
  // All valves are in one box: walking gives no other order.
  expect(proposalsFor(site, A, programsOf(site, A)).map((p) => p.code)).not.toContain('by_box')
})

test('minutes are written where the door has their station, twice where they run twice, and pasted all or none', () => {
  let site = withPrograms(sequencedSite(), written(['A', '06:00', 'daily', '1 10, 4 5'], ['B', '', '', '2 5']))
  const [a, b] = programsOf(site, A)
  const write = (station: string, text: string) => {
    const outcome = minutesCommands(site, a!.id, at(station), text)
    if (outcome.ok) site = on(site, outcome.value)
    return outcome.ok
  }
  expect(write('2', '1:30')).toBe(true)
  expect(write('4', '7.5 + 2')).toBe(true)
  expect(write('1', '')).toBe(true)
  expect(write('2', 'ten')).toBe(false)
  expect(told(programsOf(site, A))[0]).toBe('A 06:00 Mon Tue Wed Thu Fri Sat Sun: 2 90, 4 7.5, 4 2')
  expect(minutesText(programsOf(site, A)[0]!, at('4'))).toBe('7.5 + 2')
  const paste = (text: string) =>
    pasteMinutes(
      site,
      A,
      { station: at('1'), program: a!.id },
      text.split('\n').map((l) => l.split('\t')),
    )
  expect(paste('1\t2\nx\t4').ok).toBe(false)
  const pasted = paste('1\t2\n3\t4')
  site = on(site, pasted.ok ? pasted.value : [])
  expect(told(programsOf(site, A)).map((t) => t.split(': ')[1])).toEqual(['1 1, 2 3, 4 7.5, 4 2', '1 2, 2 4'])
  expect(b!.name).toBe('B')
  // An order that is not the door's stays as it is, whichever way minutes come in.
  site = withPrograms(site, written(['A', '06:00', 'daily', '4 5, 1 10']))
  const again = pasteMinutes(site, A, { station: at('1'), program: a!.id }, [['3'], ['2']])
  site = on(site, again.ok ? again.value : [])
  expect(told(programsOf(site, A))[0]!.split(': ')[1]).toBe('2 2, 4 5, 1 3')
})
