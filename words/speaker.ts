import {
  createCoreContext,
  fallbackWithSimple,
  registerMessageCompiler,
  compile,
  registerMessageResolver,
  resolveValue,
  registerLocaleFallbacker,
  translate,
} from '@intlify/core-base'
import { checkEn } from './check-en'
import { coreEn } from './core-en'
import { rulesEn } from './rules-en'
import { huntEn } from './hunt-en'
import { procedureEn } from './procedure-en'
import { pathRefusalsEn } from './path-refusals-en'
import { quoteRefusalsEn } from './quote-en'
import { refusalsEn } from './refusals-en'
import { repairEn } from './repair-en'
import { sightingEn } from './sighting-en'
import { scheduleEn, scheduleRefusalsEn } from './schedule-en'
import type { Translate } from './say'

registerMessageCompiler(compile)
registerMessageResolver(resolveValue)
registerLocaleFallbacker(fallbackWithSimple)

const context = createCoreContext({
  locale: 'en',
  fallbackLocale: 'en',
  messages: {
    en: {
      ...coreEn,
      ...rulesEn,
      ...checkEn,
      ...huntEn,
      ...procedureEn,
      ...scheduleEn,
      ...repairEn,
      ...sightingEn,
      refusal: { ...coreEn.refusal, ...refusalsEn, ...pathRefusalsEn, ...scheduleRefusalsEn, ...quoteRefusalsEn },
    },
  },
  missingWarn: false,
  fallbackWarn: false,
})

/** Messages for the shell and the server, where there is no screen to hold a language. */
export const translateHere: Translate = (key, params, count) => {
  const text =
    count === undefined ? translate(context, key, params) : translate(context, key, params, { plural: count })
  return typeof text === 'string' ? text : key
}
