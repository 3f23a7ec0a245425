import type { Content } from 'pdfmake/interfaces'
import { useI18n } from 'vue-i18n'
import { daysText, doorSheet, seasonalText } from '../../core/schedule'
import type { ControllerId } from '../../core/site'
import { doorSheetContent, doorSheetDoc, type SheetWords } from '../print/door-sheet'
import { usePrinting } from './usePrinting'
import { usePrintWords } from './usePrintWords'
import { useSchedulePage } from './useSchedule'
import { dayText } from './useSpeaker'

const ALL_DAYS = 7

/** Prints what a controller is set to, for its door. */
export function useDoorSheet() {
  const { site, t } = useSchedulePage()
  const { locale } = useI18n({ useScope: 'global' })
  usePrintWords(() => site.value.settings.units)
  const { paper, busy, failed, print } = usePrinting(() => (site.value.settings.market === 'metric' ? 'A4' : 'LETTER'))
  /** January and its eleven followers, by a year in which no month is lost to the zone. */
  const monthName = (month: number) =>
    new Date(Date.UTC(2027, month, 15)).toLocaleDateString(locale.value, { month: 'short', timeZone: 'UTC' })
  const words: SheetWords = {
    say: (key, params = {}) => t(key, params),
    days: (days) =>
      days === null
        ? t('schedule.never')
        : days.kind === 'weekdays' && days.on.length === ALL_DAYS
          ? t('schedule.everyDay')
          : daysText(days),
    percent: (seasonal) =>
      typeof seasonal === 'number'
        ? `${seasonalText(seasonal)} %`
        : seasonal.map((percent, month) => `${monthName(month)} ${percent}`).join(', '),
  }
  return {
    busy,
    failed,
    /** The same as a page of another print; nothing of a controller without programs. */
    sheetContent(controller: ControllerId): Content[] {
      const of = doorSheet(site.value, controller)
      return of ? doorSheetContent(of, words) : []
    },
    printSheet(controller: ControllerId, file: string): void {
      const of = doorSheet(site.value, controller)
      if (of)
        void print(
          'sheet',
          () => doorSheetDoc(of, { ...words, paper: paper.value, today: dayText(new Date().toISOString()) }),
          `${file} programs`,
        )
    },
  }
}
