import { programsOf, running } from '../../core/schedule'
import { poweredTurns, sequencersOf } from '../../core/sequencer'
import {
  getOrThrow,
  type ControllerId,
  type DeviceId,
  type ProgramId,
  type Site,
  type TerminalId,
} from '../../core/site'
import { sequencedSite } from '../../tests/sequenced-site'
import { chance } from '../chance'
import { fieldOf } from '../field'
import { controllerOn } from './session'

const A = 'A' as ControllerId
const site = ((): Site => {
  const run = (terminal: string, minutes: number) => ({ terminal: terminal as TerminalId, address: null, minutes })
  const shared = { controller: A, days: { kind: 'odd' } as const, seasonal_pct: 80 }
  return {
    ...sequencedSite(),
    programs: {
      a: { ...shared, name: 'A', order: 0, starts_s: [21_600, null], runs: [run('4', 10), run('1', 5), run('5', 8)] },
      b: { ...shared, name: 'B', order: 1, starts_s: [22_000], runs: [run('2', 4), run('5', 3)] },
    } as Record<string, Site['programs'][ProgramId]> as Site['programs'],
  }
})()
const Q = sequencersOf(site, A)[0]!
interface Answer {
  now: string
  moments: { at: string; on: string[]; waters: string[] }[]
}
function standing(last: number) {
  const sequencers = new Map([[Q.device, last]])
  const field = fieldOf(site, [], { random: chance(3), ground_C: 20, sequencers })
  const controller = controllerOn(site, field)
  for (const line of ['CTRL:DOOR A', 'CTRL:TIME 2027-05-01T00:00']) expect(controller.hear(line)).toBeNull()
  const run = (seconds: number) => JSON.parse(controller.hear(`CTRL:RUN? ${seconds}`)!) as Answer
  return { controller, run }
}

test('three days at the simulated controller: screws by the schedule, valves by the sequencer as it stands', () => {
  const ran = running(site, A, programsOf(site, A), { from: '2027-05-01', days: 3 })
  if (!ran.ok) throw new Error('runs')
  const { runs } = ran.value.ran
  const tag = (terminal: TerminalId) => getOrThrow(site.controllers, A).terminals[terminal]!.tag
  for (const last of [0, 1]) {
    const { run } = standing(last)
    const { moments, now } = run(3 * 86_400)
    expect(now).toBe('2027-05-04T00:00:00')
    const begun = moments.filter((m) => m.on.length > 0)
    expect(begun.map((m) => `${m.at} ${m.on.join()}`)).toEqual(
      runs.map((r) => `${new Date(r.start_s * 1000).toISOString().slice(0, 19)} ${tag(r.station.terminal)}`),
    )
    const on = runs
      .filter((r) => Q.fedBy.includes(r.station.terminal))
      .map((r) => ({ from_s: r.start_s, to_s: r.end_s }))
    const turns = poweredTurns(on, [], { outputs: 2, off_ms: Q.off_ms }, last)
    // The bed's master has no lead: it stays shut, and the bed dry.
    const own: Record<string, DeviceId | ''> = { 1: '', 2: 'V2' as DeviceId }
    expect(begun.map((m) => m.waters.join())).toEqual(
      runs.map((r) => {
        const turn = turns.find((t) => t.from_s <= r.start_s && r.start_s < t.to_s)
        return turn ? Q.outputs[turn.output]![0] : own[r.station.terminal]
      }),
    )
  }
})

test('by hand and with the power out: each step is one turn, and the clock goes on', () => {
  const { controller, run } = standing(1)
  controller.hear('CTRL:HAND 4')
  expect(run(60).moments).toMatchObject([{ on: ['4'], waters: ['V4'] }])
  expect(run(120).moments).toMatchObject([{ on: [], waters: [] }])
  controller.hear('CTRL:HAND 5')
  run(1)
  controller.hear('CTRL:POWER OFF')
  expect(run(30).moments).toMatchObject([{ on: [], waters: [] }])
  controller.hear('CTRL:POWER ON')
  expect(run(5).moments).toMatchObject([{ at: '2027-05-01T00:03:31', on: ['5'], waters: ['V4'] }])
  for (const line of ['CTRL:RUN? -1', 'CTRL:RUN? x', 'CTRL:RUN? 99999999']) {
    expect(JSON.parse(controller.hear(line)!)).toMatchObject({ moments: [] })
  }
  expect(controllerOn(site, fieldOf(site, [], { random: chance(3), ground_C: 20 })).hear('CTRL:RUN? 5')).toBe('')
})
