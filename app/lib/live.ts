import * as z from 'zod'
import { news } from '../../core/record'

const heard = z.union([
  news,
  z.object({ kind: z.literal('stands'), revision: z.int(), facts: z.int() }),
  z.object({ kind: z.literal('still') }),
])
/** What a property’s live line says; see the route that speaks it. */
export type Heard = z.infer<typeof heard>

/** The server gives a sign of life every 15 s: a line that is silent for longer is taken for dead and opened anew. */
const DEAD_AFTER_ms = 40_000
const AGAIN_AFTER_ms = 2000

/** Listens to a property until `end` is called; a line that breaks is opened again and again. */
export function listenTo(property: string, hear: (what: Heard) => void): { end: () => void } {
  let source: EventSource | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  const open = () => {
    source?.close()
    source = new EventSource(`/api/properties/${encodeURIComponent(property)}/live`)
    source.onmessage = ({ data }) => {
      watch()
      const read = heard.safeParse(JSON.parse(String(data)))
      // What a newer server says is not for this page.
      if (read.success) hear(read.data)
    }
    source.onerror = () => {
      // Closed for good by an answer that is none; else the browser tries by itself.
      if (source?.readyState === EventSource.CLOSED) again(AGAIN_AFTER_ms)
    }
    watch()
  }
  const again = (ms: number) => {
    clearTimeout(timer)
    timer = setTimeout(open, ms)
  }
  const watch = () => again(DEAD_AFTER_ms)
  const onLine = () => open()
  window.addEventListener('online', onLine)
  open()
  return {
    end: () => {
      clearTimeout(timer)
      window.removeEventListener('online', onLine)
      source?.close()
    },
  }
}
