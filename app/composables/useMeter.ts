import { readScpi, scpiDisplay, scpiQuery } from '../../core/formats'
import type { FieldTest, ReadingValue } from '../../core/record'
import { useInstrument } from './useInstrument'

/**
 * A meter that speaks SCPI over a WebSocket. The display says where the clips go (`DISP:TEXT`), a measurement command
 * asks for the figure. A simulated property answers eyes and ears too, in a quoted word, as `READ?` of what the
 * display says.
 */
export function useMeter() {
  const { connected, simulated, name, trouble, ask, tell, connect, disconnect } = useInstrument()
  /** Takes a reading of a test; null where the meter cannot give it. */
  async function measure(test: FieldTest): Promise<ReadingValue | null> {
    if (!connected.value) return null
    tell(scpiDisplay(test))
    const line = await ask(scpiQuery(test))
    const value = line === null ? null : readScpi(test, line)
    trouble.value = value === null ? (line === null ? 'lost' : 'unclear') : ''
    return value
  }
  /**
   * What the meter can answer a test with: a figure of its own, what a simulated property shows to eyes and ears, or
   * nothing.
   */
  const gives = (test: FieldTest): 'figure' | 'senses' | null =>
    !connected.value ? null : scpiQuery(test) !== 'READ?' ? 'figure' : simulated.value ? 'senses' : null
  return { connected, name, trouble, connect, disconnect, measure, gives }
}
