import { createI18n } from 'vue-i18n'
import { appEn } from '../../words/app-en'
import { coreEn } from '../../words'
import { laterWords } from '../lib/later-words'

export default defineNuxtPlugin(({ vueApp }) => {
  /** Read where a sentence has not come yet, so that what shows it is drawn again when it has. */
  const taken = ref(false)
  const i18n = createI18n({
    ...{ legacy: false as const, locale: 'en', fallbackLocale: 'en' },
    messages: { en: { ...coreEn, ...appEn } },
    // A sentence about what was refused stands as soon as the words that a first load does without have come.
    missing: (_locale, key) => {
      if (taken.value || !key.startsWith('refusal.')) return
      void takeLaterWords().catch(() => undefined)
      return '…'
    },
    missingWarn: /^(?!refusal\.)/,
    fallbackWarn: false,
  })
  vueApp.use(i18n)
  /** Words that a first load does without, taken once. */
  async function takeLaterWords(): Promise<void> {
    if (taken.value) return
    i18n.global.mergeLocaleMessage('en', await laterWords())
    taken.value = true
  }
  return { provide: { takeLaterWords } }
})
