import { sendPictures } from '../lib/pictures'
import { sendOthers } from '../lib/send-others'
import { keptByWorker } from '../lib/service-worker'
import { useProperty } from '../stores/property'

/** How often what waits of properties that are not open is tried. */
const TRY_EVERY_ms = 60_000

/** Without a signal and when it is back: the application is kept on this device, and what waits is sent. */
export default defineNuxtPlugin(({ hook }) => {
  hook('app:mounted', () => {
    const property = useProperty()
    const send = () => {
      void sendOthers(property.held?.id ?? null)
      sendPictures().catch(() => undefined)
    }
    void keptByWorker()
    window.addEventListener('online', send)
    setInterval(send, TRY_EVERY_ms)
    send()
  })
})
