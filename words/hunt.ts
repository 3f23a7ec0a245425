import type { HuntReport, NextReport, OutcomeReport } from '../core/hunt'
import {
  answerOf,
  optionOf,
  saysOf,
  testKindOf,
  type AnswerOption,
  type FieldTest,
  type Part,
  type ReadingValue,
} from '../core/record'
import { getOrThrow, type ControllerId, type End, type PlaceId, type Site } from '../core/site'
import { namesOf, sayCause, sayPart } from './part'
import { say, type Speaker } from './say'
import { sayCount, sayTrouble } from './trouble'

function testParams(test: FieldTest, site: Site, speaker: Speaker): Record<string, string> {
  const names = namesOf(site, speaker)
  const end = (e: End) => (e.kind === 'terminal' ? names.terminal(e.controller, e.terminal) : e.kind)
  if (test.kind === 'ohms') return { from: end(test.from), to: end(test.to) }
  if ('controller' in test) return {}
  if ('splice' in test) return { part: sayPart({ kind: 'joint', splice: test.splice }, site, speaker) }
  if ('device' in test) {
    const station = Object.values(site.stations).find((s) => s.valves.includes(test.device))
    const point = Object.values(site.pointsOfConnection).find(
      (p) => p.masterValve === test.device || p.pumpRelay === test.device,
    )
    const at = station
      ? names.terminal(station.controller, station.terminal)
      : point?.terminal
        ? names.terminal(point.terminal.controller, point.terminal.terminal)
        : ''
    return { name: names.valve(test.device), at, live: test.kind === 'coil_beside' ? end(test.live) : '' }
  }
  return {
    at: end(test.at),
    name: names.station(test.at.controller, test.at.terminal),
    onto: test.kind === 'swap_test' ? end(test.onto) : '',
  }
}
const testCode = (test: FieldTest): string =>
  test.kind === 'ohms' && test.to.kind === 'earth' ? 'ohms_earth' : test.kind

export const sayTest = (test: FieldTest, site: Site, speaker: Speaker): string =>
  say({ code: `huntTest.${testCode(test)}`, params: testParams(test, site, speaker) }, speaker)
/** Where to clip, and what must be on, off or undone. */
export const sayHow = (test: FieldTest, site: Site, speaker: Speaker): string =>
  say({ code: `huntHow.${testCode(test)}`, params: testParams(test, site, speaker) }, speaker)

/** The usual caution at a test. */
export function sayCare(
  { test, needs }: Pick<NextReport, 'test' | 'needs'>,
  atCabinet: boolean,
  speaker: Speaker,
): string {
  const { danger } = testKindOf(test.kind)
  const rod = danger === 'earth' || (test.kind === 'ohms' && test.to.kind === 'earth')
  const power = needs.leads === 'on' || danger === 'on'
  const code =
    danger === 'water'
      ? danger
      : needs.undone !== null
        ? 'undone'
        : rod
          ? 'earth'
          : power
            ? 'on'
            : atCabinet
              ? 'off'
              : 'box'
  return say({ code: `huntCare.${code}`, params: {} }, speaker)
}

/** One answer of a test in words or figures. */
export function sayAnswer(
  test: FieldTest,
  outcome: Pick<OutcomeReport, 'kind' | 'low' | 'high'>,
  speaker: Speaker,
): string {
  const word = (code: string, params: Record<string, string> = {}) =>
    say({ code: `huntAnswer.${code}`, params }, speaker)
  const unit = answerOf(test.kind).unit ?? 'Ω'
  const figure = (x: number) =>
    `${x >= 1000 ? `${(x / 1000).toPrecision(2)} k` : x >= 100 ? x.toFixed(0) : x.toFixed(x < 10 ? 1 : 0)}${x >= 1000 ? unit : ` ${unit}`}`
  switch (outcome.kind) {
    case 'open':
      return word('open')
    case 'figure':
      return outcome.low === null
        ? outcome.high === null
          ? unit
          : word('below', { high: figure(outcome.high) })
        : outcome.high === null
          ? word('above', { low: figure(outcome.low) })
          : word('figure', { low: figure(outcome.low), high: figure(outcome.high) })
    case 'yes':
    case 'no':
      return word(saysOf(test.kind)?.[outcome.kind === 'yes' ? 0 : 1] ?? outcome.kind)
    default:
      return word(outcome.kind)
  }
}
/** A reading as it was kept. */
export function sayValue(test: FieldTest, value: ReadingValue, site: Site, speaker: Speaker): string {
  const names = namesOf(site, speaker)
  const answer = (kind: OutcomeReport['kind']) => sayAnswer(test, { kind, low: null, high: null }, speaker)
  switch (value.kind) {
    case 'ohm':
      return speaker.figure('reading_ohm', value.ohm)
    case 'open':
      return answer('open')
    case 'volt':
      return `${value.volt} V`
    case 'waters':
      return value.valves.length === 0 ? answer('no') : value.valves.map((v) => names.valve(v)).join(', ')
    case 'tone':
      return value.lost_m === null ? answer('no') : speaker.figure('lost_m', value.lost_m)
    default:
      return sayOption(optionOf(test.kind, value), speaker)
  }
}

