<script setup lang="ts">
import { gaugeText, lengthText, type Units } from '../../../core/quantity'
import type { StretchLoss, ThreadMargin } from '../../../core/sizing'
import { getOrThrow, type Site } from '../../../core/site'
import { useI18n } from 'vue-i18n'
import { unbroken } from '../../composables/useSpeaker'

/** Where a thread's volts go, line by line, from the open transformer to its coil; the lines add up. */
const props = defineProps<{ thread: ThreadMargin; site: Site; name: string; units: Units }>()
const { t } = useI18n()
const tag = (place: string) => getOrThrow(props.site.places, place).tag
const word = (s: StretchLoss) =>
  t(s.side === 'lead' ? 'sizes.leadFrom' : 'sizes.commonFrom', {
    from: tag(s.from),
    to: tag(s.to),
    size: s.gauge ? gaugeText(s.gauge) : t('plan.unknown'),
    length: unbroken(lengthText(s.length_m, props.units)),
    amps: s.current_A.toFixed(2),
  })
const lines = computed(() => [
  { text: t('sizes.open', { volt: props.thread.open_V.toFixed(1) }), volt: props.thread.open_V, sum: false },
  { text: t('sizes.source'), volt: props.thread.terminal_V - props.thread.open_V, sum: false },
  ...props.thread.stretches.map((s) => ({ text: word(s), volt: -s.drop_V, sum: false })),
  { text: t('sizes.joints'), volt: -props.thread.joints_V, sum: false },
  { text: t('sizes.atCoil'), volt: props.thread.volt_V, sum: true },
  { text: t('sizes.needed'), volt: props.thread.needed_V, sum: false },
  { text: props.thread.margin_V < 0 ? t('sizes.lacks') : t('sizes.spare'), volt: props.thread.margin_V, sum: true },
])
const others = computed(() =>
  [
    props.thread.part !== 'starting'
      ? t('sizes.whileStarts', { name: props.site.stations[props.thread.starter]?.name ?? '' })
      : '',
    ...props.thread.running.map((s) => t('sizes.whileRuns', { name: props.site.stations[s]?.name ?? '' })),
  ].filter((s) => s !== ''),
)
</script>

<template>
  <div class="stack losses">
    <h2>{{ t('sizes.losses', { name }) }}</h2>
    <p v-if="others.length > 0" class="quiet">{{ others.join(' ') }}</p>
    <FigureList :rows="lines" :row-key="(_, i) => i" :sum="(l) => l.sum">
      <template #words="{ row: line }">{{ line.text }}</template>
      <template #figure="{ row: line }">{{ line.volt.toFixed(2).replace('-', '−') }} V</template>
    </FigureList>
    <p class="small" :class="thread.rating_VA !== null && thread.load_VA > thread.rating_VA ? 'fault' : 'quiet'">
      {{
        thread.rating_VA === null
          ? t('sizes.load', { load: thread.load_VA.toFixed(1) })
          : t(thread.load_VA > thread.rating_VA ? 'sizes.overload' : 'sizes.loadOf', {
              load: thread.load_VA.toFixed(1),
              rating: thread.rating_VA,
            })
      }}
    </p>
    <p class="quiet small">
      {{ t('sizes.bothPhases', { optimistic: thread.optimistic_V.toFixed(2), model: thread.model_V.toFixed(2) }) }}
      <template v-if="thread.unknown">{{ t('sizes.unknownOnWay') }}</template>
    </p>
    <p class="quiet small">{{ t('sizes.source2') }}</p>
  </div>
</template>

<style scoped>
.losses {
  gap: 8px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
