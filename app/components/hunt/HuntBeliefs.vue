<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import type { HuntReport } from '../../../core/hunt'
import type { Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayCause, sayPart } from '../../../words/hunt'
import { useHuntWords } from '../../composables/useHuntWords'

/** How likely each part is at fault, as bars that move when a reading lands. */
const props = defineProps<{ report: HuntReport; site: Site; speaker: Speaker }>()
const { t } = useHuntWords(() => props.site.settings.units)
const MOST = 7
const x = scaleLinear().domain([0, 1]).range([0, 100])
const bars = computed(() => {
  const parts = props.report.parts
    .slice(0, MOST)
    .filter((p) => p.p >= 0.005)
    .map((p) => ({
      key: p.key,
      p: p.p,
      says: sayPart(p.where, props.site, props.speaker),
      causes: p.causes
        .slice(0, 2)
        .filter((c) => c.p > 0.1)
        .map((c) => sayCause(c.cause, props.speaker))
        .join(', '),
    }))
  return [...parts, { key: '', p: props.report.nothing, says: t('diagnose.likelyNothing'), causes: '' }].sort(
    (a, b) => b.p - a.p,
  )
})
const percent = (p: number) => (p > 0.995 ? '> 99' : p < 0.01 ? '< 1' : String(Math.round(p * 100)))
</script>

<template>
  <section class="sheet" :aria-label="t('diagnose.why')">
    <h2>{{ t('diagnose.why') }}</h2>
    <ul class="bars">
      <li v-for="bar in bars" :key="bar.key">
        <span class="says">
          {{ bar.causes ? `${bar.says},` : bar.says }}
          <span v-if="bar.causes" class="quiet">{{ bar.causes }}</span>
        </span>
        <span class="figure p">{{ percent(bar.p) }} %</span>
        <span class="track">
          <span class="bar" :class="{ none: bar.key === '' }" :style="{ width: `${x(bar.p)}%` }" />
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: 17px;
  margin-bottom: 8px;
}
.bars {
  display: grid;
  gap: 8px;
  list-style: none;
  padding: 0;
  margin: 0;
}
.bars li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 12px;
}
.says::first-letter {
  text-transform: uppercase;
}
.p {
  font-weight: 700;
}
.track {
  grid-column: 1 / -1;
  height: 8px;
  background: var(--key-bed);
  border-radius: 4px;
  overflow: hidden;
}
.bar {
  display: block;
  height: 100%;
  background: var(--copper);
  transition: width 0.4s;
}
.bar.none {
  background: var(--fits);
}
@media (prefers-reduced-motion: reduce) {
  .bar {
    transition: none;
  }
}
</style>
