import { predictOnce, type Scene } from '../expect'
import type { Meter, OhmsTest } from '../record'
import { commonOf, getOrThrow, terminalEnd, type ControllerId, type DeviceId, type TerminalId } from '../site'
import { baselineOf, type SceneAt } from './baseline'
import { pastOfTest, type PastByTest } from './past'

/** What a thread read when it was last good, at the temperature of the scene. */
export interface GoodReading {
  readonly test: OhmsTest
  readonly ohm: number
}

/** The earlier good readings of a controller's terminals to common. */
export function goodReadings(
  scene: Scene,
  sceneAt: SceneAt,
  controller: ControllerId,
  meter: Meter,
  past: PastByTest,
): GoodReading[] {
  const common = commonOf(scene.site, controller)
  if (common === null) return []
  return (Object.keys(getOrThrow(scene.site.controllers, controller).terminals) as TerminalId[]).flatMap(
    (terminal): GoodReading[] => {
      if (terminal === common) return []
      const test: OhmsTest = {
        kind: 'ohms',
        from: terminalEnd(controller, terminal),
        to: terminalEnd(controller, common),
      }
      const baseline = baselineOf(scene, sceneAt, test, meter, pastOfTest(past, test))
      return baseline ? [{ test, ohm: baseline.corrected_ohm }] : []
    },
  )
}

/**
 * What good readings say of the coils, as parts of their sheet's ohms: the rest of the sum is the record's, and coils
 * of one thread deviate alike.
 */
export function coilsAsRead(scene: Scene, good: readonly GoodReading[], meter: Meter): Map<DeviceId, number> {
  return new Map(
    good.flatMap(({ test, ohm }): [DeviceId, number][] => {
      const expected = predictOnce(scene, test, meter)
      const coils = expected.kind === 'ohms' ? expected.terms.flatMap((t) => (t.kind === 'coil' ? [t] : [])) : []
      const whole_ohm = coils.reduce((sum, c) => sum + c.ohm, 0)
      return expected.kind === 'ohms' ? coils.map((c) => [c.device, 1 + (ohm - expected.expected_ohm) / whole_ohm]) : []
    }),
  )
}
