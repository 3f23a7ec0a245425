<script setup lang="ts">
import {
  getOrThrow,
  setField,
  type Command,
  type ControllerId,
  type FieldOf,
  type Site,
  type ValueOf,
} from '../../../core/site'
import type { Outcome } from '../../../core/refusal'
import { useWiringWords } from '../../composables/useWiringWords'

/** What bridges the sensor terminals, and the port for a hand-held remote. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  emit('keep', { ok: true, value: [setField('controllers', props.controller, field, value)] })
const sensor = (field: string, value: string) => set('sensor', { ...record.value.sensor, [field]: value })
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.sensor') }}</h2>
    <div class="fields">
      <div class="field">
        <label for="s-by">{{ t('door.closedBy') }}</label>
        <select
          id="s-by"
          class="input"
          :value="record.sensor.closedBy"
          :disabled="fixed"
          @change="sensor('closedBy', valueOf($event))"
        >
          <option v-for="k in ['link', 'sensor', 'nothing', 'unknown']" :key="k" :value="k">
            {{ t(`door.closes.${k}`) }}
          </option>
        </select>
      </div>
      <div v-if="record.sensor.closedBy === 'sensor'" class="field">
        <label for="s-dry">{{ t('door.dry') }}</label>
        <select
          id="s-dry"
          class="input"
          :value="record.sensor.dry"
          :disabled="fixed"
          @change="sensor('dry', valueOf($event))"
        >
          <option v-for="k in ['open', 'closed', 'unknown']" :key="k" :value="k">{{ t(`door.drys.${k}`) }}</option>
        </select>
      </div>
      <div class="field">
        <label for="s-note">{{ t('door.note') }}</label>
        <TextField
          id="s-note"
          class="input"
          :model-value="record.sensor.note"
          :readonly="fixed"
          @change="sensor('note', valueOf($event).trim())"
        />
      </div>
    </div>
    <p class="quiet">{{ t('door.sensorHow') }}</p>
    <h2>{{ t('door.remote') }}</h2>
    <div v-if="record.remotePort" class="fields">
      <div v-for="k in ['feed_1', 'feed_2', 'signal'] as const" :key="k" class="field">
        <label :for="`r-${k}`">
          <CoreSwatch :colour="record.remotePort[k] || null" :width="20" />
          {{ t(`door.${k}`) }}
        </label>
        <TextField
          :id="`r-${k}`"
          class="input"
          :model-value="record.remotePort[k]"
          :readonly="fixed"
          @change="set('remotePort', { ...record.remotePort, [k]: valueOf($event).trim() })"
        />
      </div>
      <button v-if="!fixed" type="button" class="button" @click="set('remotePort', null)">
        {{ t('door.noRemote') }}
      </button>
    </div>
    <p v-else-if="!fixed">
      <button type="button" class="button" @click="set('remotePort', {})">{{ t('door.addRemote') }}</button>
    </p>
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
  flex: 1 1 180px;
  max-width: 300px;
}
@media (max-width: 759px) {
  .fields .field {
    max-width: none;
  }
}
</style>
