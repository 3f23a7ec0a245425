import type * as z from 'zod'
import { readProgramsCsv, type Property } from '../core/formats'
import { refusal, refused, accepted, type Outcome } from '../core/refusal'
import { findingsOf, localText, runsOf, stationTag, toRuns, wallClock, type CalendarDate } from '../core/schedule'
import { getOrThrow } from '../core/site'
import type { Speaker } from '../words'
import type { Arguments } from './flags'
import type { scheduleOutput } from './output'
import { chosenControllers } from './verbs'

type Out = z.infer<typeof scheduleOutput>

/** What the programs of a controller run from a date on, and what is wrong with them. */
export function scheduleOf({ site }: Property, csv: string, flags: Arguments['flags'], { t }: Speaker): Outcome<Out> {
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  const [controller, ...others] = chosen.value
  if (controller === undefined || others.length > 0) {
    const options = chosen.value.map((id) => getOrThrow(site.controllers, id).tag).join(', ')
    return refused(refusal('which_controller', ['--controller'], { options }))
  }
  if (flags.from === undefined) return refused(refusal('no_from_date', ['--from']))
  const clock = wallClock(flags.zone ?? site.settings.timeZone)
  const programs = readProgramsCsv(csv, site, controller)
  if (!clock.ok) return clock
  if (!programs.ok) return programs
  const { scheduling, tag } = getOrThrow(site.controllers, controller)
  const rules = { mode: flags.mode ?? scheduling.startsRun, delay_s: flags.delay ?? scheduling.delay_s }
  const ran = runsOf(programs.value.map(toRuns), rules, clock.value, flags.from as CalendarDate, flags.days)
  return accepted({
    verb: 'schedule',
    property: site.about.name,
    controller: tag,
    zone: clock.value.name,
    ...rules,
    runs: ran.runs.map((r) => ({
      terminal: stationTag(site, controller, r.station),
      program: programs.value[r.program]!.name,
      start: localText(clock.value, r.start_s),
      end: localText(clock.value, r.end_s),
    })),
    findings: findingsOf({ site, controller, programs: programs.value, ran, rules, clock: clock.value }).map(
      ({ code, params }) => ({ code, says: t(`schedule.${code}`, params), ...params }),
    ),
  })
}

/** The same as lines for a person. */
export const scheduleLines = (o: Out): string[] => [
  ...o.runs.map((r) => `${r.start.replace('T', ' ')} – ${r.end.slice(11)}  ${r.program.padEnd(4)} ${r.terminal}`),
  ...(o.findings.length === 0 ? ['Nothing is wrong with it.'] : o.findings.map((f) => f.says)),
]
