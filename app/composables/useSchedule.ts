import { wrap, type Remote } from 'comlink'
import { useI18n } from 'vue-i18n'
import type { CalendarDate, StationOn, WetCheckRules } from '../../core/schedule'
import type { FitWanted, Sequenced } from '../../core/sequencer'
import type { ControllerId, Site } from '../../core/site'
import { scheduleEn, scheduleRefusalsEn } from '../../words/schedule-en'
import { schedulePageEn } from '../../words/schedule-page-en'
import type { ScheduleWork, YearDrawn } from '../workers/schedule'
import { useLatest } from './useLatest'
import { useWiringPage } from './useWiringPage'

let taken = false
/** The site, the words of schedules, which come with their page, and a door for changes. */
export function useSchedulePage() {
  if (!taken)
    useI18n({ useScope: 'global' }).mergeLocaleMessage('en', {
      schedule: { ...scheduleEn.schedule, ...schedulePageEn.schedule },
      refusal: scheduleRefusalsEn,
    })
  taken = true
  return useWiringPage()
}

let worker: Remote<ScheduleWork> | null = null
const working = () =>
  (worker ??= wrap<ScheduleWork>(new Worker(new URL('../workers/schedule.ts', import.meta.url), { type: 'module' })))
const plain = (site: Site): Site => JSON.parse(JSON.stringify(site)) as Site

interface Dates {
  readonly from: CalendarDate
  readonly days: number
}

/** What a controller runs from a date on and what of it is wrong, worked out beside the page. */
export function useScheduleSeen(controller: () => ControllerId, dates: () => Dates) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), dates()],
    () => working().see(plain(site.value), controller(), dates().from, dates().days),
  )
}

/** The same of a record that is not the one at hand. */
export const seenIn = (site: Site, controller: ControllerId, { from, days }: Dates) =>
  working().see(plain(site), controller, from, days)

/** Ways in which the schedule could be other, with what would run then. */
export function useProposals(controller: () => ControllerId, dates: () => Dates) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), dates()],
    () => working().propose(plain(site.value), controller(), dates().from, dates().days),
  )
}

/** Volts and load with some stations on at once. */
export function useScheduleVolts(controller: () => ControllerId, on: () => readonly StationOn[]) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), on()],
    () => (on().length === 0 ? null : working().volts(plain(site.value), controller(), [...on()])),
  )
}

/** A year from a date on at each sequencer of a controller, with what may come between drawn into it. */
export function useSequencerYears(controller: () => ControllerId, from: () => CalendarDate, drawn: () => YearDrawn) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), from(), drawn()],
    () => working().years(plain(site.value), controller(), from(), { ...drawn() }),
  )
}

/** Turns that programs have given some sequencers, each since it was last heard of, until now. */
export function useProgramTurns(
  controller: () => ControllerId,
  since: () => readonly { readonly sequenced: Sequenced; readonly from_s: number }[],
  now_s: () => number,
) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), since(), now_s()],
    async () =>
      Promise.all(
        since().map(({ sequenced, from_s }) =>
          working().turns(plain(site.value), controller(), JSON.parse(JSON.stringify(sequenced)), from_s, now_s()),
        ),
      ),
  )
}

/** A sequencer as it would be fitted; null where nothing is asked. */
export function useFit(wanted: () => FitWanted | null, from: () => CalendarDate) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, wanted(), from()],
    () => {
      const asked = wanted()
      return asked && working().fit(plain(site.value), { ...asked, others: [...asked.others] }, from())
    },
  )
}

/** The walk of a wet check of a controller. */
export function useWetWalk(controller: () => ControllerId | null, rules: () => WetCheckRules) {
  const { site } = useWiringPage()
  return useLatest(
    () => [site.value, controller(), rules()],
    () => {
      const of = controller()
      return of && working().wet(plain(site.value), of, { ...rules() })
    },
  )
}
