import { useI18n } from 'vue-i18n'
import { pricesRows, readPricesCsv, readPricesRows } from '../../core/formats'
import {
  CALL_OUT_CODE,
  draftItems,
  draftLines,
  draftParts,
  isQuantity,
  quoteOf,
  tunedBy,
  WORK_CODE,
} from '../../core/quote'
import type { PriceList } from '../../core/record'
import { refusal, refused, type Refusal } from '../../core/refusal'
import { REPAIR_PARTS, wireCode } from '../../core/repair'
import { stockOf } from '../../core/sizing'
import { quotePageEn } from '../../words/quote-page-en'
import { quoteRefusalsEn } from '../../words/quote-en'
import { agreedPrices, pricesHere, takePrices, type PricesAsked } from '../lib/company-prices'
import { draftFor, keepDraftOf, type QuoteDraft } from '../lib/quote-draft'
import { readWorkbook } from '../lib/spreadsheet'
import { useDue } from './useRepairs'
import { useTakenMinutes } from './useTakenMinutes'

let hasWords = false

/** A quote as it is put together: the company’s price list, what is chosen, and what it comes to. */
export function useQuote() {
  const { mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!hasWords) mergeLocaleMessage('en', { ...quotePageEn, refusal: quoteRefusalsEn })
  hasWords = true
  const list = shallowRef<PriceList | null>(pricesHere().list)
  const { property, t, speaker, due, behind } = useDue(() => list.value)
  const id = property.held!.id

  const refusals = shallowRef<readonly Refusal[]>([])
  /** Where the list stands: with the company, only here for now, or another’s was there first. */
  const agreed = ref<'here' | 'company' | 'gave_way'>('here')
  const settle = ({ now, reached, gaveWay }: PricesAsked) => {
    list.value = now.list
    agreed.value = gaveWay ? 'gave_way' : reached ? 'company' : 'here'
  }
  const begun = agreedPrices().then(settle)
  /** Takes a list in where it is whole; what is wrong with it is said, and the one before stays. */
  async function take(file: File): Promise<void> {
    const isBook = /\.xlsx$/i.test(file.name)
    const cells = isBook ? await readWorkbook(file) : null
    const read = cells
      ? readPricesRows(cells)
      : isBook
        ? refused(refusal('not_a_workbook'))
        : readPricesCsv(await file.text())
    refusals.value = read.ok ? [] : read.refusals
    if (!read.ok) return
    await begun
    list.value = read.value
    settle(await takePrices(read.value))
  }
  const listRows = () => pricesRows(list.value!)
  /** Every code that quotes ask for, its price left to be filled in. */
  const emptyRows = (): string[][] => {
    const site = property.site!
    const price = (code: string, unit: string) => ['price', code, code.replaceAll('_', ' '), '', unit, '0', '']
    const pieces = REPAIR_PARTS.filter((p) => p !== 'sleeve_m')
    return [
      ['kind', 'code', 'name', 'value', 'unit', 'markup_pct', 'tax'],
      ['setting', 'currency', '', 'XTS', '', '', ''],
      ['setting', 'decimals', '', '2', '', '', ''],
      ['setting', 'tax', '', 'on_top', '', '', ''],
      ['setting', 'rounding', '', 'half_up', '', '', ''],
      price(CALL_OUT_CODE, 'visit'),
      price(WORK_CODE, 'h'),
      ...pieces.map((p) => price(p, 'piece')),
      price('sleeve', 'm'),
      ...stockOf(site).map((s) => price(wireCode(s.gauge), 'm')),
    ]
  }

  const { taken, isTuned, tune } = useTakenMinutes()
  const tuned = computed(() => (isTuned.value ? tunedBy(taken.value) : () => 1))
  const draft = ref<QuoteDraft>(draftFor(id))
  watch(draft, (now) => keepDraftOf(id, now), { deep: true })
  const parts = computed(() => draftParts(property.site!, property.facts!, due.value ?? [], draft.value.repairs))
  const choose = (key: string, code: string) => {
    draft.value.repairs[key] = code === '' ? null : (code as QuoteDraft['repairs'][string])
  }
  const lines = computed(() =>
    draftLines(property.site!, property.facts!, parts.value, draft.value.lines, list.value, tuned.value),
  )
  const items = (says: Parameters<typeof draftItems>[4]) =>
    draftItems(parts.value, draft.value.lines, lines.value, list.value, says)
  const priceOf = (code: string) => list.value?.prices.find((p) => p.code === code) ?? null
  /** Quantities that are none. */
  const wrong = computed(() => draft.value.lines.filter((l) => !isQuantity(l.quantity)))
  /** No total is shown before the repairs are known, nor beside a figure that is none: it would be one without them. */
  const isWhole = computed(() => due.value !== null && !behind.value)
  const quote = computed(() =>
    list.value && isWhole.value && wrong.value.length === 0 && lines.value.length > 0
      ? quoteOf(lines.value, list.value)
      : null,
  )
  return {
    property,
    t,
    speaker,
    isWhole,
    list,
    refusals,
    take,
    listRows,
    emptyRows,
    agreed,
    items,
    lines,
    draft,
    parts,
    choose,
    priceOf,
    wrong,
    quote,
    taken,
    isTuned,
    tune,
  }
}
