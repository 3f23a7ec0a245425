import { isWaiting, proceduresHere, refreshed } from '../lib/own-procedures'
import { sendPictures } from '../lib/pictures'
import { sendOthers } from '../lib/send-others'
import { keptByWorker } from '../lib/service-worker'
import { useProperty } from '../stores/property'

/** How often what waits of properties that are not open is tried. */
const TRY_EVERY_ms = 60_000

/** The company’s own procedures are on this device before anybody opens Work, and what waits of them is sent. */
async function sendProcedures(): Promise<void> {
  const now = await refreshed(proceduresHere)
  if (now?.some(isWaiting)) await (await import('../stores/procedures')).useProcedures().load()
}

/** Without a signal and when it is back: the application is kept on this device, and what waits is sent. */
export default defineNuxtPlugin(({ hook }) => {
  hook('app:mounted', () => {
    const property = useProperty()
    const send = () => {
      void sendOthers(property.held?.id ?? null)
      sendPictures().catch(() => undefined)
    }
    void keptByWorker()
    void sendProcedures()
    window.addEventListener('online', () => void sendProcedures())
    window.addEventListener('online', send)
    setInterval(send, TRY_EVERY_ms)
    send()
  })
})
