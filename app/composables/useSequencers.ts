import { useI18n } from 'vue-i18n'
import type { SequencerTold } from '../../core/record'
import { countOf, entriesOf, eventsIn, nextOf, resyncOf, sequencersOf, turnsIn } from '../../core/sequencer'
import { deviceName, type ControllerId, type DeviceId } from '../../core/site'
import { sequencerEn } from '../../words/sequencer-en'
import { authorName } from '../lib/device'
import { useProperty } from '../stores/property'

let taken = false

/** The sequencers of a controller: what is known of each, and the door by which more is told. */
export function useSequencers(controller: () => ControllerId) {
  const { t, mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', sequencerEn)
  taken = true
  const property = useProperty()
  const nameOf = (id: DeviceId) => deviceName(property.site!, id)
  const all = computed(() =>
    sequencersOf(property.site!, controller()).map((sequenced) => {
      const events = eventsIn(property.facts!, controller(), sequenced)
      const belief = countOf(sequenced, events)
      return {
        sequenced,
        lost: belief.lost,
        turns: turnsIn(events),
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
