<script setup lang="ts">
import { inUnit, parseLength } from '../../../core/quantity'
import {
  bounded,
  getOrThrow,
  setField,
  type Command,
  type DeviceId,
  type FieldOf,
  type PlaceId,
  type Site,
  type ValueOf,
} from '../../../core/site'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { leadColourCommands } from '../../../core/splice'
import { useWiringWords } from '../../composables/useWiringWords'
import { valueOf } from '../../lib/fields'
import { optionsOf } from '../../lib/options'

/** What is known of a box itself and of the leads of what stands in it. */
const props = defineProps<{ site: Site; place: PlaceId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.places, props.place))
const unit = computed(() => props.site.settings.units.length)
const depth = computed(() => {
  const d = bounded(record.value.depth_m)
  return d ? String(Math.round(inUnit(d.value, unit.value) * 100) / 100) : ''
})
const set = <F extends FieldOf<'places'>>(field: F, value: ValueOf<'places', F>) =>
  emit('keep', { ok: true, value: [setField('places', props.place, field, value)] })
function setDepth(event: Event): void {
  const text = valueOf(event).trim()
  const depth_m = text === '' ? null : parseLength(text, unit.value)
  if (text !== '' && depth_m === null) emit('keep', refused(refusal('not_a_length', [t('boxes.depth')], { text })))
  else set('depth_m', depth_m === null ? null : { value: depth_m, how: 'seen' })
}
const coils = computed(
  () =>
    Object.entries(props.site.devices).filter(([, d]) => d!.place === props.place && d!.kind === 'coil') as [
      DeviceId,
      Site['devices'][DeviceId],
    ][],
)
</script>

<template>
  <section :key="place" class="sheet stack">
    <h2>{{ t('boxes.details') }}</h2>
    <div class="fields">
      <div class="field">
        <label for="box-name">{{ t('boxes.name') }}</label>
        <TextField
          id="box-name"
          class="input"
          :model-value="record.name"
          :readonly="fixed"
          @change="set('name', valueOf($event).trim())"
        />
      </div>
      <PickOne
        id="box-found"
        :model-value="record.found"
        :disabled="fixed"
        :label="t('map.at')"
        :options="optionsOf(['found', 'expected', 'lost'], (f) => t(`boxes.found.${f}`))"
        @update:model-value="set('found', $event)"
      />
      <div class="field">
        <label for="box-depth">{{ t('boxes.depth') }}, {{ unit }}</label>
        <TextField
          id="box-depth"
          class="input figure"
          inputmode="decimal"
          :model-value="depth"
          :readonly="fixed"
          @change="setDepth"
        />
      </div>
      <div class="field">
        <label for="box-lid">{{ t('boxes.lid') }}</label>
        <TextField
          id="box-lid"
          class="input"
          :model-value="record.lid"
          :readonly="fixed"
          @change="set('lid', valueOf($event).trim())"
        />
      </div>
      <div class="field">
        <label for="box-marker">{{ t('boxes.marker') }}</label>
        <TextField
          id="box-marker"
          class="input"
          :model-value="record.marker"
          :readonly="fixed"
          @change="set('marker', valueOf($event).trim())"
        />
      </div>
    </div>
    <div v-for="[id, d] in coils" :key="id" class="fields">
      <strong class="valve">{{ d!.tag ?? d!.name }}</strong>
      <div v-for="port in ['a', 'b']" :key="port" class="field">
        <label :for="`${id}-${port}`">{{ t('boxes.lead', { port }) }}</label>
        <TextField
          :id="`${id}-${port}`"
          class="input"
          :model-value="d!.leads[port] ?? ''"
          :readonly="fixed"
          @change="emit('keep', { ok: true, value: leadColourCommands(site, id, port, valueOf($event)) })"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
.fields .field {
  flex: 1 1 150px;
  max-width: 260px;
}
.valve {
  min-width: 60px;
  padding-bottom: 10px;
}
@media (max-width: 759px) {
  .fields .field {
    max-width: none;
  }
}
</style>
