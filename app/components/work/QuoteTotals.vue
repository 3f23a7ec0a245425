<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { PricedLine, Quote } from '../../../core/quote'
import type { TableColumn } from '../../lib/table'

/** What a quote comes to: its lines, taxes, total, and every figure that was rounded. */
defineProps<{ quote: Quote; taxIn: 'inclusive' | 'on_top' }>()
const { t } = useI18n()
const columns = computed<TableColumn<PricedLine>[]>(() =>
  (['place', 'name', 'quantity', 'amount'] as const).map((key) => ({
    key,
    header: t(`quotes.columns.${key}`),
    figure: key !== 'name',
  })),
)
</script>

<template>
  <AppTable :rows="quote.lines" :columns="columns" :row-key="(l) => l.key" :label="t('quotes.total')">
    <template #place="{ row }">{{ row.place ?? t('quotes.whole') }}</template>
    <template #name="{ row }">{{ row.name }}</template>
    <template #quantity="{ row }">{{ row.quantity }} {{ t(`quotes.units.${row.unit}`) }}</template>
    <template #amount="{ row }">{{ row.amount }}</template>
  </AppTable>
  <dl class="sums">
    <template v-if="taxIn === 'on_top'">
      <dt>{{ t('quotes.net') }}</dt>
      <dd class="figure">{{ quote.net }}</dd>
    </template>
    <template v-for="x in quote.taxes" :key="x.code">
      <dt>{{ t(taxIn === 'on_top' ? 'quotes.tax' : 'quotes.taxIn', { ...x }) }}</dt>
      <dd class="figure">{{ x.amount }}</dd>
    </template>
    <template v-if="Number(quote.adjustment) !== 0">
      <dt>{{ t('quotes.adjustment') }}</dt>
      <dd class="figure">{{ quote.adjustment }}</dd>
    </template>
    <dt>
      <strong>{{ t('quotes.sum', { currency: quote.currency }) }}</strong>
    </dt>
    <dd class="figure">
      <strong>{{ quote.total }}</strong>
    </dd>
  </dl>
  <details v-if="quote.roundings.length > 0">
    <summary>{{ t('quotes.roundings', quote.roundings.length) }}</summary>
    <ul class="quiet">
      <li v-for="r in quote.roundings" :key="r.of">{{ t('quotes.rounding', { ...r }) }}</li>
    </ul>
  </details>
</template>

<style scoped>
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
</style>
