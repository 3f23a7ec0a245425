import type { Outcome } from '../../core/refusal'
import type { Command, Site } from '../../core/site'
import { useProperty } from '../stores/property'
import { usePlan } from './usePlan'
import { useWiringWords } from './useWiringWords'

/**
 * What the pages of map, boxes, wiring and controller have in common: the site, their words, and a door for changes.
 */
export function useWiringPage() {
  const property = useProperty()
  const site = computed((): Site => property.site!)
  const { t, speaker } = useWiringWords(() => site.value.settings.units)
  const { keep, sentences } = usePlan(() => speaker.value)
  return {
    property,
    site,
    t,
    speaker,
    keep,
    sentences,
    doing: (outcome: Outcome<Command[]>) => void keep(outcome),
    fixed: computed(() => property.viewed !== null),
  }
}
