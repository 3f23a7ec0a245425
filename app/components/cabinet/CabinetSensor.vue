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
import { valueOf } from '../../lib/fields'
import { optionsOf } from '../../lib/options'

/** What bridges the sensor terminals, and the port for a hand-held remote. */
const props = defineProps<{ site: Site; controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { t } = useWiringWords(() => props.site.settings.units)
const record = computed(() => getOrThrow(props.site.controllers, props.controller))
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  emit('keep', { ok: true, value: [setField('controllers', props.controller, field, value)] })
const sensor = (field: string, value: string) => set('sensor', { ...record.value.sensor, [field]: value })
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('door.sensor') }}</h2>
    <div class="fields">
      <PickOne
        id="s-by"
        :model-value="record.sensor.closedBy"
        :disabled="fixed"
        :label="t('door.closedBy')"
        :options="optionsOf(['link', 'sensor', 'nothing', 'unknown'], (k) => t(`door.closes.${k}`))"
        @update:model-value="sensor('closedBy', $event)"
      />
      <PickOne
        v-if="record.sensor.closedBy === 'sensor'"
        id="s-dry"
        :model-value="record.sensor.dry"
        :disabled="fixed"
        :label="t('door.dry')"
        :options="optionsOf(['open', 'closed', 'unknown'], (k) => t(`door.drys.${k}`))"
        @update:model-value="sensor('dry', $event)"
      />
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
      <AppButton v-if="!fixed" @click="set('remotePort', null)">
        {{ t('door.noRemote') }}
      </AppButton>
    </div>
    <p v-else-if="!fixed">
      <AppButton @click="set('remotePort', {})">{{ t('door.addRemote') }}</AppButton>
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
