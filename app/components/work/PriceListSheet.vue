<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { writeCsv } from '../../../core/formats'
import type { PriceList } from '../../../core/record'
import type { Refusal } from '../../../core/refusal'
import { sayRefusal, type Speaker } from '../../../words'
import { saveText } from '../../lib/save'
import { saveWorkbook } from '../../lib/spreadsheet'

/** The company’s price list: what it is, and how it comes in and goes out. */
const props = defineProps<{
  list: PriceList | null
  /** The list as rows, or every code with its price left to be filled in. */
  rows: () => string[][]
  agreed: 'here' | 'company' | 'gave_way'
  refusals: readonly Refusal[]
  speaker: Speaker
}>()
const emit = defineEmits<{ take: [file: File] }>()
const { t } = useI18n()
const saveCsv = () => saveText('prices.csv', writeCsv(props.rows()), 'text/csv')
const saveBook = () => saveWorkbook('prices', [{ name: 'prices', rows: props.rows() }])
</script>

<template>
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
      <span class="quiet">{{ t(`quotes.agreed.${agreed}`) }}</span>
    </p>
    <ul v-if="refusals.length > 0" class="fault" role="alert">
      <li v-for="(r, i) in refusals.slice(0, 8)" :key="i">{{ sayRefusal(r, speaker) }}</li>
    </ul>
    <p class="row">
      <FileButton accept=".csv,.txt,.xlsx,text/csv" :label="t('quotes.open')" @chosen="emit('take', $event)" />
      <AppButton @click="saveCsv">{{ t(list ? 'quotes.save' : 'quotes.begin') }}</AppButton>
      <AppButton @click="saveBook">{{ t(list ? 'quotes.saveBook' : 'quotes.beginBook') }}</AppButton>
    </p>
  </section>
</template>
