<script setup lang="ts">
import { readStarts, timeText } from '../../../core/schedule'
import { refusal, refused, type Outcome } from '../../../core/refusal'
import { getOrThrow, setField, setSetting, type Command, type Controller, type ControllerId } from '../../../core/site'
import { useSchedulePage } from '../../composables/useSchedule'
import { valueOf } from '../../lib/fields'
import { figureIn } from '../../lib/figures'
import { optionsOf } from '../../lib/options'
import { isTimeZone } from '../../lib/time-zone'

/** How the controller runs programs, the most it can be told, and when it may water. */
const props = defineProps<{ controller: ControllerId; fixed: boolean }>()
const emit = defineEmits<{ keep: [outcome: Outcome<Command[]>] }>()
const { site, t } = useSchedulePage()
type Scheduling = Controller['scheduling']
const now = computed((): Scheduling => getOrThrow(site.value.controllers, props.controller).scheduling)
const set = (change: Partial<Scheduling>) =>
  emit('keep', {
    ok: true,
    value: [setField('controllers', props.controller, 'scheduling', { ...now.value, ...change })],
  })

const MOST = { mostMinutes: 10_080, mostStarts: 24, mostPrograms: 40 } as const
function delay(text: string): void {
  const value = figureIn(text.trim() === '' ? '0' : text, 0, 3600)
  if (value === null || !Number.isInteger(value))
    emit('keep', refused(refusal('not_within', [t('schedule.delay')], { low: 0, high: 3600 })))
  else set({ delay_s: value })
}
/** One end of the hours; without either it may water at any hour. */
function hour(end: 'opens' | 'closes', text: string): void {
  const [second, ...others] = readStarts(text) ?? [undefined]
  if (text.trim() === '') set({ window_s: null })
  else if (typeof second !== 'number' || others.length > 0)
    emit('keep', refused(refusal('no_start_time', [t(`schedule.${end}`)], { text: text.trim() })))
  else set({ window_s: { opens: 0, closes: 86_400, ...now.value.window_s, [end]: second } })
}
const hourText = (end: 'opens' | 'closes') => (now.value.window_s === null ? '' : timeText(now.value.window_s[end]))
function zone(text: string): void {
  const name = text.trim() || 'UTC'
  if (isTimeZone(name)) emit('keep', { ok: true, value: [setSetting('timeZone', name)] })
  else emit('keep', refused(refusal('no_such_zone', [t('schedule.zone')], { name })))
}
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('schedule.rules') }}</h2>
    </summary>
    <div class="fields">
      <PickOne
        id="s-run"
        :model-value="now.startsRun"
        :disabled="fixed"
        :label="t('schedule.startsRun')"
        :options="optionsOf(['stack', 'overlap'], (k) => t(`schedule.startsRuns.${k}`))"
        @update:model-value="set({ startsRun: $event })"
      />
      <div class="field few">
        <label for="s-delay">{{ t('schedule.delay') }}</label>
        <TextField
          id="s-delay"
          class="input figure"
          inputmode="numeric"
          :model-value="String(now.delay_s)"
          :readonly="fixed"
          @change="delay(valueOf($event))"
        />
      </div>
      <OpenFigure
        v-for="field in ['mostMinutes', 'mostStarts', 'mostPrograms'] as const"
        :id="`s-${field}`"
        :key="field"
        :label="t(`schedule.${field}`)"
        :value="now[field]"
        :low="1"
        :high="MOST[field]"
        :whole="field !== 'mostMinutes'"
        :none="t('schedule.unsaid')"
        :fixed="fixed"
        @store="set({ [field]: $event })"
      />
      <div v-for="end in ['opens', 'closes'] as const" :key="end" class="field few">
        <label :for="`s-${end}`">{{ t(`schedule.${end}`) }}</label>
        <TextField
          :id="`s-${end}`"
          class="input figure"
          :model-value="hourText(end)"
          :placeholder="t('schedule.allDay')"
          :readonly="fixed"
          @change="hour(end, valueOf($event))"
        />
      </div>
      <div class="field">
        <label for="s-zone">{{ t('schedule.zone') }}</label>
        <TextField
          id="s-zone"
          :model-value="site.settings.timeZone"
          :readonly="fixed"
          aria-describedby="s-zone-how"
          @change="zone(valueOf($event))"
        />
        <p id="s-zone-how" class="how">{{ t('schedule.zoneHow') }}</p>
      </div>
    </div>
  </details>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 12px;
  align-items: start;
}
</style>
