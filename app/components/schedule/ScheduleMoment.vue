<script setup lang="ts">
import { bandsAt, gridStations, stationKey, stationTag, timeText, type Week } from '../../../core/schedule'
import { deviceName, type ControllerId } from '../../../core/site'
import { useSchedulePage, useScheduleVolts } from '../../composables/useSchedule'

/** One minute of what is shown: what runs then, and what the wiring gives it. */
const props = defineProps<{ controller: ControllerId; week: Week; days: number; dayOf: (at_s: number) => string }>()
const at_s = defineModel<number>({ required: true })
const { site, t } = useSchedulePage()
const on = computed(() => {
  const keys = bandsAt(props.week.bands, at_s.value).map((b) => b.station)
  const stations = gridStations(site.value, props.controller)
  return keys.flatMap((key) => stations.find((s) => stationKey(s.station) === key) ?? [])
})
const { found: volts } = useScheduleVolts(
  () => props.controller,
  () => on.value.map((s) => s.station),
)
const named = computed(() =>
  on.value.map((s) => `${stationTag(site.value, props.controller, s.station)} ${s.name}`.trim()).join(' + '),
)
</script>

<template>
  <div class="moment">
    <SlideBar
      id="schedule-at"
      v-model="at_s"
      :label="t('schedule.minute')"
      :shown="`${dayOf(at_s)} ${timeText(at_s % 86_400)}`"
      :min="0"
      :max="days * 86_400 - 60"
      :step="60"
    />
    <div aria-live="polite">
      <p v-if="on.length === 0" class="quiet">{{ t('schedule.idle') }}</p>
      <template v-else-if="volts">
        <p>
          <strong>{{ t('schedule.runsNow', { stations: named, load: volts.load_VA.toFixed(1) }) }}</strong>
          {{ ' ' }}
          <span v-if="volts.rating_VA !== null" class="quiet">
            {{ t('schedule.ofRating', { rating: volts.rating_VA }) }}
          </span>
        </p>
        <ul class="at">
          <li v-for="c in volts.at" :key="c.device">
            <StateMark :state="c.enough ? 'fits' : 'fault'" />
            <span class="figure">
              {{
                t('schedule.atCoil', {
                  device: deviceName(site, c.device),
                  volt: c.volt_V.toFixed(1),
                  needed: c.minimum_V.toFixed(1),
                })
              }}
            </span>
          </li>
        </ul>
      </template>
    </div>
  </div>
</template>

<style scoped>
.moment {
  display: grid;
  grid-template-columns: minmax(220px, 1fr) 2fr;
  gap: 8px 24px;
  align-items: start;
}
.at {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
}
.at li {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
@media (max-width: 759px) {
  .moment {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
