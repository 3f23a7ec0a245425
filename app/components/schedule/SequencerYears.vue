<script setup lang="ts">
import type { CalendarDate } from '../../../core/schedule'
import type { ControllerId } from '../../../core/site'
import { useSchedulePage, useSequencerYears } from '../../composables/useSchedule'
import { optionsOf } from '../../lib/options'

/** What a year makes of the programs at each sequencer: outages and runs by hand drawn in, valve by valve. */
const props = defineProps<{ controller: ControllerId; from: CalendarDate }>()
const { t } = useSchedulePage()
const COUNTS = [0, 2, 5, 10, 20, 50]
const EVERY_days = { never: null, month: 30, quarter: 90 } as const
const outages = ref(5)
const byHand = ref(5)
const sync = ref<keyof typeof EVERY_days>('never')
const seed = ref(1)
const { found: years } = useSequencerYears(
  () => props.controller,
  () => props.from,
  () => ({
    outages: outages.value,
    byHand: byHand.value,
    seed: seed.value,
    syncEvery_days: EVERY_days[sync.value],
  }),
)
const counts = COUNTS.map((value) => ({ value, label: String(value) }))
</script>

<template>
  <details v-if="years && years.length > 0" class="sheet folds">
    <summary>
      <h2>{{ t('schedule.year') }}</h2>
    </summary>
    <div class="stack">
      <p class="quiet">{{ t('schedule.yearHow') }}</p>
      <div class="fields">
        <PickOne id="y-out" v-model="outages" :label="t('schedule.yearOutages')" :options="counts" />
        <PickOne id="y-hand" v-model="byHand" :label="t('schedule.yearByHand')" :options="counts" />
        <PickOne
          id="y-sync"
          v-model="sync"
          :label="t('schedule.yearSync')"
          :options="optionsOf(['never', 'month', 'quarter'], (k) => t(`schedule.yearSyncs.${k}`))"
        />
        <AppButton @click="seed++">{{ t('schedule.yearAgain') }}</AppButton>
      </div>
      <SequencerYearChart
        v-for="y in years"
        :key="y.sequenced.device"
        :sequenced="y.sequenced"
        :year="y.year"
        :from="from"
      />
    </div>
  </details>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
}
</style>
