import { useI18n } from 'vue-i18n'
import { readPricesCsv, writePricesCsv } from '../../core/formats'
import { CALL_OUT_CODE, quoteLines, quoteOf, wireCode, WORK_CODE } from '../../core/quote'
import { partKey, type PriceList, type QuoteLine } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { isPartOnRecord, REPAIR_PARTS } from '../../core/repair'
import { stockOf } from '../../core/sizing'
import { quotePageEn } from '../../words/quote-page-en'
import { quoteRefusalsEn } from '../../words/quote-en'
import { keepPrices, pricesText } from '../lib/device'
import { draftFor, keepDraftOf, type QuoteDraft } from '../lib/quote-draft'
import { useDue } from './useRepairs'

let taken = false
const QUANTITY = /^\d{1,9}(\.\d{1,6})?$/

/** A quote as it is put together: the price list of this device, what is chosen, and what it comes to. */
export function useQuote() {
  const { mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', { ...quotePageEn, refusal: quoteRefusalsEn })
  taken = true
  const { property, t, speaker, due, behind } = useDue()
  const id = property.held!.id

  const refusals = shallowRef<readonly Refusal[]>([])
  const list = shallowRef<PriceList | null>(null)
  /** Takes a list in where it is whole; what is wrong with it is said, and the one before stays. */
  function take(csv: string): void {
    const read = readPricesCsv(csv)
    refusals.value = read.ok ? [] : read.refusals
    if (!read.ok) return
    list.value = read.value
    keepPrices(csv)
  }
  const kept = pricesText()
  if (kept !== null) take(kept)
  const listCsv = () => writePricesCsv(list.value!)
  /** Every code that quotes ask for, its price left to be filled in. */
  const emptyCsv = (): string => {
    const site = property.site!
    const price = (code: string, unit: string) => ['price', code, code.replaceAll('_', ' '), '', unit, '0', '']
    const pieces = REPAIR_PARTS.filter((p) => p !== 'sleeve_m')
    const rows = [
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
    return rows.map((r) => r.join(',')).join('\n') + '\n'
  }

  const draft = ref<QuoteDraft>(draftFor(id))
  watch(draft, (now) => keepDraftOf(id, now), { deep: true })
  const parts = computed(() =>
    // Until they are worked out anew, what somebody has taken off the record has no name.
    (due.value ?? [])
      .filter(({ where }) => isPartOnRecord(property.site!, where))
      .map(({ where, controller, options }) => {
        const key = partKey(where)
        const possible = options.flatMap((o) => (o.possible ? [o] : []))
        const asked = draft.value.repairs[key]
        const chosen = asked === null ? null : (possible.find((o) => o.code === asked) ?? possible[0] ?? null)
        return { key, where, controller, options, possible, chosen }
      }),
  )
  const choose = (key: string, code: string) => {
    draft.value.repairs[key] = code === '' ? null : (code as QuoteDraft['repairs'][string])
  }
  const priceOf = (code: string) => list.value?.prices.find((p) => p.code === code) ?? null
  /** Quantities that are none. */
  const wrong = computed(() => draft.value.lines.filter((l) => !QUANTITY.test(l.quantity.trim().replace(',', '.'))))
  const lines = computed((): QuoteLine[] => {
    const repairs = parts.value.flatMap(({ where, chosen }) => (chosen ? [{ where, option: chosen }] : []))
    const own = draft.value.lines.map((l): QuoteLine => {
      const unit = priceOf(l.code)?.unit ?? 'piece'
      const quantity = l.quantity.trim().replace(',', '.')
      return {
        key: l.id,
        item: l.sighting ?? l.id,
        place: null,
        code: l.code,
        unit: unit === 'h' ? 'min' : unit,
        quantity,
      }
    })
    const [first] = parts.value
    return [...(first ? quoteLines(property.site!, first.controller, repairs) : []), ...own]
  })
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
    listCsv,
    emptyCsv,
    draft,
    parts,
    choose,
    priceOf,
    wrong,
    quote,
  }
}
