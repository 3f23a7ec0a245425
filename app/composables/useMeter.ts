import type { FieldTest, ReadingValue } from '../../core/record'
import type { DeviceId } from '../../core/site'

/** What SCPI gives for "more than can be shown". */
const OVERLOAD = 9.9e37
/** A meter that does not answer within this is taken for gone. */
const PATIENCE_ms = 8000
const OHMS: readonly FieldTest['kind'][] = ['ohms', 'coil_ohms', 'loop_lead', 'loop_common', 'lead_earth', 'lead_through', 'common_earth']
const VOLTS: readonly FieldTest['kind'][] = ['supply', 'volts', 'coil_volts']

/**
 * A meter that speaks SCPI over a WebSocket. The display says where the clips go (`DISP:TEXT`), a measurement command asks
 * for the figure. A simulated property answers eyes and ears too, in a quoted word, as `READ?` of what the display says.
 */
export function useMeter() {
  const [connected, name, trouble] = [ref(false), ref(''), ref<'' | 'lost' | 'unclear'>('')]
  let socket: WebSocket | null = null
  let waiting: ((line: string | null) => void) | null = null

  const ask = (command: string): Promise<string | null> => new Promise((resolve) => {
    const late = setTimeout(() => answer(null), PATIENCE_ms)
    const answer = (line: string | null) => { clearTimeout(late); waiting = null; resolve(line) }
    waiting = answer
    socket!.send(command)
  })

  /** Opens the meter at an address; false where nothing answers there. */
  async function connect(address: string): Promise<boolean> {
    disconnect()
    trouble.value = ''
    const opened = await new Promise<boolean>((resolve) => {
      try { socket = new WebSocket(address) } catch { resolve(false); return }
      socket.onopen = () => resolve(true)
      socket.onerror = () => resolve(false)
      socket.onmessage = (e) => waiting?.(String(e.data).trim())
      socket.onclose = () => { if (connected.value) trouble.value = 'lost'; connected.value = false; waiting?.(null) }
    })
    const identity = opened ? await ask('*IDN?') : null
    if (identity === null) { trouble.value = 'lost'; disconnect(); return false }
    name.value = identity.split(',').slice(0, 2).join(' ')
    connected.value = true
    return true
  }
  function disconnect(): void {
    const open = socket
    socket = null
    connected.value = false
    if (open) { open.onclose = null; open.close() }
  }
  /** Takes a reading of a test; null where the meter cannot give it. */
  async function measure(test: FieldTest): Promise<ReadingValue | null> {
    if (!connected.value) return null
    socket!.send(`DISP:TEXT ${JSON.stringify(JSON.stringify(test))}`)
    const line = await ask(OHMS.includes(test.kind) ? 'MEAS:RES?' : VOLTS.includes(test.kind) ? 'MEAS:VOLT:AC?' : 'READ?')
    const value = line === null ? null : valueOf(test, line)
    trouble.value = value === null ? (line === null ? 'lost' : 'unclear') : ''
    return value
  }
  onBeforeUnmount(disconnect)
  return { connected, name, trouble, connect, disconnect, measure }
}

function valueOf(test: FieldTest, line: string): ReadingValue | null {
  const word = /^"(.*)"$/.exec(line)?.[1]
  if (word === undefined) {
    const figure = Number(line)
    if (!Number.isFinite(figure) || figure < 0) return null
    if (OHMS.includes(test.kind)) return figure >= OVERLOAD ? { kind: 'open' } : figure <= 1e9 ? { kind: 'ohm', ohm: figure } : null
    return VOLTS.includes(test.kind) && figure <= 300 ? { kind: 'volt', volt: figure } : null
  }
  switch (test.kind) {
    case 'click': case 'swap_test': case 'energise': return { kind: 'heard', heard: word === 'heard' }
    case 'by_hand': return { kind: 'flows', flows: word === 'flows' }
    case 'look': case 'remake': return { kind: 'looked', sound: word === 'sound' }
    case 'water': return { kind: 'waters', valves: word === 'none' ? [] : word.split(' ') as DeviceId[] }
    case 'tone': return { kind: 'tone', lost_m: word === 'through' ? null : Number(word) }
    default: return null
  }
}
