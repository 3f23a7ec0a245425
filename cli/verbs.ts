import type * as z from 'zod'
import { controllerRules, modulesOf } from '../core/cabinet'
import { climateOf } from '../core/circuit'
import {
  describe,
  expectSweep,
  judgeCabinet,
  judgeSweep,
  predict,
  sceneOf,
  scenesOf,
  stateOf,
  type Expectation,
  type Scene,
  type Term,
} from '../core/expect'
import { probeAt, readReadingsCsv, type Property } from '../core/formats'
import { baselineOf, pastOf, pastOfTest } from '../core/history'
import { brokenRegister } from '../core/path'
import { ohmsText } from '../core/quantity'
import { isHuntTest, type Meter, type OhmsTest } from '../core/record'
import { accepted, pathText, refusal, refused, type Outcome } from '../core/refusal'
import {
  checkSite,
  commonOf,
  entries,
  getOrThrow,
  pathsOf,
  terminalEnd,
  type ControllerId,
  type End,
  type Site,
  stationAt,
} from '../core/site'
import { brokenRules } from '../core/splice'
import { say, sayRefusal, type Speaker } from '../words'
import { sayBreach } from '../words/breach'
import { sayTerm, sayVerdict } from '../words/reading'
import type { Arguments } from './flags'
import type { checkOutput, expectOutput, judgeOutput } from './output'

type Flags = Arguments['flags']
type Check = z.infer<typeof checkOutput>
type Expect = z.infer<typeof expectOutput>
type Judge = z.infer<typeof judgeOutput>

/** Where intent and wiring differ, what is not known, and the rules that boxes and controllers break. */
export function check({ site }: Property, speaker: Speaker): Check {
  return {
    verb: 'check',
    property: site.about.name,
    findings: [
      ...checkSite(site).map((f) => ({
        weight: f.weight,
        code: f.code,
        path: pathText(f.path),
        says: say({ code: `finding.${f.code}`, params: f.params }, speaker),
      })),
      ...brokenRules(site).map((b) => ({
        weight: b.weight,
        code: b.code,
        path: pathText(b.path),
        says: sayBreach(b, speaker),
      })),
      ...entries(site.controllers)
        .flatMap(([id]) => [...controllerRules(site, id), ...modulesOf(site, id).broken])
        .map((r) => ({ weight: 'doubt' as const, code: r.code, path: pathText(r.path), says: sayRefusal(r, speaker) })),
      ...pathsOf(site)
        .flatMap((p) => (p.system ? brokenRegister(site, { ...p, system: p.system }) : []))
        .map((r) => ({ weight: 'wrong' as const, code: r.code, path: pathText(r.path), says: sayRefusal(r, speaker) })),
    ],
  }
}

/** What every terminal should read to common, or the two points given by `--between`. */
export function expect({ site }: Property, flags: Flags, speaker: Speaker): Outcome<Expect> {
  const scene = sceneAt(site, flags)
  const chosen = chosenControllers(site, flags.controller)
  if (!chosen.ok) return chosen
  let tests: OhmsTest[]
  if (flags.between === undefined)
    tests = chosen.value.flatMap((id) => expectSweep(scene, id, meterOf(flags)).map((e) => e.test))
  else {
    const [from, to, more] = flags.between.split(',').map((written) => probeAt(site, written))
    if (!from || !to || more !== undefined)
      return refused(refusal('no_such_terminal', ['--between'], { terminal: flags.between }))
    tests = [{ kind: 'ohms', from, to }]
  }
  return accepted({
    verb: 'expect',
    property: site.about.name,
    ...scene.climate,
    terminals: tests.map((test) => ({
      ...labels(site, test),
      ...expectationOut(scene, predict(scene, test, meterOf(flags)), speaker),
    })),
  })
}

