import { useI18n } from 'vue-i18n'
import type { SequencerTold } from '../../core/record'
import { countOf, entriesOf, eventsIn, neverCame, nextOf, resyncOf, sequencersOf, turnsIn } from '../../core/sequencer'
import { deviceName, type ControllerId, type DeviceId } from '../../core/site'
import { sequencerEn } from '../../words/sequencer-en'
import { authorName } from '../lib/device'
import { useProgramTurns } from './useSchedule'
import { useProperty } from '../stores/property'

let taken = false

/** The words of sequencers, which come with the pages that show them. */
export function useSequencerWords() {
  const { t, mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', sequencerEn)
  taken = true
  return t
}

/** The sequencers of a controller: what is known of each, and the door by which more is told. */
export function useSequencers(controller: () => ControllerId) {
  const t = useSequencerWords()
  const property = useProperty()
  const nameOf = (id: DeviceId) => deviceName(property.site!, id)
  const heard = computed(() =>
    sequencersOf(property.site!, controller()).map((sequenced) => {
      const events = eventsIn(property.facts!, controller(), sequenced)
      return { sequenced, events, from_s: Math.max(...events.map((e) => e.at_s)) }
    }),
  )
  const now_s = Math.floor(Date.now() / 1000)
  const { found: byPrograms } = useProgramTurns(
    controller,
    () => heard.value,
    () => now_s,
  )
  const all = computed(() =>
    heard.value.map(({ sequenced, events, from_s }, i) => {
      const run = byPrograms.value?.[i] ?? []
      const belief = countOf(sequenced, [...events, ...run])
      return {
        sequenced,
        lost: belief.lost,
        turns: turnsIn(events),
        never: neverCame(sequenced, events),
        byPrograms: run.length === 0 ? null : { turns: run.length, since: new Date(from_s * 1000).toISOString() },
        next: nextOf(sequenced, belief),
        resync: resyncOf(sequenced, belief),
        entries: entriesOf(property.facts!, sequenced),
      }
    }),
  )
  const tell = (sequencer: DeviceId, told: SequencerTold) =>
    property.record({
      kind: 'sequencerTurn',
      fact: { at: new Date().toISOString(), author: authorName(), sequencer, told },
    })
  return { property, t, all, nameOf, tell }
}
