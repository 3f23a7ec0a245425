import { withFact, type Facts, type Message } from '../../../core/record'
import { applyBatch, type Site } from '../../../core/site'
import type { Step } from '../../lib/api'

export const isChange = ({ body }: Message): boolean => body.kind === 'batch' || body.kind === 'undo'

/** A change that was refused, meant for the site as it is seen now. */
export const meantForNow = (message: Message, base: number): Message =>
  message.body.kind === 'batch' ? { ...message, body: { ...message.body, base, onTopOf: [] } } : message

/** The step that one's own batch made, where it follows right after the site at hand. */
export function ownStep(site: Site, message: Message, revision: number): { site: Site; step: Step } | null {
  if (message.body.kind !== 'batch') return null
  const applied = applyBatch(site, message.body.commands)
  if (!applied.ok) return null
  const { id, author, device, at } = message
  return {
    site: applied.value.site,
    step: { id, revision, author, device, at, undoes: null, writes: [...applied.value.writes] },
  }
}

/** Facts with what waits added to them; what does not fit is left to the server's answer. */
export function factsWith(facts: Facts, messages: readonly Message[]): Facts {
  return messages.reduce((now, m) => {
    if (m.body.kind === 'batch' || m.body.kind === 'undo') return now
    const next = withFact(now, m.id, m.body)
    return next.ok ? next.value : now
  }, facts)
}

/** The site with what waits applied; a batch that does not fit any more is left to the server's answer. */
export function siteWith(site: Site, messages: readonly Message[]): Site {
  return messages.reduce((now, m) => {
    const applied = m.body.kind === 'batch' ? applyBatch(now, m.body.commands) : null
    return applied?.ok ? applied.value.site : now
  }, site)
}
