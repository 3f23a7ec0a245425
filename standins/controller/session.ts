import {
  entries,
  getOrThrow,
  type ControllerId,
  type DeviceId,
  type ProgramRecord,
  type Site,
  type TerminalId,
} from '../../core/site'
import type { Field } from '../field'
import { clockwork, type Clockwork, type PlainProgram } from './clockwork'
import { secondOf, shown } from './wall'

/** One line in, one line out or none: the simulated controller's side of a connection. */
export interface ControllerSession {
  readonly hear: (line: string) => string | null
}
/** From a time on by the clock at its door: the screws that are on, and the valves that water. */
interface Moment {
  readonly at: string
  readonly on: readonly string[]
  readonly waters: readonly string[]
}

/** The most that goes by at one line: a week. */
const LONGEST_s = 7 * 86_400
const BY_HAND_s = 120
const DATE = /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2})$/

/**
 * A controller that runs its programs over a simulated property as fast as it is asked to, in plain text:
 * `CTRL:DOOR A` stands before a controller by its tag, `CTRL:TIME 2027-05-01T05:59` sets its clock, `CTRL:RUN?
 * 3600` lets so many seconds go by and answers in JSON with every change of what is on and what waters,
 * `CTRL:HAND 5` runs a screw for two minutes, `CTRL:POWER OFF|ON` takes the property's power away and gives it
 * back. Its clock goes on without.
 */
export function controllerOn(site: Site, field: Field): ControllerSession {
  let door: ControllerId | null = null
  let works: Clockwork | null = null
  let now_s = 0
  let hasPower = true
  const byHand = new Map<TerminalId, number>()
  let last = ''
  const { timeZone: zone } = site.settings

  const tagOf = (terminal: TerminalId) => getOrThrow(getOrThrow(site.controllers, door!).terminals, terminal).tag
  const valve = (device: DeviceId) => getOrThrow(site.devices, device).tag ?? device
  const onNow = (): TerminalId[] => {
    const running = works!.on() as TerminalId[]
    const hands = [...byHand].flatMap(([terminal, until_s]) => (until_s > now_s ? [terminal] : []))
    return hasPower ? [...new Set([...running, ...hands])] : []
  }
  function lookAgain(): Moment[] {
    const on = onNow()
    const key = on.join(' ')
    if (key === last) return []
    last = key
    const waters = field.running(door!, on, now_s).map(valve)
    const { date, time } = shown(zone, now_s)
    return [{ at: `${date}T${time}`, on: on.map(tagOf), waters }]
  }
  function run(seconds: number): Moment[] {
    const moments = lookAgain()
    for (let gone = 0; gone < seconds; gone++) {
      works!.tick(++now_s)
      moments.push(...lookAgain())
    }
    return moments
  }
  function stand(at: ControllerId): void {
    door = at
    const { startsRun, delay_s } = getOrThrow(site.controllers, at).scheduling
    works = clockwork(plainPrograms(site, at), { zone, mode: startsRun, delay: delay_s })
    byHand.clear()
    last = ''
    hasPower = true
  }
  const hear = (line: string): string | null => {
    const [, head = '', rest = ''] = /^\s*CTRL:(\S+)\s*(.*?)\s*$/i.exec(line) ?? []
    const word = head.toUpperCase()
    if (word === 'DOOR') {
      const at = entries(site.controllers).find(([, c]) => c.tag === rest)?.[0]
      if (at) stand(at)
      return null
    }
    if (door === null) return word.endsWith('?') ? '' : null
    switch (word) {
      case 'TIME': {
        const [, date, time] = DATE.exec(rest) ?? []
        if (!date || Number.isNaN(Date.parse(`${date}T${time}Z`))) return null
        now_s = secondOf(zone, date, `${time}:00`)
        stand(door)
        return null
      }
      case 'RUN?': {
        const seconds = Number(rest)
        const isTime = Number.isInteger(seconds) && seconds >= 0 && seconds <= LONGEST_s
        const moments = isTime ? run(seconds) : []
        const { date, time } = shown(zone, now_s)
        return JSON.stringify({ now: `${date}T${time}`, moments })
      }
      case 'HAND': {
        const at = entries(getOrThrow(site.controllers, door).terminals).find(([, t]) => t.tag === rest)?.[0]
        if (at) byHand.set(at, now_s + BY_HAND_s)
        return null
      }
      case 'POWER':
        hasPower = rest.toUpperCase() !== 'OFF'
        return null
      default:
        return null
    }
  }
  return { hear }
}

/** The programs on record as the controller holds them; numbers of a path have no screw to be seen on. */
function plainPrograms(site: Site, controller: ControllerId): PlainProgram[] {
  return entries(site.programs)
    .filter(([, p]) => p.controller === controller)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([, p]) => ({
      starts: p.starts_s.flatMap((s) => (s === null ? [] : [new Date(s * 1000).toISOString().slice(11, 19)])),
      days: p.days,
      runs: p.runs
        .filter((r) => r.address === null)
        .map((r) => ({ station: r.terminal, seconds: (month) => secondsOf(r.minutes, p.seasonal_pct, month) })),
    }))
}

/** To the nearest whole second, halves up: in millionths, so that decimals are whole numbers. */
const secondsOf = (minutes: number, seasonal: ProgramRecord['seasonal_pct'], month: number): number => {
  const percent = typeof seasonal === 'number' ? seasonal : seasonal[month]!
  return Math.floor((Math.round(minutes * percent * 1e4) * 60) / 1e6 + 0.5)
}
