import { createI18n } from 'vue-i18n'
import { appEn } from '../../words/app-en'
import { coreEn } from '../../words'

export default defineNuxtPlugin(({ vueApp }) => {
  const i18n = createI18n({
    ...{ legacy: false as const, locale: 'en', fallbackLocale: 'en' },
    messages: { en: { ...coreEn, ...appEn } },
  })
  vueApp.use(i18n)
  /** Words that come later than the first page. */
  const takeWords = (words: object): void => i18n.global.mergeLocaleMessage('en', words)
  return { provide: { takeWords } }
})