/** Verdicts on a log of readings, one by one and together. */
export function judge({ site, facts }: Property, csv: string, flags: Flags, speaker: Speaker): Outcome<Judge> {
  const meter = meterOf(flags)
  const read = readReadingsCsv(csv, site, meter)
  if (!read.ok) return read
  const scene = sceneAt(site, flags)
  const [past, sceneThen] = [pastOf(facts), scenesOf(site)]
  const ohms = read.value.flatMap((r) =>
    r.test.kind === 'ohms' && (r.value.kind === 'ohm' || r.value.kind === 'open')
      ? [{ ...r, test: r.test, value: r.value }]
      : [],
  )
  const observations = ohms.map((r) => ({
    ...r,
    meter,
    baseline: baselineOf(scene, sceneThen, r.test, meter, pastOfTest(past, r.test)),
  }))
  const { judged } = judgeSweep(scene, observations)
  const groups = entries(site.controllers).map(([id]) => ({
    id,
    of: observations.filter((o) => o.test.from.kind === 'terminal' && o.test.from.controller === id),
  }))
  const joints = groups
    .filter((g) => g.of.length > 0)
    .map(({ id, of }) => ({ id, of, joint: judgeSweep(scene, of).joint }))
  const supply_V =
    read.value.flatMap((r) => (r.test.kind === 'supply' && r.value.kind === 'volt' ? [r.value.volt] : [])).at(-1) ??
    null
  return accepted({
    verb: 'judge',
    property: site.about.name,
    ...scene.climate,
    checks: read.value
      .flatMap((r) =>
        r.test.kind === 'ohms' || isHuntTest(r.test)
          ? []
          : [{ ...judgeCabinet(r.test, r.value, supply_V), line: r.line, terminal: r.label, test: r.test.kind }],
      )
      .map(({ line, terminal, test, code, state }) => ({
        line,
        terminal,
        test,
        state,
        says: say({ code: `cabinet.${code}`, params: supply_V === null ? {} : { supply_V } }, speaker),
      })),
    readings: observations.map((o, i) => {
      const { verdict, rule, expectation, baseline } = judged[i]!
      return {
        line: o.line,
        ...labels(site, o.test),
        reading_ohm: o.value.kind === 'ohm' ? o.value.ohm : null,
        verdict: verdict.code,
        state: stateOf(verdict.code),
        says: sayVerdict(verdict, meter, speaker),
        ...(verdict.code === 'short' ? { distance_m: verdict.distance_m } : {}),
        baseline,
        ruleOfThumb: rule,
        ...expectationOut(scene, expectation, speaker),
      }
    }),
    conclusions: joints.flatMap(({ id, of, joint }) =>
      describe(scene, id, of, joint).map((d) => ({
        controller: getOrThrow(site.controllers, id).tag,
        kind: d.conclusion.kind,
        doubtful: d.conclusion.doubtful,
        says: say({ ...d.says, code: `conclusion.${d.says.code}` }, speaker),
        next: say({ ...d.next, code: `next.${d.next.code}` }, speaker),
        or: d.or.map((other, k) => ({
          kind: d.conclusion.or[k]!.kind,
          says: say({ ...other, code: `conclusion.${other.code}` }, speaker),
        })),
        terminals: d.terminals.map((t) => tagOf(site, terminalEnd(id, t))),
        between: [...new Set(d.between?.map((p) => getOrThrow(site.places, p).tag) ?? [])],
        suspects:
          'suspects' in d.conclusion
            ? d.conclusion.suspects.map((s) => ({
                kind: s.kind,
                places: (s.kind === 'stretch' ? [s.from, s.to] : [s.place]).map((p) => getOrThrow(site.places, p).tag),
                id: s.kind === 'stretch' ? `${s.cable}/${s.core}` : s.kind === 'joint' ? s.splice : s.device,
              }))
            : [],
      })),
    ),
    severalOrWrong: joints.some((j) => j.joint.severalOrWrong),
  })
}

const sceneAt = (site: Site, flags: Flags): Scene =>
  sceneOf(
    site,
    climateOf(
      site,
      flags.ground ?? site.settings.ground_C,
      flags.coil ?? (flags.ground === undefined ? site.settings.coil_C : null),
    ),
  )

