import type * as z from 'zod'
import { readReadingsCsv, type Property } from '../core/formats'
import { climateOf } from '../core/circuit'
import { sceneOf } from '../core/expect'
import { goodReadings, pastOf } from '../core/history'
import { asTaken, huntOf, reportOf, takenKey } from '../core/hunt'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { controllerOf, failingStates, partKey } from '../core/record'
import { getOrThrow, type ControllerId, type PlaceId } from '../core/site'
import type { Speaker } from '../words'
import { sayCare, sayHow, sayOutcome, saySlipped, sayStand, sayStrained, sayTelling, sayTest } from '../words/hunt'
import { sayPart } from '../words/part'
import { sayTrouble } from '../words/trouble'
import type { Arguments } from './flags'
import type { huntOutput } from './output'
import { chosenControllers, meterOf } from './verbs'

type Flags = Arguments['flags']
type Out = z.infer<typeof huntOutput>

/** What a log of readings says of the faults of one controller, and what to measure next. */
export function huntIn({ site, facts }: Property, csv: string, flags: Flags, speaker: Speaker): Outcome<Out> {
  const meter = meterOf(flags)
  const read = readReadingsCsv(csv, site, meter)
  if (!read.ok) return read
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  const meant = [...new Set(read.value.flatMap((r) => controllerOf(site, r.test) ?? []))].filter((c) =>
    chosen.value.includes(c),
  )
  if (meant.length > 1) return refused(refusal('two_controllers'))
  const controller = meant[0] ?? chosen.value[0]!
  const climate = climateOf(
    site,
    flags.ground ?? site.settings.ground_C,
    flags.coil ?? (flags.ground === undefined ? site.settings.coil_C : null),
  )
  const failing = failingStates(site, read.value)
  const hunt = huntOf(site, controller, {
    climate,
    meter,
    helper: flags.helper,
    known: knownOf({ site, facts }, controller, flags).good,
    failing: [...failing],
  })
  if (!hunt) return refused(refusal('nothing_to_hunt', [], { tag: getOrThrow(site.controllers, controller).tag }))
  const taken = read.value.map((r) => ({ ...r, test: asTaken(r, failing) }))
  const lines = new Map(taken.map((r) => [takenKey(r.test), r.line]))
  const left = read.value
    .filter((r) => hunt.predictor.base(r.test) === null || ![controller, null].includes(controllerOf(site, r.test)))
    .map((r) => r.line)
  for (const r of taken) if (!left.includes(r.line)) hunt.take(r)
  const report = reportOf(hunt)
  const place = (p: PlaceId) => getOrThrow(site.places, p).tag
  const cabinet = getOrThrow(site.controllers, controller).place
  const { next, telling } = report
  const suspect = taken.findLast((r) => report.suspect && takenKey(r.test) === takenKey(report.suspect.test))
  return accepted({
    verb: 'hunt',
    property: site.about.name,
    controller: getOrThrow(site.controllers, controller).tag,
    end: report.end,
    strained: report.strained,
    nothing: report.nothing,
    misread: report.misread,
    says: [
      sayStand(report, site, speaker),
      ...(report.strained ? [sayStrained(report, site, controller, speaker)] : []),
    ].join(' '),
    parts: report.parts.map(({ key, where, places, p, causes }) => ({
      key,
      kind: where.kind,
      places: places.map(place),
      p,
      says: sayPart(where, site, speaker),
      causes: [...causes],
    })),
    troubles: report.troubles.map((x) => ({
      p: x.p,
      says: sayTrouble(x, site, speaker),
      parts: x.parts.map(({ key, p }) => ({ key, p })),
      named: x.named,
      zones: x.zones,
      next: x.next && {
        test: x.next.test.kind,
        place: place(x.next.place),
        minutes: x.next.minutes,
        says: sayTest(x.next.test, site, speaker),
      },
    })),
    round: report.round.nearest.map((stop) => ({
      place: place(stop.place),
      minutes: stop.minutes,
      troubles: stop.errands.map((e) => e.trouble),
    })),
    again: suspect ? { line: suspect.line, says: saySlipped(suspect, site, speaker) } : null,
    telling: telling && { line: lines.get(takenKey(telling.test)) ?? null, says: sayTelling(telling, site, speaker) },
    next: next && {
      test: next.test.kind,
      place: place(next.place),
      minutes: next.minutes,
      bits: next.bits,
      says: sayTest(next.test, site, speaker),
      how: sayHow(next.test, site, speaker),
      care: sayCare(next, next.place === cabinet, speaker),
      outcomes: next.outcomes.map((o) => ({
        p: o.p,
        says: sayOutcome(next.test, o, site, speaker),
        parts: o.parts.map((x) => ({ key: x.where === null ? null : partKey(x.where), p: x.p })),
      })),
    },
    left,
    failing: [...failing],
  })
}

/** The file's own good readings of every terminal to common, at the temperature of now. */
export function knownOf({ site, facts }: Pick<Property, 'site' | 'facts'>, controller: ControllerId, flags: Flags) {
  const scene = sceneOf(site, climateOf(site, flags.ground ?? site.settings.ground_C, null))
  return {
    scene,
    good: goodReadings(
      scene,
      (ground_C, coil_C) => sceneOf(site, climateOf(site, ground_C, coil_C)),
      controller,
      meterOf(flags),
      pastOf(facts),
    ),
  }
}

const percent = (p: number, digits: number): string => `${(p * 100).toFixed(digits)} %`

/** The same as lines for a person: what is likely at fault, then what to measure next and what each answer would mean. */
export const huntLines = ({ says, telling, again, parts, nothing, misread, next }: Out): string[] => [
  says,
  ...(telling ? [telling.says] : []),
  ...(again ? [again.says] : []),
  '',
  ...[
    ...parts.slice(0, MOST_PARTS),
    { p: nothing, says: 'nothing' },
    { p: misread, says: 'nothing, and a reading slipped' },
  ].map((part) => `${percent(part.p, 1).padStart(8)}  ${part.says}`),
  ...(next
    ? [
        '',
        `Next: ${next.says}, ${next.place}, ${next.minutes.toFixed(1)} min.`,
        next.how,
        next.care,
        ...next.outcomes.map((o) => `  ${percent(o.p, 0).padStart(5)}  ${o.says}`),
      ]
    : []),
]
const MOST_PARTS = 8
