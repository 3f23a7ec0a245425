<script setup lang="ts">
import { kindsOf, type BoxKinds } from '../../../core/path'
import { getOrThrow, type PathAt } from '../../../core/site'
import { moneyText } from '../../../words/sizing'
import { usePathPage } from '../../composables/usePath'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import type { TableColumn } from '../../lib/table'

/** Which kinds of decoder serve the valves of each box: fewest joints in the path, or least money by the price list. */
const props = defineProps<{ path: PathAt }>()
const { property, site, t, fixed } = usePathPage()
const known = computed(() => (props.path.system ? { ...props.path, system: props.path.system } : null))
const plan = computed(() => (known.value ? kindsOf(site.value, known.value) : null))
const other = computed(() => plan.value?.boxes.filter((b) => b.now.join() !== b.best.join()) ?? [])
const tagOf = (b: BoxKinds) => getOrThrow(site.value.places, b.place).tag
const kinds = (of: readonly number[]) => (of.length === 0 ? '–' : of.join(' + '))
const columns = computed<TableColumn<BoxKinds>[]>(() => [
  { key: 'box', header: t('twoWire.box'), sort: tagOf },
  { key: 'wanted', header: t('twoWire.decoderKinds.wanted'), figure: true },
  { key: 'now', header: t('twoWire.decoderKinds.now'), figure: true },
  { key: 'best', header: t('twoWire.decoderKinds.best'), figure: true },
])
const OUTPUTS = [1, 2, 4]
const outputs = computed(() => {
  const most = props.path.system?.outputs ?? Math.max(...OUTPUTS)
  const listed = site.value.settings.material.decoders.map((d) => d.outputs)
  return [...new Set([...OUTPUTS.filter((n) => n <= most), most, ...listed])].sort((a, b) => a - b)
})
const priceOf = (n: number) => {
  const cents = site.value.settings.material.decoders.find((d) => d.outputs === n)?.cents
  return cents === undefined ? '' : (cents / 100).toFixed(2)
}
const bad = ref('')
/** A price in whole units of money; empty takes it off the list. */
async function setPrice(n: number, text: string): Promise<void> {
  const price = text.trim() === '' ? null : figureIn(text, 0, 100_000)
  bad.value =
    text.trim() !== '' && price === null ? t('twoWire.decoderKinds.badPrice', { outputs: t('twoWire.outputs', n) }) : ''
  if (bad.value) return
  const { material } = site.value.settings
  const rest = material.decoders.filter((d) => d.outputs !== n)
  const decoders = price === null ? rest : [...rest, { outputs: n, cents: Math.round(price * 100) }]
  await property.change([{ do: 'setSetting', field: 'material', value: { ...material, decoders } }])
}
const sum = (of: { decoders: number; cuts: number; cents: number | null }) =>
  t(of.cents === null ? 'twoWire.decoderKinds.sum' : 'twoWire.decoderKinds.sumPriced', {
    decoders: of.decoders,
    cuts: of.cuts,
    cost: moneyText(of.cents ?? 0),
  })
</script>

<template>
  <section v-if="plan" class="sheet stack">
    <h2>{{ t('twoWire.decoderKinds.title') }}</h2>
    <p class="quiet">{{ t('twoWire.decoderKinds.how') }}</p>
    <div class="fields">
      <div v-for="n in outputs" :key="n" class="field">
        <label :for="`price-${n}`">{{ t('twoWire.decoderKinds.price', { outputs: t('twoWire.outputs', n) }) }}</label>
        <TextField
          :id="`price-${n}`"
          class="figure"
          inputmode="decimal"
          :model-value="priceOf(n)"
          :readonly="fixed"
          @change="setPrice(n, valueOf($event))"
        />
      </div>
    </div>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    <p>{{ t('twoWire.decoderKinds.asIs') }} {{ sum(plan.now) }}</p>
    <p>{{ t(plan.byPrice ? 'twoWire.decoderKinds.cheapest' : 'twoWire.decoderKinds.fewest') }} {{ sum(plan.best) }}</p>
    <AppTable
      v-if="other.length > 0"
      :rows="other"
      :columns="columns"
      :row-key="(b) => b.place"
      :label="t('twoWire.decoderKinds.title')"
    >
      <template #box="{ row: b }">{{ tagOf(b) }}</template>
      <template #wanted="{ row: b }">{{ b.outputs }}</template>
      <template #now="{ row: b }">{{ kinds(b.now) }}</template>
      <template #best="{ row: b }">{{ kinds(b.best) }}</template>
    </AppTable>
    <p v-else>
      <StateMark state="fits" silent />
      {{ t('twoWire.decoderKinds.asGood') }}
    </p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 12px;
}
</style>
