<script setup lang="ts">
import { gaugeText, inUnit, lengthText, parseLength } from '../../../core/quantity'
import { drawnDistances_m, lengthsFromDrawing, markCommands, removeCableCommands } from '../../../core/map'
import {
  bounded,
  getOrThrow,
  setField,
  type CableId,
  type Command,
  type FieldOf,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { coreCountCommands } from '../../../core/splice'
import { sizeCommands } from '../../../core/plan'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { unbroken } from '../../composables/useSpeaker'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'
import { optionsOf } from '../../lib/options'
import type { TableColumn } from '../../lib/table'

/** A cable on the map: drawn against recorded length, and its sleeves and hazards. */
const props = defineProps<{ site: Site; cable: CableId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.cables, props.cable))
const unit = computed(() => props.site.settings.units.length)
const drawn = computed(() => drawnDistances_m(props.site, record.value))
const show = (m: number | null | undefined) => (m == null ? '–' : unbroken(lengthText(m, props.site.settings.units)))
const rows = computed(() =>
  record.value.stops.map((s, i) => ({
    key: String(i),
    tag: getOrThrow(props.site.places, s.place).tag,
    drawn_m: drawn.value[i],
    recorded_m: bounded(s.at_m)?.value ?? null,
  })),
)
const set = <F extends FieldOf<'cables'>>(field: F, value: ValueOf<'cables', F>) =>
  emit('keep', { ok: true, value: [setField('cables', props.cable, field, value)] })
const next = reactive({ kind: 'sleeve' as 'sleeve' | 'hazard', from: '', to: '', note: '' })
function add(): void {
  const [from_m, to_m] = [parseLength(next.from, unit.value), parseLength(next.to, unit.value)]
  if (from_m === null || to_m === null) {
    emit(
      'keep',
      refused(
        refusal('not_a_length', [from_m === null ? t('map.from') : t('map.to')], {
          text: from_m === null ? next.from : next.to,
        }),
      ),
    )
    return
  }
  emit('keep', {
    ok: true,
    value: markCommands(props.cable, [
      ...record.value.marks,
      { kind: next.kind, from_m: Math.min(from_m, to_m), to_m: Math.max(from_m, to_m), note: next.note.trim() },
    ]),
  })
  Object.assign(next, { from: '', to: '', note: '' })
}
const columns = computed<TableColumn<(typeof rows.value)[number]>[]>(() => [
  { key: 'box', header: t('plan.cell.box'), figure: true },
  { key: 'drawn', header: t('map.drawn_m', { length: '' }), figure: true },
  { key: 'recorded', header: t('map.recorded_m', { length: '' }), figure: true },
])
</script>

<template>
  <section class="sheet stack">
    <h2>
      <span class="figure">{{ record.tag ?? cable }}</span>
      {{ ' ' }}
      <span class="quiet">{{ record.name }}</span>
    </h2>
    <div :key="cable" class="row fields">
      <div class="field few">
        <label for="mc-tag">{{ t('plan.cell.cable') }}</label>
        <TextField
          id="mc-tag"
          class="figure"
          :model-value="record.tag ?? ''"
          :readonly="fixed"
          @change="set('tag', valueOf($event).trim() || null)"
        />
      </div>
      <PickOne
        id="mc-kind"
        :model-value="record.kind"
        :disabled="fixed"
        :label="t('plan.kind')"
        :options="optionsOf(['multicore', 'single', 'twisted_pair'], (k) => t(`plan.kinds.${k}`))"
        @update:model-value="set('kind', $event)"
      />
      <div class="field few">
        <label for="mc-cores">{{ t('map.coreCount') }}</label>
        <TextField
          id="mc-cores"
          class="figure"
          inputmode="numeric"
          :model-value="String(Object.keys(record.cores).length)"
          :readonly="fixed"
          @change="emit('keep', coreCountCommands(site, cable, Number(valueOf($event))))"
        />
      </div>
      <div class="field few">
        <label for="mc-size">{{ t('plan.size') }}</label>
        <TextField
          id="mc-size"
          class="figure"
          :model-value="record.gauge ? gaugeText(record.gauge.value) : ''"
          :placeholder="t('plan.unknown')"
          :readonly="fixed"
          @change="emit('keep', sizeCommands(site, cable, valueOf($event), true))"
        />
      </div>
    </div>
    <AppTable :rows="rows" :columns="columns" :row-key="(r) => r.key" :label="t('map.drawn_m', { length: '' })">
      <template #box="{ row: r }">{{ r.tag }}</template>
      <template #drawn="{ row: r }">{{ show(r.drawn_m) }}</template>
      <template #recorded="{ row: r }">{{ show(r.recorded_m) }}</template>
    </AppTable>
    <p v-if="!fixed" class="row">
      <AppButton @click="emit('keep', lengthsFromDrawing(site, cable))">
        {{ t('map.takeLengths') }}
      </AppButton>
      <AppButton look="plain" @click="emit('keep', removeCableCommands(site, cable))">
        {{ t('map.takeAway') }}
      </AppButton>
    </p>
    <ul v-if="record.marks.length > 0" class="marks">
      <li v-for="(m, i) in record.marks" :key="i" class="row">
        <span>
          <strong>{{ t(`map.${m.kind}`) }}</strong>
          {{ ' ' }}
          <span class="figure">{{ Math.round(inUnit(m.from_m, unit)) }}–{{ show(m.to_m) }}</span>
          {{ m.note }}
        </span>
        <AppButton
          v-if="!fixed"
          look="plain"
          :aria-label="`${t('map.takeAway')}: ${m.note}`"
          @click="
            emit('keep', {
              ok: true,
              value: markCommands(
                cable,
                record.marks.filter((_, j) => j !== i),
              ),
            })
          "
        >
          ×
        </AppButton>
      </li>
    </ul>
    <form v-if="!fixed" class="row add" @submit.prevent="add">
      <PickOne
        v-model="next.kind"
        :aria-label="t('map.mark')"
        :options="[
          { value: 'sleeve', label: t('map.sleeve') },
          { value: 'hazard', label: t('map.hazard') },
        ]"
      />
      <TextField
        v-model="next.from"
        class="figure few"
        :placeholder="`${t('map.from')}, ${unit}`"
        :aria-label="`${t('map.from')}, ${unit}`"
      />
      <TextField
        v-model="next.to"
        class="figure few"
        :placeholder="`${t('map.to')}, ${unit}`"
        :aria-label="`${t('map.to')}, ${unit}`"
      />
      <TextField v-model="next.note" class="note" :placeholder="t('map.note')" :aria-label="t('map.note')" />
      <AppButton type="submit" class="slim">{{ t('map.addMark') }}</AppButton>
    </form>
  </section>
</template>

<style scoped>
.stack {
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1.6fr;
  gap: 8px;
}
.marks {
  display: grid;
  gap: 2px;
}
.marks li {
  justify-content: space-between;
}
.add {
  gap: 6px;
}
.add .input {
  width: auto;
}
.add .few {
  width: 84px;
}
.add .note {
  flex: 1 1 100px;
}
.slim {
  min-height: 38px;
  padding: 4px 12px;
}
.marks .button {
  min-height: 32px;
  padding-block: 0;
}
</style>
