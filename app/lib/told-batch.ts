import type { Command } from '../../core/site'
import { whereText, type Speaker } from '../../words'

const MOST_TOLD = 4

/** What a repair’s batch makes of the record, in the words of its fields, told before it is written. */
export function toldBatch(commands: readonly Command[], speaker: Speaker): string {
  const paths = commands.map((c) =>
    c.do === 'set' ? [c.in, c.id, c.field] : c.do === 'create' || c.do === 'remove' ? [c.in, c.id] : [],
  )
  const things = [...new Set(paths.filter((p) => p.length > 0).map((p) => whereText(p, speaker)))]
  if (things.length === 0) return speaker.t('repairs.nothing', {})
  const more = things.length - MOST_TOLD
  const list = [...things.slice(0, MOST_TOLD), ...(more > 0 ? [speaker.t('repairs.more', { count: more })] : [])]
  return speaker.t('repairs.tell', { what: list.join('; ') })
}
