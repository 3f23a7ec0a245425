import { useI18n } from 'vue-i18n'
import { isOnRecord, toldOf } from '../../core/procedure'
import type { Sighting, SightingState, WorkTarget } from '../../core/record'
import { sightingsIn } from '../../core/sightings'
import { sayThing } from '../../words/procedure'
import { sightingEn } from '../../words/sighting-en'
import { authorName } from '../lib/device'
import { useProperty } from '../stores/property'
import { useWorkWords } from './useWorkWords'

let taken = false

/** The words of findings by eye, which come with what shows them. */
export function useSightingWords(): void {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', sightingEn)
  taken = true
}

/** What was seen on a property, how it stands, and the doors by which more is told. */
export function useSightings() {
  useSightingWords()
  const property = useProperty()
  const { t, speaker } = useWorkWords(() => property.site!.settings.units)
  const all = computed(() => sightingsIn(property.facts!))
  const now = () => ({ at: new Date().toISOString(), author: authorName() })
  const note = (seen: Omit<Sighting, 'at' | 'author'>) =>
    property.record({ kind: 'sighting', fact: { ...now(), ...seen } })
  const turn = (sighting: string, to: SightingState, why = '') =>
    property.record({ kind: 'sightingTurn', fact: { ...now(), sighting, to, why } })
  /** The thing as people name it; what is on record no more has no name. */
  const nameOf = (on: WorkTarget): string => {
    const site = property.site!
    return isOnRecord(site, on) ? sayThing(site, { target: on }, toldOf(site, { target: on }), speaker.value) : ''
  }
  /** What it is on, and what was told of it; a part that was named is told of whole. */
  const tellingOf = ({ on, part, note: told }: Sighting): string =>
    part !== undefined && told !== '' ? told : [nameOf(on), told].filter(Boolean).join(' · ')
  return { property, t, all, note, turn, nameOf, tellingOf }
}
