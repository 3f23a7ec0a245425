import type { Meter, OhmsTest } from '../record'
import type { ControllerId, TerminalId } from '../site'
import { conclude, type JointConclusion, type SweepReading } from './conclude'
import { predict, type Expectation } from './predict'
import { sweepTerminals, terminalTest, type Scene } from './scene'
import { judge, type Judged } from './verdict'

/** A terminal of a sweep with what the record expects of it. */
export interface Expected {
  readonly terminal: TerminalId
  readonly test: OhmsTest
  readonly expectation: Expectation
}

/**
 * What a sweep of a controller should read, terminal by terminal; nothing for a controller without a common. Each
 * expectation is worked out when it is first looked at: a list of stations alone asks for none.
 */
export function expectSweep(scene: Scene, controller: ControllerId, meter: Meter): Expected[] {
  return sweepTerminals(scene.site, controller, scene.hanging(controller)).flatMap((terminal) => {
    const test = terminalTest(scene.site, controller, terminal)
    if (!test) return []
    let made: Expectation | null = null
    return [
      {
        terminal,
        test,
        get expectation() {
          return (made ??= predict(scene, test, meter))
        },
      },
    ]
  })
}

/** Every reading judged by itself, and all of them together. Places in both lists are the readings' own. */
export function judgeSweep(
  scene: Scene,
  readings: readonly SweepReading[],
): { judged: Judged[]; joint: JointConclusion } {
  return {
    judged: readings.map((r) => judge(scene, r.test, r.value, r.meter, r.baseline ?? null)),
    joint: conclude(scene, readings),
  }
}
