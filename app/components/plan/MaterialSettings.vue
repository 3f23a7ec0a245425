<script setup lang="ts">
import { gaugeText, inUnit, parseGauge, toMetres } from '../../../core/quantity'
import { copperCents_per_m, stockOf } from '../../../core/sizing'
import { usualSettings, type Settings, type Site } from '../../../core/site'
import { spoolsOf } from '../../../core/takeoff'
import { useSpeaker } from '../../composables/useSpeaker'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import { useProperty } from '../../stores/property'

/** How material is counted, and what is in stock at which price: settings of the property. */
const props = defineProps<{ site: Site }>()
const property = useProperty()
const units = computed(() => props.site.settings.units)
const { t } = useSpeaker(() => units.value)
const material = computed(() => props.site.settings.material)
const store = (more: Partial<Settings['material']>) =>
  property.change([{ do: 'setSetting', field: 'material', value: { ...material.value, ...more } }])
const bad = ref<Record<string, string>>({})
const say = (key: string, sentence: string | null) => {
  const { [key]: _was, ...rest } = bad.value
  bad.value = sentence === null ? rest : { ...rest, [key]: sentence }
}
const usual = usualSettings().material
const figure = (v: number) => String(Math.round(v * 100) / 100)
const fields = computed(() => {
  const { length } = units.value
  const long = (m: number) => figure(inUnit(m, length))
  const percent = (ratio: number) => figure(ratio * 100)
  const { slackPerEnd_m, expansion_ratio, reserve_ratio } = material.value
  return [
    {
      key: 'slack',
      label: `${t('material.slack')}, ${length}`,
      why: t('material.why.slack'),
      shown: long(slackPerEnd_m),
      ours: long(usual.slackPerEnd_m),
      high: inUnit(20, length),
      save: (v: number) => store({ slackPerEnd_m: toMetres(v, length) }),
    },
    {
      key: 'expansion',
      label: t('material.expansion'),
      why: t('material.why.expansion'),
      shown: percent(expansion_ratio),
      ours: percent(usual.expansion_ratio),
      high: 50,
      save: (v: number) => store({ expansion_ratio: v / 100 }),
    },
    {
      key: 'reserve',
      label: t('material.reserve'),
      why: t('material.why.reserve'),
      shown: percent(reserve_ratio),
      ours: percent(usual.reserve_ratio),
      high: 100,
      save: (v: number) => store({ reserve_ratio: v / 100 }),
    },
  ]
})
const spoolText = computed(() =>
  spoolsOf(props.site)
    .map((m) => figure(inUnit(m, units.value.length)))
    .join(', '),
)
async function keepSpools(text: string): Promise<void> {
  const lengths =
    text.trim() === ''
      ? []
      : text
          .split(/[,;\s]+/)
          .filter((s) => s !== '')
          .map((s) => figureIn(s, 1, 10_000))
  say('spools', lengths.includes(null) || lengths.length > 8 ? t('material.badSpools') : null)
  if (!lengths.includes(null) && lengths.length <= 8 && text.trim() !== spoolText.value)
    await store({ spools_m: (lengths as number[]).map((v) => toMetres(v, units.value.length)) })
}
/** Prices by the length that the property is read in: a line a size, as `1.5 mm² 16.1`. */
const perUnit = (cents_per_m: number) => (cents_per_m * toMetres(1, units.value.length)) / 100
const stockText = computed(() =>
  stockOf(props.site)
    .map((s) => `${gaugeText(s.gauge)}  ${perUnit(s.cents_per_m).toFixed(3)}`)
    .join('\n'),
)
/** What is typed, until it is taken: a page drawn again meanwhile does not take it away. */
const stockDraft = ref<string | null>(null)
async function keepStock(text: string): Promise<void> {
  if (text.trim() === stockText.value) {
    stockDraft.value = null
    return
  }
  const lines = text
    .split('\n')
    .map((l) => l.trim())
    .filter((l) => l !== '')
  const stock = lines.map((l) => {
    const m = /^(.*?)\s+([\d.,]+)$/.exec(l)
    const gauge = parseGauge(m ? m[1]! : l, props.site.settings.market)
    const price = m && gauge ? figureIn(m[2]!, 0.0001, 10_000) : null
    return gauge && (price !== null || !m)
      ? {
          gauge,
          cents_per_m:
            price === null
              ? copperCents_per_m(gauge)
              : Math.round((price * 100 * 1000) / toMetres(1, units.value.length)) / 1000,
        }
      : null
  })
  say('stock', stock.includes(null) || stock.length > 12 ? t('material.badStock') : null)
  if (stock.includes(null) || stock.length > 12) return
  stockDraft.value = null
  await store({ stock: stock as Settings['material']['stock'] })
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('material.settings') }}</h2>
    <FigureField
      v-for="f in fields"
      :id="`m-${f.key}`"
      :key="f.key"
      :label="f.label"
      :why="f.why"
      :shown="f.shown"
      :ours="f.ours"
      :low="0"
      :high="f.high"
      @store="f.save"
    />
    <div class="field">
      <label for="m-spools">{{ t('material.spoolLengths') }}, {{ units.length }}</label>
      <TextField
        id="m-spools"
        :model-value="spoolText"
        :aria-invalid="!!bad.spools"
        @change="keepSpools(valueOf($event))"
      />
      <p v-if="bad.spools" class="bad" role="alert">{{ bad.spools }}</p>
    </div>
    <div class="field">
      <label for="m-stock">{{ t('material.stock', { unit: units.length }) }}</label>
      <TextArea
        id="m-stock"
        class="figure"
        rows="6"
        :model-value="stockDraft ?? stockText"
        :aria-invalid="!!bad.stock"
        @update:model-value="stockDraft = $event ?? ''"
        @change="keepStock(valueOf($event))"
      />
      <p class="how">{{ t('material.stockHow') }}</p>
      <p v-if="bad.stock" class="bad" role="alert">{{ bad.stock }}</p>
    </div>
  </section>
</template>