/** One of the answers that are chosen from. */
export const sayOption = ({ says }: Pick<AnswerOption, 'says'>, speaker: Speaker): string =>
  say({ code: `huntAnswer.${says}`, params: {} }, speaker)

const likely = (where: Part | null, p: number, site: Site, speaker: Speaker): string =>
  say(
    {
      code: 'huntAnswer.likely',
      params: {
        part: where === null ? say({ code: 'part.nothing', params: {} }, speaker) : sayPart(where, site, speaker),
        p_ratio: p,
      },
    },
    speaker,
  )

/** What an answer would mean: "open: the coil (62 %), the lead (20 %)". */
export const sayOutcome = (test: FieldTest, outcome: OutcomeReport, site: Site, speaker: Speaker): string =>
  say(
    {
      code: 'huntAnswer.means',
      params: {
        answer: sayAnswer(test, outcome, speaker),
        parts: outcome.parts.map((x) => likely(x.where, x.p, site, speaker)).join(', '),
      },
    },
    speaker,
  )

/** A part that rounds to 0 % is not told of. */
const WORTH_SAYING = 0.005

/** Where a test is made: at the cabinet, or in a box by its tag. */
export function sayPlace(place: PlaceId, site: Site, controller: ControllerId, speaker: Speaker): string {
  const atCabinet = place === getOrThrow(site.controllers, controller).place
  const code = atCabinet ? 'diagnose.atCabinet' : 'diagnose.atBox'
  return say({ code, params: { box: getOrThrow(site.places, place).tag } }, speaker)
}

/** How long a test takes until it is read. */
export const sayMinutes = (minutes: number, speaker: Speaker): string =>
  say({ code: 'diagnose.minutes', params: { min: minutes.toFixed(minutes < 9.95 ? 1 : 0) } }, speaker)

/** Where the hunt stands, verdict first. */
export function sayStand(report: HuntReport, site: Site, speaker: Speaker): string {
  if (report.end === 'nothing') return say({ code: 'hunt.nothing', params: { p_ratio: report.nothing } }, speaker)
  const wrong = report.troubles.filter((x) => x.wrong)
  if (wrong.length > 1) {
    const rest = report.end === 'undecided' ? [say({ code: 'hunt.noMore', params: {} }, speaker)] : []
    return [sayCount(report, speaker), ...wrong.map((x) => sayTrouble(x, site, speaker)), ...rest].join(' ')
  }
  if (report.named) {
    const cause = report.named.where.kind === 'thread' ? undefined : report.named.causes[0]
    return say(
      {
        code: cause ? 'hunt.named' : 'hunt.namedPlain',
        params: {
          part: sayPart(report.named.where, site, speaker),
          cause: cause ? sayCause(cause.cause, speaker) : '',
          p_ratio: report.named.p,
        },
      },
      speaker,
    )
  }
  if (report.misread > Math.max(report.nothing, report.parts[0]?.p ?? 0))
    return say({ code: 'hunt.misread', params: { p_ratio: report.misread } }, speaker)
  const nothing = report.nothing > (report.parts[0]?.p ?? 0) ? [{ where: null, p: report.nothing }] : []
  const likeliest = [...nothing, ...(wrong[0]?.parts ?? report.parts)]
    .slice(0, 3)
    .filter((x, n) => n === 0 || x.p >= WORTH_SAYING)
  return say(
    {
      code: `hunt.${report.end}`,
      params: { parts: likeliest.map((x) => likely(x.where, x.p, site, speaker)).join(', ') },
    },
    speaker,
  )
}

/** That no faults explain every reading, by the box of the likeliest part, or by where the controller is. */
export const sayStrained = (report: HuntReport, site: Site, controller: ControllerId, speaker: Speaker): string => {
  const place = report.parts[0]?.places[0] ?? getOrThrow(site.controllers, controller).place
  return say({ code: 'hunt.strained', params: { box: getOrThrow(site.places, place).tag } }, speaker)
}

/** That one reading fits nothing and should be taken again. */
export const saySlipped = (
  { test, value }: { test: FieldTest; value: ReadingValue },
  site: Site,
  speaker: Speaker,
): string =>
  say(
    {
      code: 'hunt.slipped',
      params: { test: sayTest(test, site, speaker), value: sayValue(test, value, site, speaker) },
    },
    speaker,
  )

export const sayTelling = (
  { test, value }: { test: FieldTest; value: ReadingValue },
  site: Site,
  speaker: Speaker,
): string =>
  say(
    {
      code: 'hunt.because',
      params: { test: sayTest(test, site, speaker), value: sayValue(test, value, site, speaker) },
    },
    speaker,
  )
