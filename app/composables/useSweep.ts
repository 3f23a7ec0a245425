import { computed } from 'vue'
import {
  corrected_ohm,
  expectSweep,
  judge,
  readText,
  stateOf,
  type Baseline,
  type Expected,
  type Judged,
  type State,
  type Verdict,
} from '../../core/expect'
import { baselineOf, pastOfTest } from '../../core/history'
import {
  COMMON_METER,
  isOhms,
  readingsOf,
  standingReadings,
  testKey,
  type Logged,
  type Meter,
  type Job,
} from '../../core/record'
import { getOrThrow, type ControllerId, type Site, type TerminalId, pointAt, stationAt } from '../../core/site'
import { useProperty } from '../stores/property'

/** A terminal of a sweep as the screens show it. */
export interface SweepRow {
  readonly terminal: TerminalId
  readonly tag: string
  readonly name: string
  readonly expected: Expected
  readonly baseline: Baseline | null
  readonly logged: Logged | null
  readonly judged: Judged | null
  readonly state: State
}

/** A controller's terminals with what they should read and, of a job, what they did. */
export function useSweep(controller: () => ControllerId | null, jobId: () => string | null) {
  const property = useProperty()
  const job = computed((): Job | null => {
    const id = jobId()
    return id === null ? null : (property.facts?.jobs[id] ?? null)
  })
  const meter = computed((): Meter => job.value?.meter ?? COMMON_METER)
  const scene = computed(() =>
    property.site ? property.sceneAt(job.value?.ground_C ?? null, job.value?.coil_C ?? null) : null,
  )
  const expected = computed(() => {
    const id = controller()
    return scene.value && id ? expectSweep(scene.value, id, meter.value) : []
  })
  /** Baselines hang on earlier jobs alone, so they stay while this one's readings come in. */
  const past = computed(() => property.pastBefore(jobId()))
  const baselines = computed(
    () =>
      new Map(
        expected.value.map((e) => [
          e.terminal,
          baselineOf(scene.value!, property.sceneAt, e.test, meter.value, pastOfTest(past.value, e.test)),
        ]),
      ),
  )
  const standing = computed((): Map<string, Logged> => {
    const id = jobId()
    if (!property.facts || id === null) return new Map()
    return new Map(standingReadings(property.facts, id).map((l) => [testKey(l.reading.test), l]))
  })
  const rows = computed((): SweepRow[] =>
    expected.value.map((e) => {
      const logged = standing.value.get(testKey(e.test)) ?? null
      const baseline = baselines.value.get(e.terminal) ?? null
      const judged =
        logged && scene.value && isOhms(logged.reading)
          ? judge(scene.value, e.test, logged.reading.value, logged.reading.meter, baseline)
          : null
      const at = getOrThrow(property.site!.controllers, controller()!)
      return {
        terminal: e.terminal,
        tag: getOrThrow(at.terminals, e.terminal).tag,
        name: nameAt(property.site!, controller()!, e.terminal),
        expected: e,
        baseline,
        logged,
        judged,
        state: judged ? stateOf(judged.verdict.code) : 'none',
      }
    }),
  )
  const log = computed(() => (property.facts && jobId() !== null ? readingsOf(property.facts, jobId()!) : []))

  /** The verdict on what is being typed, or null where it is no reading yet. */
  function verdictOf(row: SweepRow, text: string): { verdict: Verdict; judged: Judged } | null {
    const read = readText(text, meter.value)
    if (!read.ok || !scene.value) return null
    const judged = judge(scene.value, row.expected.test, read.value, meter.value, row.baseline)
    return { verdict: judged.verdict, judged }
  }
  return { job, meter, scene, rows, log, verdictOf }
}

/** What hangs on a terminal by name: a station, or a point of connection by its valve. */
function nameAt(site: Site, controller: ControllerId, terminal: TerminalId): string {
  const station = stationAt(site, { controller, terminal })?.[1]
  if (station) return station.name
  const supply = pointAt(site, { controller, terminal })?.[1]
  const valve = supply?.masterValve && site.devices[supply.masterValve]
  return valve ? valve.name || supply.name : (supply?.name ?? '')
}

/** A stored reading of ohms in figures: null for open, else the ohms less the meter's own leads. */
export function readingOhm(logged: Logged): number | null {
  const { value, meter } = logged.reading
  return value.kind === 'ohm' ? corrected_ohm(value.ohm, meter) : null
}
