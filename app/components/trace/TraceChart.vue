<script setup lang="ts">
import { scaleLinear, scaleLog } from 'd3-scale'
import { line } from 'd3-shape'
import { inUnit } from '../../../core/quantity'
import { useElementWidth } from '../../composables/useElementWidth'
import type { TraceWorkHere } from '../../composables/useTrace'

/** What was shown along the way, gains divided out, with what was met; ratios go by the same height everywhere. */
const props = defineProps<{ work: TraceWorkHere }>()
const { t, trace, units, finds } = props.work
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
const HEIGHT = 200
const [LEFT, RIGHT, TOP, BOTTOM] = [36, 12, 22, 26]
const shown = computed(() =>
  [...(trace.value?.along ?? [])]
    .sort((a, b) => a.along_m - b.along_m)
    .map((r) => ({ at: inUnit(r.along_m, units.value.length), level: Math.max(r.reading / r.gain, 1e-6) })),
)
const x = computed(() =>
  scaleLinear()
    .domain([shown.value[0]?.at ?? 0, shown.value.at(-1)?.at ?? 1])
    .range([LEFT, Math.max(LEFT + 60, width.value - RIGHT)]),
)
const y = computed(() => {
  const levels = shown.value.map((s) => s.level)
  return scaleLog()
    .domain([Math.min(...levels) / 1.2, Math.max(...levels) * 1.2])
    .range([HEIGHT - BOTTOM, TOP])
})
/** One, two and five of every ten: more would lie over each other. */
const levels = computed(() => y.value.ticks().filter((v) => /^[125]/.test(v.toExponential())))
const path = computed(
  () =>
    line<{ at: number; level: number }>(
      (s) => x.value(s.at),
      (s) => y.value(s.level),
    )(shown.value) ?? '',
)
const met = computed(() =>
  finds.value.map((f) => ({
    kind: f.kind,
    from: x.value(inUnit(f.along_m.low, units.value.length)),
    mid: x.value(inUnit(f.along_m.mid, units.value.length)),
    to: x.value(inUnit(f.along_m.high, units.value.length)),
  })),
)
</script>

<template>
  <figure ref="holder">
    <svg :width="width" :height="HEIGHT" role="img" :aria-label="t('trace.chart', { count: shown.length })">
      <g v-for="(m, i) in met" :key="i" class="met">
        <rect :x="m.from" :y="TOP" :width="Math.max(2, m.to - m.from)" :height="HEIGHT - TOP - BOTTOM" />
        <line :x1="m.mid" :x2="m.mid" :y1="TOP" :y2="HEIGHT - BOTTOM" />
        <text :x="m.mid" :y="TOP - 6" text-anchor="middle">{{ i + 1 }}</text>
      </g>
      <path class="level" :d="path" />
      <text
        v-for="tick in x.ticks(Math.max(3, Math.floor(width / 90)))"
        :key="tick"
        class="tick figure"
        :x="x(tick)"
        :y="HEIGHT - 6"
        text-anchor="middle"
      >
        {{ tick }}
      </text>
      <text
        v-for="tick in levels"
        :key="`y${tick}`"
        class="tick figure"
        :x="LEFT - 6"
        :y="y(tick) + 4"
        text-anchor="end"
      >
        {{ tick }}
      </text>
    </svg>
  </figure>
</template>

<style scoped>
.level {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}
.met rect {
  fill: var(--band);
}
.met line {
  stroke: var(--fits);
  stroke-width: 2;
}
.met text {
  fill: var(--fits);
  font: 700 14px var(--words);
}
.tick {
  fill: var(--quiet);
  font-size: 12px;
}
</style>
