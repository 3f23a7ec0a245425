import { readScpi, scpiDisplay, scpiQuery } from '../../core/formats'
import type { FieldTest, ReadingValue } from '../../core/record'

/** A meter that does not answer within this is taken for gone. */
const PATIENCE_ms = 8000
/** How a simulated property names itself. */
const SIMULATED = 'Field Thread,Simulated meter,'

/**
 * A meter that speaks SCPI over a WebSocket. The display says where the clips go (`DISP:TEXT`), a measurement command
 * asks for the figure. A simulated property answers eyes and ears too, in a quoted word, as `READ?` of what the
 * display says.
 */
export function useMeter() {
  const [connected, simulated, name, trouble] = [ref(false), ref(false), ref(''), ref<'' | 'lost' | 'unclear'>('')]
  let socket: WebSocket | null = null
  let waiting: ((line: string | null) => void) | null = null

  const ask = (command: string): Promise<string | null> =>
    new Promise((resolve) => {
      const late = setTimeout(() => answer(null), PATIENCE_ms)
      const answer = (line: string | null) => {
        clearTimeout(late)
        waiting = null
        resolve(line)
      }
      waiting = answer
      socket!.send(command)
    })

  /** Opens the meter at an address; false where nothing answers there. */
  async function connect(address: string): Promise<boolean> {
    disconnect()
    trouble.value = ''
    const opened = await new Promise<boolean>((resolve) => {
      try {
        socket = new WebSocket(address)
      } catch {
        resolve(false)
        return
      }
      socket.onopen = () => resolve(true)
      socket.onerror = () => resolve(false)
      socket.onmessage = (e) => waiting?.(String(e.data).trim())
      socket.onclose = () => {
        if (connected.value) trouble.value = 'lost'
        connected.value = false
        waiting?.(null)
      }
    })
    const identity = opened ? await ask('*IDN?') : null
    if (identity === null) {
      trouble.value = 'lost'
      disconnect()
      return false
    }
    simulated.value = identity.startsWith(SIMULATED)
    name.value = identity.split(',').slice(0, 2).join(' ')
    connected.value = true
    return true
  }
  function disconnect(): void {
    const open = socket
    socket = null
    connected.value = false
    if (open) {
      open.onclose = null
      open.close()
    }
  }
  /** Takes a reading of a test; null where the meter cannot give it. */
  async function measure(test: FieldTest): Promise<ReadingValue | null> {
    if (!connected.value) return null
    socket!.send(scpiDisplay(test))
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
  onBeforeUnmount(disconnect)
  return { connected, name, trouble, connect, disconnect, measure, gives }
}
