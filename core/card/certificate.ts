import { stateOf, type State, type VerdictCode } from '../expect'
import { judgedAt, runOf, type Against, type RunStep } from '../procedure'
import type { Facts, Reading } from '../record'
import { getOrThrow, stationAt, tagAndName, type DeviceId, type Site, type TerminalId } from '../site'

/** A thread on the certificate: every figure that was taken of it. */
export interface CertificateLine {
  readonly label: string
  readonly name: string
  readonly ohm: Figure | null
  readonly earth: Figure | null
  readonly volt: number | null
  readonly heard: boolean | null
  /** What was chosen of its zone, by the option’s name. */
  readonly zone: string | null
}
/** A reading of ohms, null for open; `reason` where it was taken as baseline although it does not fit. */
export interface Figure {
  readonly ohm: number | null
  readonly state: State
  readonly verdict: VerdictCode
  readonly reason: string | null
}

/** The record of a commissioning: every figure, who took part and when, what was left out and why. */
export interface Certificate {
  readonly property: string
  readonly contractor: string
  readonly controller: string
  readonly people: readonly string[]
  readonly from: string
  readonly to: string
  readonly ground_C: number
  readonly meter: string
  readonly supply_V: number | null
  readonly lines: readonly CertificateLine[]
  /** Coils that the cabinet cannot see, read at their boxes. */
  readonly coils: readonly { readonly name: string; readonly ohm: Figure | null }[]
  readonly leftOut: readonly { readonly step: RunStep; readonly reason: string }[]
  readonly open: readonly RunStep[]
}

/** The certificate of a job that follows a commissioning; null of any other. */
export function certificateOf(site: Site, facts: Facts, jobId: string, against: Against): Certificate | null {
  const run = runOf(site, facts, jobId)
  const job = facts.jobs[jobId]
  if (!run || !job || (run.procedure.from ?? run.procedure.id) !== 'commission') return null
  const reasons = new Map(Object.values(facts.acceptances).map((a) => [a.reading, a.reason]))
  const readingOf = (step: RunStep | undefined): [string, Reading] | null => {
    const answer = step?.given?.answer
    const reading = answer?.kind === 'reading' ? facts.readings[answer.reading] : undefined
    return answer?.kind === 'reading' && reading ? [answer.reading, reading] : null
  }
  const figure = (step: RunStep | undefined): Figure | null => {
    const found = readingOf(step)
    const judged = found && judgedAt(against, found[1])
    if (!found || !judged) return null
    const [id, { value }] = found
    return {
      ohm: value.kind === 'ohm' ? value.ohm : null,
      state: stateOf(judged.verdict.code),
      verdict: judged.verdict.code,
      reason: reasons.get(id) ?? null,
    }
  }
  const record = getOrThrow(site.controllers, job.controller)
  const terminals = [
    ...new Set(run.steps.flatMap(({ thing: { target } }) => (target.kind === 'terminal' ? [target.terminal] : []))),
  ].sort((a, b) => record.terminals[a]!.order - record.terminals[b]!.order)
  const at = (terminal: TerminalId) =>
    run.steps.filter(({ thing: { target } }) => target.kind === 'terminal' && target.terminal === terminal)
  const answered = run.steps.flatMap((s) => s.given ?? [])
  const supply = readingOf(run.steps.find((s) => s.step.does.kind === 'measure' && s.step.does.test === 'supply'))
  return {
    property: site.about.name,
    contractor: site.about.contractor,
    controller: tagAndName(record),
    people: [...new Set([job.author, ...answered.map((a) => a.author)])].filter((name) => name !== ''),
    from: job.at,
    to: answered.reduce((last, a) => (a.at > last ? a.at : last), job.at),
    ground_C: job.ground_C,
    meter: job.meter.name,
    supply_V: supply?.[1].value.kind === 'volt' ? supply[1].value.volt : null,
    lines: terminals.map((terminal): CertificateLine => {
      const steps = at(terminal)
      const measured = (test: string) =>
        steps.find((s) => s.step.does.kind === 'measure' && s.step.does.test === test && !toEarth(s))
      const heard = readingOf(measured('click'))?.[1].value
      const volts = readingOf(measured('volts'))?.[1].value
      const zone = steps.find((s) => s.step.id === 'zone')?.given?.answer
      const { tag, label } = record.terminals[terminal]!
      return {
        label: label || tag,
        name: stationAt(site, { controller: job.controller, terminal })?.[1].name ?? '',
        ohm: figure(measured('ohms')),
        earth: figure(steps.find(toEarth)),
        volt: volts?.kind === 'volt' ? volts.volt : null,
        heard: heard?.kind === 'heard' ? heard.heard : null,
        zone: zone?.kind === 'chosen' ? zone.option : null,
      }
    }),
    coils: run.steps
      .filter((s) => s.step.does.kind === 'measure' && s.step.does.test === 'coil_ohms')
      .map((s) => ({
        name: s.thing.target.kind === 'coil' ? nameOf(site, s.thing.target.device) : '',
        ohm: figure(s),
      })),
    leftOut: run.steps.flatMap((step) =>
      step.given?.answer.kind === 'refused' ? [{ step, reason: step.given.answer.reason }] : [],
    ),
    open: run.steps.filter((s) => s.state === 'open' || s.state === 'failed' || s.state === 'locked'),
  }
}

const toEarth = ({ step: { does } }: RunStep): boolean => does.kind === 'measure' && does.to === 'earth'
const nameOf = (site: Site, device: DeviceId): string => {
  const record = site.devices[device]
  const station = Object.values(site.stations).find((s) => s.valves.includes(device))
  return station?.name || record?.name || (record?.tag ?? device)
}
