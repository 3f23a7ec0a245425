<script setup lang="ts">
import { scaleLinear, scaleTime } from 'd3-scale'
import { useI18n } from 'vue-i18n'
import type { Expectation } from '../../../core/expect'
import type { ThreadHistory } from '../../../core/history'
import { ohmsText } from '../../../core/quantity'
import { useElementWidth } from '../../composables/useElementWidth'

/** A thread's readings over the years at one temperature, in the record band, with the line of its creep. */
const props = defineProps<{ history: ThreadHistory; expectation: Extract<Expectation, { kind: 'ohms' }> }>()
const { t } = useI18n()
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
const HEIGHT = 132
const [LEFT, RIGHT, TOP, BOTTOM] = [38, 10, 10, 22]
const DAY_ms = 86_400_000

const read = computed(() =>
  props.history.points
    .filter((p) => p.now_ohm !== null)
    .map((p) => ({ ...p, time: Date.parse(p.at), ohm: p.now_ohm! })),
)
const open = computed(() => props.history.points.filter((p) => p.open).map((p) => ({ ...p, time: Date.parse(p.at) })))
const span = computed(() => {
  const times = [...read.value, ...open.value].map((p) => p.time)
  const [from, to] = [Math.min(...times), Math.max(...times)]
  const end = props.history.drift
    ? Math.max(to, Math.min(props.history.drift.reaches_days * DAY_ms, to + (to - from)))
    : to
  return [from - 20 * DAY_ms, Math.max(end, from + 60 * DAY_ms) + 20 * DAY_ms] as const
})
const x = computed(() =>
  scaleTime()
    .domain(span.value)
    .range([LEFT, Math.max(LEFT + 40, width.value - RIGHT)]),
)
const y = computed(() => {
  const { low_ohm, high_ohm } = props.expectation
  const near = read.value.map((p) => p.ohm).filter((ohm) => ohm < high_ohm * 2)
  return scaleLinear()
    .domain([Math.min(low_ohm, ...near), Math.max(high_ohm, ...near)])
    .nice(4)
    .range([HEIGHT - BOTTOM, TOP])
})
const years = computed(() =>
  x.value
    .ticks(4)
    .map((at) => ({ x: x.value(at), text: at.toLocaleDateString(undefined, { year: 'numeric', month: 'short' }) })),
)
const ohms = computed(() => y.value.ticks(3).map((ohm) => ({ y: y.value(ohm), text: ohmsText(ohm) })))
const clamped = (ohm: number) => Math.max(TOP, Math.min(HEIGHT - BOTTOM, y.value(ohm)))
const creep = computed(() => {
  const { drift } = props.history
  const last = read.value.at(-1)
  if (!drift || !last) return null
  const limit = props.expectation.high_ohm
  const end = drift.reaches_days * DAY_ms
  const start_ohm = limit - (drift.ohmPerYear * (end - read.value[0]!.time)) / (365.25 * DAY_ms)
  return {
    x1: x.value(read.value[0]!.time),
    y1: clamped(start_ohm),
    x2: x.value(Math.min(end, span.value[1])),
    y2: clamped(
      end > span.value[1]
        ? start_ohm + (drift.ohmPerYear * (span.value[1] - read.value[0]!.time)) / (365.25 * DAY_ms)
        : limit,
    ),
  }
})
</script>

<template>
  <figure ref="holder" class="chart">
    <svg :width="width" :height="HEIGHT" role="img" :aria-label="t('detail.chart', { count: history.points.length })">
      <rect
        class="band"
        :x="LEFT"
        :width="Math.max(0, width - RIGHT - LEFT)"
        :y="y(expectation.high_ohm)"
        :height="Math.max(0, y(expectation.low_ohm) - y(expectation.high_ohm))"
      />
      <line
        class="middle"
        :x1="LEFT"
        :x2="width - RIGHT"
        :y1="y(expectation.expected_ohm)"
        :y2="y(expectation.expected_ohm)"
      />
      <text v-for="tick in ohms" :key="tick.text" class="tick figure" :x="LEFT - 6" :y="tick.y + 4" text-anchor="end">
        {{ tick.text }}
      </text>
      <text v-for="tick in years" :key="tick.text" class="tick" :x="tick.x" :y="HEIGHT - 6" text-anchor="middle">
        {{ tick.text }}
      </text>
      <line v-if="creep" class="creep" v-bind="creep" />
      <polyline class="way" :points="read.map((p) => `${x(p.time)},${clamped(p.ohm)}`).join(' ')" />
      <g v-for="p in read" :key="p.id" :transform="`translate(${x(p.time)} ${clamped(p.ohm)})`" :class="p.state">
        <circle v-if="p.state === 'fits'" r="4.5" fill="currentColor" />
        <rect v-else-if="p.state === 'fault'" x="-4.5" y="-4.5" width="9" height="9" fill="currentColor" />
        <g v-else>
          <circle r="4.5" class="half" />
          <path d="M0 -4.5 A4.5 4.5 0 0 1 0 4.5 Z" fill="currentColor" />
        </g>
      </g>
      <text v-for="p in open" :key="p.id" class="open figure" :x="x(p.time)" :y="TOP + 10" text-anchor="middle">
        OL
      </text>
    </svg>
    <figcaption class="quiet">{{ t('detail.chartHow') }}</figcaption>
  </figure>
</template>

<style scoped>
.band {
  fill: var(--band);
}
.middle {
  stroke: var(--fits);
  stroke-dasharray: 2 3;
}
.tick {
  font-size: 11px;
  fill: var(--quiet);
}
.way {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
.creep {
  stroke: var(--copper);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}
.half {
  fill: var(--sheet);
  stroke: currentColor;
  stroke-width: 1.6;
}
.open {
  font-size: 12px;
  font-weight: 700;
  fill: var(--fault);
}
figcaption {
  font-size: 13px;
}
@media (max-width: 759px) {
  .tick {
    font-size: 13px;
  }
}
</style>
