<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { type Expectation, type Scene } from '../../../core/expect'
import { dayOf, pastOfTest, threadHistory } from '../../../core/history'
import { ohmsText } from '../../../core/quantity'
import { isOhms, testKey, type Meter, type OhmsTest } from '../../../core/record'
import { entries } from '../../../core/site'
import { dayText } from '../../composables/useSpeaker'
import { authorName } from '../../lib/device'
import { useProperty } from '../../stores/property'

/** Every reading ever taken of one pair of points, what they show together, and the baseline among them. */
const props = defineProps<{ test: OhmsTest; scene: Scene; meter: Meter; expectation: Expectation }>()
const { t } = useI18n()
const property = useProperty()

const history = computed(() =>
  threadHistory(
    props.scene,
    property.sceneAt,
    props.test,
    props.meter,
    pastOfTest(property.pastBefore(null), props.test),
  ),
)
const struck = computed(() => {
  const key = testKey(props.test)
  return entries(property.facts!.strikeOuts).flatMap(([id, s]) => {
    const reading = property.facts!.readings[s.reading]
    return reading && isOhms(reading) && testKey(reading.test) === key ? [{ id, reading, reason: s.reason }] : []
  })
})
const drift = computed(() => {
  const { drift: d } = history.value
  if (!d) return null
  const day = (at: number) => dayText(`${dayOf(at)}T00:00:00Z`)
  const params = {
    perYear: `${d.ohmPerYear.toFixed(1)} ± ${(2 * d.sigma_ohmPerYear).toFixed(1)}`,
    day: day(d.reaches_days),
    early: day(d.earliest_days),
  }
  return d.latest_days === null
    ? t('detail.driftOpen', params)
    : t('detail.drift', { ...params, late: day(d.latest_days) })
})
const rows = computed(() => [...history.value.points].reverse())
const accept = (reading: string) =>
  property.record({
    kind: 'acceptance',
    fact: { reading, at: new Date().toISOString(), author: authorName(), reason: t('detail.acceptReason') },
  })
const textOf = (p: (typeof rows.value)[number]) =>
  p.read_ohm === null ? property.facts!.readings[p.id]!.meter.openMark : ohmsText(p.read_ohm)
</script>

<template>
  <section class="years">
    <h3>{{ t('detail.history') }}</h3>
    <p v-if="history.points.length === 0" class="quiet">{{ t('detail.noHistory') }}</p>
    <template v-else>
      <HistoryChart
        v-if="history.points.length > 1 && expectation.kind === 'ohms'"
        :history="history"
        :expectation="expectation"
      />
      <p v-if="drift" class="drift">
        <StateMark state="doubtful" silent />
        {{ drift }}
      </p>
      <FigureList :rows="rows" :row-key="(p) => p.id">
        <template #words="{ row: p }">
          {{ dayText(p.at) }}
          <span class="quiet">{{ p.job }}</span>
          <span v-if="history.baseline?.reading === p.id" class="tagged">{{ t('detail.baseline') }}</span>
          <AppButton
            v-if="p.state !== 'fits' && p.state !== 'none' && !p.acceptedByHand && !p.open && !property.viewed"
            look="plain"
            class="small"
            @click="accept(p.id)"
          >
            {{ t('detail.accept') }}
          </AppButton>
        </template>
        <template #figure="{ row: p }">
          {{ textOf(p) }}
          <StateMark :state="p.state" />
        </template>
      </FigureList>
      <FigureList v-if="struck.length > 0" :rows="struck" :row-key="(s) => s.id">
        <template #words="{ row: s }">
          <span class="quiet">{{ dayText(s.reading.at) }} · {{ t('detail.struck', { reason: s.reason }) }}</span>
        </template>
        <template #figure="{ row: s }">
          <span class="struck">
            {{ s.reading.value.kind === 'ohm' ? ohmsText(s.reading.value.ohm) : s.reading.meter.openMark }}
          </span>
        </template>
      </FigureList>
    </template>
  </section>
</template>

<style scoped>
.years {
  display: grid;
  gap: 8px;
}
.drift {
  font-size: 14px;
  border-left: 4px solid var(--doubtful);
  padding-left: 8px;
}
.tagged {
  margin-left: 6px;
  font-size: 12px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  padding: 0 5px;
}
.small {
  min-height: 28px;
  padding: 0 6px;
  font-size: 13px;
}
.struck {
  text-decoration: line-through;
  color: var(--quiet);
}
@media (max-width: 759px) {
  .small {
    min-height: 44px;
  }
}
</style>
