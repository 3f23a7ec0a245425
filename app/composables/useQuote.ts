import { useI18n } from 'vue-i18n'
import { pricesRows, readPricesCsv, readPricesRows } from '../../core/formats'
import { CALL_OUT_CODE, itemsWithLines, quoteLines, quoteOf, tunedBy, WORK_CODE } from '../../core/quote'
import { quotesIn } from '../../core/quoted'
import { partKey, type Part, type PriceList, type QuotedItem, type QuoteLine } from '../../core/record'
import { refusal, refused, type Refusal } from '../../core/refusal'
import { isOnRecord, placeOf } from '../../core/procedure'
import { isPartOnRecord, REPAIR_PARTS, wireCode } from '../../core/repair'
import { sightingsIn } from '../../core/sightings'
import { entries, getOrThrow, type PlaceId } from '../../core/site'
import { stockOf } from '../../core/sizing'
import { quotePageEn } from '../../words/quote-page-en'
import { quoteRefusalsEn } from '../../words/quote-en'
import { agreedPrices, pricesHere, takePrices, type PricesAsked } from '../lib/company-prices'
import { draftFor, keepDraftOf, type QuoteDraft } from '../lib/quote-draft'
import { readWorkbook } from '../lib/spreadsheet'
import { useDue } from './useRepairs'
import { useTakenMinutes } from './useTakenMinutes'

let hasWords = false
const QUANTITY = /^\d{1,9}(\.\d{1,6})?$/
/** A quantity as it is kept: with a point, whatever it was typed with. */
const quantityOf = (typed: string): string => typed.trim().replace(',', '.')

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
  /** Keys of what is in a quote that waits for its answer, or in one that was accepted. */
  const quoted = computed(
    () =>
      new Set(
        quotesIn(property.facts!).flatMap(({ state, quote, accepted }) =>
          state === 'open' ? quote.items.map((i) => i.key) : [...accepted],
        ),
      ),
  )
  const parts = computed(() =>
    // Until they are worked out anew, what somebody has taken off the record has no name.
    (due.value ?? [])
      .filter(({ where }) => isPartOnRecord(property.site!, where))
      .map(({ where, controller, options }) => {
        const key = partKey(where)
        const possible = options.flatMap((o) => (o.possible ? [o] : []))
        const asked = draft.value.repairs[key]
        const isQuoted = quoted.value.has(key)
        // What is quoted already is not quoted twice, unless somebody asks for it.
        const usual = isQuoted && asked === undefined ? null : (possible[0] ?? null)
        const chosen = asked === null ? null : (possible.find((o) => o.code === asked) ?? usual)
        return { key, where, controller, options, possible, chosen, isQuoted }
      }),
  )
  const choose = (key: string, code: string) => {
    draft.value.repairs[key] = code === '' ? null : (code as QuoteDraft['repairs'][string])
  }
  /** What is accepted or declined as one: a repair, a finding, or a line by itself; those that some line is for. */
  const items = (says: { repair: (where: Part, code: string) => string; sighting: (id: string) => string }) => {
    const own = draft.value.lines.map(({ id, sighting, code }): QuotedItem => {
      const line: QuotedItem = { key: id, of: { kind: 'line' }, says: priceOf(code)?.name ?? code, usual_min: null }
      return sighting === null
        ? line
        : { ...line, key: sighting, of: { kind: 'sighting', sighting }, says: says.sighting(sighting) || line.says }
    })
    const repairs = parts.value.flatMap(({ key, where, chosen }): QuotedItem[] =>
      chosen
        ? [
            {
              key,
              of: { kind: 'repair', where, option: chosen.code },
              says: says.repair(where, chosen.code),
              usual_min: chosen.minutes,
            },
          ]
        : [],
    )
    const all = [...repairs, ...own]
    return itemsWithLines(
      all.filter((i, n) => all.findIndex((other) => other.key === i.key) === n),
      lines.value,
    )
  }
  const priceOf = (code: string) => list.value?.prices.find((p) => p.code === code) ?? null
  /** Quantities that are none. */
  const wrong = computed(() => draft.value.lines.filter((l) => !QUANTITY.test(quantityOf(l.quantity))))
  /** The place where something was seen; null where it has none. */
  const placeFor = (sighting: string | null): PlaceId | null => {
    const on = sighting === null ? null : seenOn(sighting)
    return on && isOnRecord(property.site!, on) ? placeOf(property.site!, on) : null
  }
  const tagOf = (place: PlaceId | null) => place && getOrThrow(property.site!.places, place).tag
  const seenOn = (id: string) => sightingsIn(property.facts!).find((s) => s.id === id)?.seen.on ?? null
  const lines = computed((): QuoteLine[] => {
    const repairs = parts.value.flatMap(({ where, chosen }) => (chosen ? [{ where, option: chosen }] : []))
    const own = draft.value.lines.map((l): QuoteLine => {
      const unit = priceOf(l.code)?.unit ?? 'piece'
      return {
        key: l.id,
        item: l.sighting ?? l.id,
        place: tagOf(placeFor(l.sighting)),
        code: l.code,
        unit: unit === 'h' ? 'min' : unit,
        quantity: quantityOf(l.quantity),
      }
    })
    const home = parts.value[0]?.controller ?? entries(property.site!.controllers)[0]?.[0]
    const further = draft.value.lines.flatMap((l) => placeFor(l.sighting) ?? [])
    return [...(home === undefined ? [] : quoteLines(property.site!, home, repairs, further, tuned.value)), ...own]
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
