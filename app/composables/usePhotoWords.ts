import { useI18n } from 'vue-i18n'
import { photosEn } from '../../words/photos-en'

let taken = false

/** The words of photos; they come with the pages that show them. */
export function usePhotoWords() {
  const i18n = useI18n({ useScope: 'global' })
  if (!taken) i18n.mergeLocaleMessage('en', photosEn)
  taken = true
  return i18n
}
