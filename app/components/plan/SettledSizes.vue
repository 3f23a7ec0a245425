<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { sizeCommands } from '../../../core/plan'
import { gaugeText } from '../../../core/quantity'
import { isPinned, stockOf } from '../../../core/sizing'
import { entries, type Site } from '../../../core/site'
import { useCableName } from '../../composables/useCableName'
import { usePlan } from '../../composables/usePlan'
import { useSpeaker } from '../../composables/useSpeaker'
import { optionsOf } from '../../lib/options'
import type { TableColumn } from '../../lib/table'

/** Every cable's size, and whether it is settled or the sizing may choose it. */
const props = defineProps<{ site: Site; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.site.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const nameOf = useCableName(() => props.site)
const cables = computed(() =>
  entries(props.site.cables).map(([id, cable]) => {
    const known = cable.gauge ?? Object.values(cable.cores)[0]?.gauge ?? null
    return {
      id,
      name: nameOf(id),
      size: known ? gaugeText(known.value) : '',
      settled: isPinned(known),
      byCore: cable.gauge === null && known !== null,
    }
  }),
)
const stock = computed(() => stockOf(props.site).map((s) => gaugeText(s.gauge)))
const sizesFor = (size: string) => (size === '' || stock.value.includes(size) ? stock.value : [size, ...stock.value])
const columns = computed<TableColumn<(typeof cables.value)[number]>[]>(() => [
  { key: 'cable', header: t('plan.cell.cable'), sort: (c) => c.name },
  { key: 'size', header: t('plan.size'), sort: (c) => c.size },
  { key: 'settled', header: t('sizes.settled') },
])
</script>

<template>
  <details>
    <summary>
      {{ t('sizes.settledHow', { settled: cables.filter((c) => c.settled).length, count: cables.length }) }}
    </summary>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <AppTable :rows="cables" :columns="columns" :row-key="(c) => c.id" :label="t('sizes.settled')">
      <template #cable="{ row: c }">{{ c.name }}</template>
      <template #size="{ row: c }">
        <PickOne
          class="slim"
          :aria-label="`${t('plan.size')}, ${c.name}`"
          :model-value="c.size"
          :disabled="fixed || c.byCore"
          :options="[{ value: '', label: t('plan.unknown') }, ...optionsOf(sizesFor(c.size), String)]"
          @update:model-value="keep(sizeCommands(site, c.id, $event, true))"
        />
      </template>
      <template #settled="{ row: c }">
        <TickBox
          :model-value="c.settled"
          :disabled="fixed || c.size === '' || c.byCore"
          :aria-label="`${t('sizes.settled')}, ${c.name}`"
          @update:model-value="keep(sizeCommands(site, c.id, c.size, $event))"
        />
      </template>
    </AppTable>
  </details>
</template>

<style scoped>
.slim {
  min-height: 34px;
  padding: 2px 8px;
  width: auto;
}
summary {
  cursor: pointer;
  min-height: 32px;
}
@media (max-width: 759px) {
  .slim,
  summary {
    min-height: 48px;
  }
}
</style>
