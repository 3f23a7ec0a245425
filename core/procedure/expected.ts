import { predict, type Expectation, type Scene } from '../expect'
import type { FieldTest, Meter } from '../record'
import { getOrThrow, portsOf } from '../site'

/**
 * What the record says a test of a step should read; null of tests that are judged otherwise. A coil by itself is read
 * from port to port: what hangs beyond its joint is off the controller and carries nothing.
 */
export function expectedAt(scene: Scene, test: FieldTest, meter: Meter): Expectation | null {
  if (test.kind === 'ohms') return predict(scene, test, meter)
  if (test.kind !== 'coil_ohms') return null
  const [a, b] = portsOf(getOrThrow(scene.site.devices, test.device))
  const port = (name: string) => ({ kind: 'port' as const, device: test.device, port: name })
  return predict(scene, { kind: 'ohms', from: port(a!), to: port(b!) }, meter)
}
