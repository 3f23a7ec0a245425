import { useI18n } from 'vue-i18n'
import { workOrder } from '../../core/order'
import { sentTotals, type Quote } from '../../core/quote'
import { quotesIn, type Sent } from '../../core/quoted'
import type { QuoteTurn, SentQuote, WorkDone } from '../../core/record'
import { sentEn } from '../../words/sent-en'
import { authorName } from '../lib/device'
import { useProperty } from '../stores/property'

let taken = false

/** A quote that was sent, what it comes to, and what of it was accepted comes to. */
export interface SentAndTotals extends Sent {
  readonly whole: Quote
  readonly agreed: Quote | null
}

/** The quotes of a property that were sent, and the doors by which they are sent, answered and done. */
export function useSentQuotes() {
  const { mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', sentEn)
  taken = true
  const property = useProperty()
  const all = computed((): SentAndTotals[] =>
    quotesIn(property.facts!).flatMap((sent) => {
      const whole = sentTotals(sent.quote)
      const agreed = sent.state === 'accepted' ? sentTotals(sent.quote, sent.accepted) : null
      return whole.ok ? [{ ...sent, whole: whole.value, agreed: agreed?.ok ? agreed.value : null }] : []
    }),
  )
  const now = () => ({ at: new Date().toISOString(), author: authorName() })
  const send = (quote: Omit<SentQuote, 'at' | 'author'>) =>
    property.record({ kind: 'quote', fact: { ...now(), ...quote } })
  const turn = (quote: string, to: QuoteTurn['to']) =>
    property.record({ kind: 'quoteTurn', fact: { ...now(), quote, to } })
  const work = (quote: string, item: string, done: Pick<WorkDone, 'minutes' | 'used' | 'undone'>) =>
    property.record({ kind: 'workDone', fact: { ...now(), quote, item, ...done } })
  const orderOf = (sent: Sent) => workOrder(property.site!, sent)
  return { all, send, turn, work, orderOf }
}
