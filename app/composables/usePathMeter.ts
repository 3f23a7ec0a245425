import { pathQuery, readPathScpi, scpiDisplay } from '../../core/formats'
import type { PathTest, PathValue } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'
import { simulatedAddress, useInstrument } from './useInstrument'

/** A meter or a clamp on the network that reads a path; the simulated one has a path with a hidden fault. */
export function usePathMeter(controller: () => ControllerId) {
  const property = useProperty()
  const { connected, simulated, name, trouble, ask, tell, connect, disconnect } = useInstrument()
  async function practise(): Promise<void> {
    const seed = String(Math.floor(Math.random() * 4294967295))
    await connect(simulatedAddress(new URLSearchParams({ property: property.held!.id, path: controller(), seed })))
  }
  /** Whether the instrument can answer a test: eyes and hands only a simulated one has. */
  const gives = (test: PathTest): boolean => connected.value && (simulated.value || pathQuery(test) !== 'READ?')
  /** Takes a reading of a test; undefined where the instrument cannot give it. */
  async function read(test: PathTest): Promise<PathValue | undefined> {
    if (!connected.value) return undefined
    tell(scpiDisplay(test))
    const line = await ask(pathQuery(test))
    const value = line === null ? undefined : readPathScpi(test, line)
    trouble.value = value === undefined ? (line === null ? 'lost' : 'unclear') : ''
    return value
  }
  return { connected, name, trouble, connect, disconnect, practise, gives, read }
}
export type PathMeter = ReturnType<typeof usePathMeter>
