import { judge, predict, stateOf, type Expectation, type Judged, type Scene } from '../expect'
import { baselineOf, pastOfTest, type PastByTest, type SceneAt } from '../history'
import {
  isOhms,
  standingReadings,
  type Facts,
  type FieldTest,
  type Meter,
  type OhmsTest,
  type Reading,
} from '../record'
import { getOrThrow, portsOf, type Site } from '../site'

/**
 * A test of ohms between two points, or null of one that reads something else. A coil by itself is read from port to
 * port: what hangs beyond its joint is off the controller and carries nothing.
 */
function betweenPoints(site: Site, test: FieldTest): OhmsTest | null {
  if (test.kind === 'ohms') return test
  if (test.kind !== 'coil_ohms') return null
  const [a, b] = portsOf(getOrThrow(site.devices, test.device))
  const port = (name: string) => ({ kind: 'port' as const, device: test.device, port: name })
  return { kind: 'ohms', from: port(a!), to: port(b!) }
}

/** What the record says a test of a step should read; null of tests that are judged otherwise. */
export function expectedAt(scene: Scene, test: FieldTest, meter: Meter): Expectation | null {
  const between = betweenPoints(scene.site, test)
  return between && predict(scene, between, meter)
}

/** What readings are held against: the record at the job’s temperatures, and what was read before. */
export interface Against {
  readonly scene: Scene
  readonly sceneAt: SceneAt
  readonly past: PastByTest
}

/** The verdict on a reading of ohms that a step asked for; null of one that is judged otherwise. */
export function judgedAt({ scene, sceneAt, past }: Against, { test, value, meter }: Reading): Judged | null {
  const between = betweenPoints(scene.site, test)
  if (!between || (value.kind !== 'ohm' && value.kind !== 'open')) return null
  const baseline = test.kind === 'ohms' ? baselineOf(scene, sceneAt, between, meter, pastOfTest(past, between)) : null
  return judge(scene, between, value, meter, baseline)
}

/** A reading of a job that neither fits nor was taken as baseline. */
export interface Unsettled {
  readonly id: string
  readonly reading: Reading
  readonly judged: Judged
}

/** What is unexplained among a job’s readings of ohms, in the order taken. */
export function unsettledOf(against: Against, facts: Facts, job: string): Unsettled[] {
  const accepted = new Set(Object.values(facts.acceptances).map((a) => a.reading))
  return standingReadings(facts, job).flatMap(({ id, reading }) => {
    if (accepted.has(id) || (!isOhms(reading) && reading.test.kind !== 'coil_ohms')) return []
    const judged = judgedAt(against, reading)
    return judged && !['fits', 'none'].includes(stateOf(judged.verdict.code)) ? [{ id, reading, judged }] : []
  })
}
