import { useI18n } from 'vue-i18n'
import type { Units } from '../../core/quantity'
import { ownEn } from '../../words/own-en'
import { procedureEn } from '../../words/procedure-en'
import { workEn } from '../../words/work-en'
import { useHuntWords } from './useHuntWords'
import type { useSpeaker } from './useSpeaker'

let taken = false

/** The words of Work and of procedures, with those of tests; they come with that place and not with the first load. */
export function useWorkWords(units: () => Units): ReturnType<typeof useSpeaker> {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', { ...procedureEn, ...workEn, ...ownEn })
  taken = true
  return useHuntWords(units)
}
