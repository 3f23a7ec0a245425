<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { refusal } from '../../../core/refusal'
import { rated_A } from '../../../core/circuit'
import { entries, looseCommand, type CoilKind, type Site } from '../../../core/site'
import { usePlan } from '../../composables/usePlan'
import { useSpeaker } from '../../composables/useSpeaker'
import { figureIn } from '../../lib/figures'
import { valueOf } from '../../lib/fields'
import type { TableColumn } from '../../lib/table'

/** The figures of each coil's sheet; what a sheet does not say is left open and taken as typical. */
const props = defineProps<{ site: Site; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.site.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const kinds = computed(() =>
  entries(props.site.coilKinds).map(([id, kind]) => ({
    id,
    kind,
    count: Object.values(props.site.devices).filter((d) => d.coilKind === id).length,
  })),
)
const FIGURES = [
  ['resistance_ohm', 0.1, 10_000],
  ['rated_V', 1, 60],
  ['rated_Hz', 50, 60],
  ['inrush_A', 0.001, 20],
  ['holding_A', 0.001, 20],
  ['inrush_pf', 0.01, 1],
  ['holding_pf', 0.01, 1],
  ['minimum_V', 1, 60],
  ['holdMinimum_V', 1, 60],
] as const
const MAY_BE_OPEN = new Set<string>(['inrush_A', 'holding_A', 'inrush_pf', 'holding_pf'])
type Figure = (typeof FIGURES)[number][0]
const typical = (kind: CoilKind, figure: Figure) =>
  figure === 'inrush_A'
    ? rated_A(kind, 'inrush').toFixed(2)
    : figure === 'holding_A'
      ? rated_A(kind, 'holding').toFixed(2)
      : t('plan.unknown')
function store(id: string, field: Figure | 'name', text: string, low = 0, high = 0) {
  const value =
    field === 'name' ? text.trim() : text.trim() === '' && MAY_BE_OPEN.has(field) ? null : figureIn(text, low, high)
  if (field !== 'name' && value === null && !(text.trim() === '' && MAY_BE_OPEN.has(field)))
    return keep({ ok: false, refusals: [refusal('not_within', [t(`coils.${field}`)], { low, high })] })
  return keep({ ok: true, value: [looseCommand({ do: 'set', in: 'coilKinds', id, field, value })] })
}
const columns = computed<TableColumn<(typeof kinds.value)[number]>[]>(() => [
  { key: 'name', header: t('plan.cell.name'), sort: (k) => k.kind.name },
  ...FIGURES.map(([figure]) => ({ key: figure, header: t(`coils.${figure}`) })),
  { key: 'count', header: t('coils.count'), figure: true },
])
</script>

<template>
  <section v-if="kinds.length > 0" class="sheet stack">
    <h2>{{ t('coils.title') }}</h2>
    <p class="quiet small">{{ t('coils.how') }}</p>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <AppTable :rows="kinds" :columns="columns" :row-key="(k) => k.id" :label="t('coils.title')">
      <template #name="{ row: { id, kind } }">
        <TextField
          class="slim name"
          :model-value="kind.name"
          :readonly="fixed"
          :aria-label="`${t('plan.cell.name')}, ${kind.name}`"
          @change="store(id, 'name', valueOf($event))"
        />
      </template>
      <template v-for="[figure, low, high] in FIGURES" :key="figure" #[figure]="{ row: { id, kind } }">
        <TextField
          class="slim figure"
          inputmode="decimal"
          :model-value="String(kind[figure] ?? '')"
          :placeholder="typical(kind, figure)"
          :readonly="fixed"
          :aria-label="`${t(`coils.${figure}`)}, ${kind.name}`"
          @change="store(id, figure, valueOf($event), low, high)"
        />
      </template>
      <template #count="{ row: { count } }">{{ count }}</template>
    </AppTable>
  </section>
</template>

<style scoped>
.slim {
  min-height: 34px;
  padding: 2px 6px;
  min-width: 64px;
}
.slim.name {
  min-width: 150px;
}
.slim::placeholder {
  color: var(--quiet);
  opacity: 1;
  font-style: italic;
  font-size: 13px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .slim {
    min-height: 48px;
  }
  .small {
    font-size: 15px;
  }
}
</style>
