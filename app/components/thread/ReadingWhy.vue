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
      <table class="table">
        <tbody>
          <tr v-for="(term, i) in e.terms.filter((x) => x.kind !== 'aside' || x.ohm >= 0.005)" :key="i">
            <td>{{ sayTerm(term, scene.site, scene.climate, speaker) }}</td>
            <td class="figure">{{ term.ohm.toFixed(2) }}</td>
          </tr>
          <tr class="sum">
            <th scope="row">{{ t('term.sum') }}</th>
            <td class="figure">{{ e.expected_ohm.toFixed(2) }}</td>
          </tr>
          <tr>
            <th scope="row">{{ t('term.band') }}</th>
            <td class="figure">{{ ohmsText(e.low_ohm) }}–{{ ohmsText(e.high_ohm) }}</td>
          </tr>
          <tr v-if="row.baseline">
            <th scope="row">{{ t('term.before') }}</th>
            <td class="figure">{{ ohmsText(row.baseline.low_ohm) }}–{{ ohmsText(row.baseline.high_ohm) }}</td>
          </tr>
        </tbody>
      </table>
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
