import { useI18n } from 'vue-i18n'
import type { Units } from '../../core/quantity'
import { printEn } from '../../words/print-en'
import type { useSpeaker } from './useSpeaker'
import { useWorkWords } from './useWorkWords'

let taken = false

/** The words of what is printed; they come with the pages that print. */
export function usePrintWords(units: () => Units): ReturnType<typeof useSpeaker> {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', printEn)
  taken = true
  return useWorkWords(units)
}
