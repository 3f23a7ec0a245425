<script setup lang="ts">
import { gridStations, type CalendarDate } from '../../../core/schedule'
import { getOrThrow, terminalsInOrder, type ControllerId } from '../../../core/site'
import { useSchedulePage } from '../../composables/useSchedule'
import { useSimulatedController } from '../../composables/useSimulatedController'

/** The programs run by a simulated controller over a simulated property: what is on, what waters, hour after hour. */
const props = defineProps<{ controller: ControllerId; from: CalendarDate }>()
const { site, t } = useSchedulePage()
const { connected, trouble, now, moments, speed, goes, hasPower, begin, end, byHand, power } = useSimulatedController()
watch(() => props.controller, end)
const record = computed(() => getOrThrow(site.value.controllers, props.controller))
const screws = computed(() =>
  terminalsInOrder(site.value, props.controller)
    .filter((id) => record.value.terminals[id]!.role === 'station')
    .map((id) => {
      const station = gridStations(site.value, props.controller).find((s) => s.station.terminal === id)
      const { tag } = record.value.terminals[id]!
      return { value: tag, label: `${tag} ${station?.name ?? ''}`.trim() }
    }),
)
const named = (tags: readonly string[]) =>
  tags.map((tag) => screws.value.find((s) => s.value === tag)?.label ?? tag).join(' + ')
const hand = ref('')
const SPEEDS = [60, 600, 3600, 21_600]
const readable = (at: string) => at.replace('T', ' ')
const latest = computed(() => moments.value[0] ?? null)
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('schedule.try') }}</h2>
    </summary>
    <div class="stack">
      <p class="quiet">{{ t('schedule.tryHow') }}</p>
      <p v-if="trouble" class="bad" role="alert">{{ t('schedule.tryLost') }}</p>
      <p v-if="!connected" class="row">
        <AppButton look="primary" @click="begin(record.tag, from)">{{ t('schedule.tryBegin') }}</AppButton>
      </p>
      <template v-else>
        <div class="row">
          <strong class="figure now">{{ readable(now) }}</strong>
          <PickOne
            id="try-speed"
            v-model="speed"
            :aria-label="t('schedule.trySpeed')"
            :options="SPEEDS.map((value) => ({ value, label: t('schedule.tryTimes', { count: value }) }))"
          />
          <AppButton @click="goes = !goes">{{ t(goes ? 'schedule.tryHold' : 'schedule.tryGo') }}</AppButton>
          <AppButton @click="end">{{ t('schedule.tryEnd') }}</AppButton>
        </div>
        <dl class="now-on">
          <dt class="quiet">{{ t('schedule.tryOn') }}</dt>
          <dd>{{ latest && latest.on.length > 0 ? named(latest.on) : t('schedule.tryNothing') }}</dd>
          <dt class="quiet">{{ t('schedule.tryWaters') }}</dt>
          <dd>{{ latest && latest.waters.length > 0 ? latest.waters.join(' + ') : t('schedule.tryNothing') }}</dd>
        </dl>
        <div class="row">
          <AppButton @click="power(!hasPower)">
            {{ t(hasPower ? 'schedule.tryOut' : 'schedule.tryBack') }}
          </AppButton>
          <PickOne
            id="try-hand"
            v-model="hand"
            :aria-label="t('schedule.tryHand')"
            :options="[{ value: '', label: t('schedule.tryHand') }, ...screws]"
          />
          <AppButton :disabled="hand === ''" @click="byHand(hand)">{{ t('schedule.tryRun') }}</AppButton>
        </div>
        <ol v-if="moments.length > 0" class="went" :aria-label="t('schedule.tryWent')">
          <li v-for="m in moments" :key="`${m.at} ${m.on.join()}`">
            <span class="figure quiet">{{ readable(m.at) }}</span>
            {{ ' ' }}
            {{ m.on.length === 0 ? t('schedule.tryAllOff') : named(m.on) }}
            <template v-if="m.on.length > 0">
              →
              <strong>{{ m.waters.join(' + ') || t('schedule.tryDry') }}</strong>
            </template>
          </li>
        </ol>
      </template>
    </div>
  </details>
</template>

<style scoped>
.now {
  font-size: 22px;
  min-width: 12em;
}
.now-on {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 12px;
}
.went {
  max-height: 260px;
  overflow-y: auto;
  list-style: none;
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}
</style>
