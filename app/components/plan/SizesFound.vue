<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { gaugeText, lengthText } from '../../../core/quantity'
import type { ChosenSizes } from '../../../core/sizing'
import { getOrThrow, lookUp, type Site } from '../../../core/site'
import { moneyText } from '../../../words/sizing'
import { useCableName } from '../../composables/useCableName'
import { unbroken } from '../../composables/useSpeaker'
import type { TableColumn } from '../../lib/table'

/** Sizes that were chosen, what each costs, and writing them into the plan. */
const props = defineProps<{ site: Site; found: ChosenSizes; changed: boolean; fixed: boolean }>()
const emit = defineEmits<{ write: [] }>()
const { t } = useI18n()
const units = computed(() => props.site.settings.units)
const nameOf = useCableName(() => props.site)
const chosen = computed(() =>
  props.found.groups.map((g, i) => {
    const cable = lookUp(props.site.cables, g.cable)
    const stocked = props.found.stock[props.found.chosen[i]!]!
    return {
      key: `${g.cable} ${g.from}`,
      name: cable ? nameOf(g.cable) : t('whatIf.title'),
      from: cable ? getOrThrow(props.site.places, cable.stops[g.from]!.place).tag : '',
      to: cable ? getOrThrow(props.site.places, cable.stops[g.to]!.place).tag : '',
      length_m: g.length_m,
      size: gaugeText(stocked.gauge),
      cents: Math.round(g.length_m * stocked.cents_per_m),
      was: g.now ? gaugeText(g.now) : null,
    }
  }),
)
const saving = computed(() =>
  props.found.uniform ? Math.round((1 - props.found.cost_cents / props.found.uniform.cost_cents) * 100) : null,
)
const columns = computed<TableColumn<(typeof chosen.value)[number]>[]>(() => [
  { key: 'cable', header: t('plan.cell.cable'), sort: (c) => c.name },
  { key: 'way', header: t('plan.way'), figure: true },
  { key: 'metres', header: t('sizes.metres'), figure: true, sort: (c) => c.length_m },
  { key: 'size', header: t('plan.size'), figure: true, sort: (c) => c.size },
  { key: 'cost', header: t('sizes.cost'), figure: true, sort: (c) => c.cents },
])
</script>

<template>
  <div class="stack">
    <p v-if="found.uniform && saving !== null" class="quiet">
      {{
        t('sizes.saving', {
          part: saving,
          size: gaugeText(found.uniform.stocked.gauge),
          cost: moneyText(found.uniform.cost_cents),
        })
      }}
    </p>
    <AppTable
      :rows="chosen"
      :columns="columns"
      :row-key="(c) => c.key"
      :sums="{ cable: t('term.sum'), cost: moneyText(found.cost_cents) }"
      :label="t('sizes.newWire')"
    >
      <template #cable="{ row: c }">{{ c.name }}</template>
      <template #way="{ row: c }">{{ c.from }}–{{ c.to }}</template>
      <template #metres="{ row: c }">{{ unbroken(lengthText(c.length_m, units)) }}</template>
      <template #size="{ row: c }">
        <strong>{{ c.size }}</strong>
        {{ ' ' }}
        <span v-if="c.was && c.was !== c.size" class="quiet">{{ t('sizes.insteadOf', { was: c.was }) }}</span>
      </template>
      <template #cost="{ row: c }">{{ moneyText(c.cents) }}</template>
    </AppTable>
    <p v-if="changed" class="quiet">{{ t('sizes.onlyIf') }}</p>
    <p v-else class="row">
      <AppButton :disabled="fixed" @click="emit('write')">{{ t('sizes.writeIn') }}</AppButton>
    </p>
  </div>
</template>
