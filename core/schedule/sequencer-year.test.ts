import { sequencedSite } from '../../tests/sequenced-site'
import { sequencersOf, type Sequenced } from '../sequencer'
import type { ControllerId, TerminalId } from '../site'
import { drawUpsets, running, sequencerYear, type Program, type Running, type StationOn, type Upset } from '.'

const A = 'A' as ControllerId
const site = sequencedSite()
const [q] = sequencersOf(site, A)
const station = (terminal: string): StationOn => ({ terminal: terminal as TerminalId, address: null })
/** Both valves of the sequencer with another between, on odd days; one of them once more on every third day. */
const programs: Program<StationOn>[] = [
  {
    name: 'A',
    starts_s: [6 * 3600],
    days: { kind: 'odd' },
    seasonal_pct: 100,
    runs: [
      ['4', 10],
      ['1', 5],
      ['5', 8],
    ].map(([terminal, minutes]) => ({ station: station(terminal as string), minutes: minutes as number })),
  },
]
function ranOver(days: number): Running {
  const run = running(site, A, programs, { from: '2027-05-01', days })
  if (!run.ok) throw new Error(run.refusals[0]!.code)
  return run.value
}
const year = (upsets: readonly Upset[], syncEvery_days: number | null = null, over = ranOver(60)) =>
  sequencerYear(site, A, q!, over, { upsets, syncEvery_days })
const at = (text: string) => Date.parse(`${text}Z`) / 1000

/** Seconds of program runs by output, by a clock that ticks: power now, and how long there was none. */
function ticked({ ran }: Running, { fedBy, outputs, off_ms }: Sequenced, upsets: readonly Upset[]): number[] {
  const had = outputs.map(() => 0)
  const own = ran.runs.filter((r) => fedBy.includes(r.station.terminal))
  const within = (second: number, list: readonly { from_s: number; to_s: number }[]) =>
    list.some((i) => i.from_s <= second && second < i.to_s)
  const program = own.map((r) => ({ from_s: r.start_s, to_s: r.end_s }))
  const [hand, out] = (['by_hand', 'outage'] as const).map((kind) => upsets.filter((u) => u.kind === kind))
  let [output, away_s] = [outputs.length - 1, Infinity]
  for (let second = own[0]!.start_s - 86_400; second < own.at(-1)!.end_s; second++) {
    const isProgram = within(second, program)
    const isOn = (isProgram || within(second, hand!)) && !within(second, out!)
    if (isOn && away_s * 1000 >= off_ms) output = (output + 1) % outputs.length
    if (isOn && isProgram) had[output]!++
    away_s = isOn ? 0 : away_s + 1
  }
  return had
}

test('a year at a sequencer is what a clock that ticks second by second makes of it', () => {
  const over = ranOver(7)
  for (let seed = 1; seed <= 12; seed++) {
    const upsets = drawUpsets(over.clock, { from: '2027-05-01', days: 7 }, { outages: 40, byHand: 3, seed })
    expect([seed, year(upsets, null, over).had_s]).toEqual([seed, ticked(over, q!, upsets)])
  }
})

test('undisturbed every valve has its own water; a start by hand gives each the other’s, until it is brought into step', () => {
  const calm = year([])
  expect([calm.days.some((d) => d.isWrong), calm.had_s]).toEqual([false, calm.meant_s])
  const hand: Upset = { kind: 'by_hand', from_s: at('2027-05-10T10:00:00'), to_s: at('2027-05-10T10:02:00') }
  const wrong = (syncEvery_days: number | null) => year([hand], syncEvery_days).days.filter((d) => d.isWrong)
  expect(year([hand]).upsets).toMatchObject([{ kind: 'by_hand', shifts: true, at: '2027-05-10T10:00:00' }])
  // Odd days from the 11th of May to the 29th of June.
  expect([wrong(null).length, wrong(null)[0]!.date, wrong(null)[0]!.had_s]).toEqual([26, '2027-05-11', [480, 600]])
  expect([wrong(30).length, wrong(30).at(-1)!.date]).toEqual([10, '2027-05-29'])
  const idle: Upset = { kind: 'outage', from_s: at('2027-05-10T10:00:00'), to_s: at('2027-05-10T12:00:00') }
  expect(year([idle]).upsets[0]!.shifts).toBe(false)
  const within: Upset = { kind: 'outage', from_s: at('2027-05-11T06:02:00'), to_s: at('2027-05-11T06:03:00') }
  expect([year([within]).upsets[0]!.shifts, year([within]).days.at(-1)!.isWrong]).toEqual([true, true])
})
