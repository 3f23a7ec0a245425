<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import type { HuntReport, PartReport } from '../../../core/hunt'
import type { Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayCause, sayPart } from '../../../words/hunt'
import { useHuntWords } from '../../composables/useHuntWords'

/**
 * How likely each part is at fault, thing by thing that is wrong, as bars that move when a reading lands: parts of one
 * thing shut each other out, those of two do not.
 */
const props = defineProps<{ report: HuntReport; site: Site; speaker: Speaker }>()
const { t } = useHuntWords(() => props.site.settings.units)
const [MOST_TROUBLES, MOST_PARTS, MOST_BESIDES] = [6, 5, 4]
/** What is less likely is told of beside the troubles, or not at all. */
const [LEAST_TROUBLE, LEAST_PART] = [0.05, 0.005]
const percent = (p: number) => (p > 0.995 ? '> 99' : p < 0.01 ? '< 1' : String(Math.round(p * 100)))
const x = scaleLinear().domain([0, 1]).range([0, 100])

interface Bar {
  readonly key: string
  readonly p: number
  readonly says: string
  readonly causes: string
}
const barOf = (part: PartReport): Bar => ({
  key: part.key,
  p: part.p,
  says: sayPart(part.where, props.site, props.speaker),
  causes: part.causes
    .slice(0, 2)
    .filter((c) => c.p > 0.1)
    .map((c) => sayCause(c.cause, props.speaker))
    .join(', '),
})
const nothing = computed<Bar>(() => ({
  key: '',
  p: props.report.nothing,
  says: t('diagnose.likelyNothing'),
  causes: '',
}))
const lists = computed(() => {
  const shown = props.report.troubles.filter((w) => w.p >= LEAST_TROUBLE).slice(0, MOST_TROUBLES)
  const troubles = shown.map((w) => ({
    heading: w.parts.length > 1 ? t('diagnose.oneOf', { p: percent(w.p) }) : null,
    bars: w.parts.slice(0, MOST_PARTS).map(barOf),
  }))
  const told = new Set(shown.flatMap((w) => w.parts.map((p) => p.key)))
  const besides = props.report.parts
    .filter((p) => p.p >= LEAST_PART && !told.has(p.key))
    .slice(0, MOST_BESIDES)
    .map(barOf)
  const rest = { heading: troubles.length > 0 && besides.length > 0 ? t('diagnose.alsoShown') : null, bars: besides }
  const sound = { heading: null, bars: [nothing.value] }
  const some = [...troubles, ...(besides.length > 0 ? [rest] : [])]
  return nothing.value.p > (props.report.troubles[0]?.p ?? 0) ? [sound, ...some] : [...some, sound]
})
</script>

<template>
  <section class="sheet" :aria-label="t('diagnose.why')">
    <h2>{{ t('diagnose.why') }}</h2>
    <div v-for="(list, n) in lists" :key="n" class="trouble">
      <h3 v-if="list.heading">{{ list.heading }}</h3>
      <ul class="bars">
        <li v-for="bar in list.bars" :key="bar.key">
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
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 17px;
  margin-bottom: 8px;
}
h3 {
  font-size: 14px;
  margin-bottom: 6px;
}
.trouble + .trouble {
  margin-top: 12px;
  padding-top: 12px;
  border-top: 1px solid var(--rule);
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
