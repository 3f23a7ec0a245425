import type * as z from 'zod'
import { readProgramsCsv, type Property } from '../core/formats'
import { refusal, refused, accepted, type Outcome } from '../core/refusal'
import { localText, programsOf, review, stationTag, type CalendarDate } from '../core/schedule'
import { getOrThrow } from '../core/site'
import type { Speaker } from '../words'
import type { Arguments } from './flags'
import type { scheduleOutput } from './output'
import { chosenControllers } from './verbs'

type Out = z.infer<typeof scheduleOutput>

/** What the programs of a controller, of a list or those on record, run from a date on, and what is wrong with them. */
export function scheduleOf(
  { site }: Property,
  csv: string | null,
  flags: Arguments['flags'],
  { t }: Speaker,
): Outcome<Out> {
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  const [controller, ...others] = chosen.value
  if (controller === undefined || others.length > 0) {
    const options = chosen.value.map((id) => getOrThrow(site.controllers, id).tag).join(', ')
    return refused(refusal('which_controller', ['--controller'], { options }))
  }
  if (flags.from === undefined) return refused(refusal('no_from_date', ['--from']))
  const programs = csv === null ? accepted(programsOf(site, controller)) : readProgramsCsv(csv, site, controller)
  if (!programs.ok) return programs
  if (csv === null && programs.value.length === 0) return refused(refusal('no_programs', ['--programs']))
  const reviewed = review(site, controller, programs.value, {
    from: flags.from as CalendarDate,
    days: flags.days,
    zone: flags.zone,
    rules: {
      ...(flags.mode === undefined ? {} : { mode: flags.mode }),
      ...(flags.delay === undefined ? {} : { delay_s: flags.delay }),
    },
  })
  if (!reviewed.ok) return reviewed
  const { clock, rules, ran, findings } = reviewed.value
  return accepted({
    verb: 'schedule',
    property: site.about.name,
    controller: getOrThrow(site.controllers, controller).tag,
    zone: clock.name,
    ...rules,
    runs: ran.runs.map((r) => ({
      terminal: stationTag(site, controller, r.station),
      program: programs.value[r.program]!.name,
      start: localText(clock, r.start_s),
      end: localText(clock, r.end_s),
    })),
    findings: findings.map(({ code, params }) => ({ code, says: t(`schedule.${code}`, params), ...params })),
  })
}

/** The same as lines for a person. */
export const scheduleLines = (o: Out): string[] => [
  ...o.runs.map((r) => `${r.start.replace('T', ' ')} – ${r.end.slice(11)}  ${r.program.padEnd(4)} ${r.terminal}`),
  ...(o.findings.length === 0 ? ['Nothing is wrong with it.'] : o.findings.map((f) => f.says)),
]
