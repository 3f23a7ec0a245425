import { createI18n } from 'vue-i18n'
import { appEn } from '../../words/app-en'
import { coreEn } from '../../words'

export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.use(
    createI18n({ legacy: false, locale: 'en', fallbackLocale: 'en', messages: { en: { ...coreEn, ...appEn } } }),
  )
})
