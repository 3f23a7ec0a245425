<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { newRunCommands, readWay, runCommands, runsOf, sizeCommands, wayCommands, wayText } from '../../../core/plan'
import { gaugeText, inUnit, type LengthUnit } from '../../../core/quantity'
import type { Outcome } from '../../../core/refusal'
import { isPinned } from '../../../core/sizing'
import { entries, getOrThrow, type CableId, type Command, type ControllerId, type Site } from '../../../core/site'
import { usePlan } from '../../composables/usePlan'
import { useSpeaker } from '../../composables/useSpeaker'
import { valueOf } from '../../lib/fields'
import type { TableColumn } from '../../lib/table'

/** Runs of cable, each in words that can be changed: its name, its boxes in order with their distance, its size. */
const props = defineProps<{ site: Site; unit: LengthUnit; fixed: boolean }>()
const { t } = useI18n()
const { speaker } = useSpeaker(() => props.site.settings.units)
const { keep, sentences } = usePlan(() => speaker.value)
const show = (at_m: number) => String(Math.round(inUnit(at_m, props.unit) * 10) / 10)
const runs = computed(() =>
  entries(props.site.controllers)
    .flatMap(([controller]) => runsOf(props.site, controller))
    .map(({ cable }) => ({
      id: cable,
      record: getOrThrow(props.site.cables, cable),
      way: wayText(props.site, cable, show),
    })),
)
const byWay = (id: CableId, text: string): Outcome<Command[]> => {
  const way = readWay(text, props.unit)
  return way.ok ? { ok: true, value: wayCommands(props.site, id, way.value) } : way
}
const controllers = computed(() => entries(props.site.controllers))
const next = reactive({
  controller: '' as ControllerId | '',
  tag: '',
  kind: 'multicore' as 'multicore' | 'single',
  size: '',
  way: '',
})
async function lay(): Promise<void> {
  const way = readWay(next.way, props.unit)
  const controller = next.controller || controllers.value[0]?.[0]
  if (!controller) return
  if (await keep(way.ok ? newRunCommands(props.site, controller, next.tag, next.kind, next.size, way.value) : way))
    Object.assign(next, { tag: '', size: '', way: '' })
}
const columns = computed<TableColumn<(typeof runs.value)[number]>[]>(() => [
  { key: 'cable', header: t('plan.cell.cable'), sort: (r) => r.record.tag ?? '' },
  { key: 'kind', header: t('plan.kind'), sort: (r) => r.record.kind },
  { key: 'size', header: t('plan.size'), sort: (r) => (r.record.gauge ? gaugeText(r.record.gauge.value) : '') },
  { key: 'warmer', header: t('plan.warmer') },
  { key: 'way', header: `${t('plan.way')}, ${props.unit}` },
])
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('plan.runs') }}</h2>
    <p class="quiet small">{{ t('plan.runsHow') }}</p>
    <ul v-if="sentences.length > 0" class="fault" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <AppTable :rows="runs" :columns="columns" :row-key="(r) => r.id" :label="t('plan.runs')">
      <template #cable="{ row: r }">
        <TextField
          class="slim figure tag"
          :model-value="r.record.tag ?? ''"
          :readonly="fixed"
          :aria-label="`${t('plan.cell.cable')}, ${r.record.tag ?? r.id}`"
          @change="keep(runCommands(site, r.id, 'tag', valueOf($event)))"
        />
      </template>
      <template #kind="{ row: r }">
        {{ t(`plan.kinds.${r.record.kind}`) }}{{ r.record.kind === 'multicore' ? ',' : '' }}
        <span v-if="r.record.kind === 'multicore'" class="quiet">
          {{ t('material.coreCount', Object.keys(r.record.cores).length) }}
        </span>
      </template>
      <template #size="{ row: r }">
        <TextField
          class="slim figure"
          :model-value="r.record.gauge ? gaugeText(r.record.gauge.value) : ''"
          :placeholder="t('plan.unknown')"
          :readonly="fixed"
          :aria-label="`${t('plan.size')}, ${r.record.tag ?? r.id}`"
          @change="keep(sizeCommands(site, r.id, valueOf($event), r.record.gauge === null || isPinned(r.record.gauge)))"
        />
      </template>
      <template #warmer="{ row: r }">
        <TextField
          class="slim figure narrow"
          :model-value="String(r.record.warmer_K)"
          inputmode="decimal"
          :readonly="fixed"
          :aria-label="`${t('plan.warmer')}, ${r.record.tag ?? r.id}`"
          @change="keep(runCommands(site, r.id, 'warmer_K', valueOf($event)))"
        />
      </template>
      <template #way="{ row: r }">
        <TextField
          class="slim figure way"
          :model-value="r.way"
          :readonly="fixed"
          :aria-label="`${t('plan.way')}, ${r.record.tag ?? r.id}`"
          @change="keep(byWay(r.id, valueOf($event)))"
        />
      </template>
    </AppTable>
    <form v-if="!fixed && controllers.length > 0" class="row lay" @submit.prevent="lay">
      <strong>{{ t('plan.newRun') }}</strong>
      <PickOne
        v-if="controllers.length > 1"
        v-model="next.controller"
        class="slim"
        :aria-label="t('test.controller')"
        :options="[
          { value: '', label: controllers[0]![1].name },
          ...controllers.slice(1).map(([id, c]) => ({ value: id, label: c.name })),
        ]"
      />
      <TextField
        v-model="next.tag"
        class="slim figure narrow"
        :placeholder="t('plan.cell.cable')"
        :aria-label="`${t('plan.newRun')}: ${t('plan.cell.cable')}`"
      />
      <PickOne
        v-model="next.kind"
        class="slim"
        :aria-label="`${t('plan.newRun')}: ${t('plan.kind')}`"
        :options="[
          { value: 'multicore', label: t('plan.kinds.multicore') },
          { value: 'single', label: t('plan.kinds.single') },
        ]"
      />
      <TextField
        v-model="next.size"
        class="slim figure narrow"
        :placeholder="t('plan.size')"
        :aria-label="`${t('plan.newRun')}: ${t('plan.size')}`"
      />
      <TextField
        v-model="next.way"
        class="slim figure grow"
        placeholder="B1 30, B2 55"
        :aria-label="`${t('plan.newRun')}: ${t('plan.way')}`"
      />
      <AppButton type="submit" :disabled="next.tag.trim() === '' || next.way.trim() === ''">
        {{ t('plan.lay') }}
      </AppButton>
    </form>
  </section>
</template>

<style scoped>
.slim.tag {
  width: 84px;
}
.slim {
  min-height: 34px;
  padding: 2px 8px;
  min-width: 84px;
}
.narrow {
  width: 76px;
  min-width: 60px;
}
.grow {
  flex: 1 1 240px;
  width: auto;
}
.way {
  width: 50%;
  min-width: 260px;
  text-align: left !important;
}
.lay {
  gap: 8px;
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
