import type * as z from 'zod'
import { readReadingsCsv, type Property } from '../core/formats'
import { climateOf } from '../core/circuit'
import { sceneOf } from '../core/expect'
import { baselineOf, pastOf, pastOfTest } from '../core/history'
import { causesOf, huntOf, placesOf, STRAINED, type Hunt, type Known } from '../core/hunt'
import { accepted, refusal, refused, type Outcome } from '../core/refusal'
import { testKey, type FieldTest } from '../core/record'
import { commonOf, must, terminalEnd, type ControllerId, type Site } from '../core/site'
import { say, type Speaker } from '../words'
import { sayAnswer, sayCare, sayCause, sayHow, sayPart, sayTest, sayValue } from '../words/hunt'
import type { Arguments } from './flags'
import type { huntOutput } from './output'
import { chosenControllers, meterOf } from './verbs'

type Flags = Arguments['flags']

/** What a log of readings says of the faults of one controller, and what to measure next. */
export function huntIn({ site, facts }: Property, csv: string, flags: Flags, speaker: Speaker): Outcome<z.infer<typeof huntOutput>> {
  const meter = meterOf(flags)
  const read = readReadingsCsv(csv, site, meter)
  if (!read.ok) return read
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  const meant = [...new Set(read.value.flatMap((r) => controllerOf(site, r.test) ?? []))].filter((c) => chosen.value.includes(c))
  if (meant.length > 1) return refused(refusal('two_controllers'))
  const controller = meant[0] ?? chosen.value[0]!
  const climate = climateOf(site, flags.ground ?? site.settings.ground_C, flags.coil ?? (flags.ground === undefined ? site.settings.coil_C : null))
  const hunt = huntOf(site, controller, { climate, meter, helper: flags.helper, known: knownOf({ site, facts }, controller, flags) })
  if (!hunt) return refused(refusal('nothing_to_hunt', [], { tag: must(site.controllers, controller).tag }))
  const lines = new Map(read.value.map((r) => [testKey(r.test), r.line]))
  const left = read.value.filter((r) => hunt.foresight.base(r.test) === null || ![controller, null].includes(controllerOf(site, r.test))).map((r) => r.line)
  for (const r of read.value) if (!left.includes(r.line)) hunt.take(r)
  return accepted(outputOf(hunt, site, controller, speaker, lines, left))
}

function outputOf(hunt: Hunt, site: Site, controller: ControllerId, speaker: Speaker, lines: ReadonlyMap<string, number>, left: readonly number[]): z.infer<typeof huntOutput> {
  const beliefs = hunt.beliefs()
  const stand = hunt.stand()
  const telling = hunt.telling()
  const part = (key: string) => sayPart(hunt.catalogue.faults.find((f) => f.key === key)!.where, site, speaker)
  const names = (keys: readonly string[]) => (keys.length === 0 ? say({ code: 'part.nothing', params: {} }, speaker) : keys.map(part).join(' + '))
  const sorted = [...beliefs.parts].sort((a, b) => b[1] - a[1])
  const next = stand.kind === 'open' ? stand.next : null
  const place = (p: string) => must(site.places, p).tag
  const likely = sorted.slice(0, 3).map(([key, p]) => say({ code: 'huntAnswer.likely', params: { part: part(key), p_ratio: p } }, speaker)).join(', ')
  const cause = stand.kind === 'named' ? causesOf(beliefs, hunt.catalogue, stand.key)[0] : undefined
  return {
    verb: 'hunt', property: site.about.name, controller: must(site.controllers, controller).tag, end: stand.kind, strained: beliefs.strain < STRAINED, nothing: beliefs.nothing,
    says: stand.kind === 'named' ? say({ code: cause ? 'hunt.named' : 'hunt.namedPlain', params: { part: part(stand.key), cause: cause ? sayCause(cause.cause, speaker) : '', p_ratio: stand.p } }, speaker)
      : stand.kind === 'nothing' ? say({ code: 'hunt.nothing', params: { p_ratio: stand.p } }, speaker) : say({ code: `hunt.${stand.kind}`, params: { parts: likely } }, speaker),
    parts: sorted.filter(([, p]) => p > 1e-3).map(([key, p]) => {
      const { where } = hunt.catalogue.faults.find((f) => f.key === key)!
      return { key, kind: where.kind, places: placesOf(site, where).map(place), p, says: part(key), causes: causesOf(beliefs, hunt.catalogue, key) }
    }),
    telling: telling && { line: lines.get(testKey(telling.reading.test)) ?? null, says: say({ code: 'hunt.because', params: { test: sayTest(telling.reading.test, site, speaker), value: sayValue(telling.reading.test, telling.reading.value, site, speaker) } }, speaker) },
    next: next && {
      test: next.candidate.test.kind, place: place(next.candidate.place), minutes: next.minutes, bits: next.bits, says: sayTest(next.candidate.test, site, speaker), how: sayHow(next.candidate.test, site, speaker),
      care: sayCare(next, next.candidate.place === must(site.controllers, controller).place, speaker),
      outcomes: next.outcomes.map((o) => ({ p: o.p, says: say({ code: 'huntAnswer.means', params: { answer: sayAnswer(next.candidate.test, o, speaker), parts: o.parts.map((x) => say({ code: 'huntAnswer.likely', params: { part: names(x.keys), p_ratio: x.p } }, speaker)).join(', ') } }, speaker), parts: o.parts.map((x) => ({ keys: [...x.keys], p: x.p })) })),
    },
    left: [...left],
  }
}

/** Whose wiring a test belongs to; null where it is not said, as for a coil that hangs on nothing. */
function controllerOf(site: Site, test: FieldTest): ControllerId | null {
  if (test.kind === 'ohms') return test.from.kind === 'terminal' ? test.from.controller : null
  if (test.kind === 'supply') return test.controller
  if ('at' in test) return test.at.controller
  if (!('device' in test)) return null
  return Object.values(site.stations).find((s) => s.valves.includes(test.device))?.controller ?? Object.values(site.pointsOfConnection).find((p) => p.masterValve === test.device || p.pumpRelay === test.device)?.terminal?.controller ?? null
}

/** The file's own good readings of every terminal to common, at the temperature of now. */
export function knownOf({ site, facts }: Pick<Property, 'site' | 'facts'>, controller: ControllerId, flags: Flags): Known[] {
  const scene = sceneOf(site, climateOf(site, flags.ground ?? site.settings.ground_C, null))
  const [past, common] = [pastOf(facts), commonOf(site, controller)]
  if (common === null) return []
  return (Object.keys(must(site.controllers, controller).terminals) as (typeof common)[]).flatMap((t): Known[] => {
    const test = { kind: 'ohms', from: terminalEnd(controller, t), to: terminalEnd(controller, common) } as const
    const baseline = t === common ? null : baselineOf(scene, (ground_C, coil_C) => sceneOf(site, climateOf(site, ground_C, coil_C)), test, meterOf(flags), pastOfTest(past, test))
    return baseline ? [{ test, ohm: baseline.corrected_ohm }] : []
  })
}
