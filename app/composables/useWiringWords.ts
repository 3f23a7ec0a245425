import { useI18n } from 'vue-i18n'
import type { Units } from '../../core/quantity'
import { wiringEn } from '../../words/wiring-en'
import { useSpeaker } from './useSpeaker'

let taken = false

/** The words of map, boxes, wiring and controller, which come with those pages and not with the first load. */
export function useWiringWords(units: () => Units): ReturnType<typeof useSpeaker> {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', wiringEn)
  taken = true
  return useSpeaker(units)
}
