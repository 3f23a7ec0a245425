<script setup lang="ts">
import { v7 } from 'uuid'
import { writeQuoteCsv } from '../../../../../core/formats'
import type { PricedLine } from '../../../../../core/quote'
import { sayRefusal } from '../../../../../words'
import { sayPart } from '../../../../../words/part'
import { sayRepair, sayWhyNot } from '../../../../../words/repair'
import { usePrinting } from '../../../../composables/usePrinting'
import { useQuote } from '../../../../composables/useQuote'
import { useSightings } from '../../../../composables/useSightings'
import { dayText } from '../../../../composables/useSpeaker'
import { saveText } from '../../../../lib/save'
import type { TableColumn } from '../../../../lib/table'
import { quoteDoc } from '../../../../print/quote'

/** A quote: what is known to be bad and what was found, as lines by the company’s own prices. */
const {
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
} = useQuote()
const { all: sightings, turn, nameOf } = useSightings()
const { paper, busy, failed, print } = usePrinting(() =>
  property.site!.settings.market === 'metric' ? 'A4' : 'LETTER',
)
const name = computed(() => property.site!.about.name)
const fixed = computed(() => property.viewed !== null)
const open = computed(() => sightings.value.filter((s) => s.state === 'open' || s.state === 'quoted'))
const prices = computed(() => (list.value?.prices ?? []).map((p) => ({ value: p.code, label: p.name })))
const add = (sighting: string | null) =>
  draft.value.lines.push({ id: v7(), sighting, code: list.value!.prices[0]!.code, quantity: '1' })
const linesOf = (sighting: string | null) => draft.value.lines.filter((l) => l.sighting === sighting)
const takeOff = (id: string) => (draft.value.lines = draft.value.lines.filter((l) => l.id !== id))
const unitOf = (code: string) => t(`quotes.units.${priceOf(code)?.unit ?? 'piece'}`)
const seenText = (id: string) => {
  const s = open.value.find((o) => o.id === id)
  return s ? `${t(`sighted.${s.seen.what}`)} · ${nameOf(s.seen.on)}` : ''
}
const columns = computed<TableColumn<PricedLine>[]>(() =>
  (['place', 'name', 'quantity', 'amount'] as const).map((key) => ({
    key,
    header: t(`quotes.columns.${key}`),
    figure: key !== 'name',
  })),
)
const repaired = computed(() =>
  parts.value.flatMap(({ where, chosen }) =>
    chosen ? [`${sayPart(where, property.site!, speaker.value)}: ${sayRepair(chosen.code, speaker.value)}`] : [],
  ),
)
const printQuote = () => {
  const made = quote.value
  if (!made?.ok) return
  void print(
    'quote',
    () =>
      quoteDoc(made.value, {
        paper: paper.value,
        property: name.value,
        contractor: property.site!.about.contractor,
        today: dayText(new Date().toISOString()),
        taxIn: list.value!.tax,
        repairs: [...repaired.value, ...draft.value.lines.flatMap((l) => (l.sighting ? [seenText(l.sighting)] : []))],
        say: (key, params = {}) => t(key, params),
      }),
    `${name.value} quote`,
  )
}
/** Findings with a line, that are not quoted yet. */
const unquoted = computed(() => open.value.filter((s) => s.state === 'open' && linesOf(s.id).length > 0))
const markQuoted = () => unquoted.value.forEach((s) => void turn(s.id, 'quoted'))
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
</script>

