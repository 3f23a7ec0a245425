import { postMessages } from './api'
import { keptFor, propertiesWaiting, settleKept } from './outbox'
import { settled } from './sending'

/** The most messages sent at once, as the open property sends them. */
const BATCH = 100

/**
 * Sends what waits of properties that are not open: written without a signal, and the page went on to another one. What
 * is refused stays on the device, for whoever opens that property.
 */
export async function sendOthers(open: string | null): Promise<void> {
  const properties = await propertiesWaiting(open).catch(() => [])
  for (const property of properties) {
    for (;;) {
      const messages = (await keptFor(property)).slice(0, BATCH)
      if (messages.length === 0) break
      const { taken, refused, then } = settled(messages, await postMessages(property, messages))
      if (taken.length + refused.length > 0)
        await settleKept(
          taken.map((t) => t.message),
          refused,
        )
      // Nobody there, another version, or more than it takes at once: it is sent when its property is opened.
      if (then !== 'go_on') break
    }
  }
}
