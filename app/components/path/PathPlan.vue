<script setup lang="ts">
import { planPath, wayOutCommands } from '../../../core/path'
import { gaugeText, parseGauge } from '../../../core/quantity'
import { readPathLines } from '../../../core/formats'
import { stockOf } from '../../../core/sizing'
import { applyBatch, pathOf, type PathAt } from '../../../core/site'
import type { Outcome } from '../../../core/refusal'
import type { Command } from '../../../core/site'
import { usePathPage } from '../../composables/usePath'
import { sayRefusal } from '../../../words'

/** A path from a pasted list of its boxes: looked at, then taken in whole or not at all. */
const props = defineProps<{ path: PathAt }>()
const { site, t, speaker, keep, sentences, doing, fixed } = usePathPage()
const text = ref('')
const took = ref(false)
const sizes = computed(() => stockOf(site.value).map(({ gauge }) => gaugeText(gauge)))
const picked = ref<string | null>(null)
const size = computed(() => picked.value ?? sizes.value[0] ?? '')
const planned = computed((): Outcome<Command[]> | null => {
  if (text.value.trim() === '') return null
  const rows = readPathLines(text.value, site.value.settings.units)
  if (!rows.ok) return rows
  return planPath(site.value, props.path.controller, rows.value, parseGauge(size.value, site.value.settings.market))
})
const refused = computed(() =>
  planned.value && !planned.value.ok ? planned.value.refusals.map((r) => sayRefusal(r, speaker.value)) : [],
)
/** What it would come to. */
const after = computed(() => {
  if (!planned.value?.ok) return null
  const applied = applyBatch(site.value, planned.value.value)
  if (!applied.ok) return null
  const count = (of: object, now: object) => Object.keys(now).length - Object.keys(of).length
  const path = pathOf(applied.value.site, props.path.controller)!
  return {
    boxes: count(site.value.places, applied.value.site.places),
    decoders: path.decoders.length - props.path.decoders.length,
    stations: count(site.value.stations, applied.value.site.stations),
  }
})
async function takeIn(): Promise<void> {
  if (!planned.value || !(await keep(planned.value))) return
  text.value = ''
  took.value = true
}
const wayOut = () => doing({ ok: true, value: wayOutCommands(site.value, props.path.controller) })
</script>

<template>
  <form class="sheet stack" novalidate @submit.prevent="takeIn">
    <h2>{{ t('twoWire.list') }}</h2>
    <p class="quiet">{{ t('twoWire.listHow') }}</p>
    <div class="field">
      <label for="path-list">{{ t('twoWire.list') }}</label>
      <TextArea
        id="path-list"
        v-model="text"
        rows="10"
        :readonly="fixed"
        :placeholder="t('twoWire.listExample')"
        @input="took = false"
      />
    </div>
    <PickOne
      :model-value="size"
      :label="t('twoWire.wireSize')"
      :options="sizes.map((value) => ({ value, label: value }))"
      :disabled="fixed"
      @update:model-value="picked = $event"
    />
    <ul v-if="refused.length + sentences.length > 0" class="fault" role="alert">
      <li v-for="s in [...refused, ...sentences]" :key="s">{{ s }}</li>
    </ul>
    <p v-if="after" role="status">{{ t('twoWire.planned', after) }}</p>
    <p v-if="took" class="fits" role="status">{{ t('twoWire.tookIn') }}</p>
    <div v-if="!fixed" class="row">
      <AppButton type="submit" look="primary" :disabled="after === null">{{ t('twoWire.takeIn') }}</AppButton>
      <AppButton look="plain" @click="wayOut">{{ t('twoWire.wayOut') }}</AppButton>
    </div>
  </form>
</template>
