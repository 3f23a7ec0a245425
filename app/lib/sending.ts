import type { Message } from '../../core/record'
import type { MessageReply, Reply } from './api'
import type { Rejected } from './outbox'

/** What an answer means for the messages that were sent; what is in neither list stays where it is. */
export interface Settled {
  readonly taken: readonly { readonly message: Message; readonly revision: number | null }[]
  readonly refused: readonly Rejected[]
  /** Go on with what waits, with fewer at once, later, or not before the page is loaded anew. */
  readonly then: 'go_on' | 'fewer' | 'later' | 'reload'
}

/** Statuses that speak of the body that was sent; of one message alone they are an answer to it. */
const OF_THE_BODY: ReadonlySet<number> = new Set([400, 413, 422])

/**
 * Reads an answer. A message counts as answered only where the server has said of that very message that it took it,
 * has it, or refuses it; all else leaves it waiting.
 */
export function settled(sent: readonly Message[], reply: Reply<{ replies: readonly MessageReply[] }>): Settled {
  const nothing = { taken: [], refused: [] }
  switch (reply.kind) {
    case 'unreachable':
      return { ...nothing, then: 'later' }
    case 'other_version':
      return { ...nothing, then: 'reload' }
    case 'failed':
      return { ...nothing, then: sent.length > 1 ? 'fewer' : 'later' }
    case 'refused':
      if (!OF_THE_BODY.has(reply.status) || reply.refusals.length === 0) return { ...nothing, then: 'later' }
      return sent.length > 1
        ? { ...nothing, then: 'fewer' }
        : { taken: [], refused: [{ message: sent[0]!, refusals: reply.refusals }], then: 'go_on' }
    case 'ok':
      return fromReplies(sent, reply.value.replies)
  }
}

function fromReplies(sent: readonly Message[], replies: readonly MessageReply[]): Settled {
  const byId = new Map(replies.map((r) => [r.id?.toLowerCase(), r]))
  const taken: { message: Message; revision: number | null }[] = []
  const refused: Rejected[] = []
  let [outdated, stuck] = [false, false]
  for (const message of sent) {
    const reply = byId.get(message.id)
    if (!reply || reply.status === 'failed') stuck ||= reply !== undefined
    else if (reply.status !== 'refused') taken.push({ message, revision: reply.revision ?? null })
    else if (reply.refusals.some((r) => r.code === 'newer_client')) outdated = true
    else refused.push({ message, refusals: reply.refusals })
  }
  const moved = taken.length + refused.length > 0
  return { taken, refused, then: outdated ? 'reload' : stuck || !moved ? 'later' : 'go_on' }
}

const FIRST_RETRY_ms = 3000
// No longer: a crew that stands where the signal is back should not have to press anything.
const LAST_RETRY_ms = 20_000

/** How long to wait before trying again after so many tries in vain. */
export const retryAfter_ms = (tries: number): number =>
  Math.min(LAST_RETRY_ms, FIRST_RETRY_ms * 2 ** Math.min(tries, 8))
