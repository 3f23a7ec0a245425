/** An instrument that does not answer within this is taken for gone. */
const PATIENCE_ms = 8000
/** How a simulated property names itself. */
const SIMULATED = 'Field Thread,Simulated meter,'

/** Where a property’s simulated instruments listen. */
export const simulatedAddress = (query: URLSearchParams): string =>
  `${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/meter?${query.toString()}`

/** An instrument that is asked in plain lines over a WebSocket, one question at a time. */
export function useInstrument() {
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
  const tell = (command: string): void => socket!.send(command)

  /** Opens the instrument at an address; false where nothing answers there. */
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
  onBeforeUnmount(disconnect)
  return { connected, simulated, name, trouble, ask, tell, connect, disconnect }
}
