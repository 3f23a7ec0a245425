import { useI18n } from 'vue-i18n'
import type { Units } from '../../core/quantity'
import { huntEn } from '../../words/hunt-en'
import { symptomEn } from '../../words/symptom-en'
import { useSpeaker } from './useSpeaker'

let taken = false

/** The words of a hunt, which come with Diagnose and not with the first load. */
export function useHuntWords(units: () => Units): ReturnType<typeof useSpeaker> {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', { ...huntEn, ...symptomEn })
  taken = true
  return useSpeaker(units)
}