export const meterOf = (flags: Flags): Meter => ({
  name: '',
  openMark: flags['open-mark'],
  accuracy_ratio: flags.accuracy,
  offset_ohm: flags.offset,
  leadZero_ohm: flags['lead-zero'],
  highest_ohm: flags.highest,
})

export function chosenControllers(site: Site, tag: string | undefined): Outcome<ControllerId[]> {
  const all = entries(site.controllers)
  const chosen = all.filter(([, c]) => tag === undefined || c.tag === tag).map(([id]) => id)
  if (tag !== undefined && chosen.length === 0)
    return refused(
      refusal('no_such_controller', ['--controller'], { tag, options: all.map(([, c]) => c.tag).join(', ') }),
    )
  return accepted(chosen)
}

function tagOf(site: Site, end: End): string {
  if (end.kind !== 'terminal') return end.kind
  const controller = getOrThrow(site.controllers, end.controller)
  return `${controller.tag}:${getOrThrow(controller.terminals, end.terminal).tag}`
}

function labels(site: Site, test: OhmsTest): { terminal: string; to: string; station: string | null } {
  const { from } = test
  const common = from.kind === 'terminal' ? commonOf(site, from.controller) : null
  const toCommon = test.to.kind === 'terminal' && test.to.terminal === common
  const station = from.kind === 'terminal' ? stationAt(site, from)?.[1] : undefined
  return { terminal: tagOf(site, from), to: tagOf(site, test.to), station: toCommon ? (station?.name ?? null) : null }
}

export function expectationOut(scene: Scene, e: Expectation, speaker: Speaker) {
  switch (e.kind) {
    case 'open':
    case 'not_readable':
    case 'insulation':
      return { kind: e.kind }
    case 'bounds':
      return { kind: e.kind, low_ohm: e.low_ohm, high_ohm: e.high_ohm }
    case 'ohms':
      return {
        kind: e.kind,
        expected_ohm: e.expected_ohm,
        low_ohm: e.low_ohm,
        high_ohm: e.high_ohm,
        deviations: e.deviations,
        terms: e.terms.map((t) => ({
          says: sayTerm(t, scene.site, scene.climate, speaker),
          kind: t.kind,
          ohm: t.ohm,
          ...extra(t),
        })),
      }
  }
}

const extra = (t: Term) =>
  t.kind === 'wire' ? { length_m: t.length_m, share: t.share } : t.kind === 'coil' ? { share: t.share } : {}

/** What is expected of every terminal as lines for a person. */
export const expectLines = ({ terminals }: z.infer<typeof expectOutput>): string[] =>
  terminals.map((t) => `${t.terminal.padEnd(8)} ${band(t).padEnd(24)} ${t.station ?? ''}`.trimEnd())

/** Readings with their verdicts as lines for a person, then what they say together. */
export const judgeLines = ({ readings, checks, conclusions }: z.infer<typeof judgeOutput>): string[] => [
  ...readings.map((r) => {
    const read = (r.reading_ohm === null ? 'OL' : ohmsText(r.reading_ohm)).padStart(8)
    return `${r.terminal.padEnd(8)} ${read}  ${r.verdict.padEnd(12)} ${band(r).padEnd(24)} ${r.says}`
  }),
  ...checks.map(
    (c) => `${c.terminal.padEnd(8)} ${c.test.padStart(8)}  ${c.state.padEnd(12)} ${''.padEnd(24)} ${c.says}`,
  ),
  ...conclusions.map((c) => ['', c.says, ...c.or.map((o) => `Or: ${o.says}`), c.next].join('\n')),
]

function band(t: {
  kind: string
  expected_ohm?: number | undefined
  low_ohm?: number | undefined
  high_ohm?: number | undefined
}): string {
  if (t.kind === 'ohms') return `${ohmsText(t.expected_ohm!)} Ω (${ohmsText(t.low_ohm!)}–${ohmsText(t.high_ohm!)})`
  return t.kind === 'bounds' ? `${ohmsText(t.low_ohm!)}–${ohmsText(t.high_ohm!)} Ω` : t.kind.replace('_', ' ')
}
