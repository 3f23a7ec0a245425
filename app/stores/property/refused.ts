import type { Message } from '../../../core/record'
import { settleRefused } from '../../lib/outbox'
import { meantForNow } from './applied'
import { lift } from './loading'
import type { PropertyState } from './state'

/** What becomes of messages that the server refused: a person lets go of them, or sends them once more. */
export function refusedMessages(state: PropertyState, send: () => void) {
  const { held, outbox, rejected, unkept } = state
  async function settleFor(id: string, again: boolean): Promise<Message | null> {
    const found = rejected.value.find((r) => r.message.id === id)
    if (!found) return null
    const message = again && held.value ? meantForNow(found.message, held.value.revision) : found.message
    await settleRefused(message, again).catch(() => {
      unkept.value = true
    })
    rejected.value = rejected.value.filter((r) => r !== found)
    return message
  }
  /** Lets go of what was refused: a person has seen it. */
  async function dismiss(id: string): Promise<void> {
    await settleFor(id, false)
  }
  /** Sends what was refused once more. */
  async function sendAgain(id: string): Promise<void> {
    const message = await settleFor(id, true)
    if (message) {
      await lift(state, [message])
      outbox.value = [...outbox.value, message]
    }
    send()
  }
  return { dismiss, sendAgain }
}
