import { postMessages } from '../../lib/api'
import { settleKept, type Rejected } from '../../lib/outbox'
import { retryAfter_ms, settled, type Settled } from '../../lib/sending'
import { factsWith, isChange } from './applied'
import { lineAfter, type PropertyState } from './state'

/** The most messages sent at once; the server takes 500. */
const BATCH = 100

/**
 * Sends what waits, in order, until all is sent or nobody answers; then tries again by itself. `catchUp` brings the
 * site to where the server has it, by others' steps too where asked.
 */
export function sending(state: PropertyState, catchUp: (others: boolean) => Promise<void>): () => Promise<void> {
  const { held, outbox, rejected, line, ahead, outdated, unkept, asShown } = state
  let underWay = false
  let triesInVain = 0
  let retry: ReturnType<typeof setTimeout> | undefined

  async function send(): Promise<void> {
    if (underWay || !held.value || outdated.value) return
    underWay = true
    clearTimeout(retry)
    let atOnce = BATCH
    try {
      while (outbox.value.length > 0 && held.value) {
        const id: string = held.value.id
        const messages = outbox.value.slice(0, atOnce)
        const reply = await postMessages(id, messages)
        if (held.value?.id !== id) break // another property was opened; what waits of this one is on the device
        line.value = lineAfter(reply)
        const { taken, refused, then } = settled(messages, reply)
        if (taken.length + refused.length > 0) await settle(taken, refused)
        if (then === 'later' && line.value === 'up') line.value = 'failing'
        if (then === 'reload') outdated.value = true
        if (then === 'fewer') atOnce = Math.max(1, messages.length >> 1)
        else if (then !== 'go_on') break
        else triesInVain = 0
      }
    } finally {
      underWay = false
      if (outbox.value.length > 0 && !outdated.value)
        retry = setTimeout(() => void send(), retryAfter_ms(triesInVain++))
    }
  }

  /** Moves answered messages out of the outbox: taken ones into what the server has, refused ones to be shown. */
  async function settle(taken: Settled['taken'], refused: readonly Rejected[]): Promise<void> {
    const id = held.value!.id
    const messages = taken.map((t) => t.message)
    await settleKept(messages, refused).catch(() => {
      unkept.value = true
    })
    if (held.value?.id !== id) return // another property was opened; this one is read anew when it is opened again
    held.value = { ...held.value, facts: factsWith(held.value.facts, asShown(messages)) }
    ahead.value = [
      ...ahead.value,
      ...taken.flatMap(({ message, revision }) =>
        revision !== null && revision > held.value!.revision ? [{ message, revision }] : [],
      ),
    ]
    rejected.value = [...rejected.value, ...refused]
    const done = new Set([...messages, ...refused.map((r) => r.message)].map((m) => m.id))
    outbox.value = outbox.value.filter((m) => !done.has(m.id))
    await catchUp(refused.some((r) => isChange(r.message)))
  }
  return send
}
