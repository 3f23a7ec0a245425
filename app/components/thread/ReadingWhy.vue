<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { stateOf, type Judged, type Scene } from '../../../core/expect'
import { ohmsText, ohmsWithUnit } from '../../../core/quantity'
import type { Meter } from '../../../core/record'
import { say, type Speaker } from '../../../words'
import { sayRule, sayTerm, sayVerdict } from '../../../words/reading'
import type { SweepRow } from '../../composables/useSweep'

/** What makes up the expected reading, and what a measured one says: every figure with its parts. */
const props = defineProps<{ row: SweepRow; judged: Judged | null; scene: Scene; meter: Meter; speaker: Speaker }>()
const { t } = useI18n()
const e = computed(() => props.row.expected.expectation)
const state = computed(() => (props.judged ? stateOf(props.judged.verdict.code) : 'none'))
const SOURCES = ['coil', 'meter', 'wire', 'joints', 'unknown'] as const
const spread = (below: number, above: number) =>
  Math.abs(below - above) < 0.005 ? `±\u00a0${below.toFixed(2)}` : `−${below.toFixed(2)} +${above.toFixed(2)}`
const deviations = computed(() =>
  e.value.kind === 'ohms'
    ? SOURCES.flatMap((source) => {
        const span = (e.value as Extract<typeof e.value, { kind: 'ohms' }>).deviations[source]
        return span.below + span.above < 0.005
          ? []
          : [say({ code: `because_of.${source}`, params: { spread: spread(span.below, span.above) } }, props.speaker)]
      })
    : [],
)
/** The terms of the expected reading, what they come to, and the band it is judged by. */
const lines = computed(() => {
  const expected = e.value
  if (expected.kind !== 'ohms') return []
  const band = ({ low_ohm, high_ohm }: { low_ohm: number; high_ohm: number }) =>
    `${ohmsText(low_ohm)}–${ohmsText(high_ohm)}`
  const { baseline } = props.row
  return [
    ...expected.terms
      .filter((term) => term.kind !== 'aside' || term.ohm >= 0.005)
      .map((term) => ({
        words: sayTerm(term, props.scene.site, props.scene.climate, props.speaker),
        figure: term.ohm.toFixed(2),
        sum: false,
      })),
    { words: t('term.sum'), figure: expected.expected_ohm.toFixed(2), sum: true },
    { words: t('term.band'), figure: band(expected), sum: false },
    ...(baseline ? [{ words: t('term.before'), figure: band(baseline), sum: false }] : []),
  ]
})
const switches = computed(() =>
  e.value.kind === 'not_readable' ? e.value.by.map((d) => props.scene.site.devices[d]!.tag ?? d).join(', ') : '',
)
</script>

<template>
  <div class="why">
    <p v-if="judged" class="verdict">
      <StateMark :state="state" silent />
      {{ ' ' }}
      <strong :class="state">{{ t(`verdict.${judged.verdict.code}`) }}</strong>
      {{ sayVerdict(judged.verdict, meter, speaker) }}
    </p>
    <p
      v-if="judged && judged.verdict.code !== 'not_readable'"
      class="rule"
      :class="{ missed: judged.rule.passesFault }"
    >
      {{ sayRule(judged.rule, scene.site.settings, speaker) }}
    </p>
    <template v-if="e.kind === 'ohms'">
      <h3>{{ t('detail.why') }}</h3>
      <FigureList :rows="lines" :row-key="(_, i) => i" :sum="(l) => l.sum">
        <template #words="{ row: line }">{{ line.words }}</template>
        <template #figure="{ row: line }">{{ line.figure }}</template>
      </FigureList>
      <details>
        <summary>{{ t('detail.tolerance') }}: {{ deviations.join(' · ') }}&nbsp;Ω</summary>
        <p class="quiet">{{ t('detail.toleranceHow') }} {{ t('detail.source') }}</p>
      </details>
    </template>
    <p v-else-if="e.kind === 'bounds'">
      {{ t('detail.bounds', { low: ohmsWithUnit(e.low_ohm), high: ohmsWithUnit(e.high_ohm) }) }}
    </p>
    <p v-else-if="e.kind === 'insulation'">{{ t('detail.insulation') }}</p>
    <p v-else-if="e.kind === 'open'">{{ t('detail.open') }}</p>
    <p v-else>{{ t('detail.notReadable', { by: switches }) }}</p>
  </div>
</template>

<style scoped>
.why {
  display: grid;
  gap: 8px;
}
.verdict {
  font-size: 15px;
}
.rule {
  font-size: 14px;
  color: var(--quiet);
}
.rule.missed {
  color: var(--ink);
  font-weight: 600;
  border-left: 4px solid var(--doubtful);
  padding-left: 8px;
}
details {
  font-size: 13px;
  color: var(--quiet);
}
summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
