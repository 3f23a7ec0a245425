import { wrap, type Remote } from 'comlink'
import { useI18n } from 'vue-i18n'
import { seenAt } from '../../core/quote'
import type { Part, PriceList } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { partsNamed } from '../../core/sightings'
import { repairEn } from '../../words/repair-en'
import { repairPageEn } from '../../words/repair-page-en'
import { pricesHere } from '../lib/company-prices'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'
import type { RepairWork } from '../workers/repair'
import { useLatest } from './useLatest'
import { useSightingWords } from './useSightings'
import { useSpeaker } from './useSpeaker'

let taken = false
let worker: Remote<RepairWork> | null = null
const working = () =>
  (worker ??= wrap<RepairWork>(new Worker(new URL('../workers/repair.ts', import.meta.url), { type: 'module' })))

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** The words of repairs, which come with what shows them. */
function useRepairWords() {
  const property = useProperty()
  const { mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', { ...repairEn, ...repairPageEn })
  taken = true
  useSightingWords()
  return { property, ...useSpeaker(() => property.site!.settings.units) }
}

/**
 * What can be done about a part that was found bad, worked out beside the page while it is looked at; by the company’s
 * own prices where this device has them.
 */
export function useRepairs(controller: () => ControllerId, where: () => Part | null) {
  const { property, t, speaker } = useRepairWords()
  const prices = pricesHere().list
  const { found: seen, behind } = useLatest(
    () => [property.site, controller(), where(), property.facts!.sightings, property.facts!.sightingTurns],
    () => {
      const part = where()
      return (
        part &&
        working().see(
          plain(property.site!),
          controller(),
          plain(part),
          today(),
          prices,
          plain(seenAt(property.site!, property.facts!)),
        )
      )
    },
  )
  return { property, t, speaker, seen, behind, prices }
}

/** What is known to be bad as it is at a moment, for whoever needs it once. */
export function useDueNow(prices: () => PriceList | null = () => pricesHere().list) {
  const property = useProperty()
  return () => working().due(plain(property.site!), today(), plain(prices()), plain(partsNamed(property.facts!)))
}

/** Everything that the record knows to be bad, and what hunts named, with its repairs. */
export function useDue(prices: () => PriceList | null = () => pricesHere().list) {
  const { property, t, speaker } = useRepairWords()
  const { found: due, behind } = useLatest(
    () => [property.site, prices(), property.facts!.sightings, property.facts!.sightingTurns],
    useDueNow(prices),
  )
  return { property, t, speaker, due, behind }
}
