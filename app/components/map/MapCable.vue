<script setup lang="ts">
import { gaugeText, inUnit, lengthText, parseLength } from '../../../core/quantity'
import { drawnDistances_m, lengthsFromDrawing, markCommands, removeCableCommands } from '../../../core/map'
import {
  bounded,
  getOrThrow,
  setField,
  type Cable,
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
    tag: getOrThrow(props.site.places, s.place).tag,
    drawn_m: drawn.value[i],
    recorded_m: bounded(s.at_m)?.value ?? null,
  })),
)
const set = <F extends FieldOf<'cables'>>(field: F, value: ValueOf<'cables', F>) =>
  emit('keep', { ok: true, value: [setField('cables', props.cable, field, value)] })
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
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
      <div class="field">
        <label for="mc-kind">{{ t('plan.kind') }}</label>
        <select
          id="mc-kind"
          class="input"
          :value="record.kind"
          :disabled="fixed"
          @change="set('kind', valueOf($event) as Cable['kind'])"
        >
          <option v-for="k in ['multicore', 'single', 'twisted_pair']" :key="k" :value="k">
            {{ t(`plan.kinds.${k}`) }}
          </option>
        </select>
      </div>
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
    <table class="table">
      <thead>
        <tr>
          <th scope="col">{{ t('plan.cell.box') }}</th>
          <th scope="col">{{ t('map.drawn_m', { length: '' }) }}</th>
          <th scope="col">{{ t('map.recorded_m', { length: '' }) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(r, i) in rows" :key="i">
          <td class="figure">{{ r.tag }}</td>
          <td class="figure">{{ show(r.drawn_m) }}</td>
          <td class="figure">{{ show(r.recorded_m) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="!fixed" class="row">
      <button type="button" class="button" @click="emit('keep', lengthsFromDrawing(site, cable))">
        {{ t('map.takeLengths') }}
      </button>
      <button type="button" class="button plain" @click="emit('keep', removeCableCommands(site, cable))">
        {{ t('map.takeAway') }}
      </button>
    </p>
    <ul v-if="record.marks.length > 0" class="marks">
      <li v-for="(m, i) in record.marks" :key="i" class="row">
        <span>
          <strong>{{ t(`map.${m.kind}`) }}</strong>
          {{ ' ' }}
          <span class="figure">{{ Math.round(inUnit(m.from_m, unit)) }}–{{ show(m.to_m) }}</span>
          {{ m.note }}
        </span>
        <button
          v-if="!fixed"
          type="button"
          class="button plain"
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
        </button>
      </li>
    </ul>
    <form v-if="!fixed" class="row add" @submit.prevent="add">
      <select v-model="next.kind" class="input" :aria-label="t('map.mark')">
        <option value="sleeve">{{ t('map.sleeve') }}</option>
        <option value="hazard">{{ t('map.hazard') }}</option>
      </select>
      <input
        v-model="next.from"
        class="input figure few"
        :placeholder="`${t('map.from')}, ${unit}`"
        :aria-label="`${t('map.from')}, ${unit}`"
      />
      <input
        v-model="next.to"
        class="input figure few"
        :placeholder="`${t('map.to')}, ${unit}`"
        :aria-label="`${t('map.to')}, ${unit}`"
      />
      <input v-model="next.note" class="input note" :placeholder="t('map.note')" :aria-label="t('map.note')" />
      <button type="submit" class="button slim">{{ t('map.addMark') }}</button>
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
