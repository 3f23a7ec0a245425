import { ref } from 'vue'

/** Registered when the first load is over: what it fetches is a few megabytes. */
const AFTER_ms = 8000
/** How often a page that stays open asks whether there is a new version. */
const ASK_EVERY_ms = 60 * 60_000

/** A new version of the application is on this device and waits. */
export const newVersion = ref(false)

let registration: ServiceWorkerRegistration | null = null
let asked: Promise<boolean> | null = null

const noted = (): void => {
  newVersion.value = registration?.waiting != null && navigator.serviceWorker.controller !== null
}

async function register(): Promise<boolean> {
  await new Promise((resolve) => setTimeout(resolve, AFTER_ms))
  try {
    registration = await navigator.serviceWorker.register('/service-worker.js', { updateViaCache: 'none' })
  } catch {
    return false
  }
  // Some browsers ask the person, some grant it by themselves; what they said stands under “On this device”.
  void navigator.storage?.persist?.().catch(() => undefined)
  noted()
  registration.addEventListener('updatefound', () => {
    registration!.installing?.addEventListener('statechange', noted)
  })
  setInterval(askAgain, ASK_EVERY_ms)
  document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && askAgain())
  return true
}

/**
 * Has the application kept on this device, so that it opens without a signal. Resolves false where the browser cannot:
 * on an address that is not its own machine’s and not encrypted, or in a private window.
 */
export const keptByWorker = (): Promise<boolean> =>
  (asked ??= 'serviceWorker' in navigator ? register() : Promise.resolve(false))

/** Asks whether there is a new version. */
export const askAgain = (): void => void registration?.update().catch(() => undefined)

/** Goes over to the version that waits: the page loads anew in it. */
export function takeNewVersion(): void {
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload(), { once: true })
  registration?.waiting?.postMessage('take over')
}
