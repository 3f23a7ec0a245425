import { useI18n } from 'vue-i18n'
import { gaugeText, printFigure, type Units } from '../../core/quantity'
import { terminalAt } from '../../core/site'
import type { Speaker } from '../../words'

/** Speaks the screen's language in the given units. */
export function useSpeaker(units: () => Units): { t: ReturnType<typeof useI18n>['t']; speaker: ComputedRef<Speaker> } {
  const { t } = useI18n()
  const speaker = computed((): Speaker => {
    const now = units()
    return {
      t: (key, params, count) => (count === undefined ? t(key, params) : t(key, params, count)),
      figure: (name, value) => (typeof value === 'number' ? unbroken(printFigure(name, value, now)) : value),
      gauge: gaugeText,
      wire: terminalAt,
    }
  })
  return { t, speaker }
}

/** A figure that stays on one line with its unit. */
export const unbroken = (text: string): string => text.replaceAll(' ', '\u00a0')

/** A day as the reader's own settings write it. */
export const dayText = (instant: string): string =>
  new Date(instant).toLocaleDateString(undefined, { year: 'numeric', month: 'short', day: 'numeric' })
export const timeText = (instant: string): string =>
  new Date(instant).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