<template>
  <div class="stack page">
    <h1>{{ t('quotes.title') }}</h1>
    <p class="quiet">{{ t('quotes.how') }}</p>
    <section class="sheet stack">
      <h2>{{ t('quotes.prices') }}</h2>
      <p v-if="!list">{{ t('quotes.noPrices') }}</p>
      <p v-else>
        {{
          t('quotes.pricesOf', {
            count: list.prices.length,
            currency: list.currency,
            tax: t(`quotes.taxes.${list.tax}`),
          })
        }}
        <span class="quiet">{{ t('quotes.onDevice') }}</span>
      </p>
      <ul v-if="refusals.length > 0" class="fault" role="alert">
        <li v-for="(r, i) in refusals.slice(0, 8)" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
      <p class="row">
        <FileButton
          accept=".csv,.txt,text/csv"
          :label="t('quotes.open')"
          @chosen="async (file: File) => take(await file.text())"
        />
        <AppButton v-if="list" @click="saveText('prices.csv', listCsv())">{{ t('quotes.save') }}</AppButton>
        <AppButton v-else @click="saveText('prices.csv', emptyCsv())">{{ t('quotes.begin') }}</AppButton>
      </p>
    </section>
    <section class="sheet stack">
      <h2>{{ t('quotes.known') }}</h2>
      <p v-if="!isWhole" class="quiet">{{ t('quotes.working') }}</p>
      <p v-else-if="parts.length === 0" class="quiet">{{ t('quotes.noneKnown') }}</p>
      <div v-for="(p, i) in parts" :key="p.key" class="due">
        <strong>{{ capital(sayPart(p.where, property.site!, speaker)) }}</strong>
        <PickOne
          v-if="p.possible.length > 0"
          :id="`due-${i}`"
          :model-value="p.chosen?.code ?? ''"
          :disabled="fixed"
          :aria-label="capital(sayPart(p.where, property.site!, speaker))"
          :options="[
            { value: '', label: t('quotes.not') },
            ...p.possible.map((o) => ({ value: o.code as string, label: sayRepair(o.code, speaker) })),
          ]"
          @update:model-value="choose(p.key, $event)"
        />
        <span v-else-if="p.options[0] && !p.options[0].possible" class="quiet">
          {{ t('quotes.impossible', { why: sayWhyNot(p.options[0].why, speaker) }) }}
        </span>
      </div>
    </section>
    <section v-if="list && list.prices.length > 0" class="sheet stack">
      <h2>{{ t('quotes.found') }}</h2>
      <div v-for="s in [...open.map((o) => o.id), null]" :key="s ?? 'further'" class="stack found">
        <p v-if="s !== null" class="row">
          <strong>{{ seenText(s) }}</strong>
          <AppButton v-if="!fixed" look="plain" @click="add(s)">{{ t('quotes.finding') }}</AppButton>
        </p>
        <div v-for="l in linesOf(s)" :key="l.id" class="row line">
          <PickOne :id="`price-${l.id}`" v-model="l.code" :label="t('quotes.price')" :options="prices" />
          <div class="field">
            <label :for="`much-${l.id}`">{{ t('quotes.quantity', { unit: unitOf(l.code) }) }}</label>
            <TextField :id="`much-${l.id}`" v-model="l.quantity" class="input figure" inputmode="decimal" />
          </div>
          <AppButton look="plain" @click="takeOff(l.id)">{{ t('quotes.off') }}</AppButton>
        </div>
        <p v-if="s === null && !fixed" class="row">
          <AppButton @click="add(null)">{{ t('quotes.further') }}</AppButton>
        </p>
      </div>
      <ul v-if="wrong.length > 0" class="fault" role="alert">
        <li v-for="l in wrong" :key="l.id">
          {{ t('quotes.wrongQuantity', { price: priceOf(l.code)?.name ?? l.code }) }}
        </li>
      </ul>
    </section>
    <section v-if="list" class="sheet stack">
      <h2>{{ t('quotes.total') }}</h2>
      <p v-if="!quote" class="quiet">
        {{ t(!isWhole ? 'quotes.working' : wrong.length > 0 ? 'quotes.mend' : 'quotes.nothing') }}
      </p>
      <ul v-else-if="!quote.ok" class="fault" role="alert">
        <li v-for="(r, i) in quote.refusals" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
      <template v-else>
        <AppTable :rows="quote.value.lines" :columns="columns" :row-key="(l) => l.key" :label="t('quotes.total')">
          <template #place="{ row }">{{ row.place ?? t('quotes.whole') }}</template>
          <template #name="{ row }">{{ row.name }}</template>
          <template #quantity="{ row }">{{ row.quantity }} {{ t(`quotes.units.${row.unit}`) }}</template>
          <template #amount="{ row }">{{ row.amount }}</template>
        </AppTable>
        <dl class="sums">
          <template v-if="list.tax === 'on_top'">
            <dt>{{ t('quotes.net') }}</dt>
            <dd class="figure">{{ quote.value.net }}</dd>
          </template>
          <template v-for="x in quote.value.taxes" :key="x.code">
            <dt>{{ t(list.tax === 'on_top' ? 'quotes.tax' : 'quotes.taxIn', { ...x }) }}</dt>
            <dd class="figure">{{ x.amount }}</dd>
          </template>
          <template v-if="Number(quote.value.adjustment) !== 0">
            <dt>{{ t('quotes.adjustment') }}</dt>
            <dd class="figure">{{ quote.value.adjustment }}</dd>
          </template>
          <dt>
            <strong>{{ t('quotes.sum', { currency: quote.value.currency }) }}</strong>
          </dt>
          <dd class="figure">
            <strong>{{ quote.value.total }}</strong>
          </dd>
        </dl>
        <details v-if="quote.value.roundings.length > 0">
          <summary>{{ t('quotes.roundings', quote.value.roundings.length) }}</summary>
          <ul class="quiet">
            <li v-for="r in quote.value.roundings" :key="r.of">{{ t('quotes.rounding', { ...r }) }}</li>
          </ul>
        </details>
        <p class="row">
          <AppButton look="primary" :disabled="busy !== null" @click="printQuote">{{ t('quotes.pdf') }}</AppButton>
          <AppButton @click="saveText(`${name} quote.csv`, writeQuoteCsv(quote.value))">
            {{ t('quotes.csv') }}
          </AppButton>
          <AppButton v-if="unquoted.length > 0 && !fixed" @click="markQuoted">{{ t('quotes.quoted') }}</AppButton>
        </p>
        <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.due {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 280px);
  gap: 4px 12px;
  align-items: center;
}
.line {
  align-items: end;
}
.found {
  gap: 8px;
}
.sums {
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 4px 16px;
  max-width: 420px;
  margin-left: auto;
}
.sums dd {
  text-align: right;
  margin: 0;
}
@media (max-width: 759px) {
  .due {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
