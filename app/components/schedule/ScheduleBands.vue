<script setup lang="ts">
import { scaleBand, scaleLinear } from 'd3-scale'
import { dateOf, dayNumber, timeText, type Band, type CalendarDate, type Week } from '../../../core/schedule'
import { useElementWidth } from '../../composables/useElementWidth'
import { useSchedulePage } from '../../composables/useSchedule'
import { dayName } from '../../lib/day-name'

/** What runs in some days as bands, a row for each station; what ran before a change in outline. */
const props = defineProps<{
  week: Week
  /** As it is now, where `week` is how it would be; as it was before, where that is looked at. */
  was: Week | null
  from: CalendarDate
  days: number
  programs: readonly { readonly name: string }[]
  rows: readonly { readonly key: string; readonly tag: string; readonly name: string }[]
  window: { readonly opens: number; readonly closes: number } | null
  at_s: number
}>()
const emit = defineEmits<{ pick: [at_s: number] }>()
const { t } = useSchedulePage()
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
const DAY_s = 86_400
const [TOP, ROW, BOTTOM] = [24, 18, 4]
/** A phone has no room for names beside the tags. */
const left = computed(() => (width.value > 620 ? 150 : 40))
const height = computed(() => TOP + ROW * props.rows.length + BOTTOM)
const x = computed(() =>
  scaleLinear()
    .domain([0, props.days * DAY_s])
    .range([left.value, Math.max(left.value + 60, width.value - 4)]),
)
const y = computed(() =>
  scaleBand()
    .domain(props.rows.map((r) => r.key))
    .range([TOP, TOP + ROW * props.rows.length])
    .padding(0.15),
)
const ticks = computed(() =>
  props.days > 1
    ? Array.from({ length: props.days }, (_, i) => ({
        at_s: i * DAY_s,
        label: dayName(dateOf(dayNumber(props.from) + i), width.value > 620),
      }))
    : [0, 3, 6, 9, 12, 15, 18, 21].map((h) => ({ at_s: h * 3600, label: timeText(h * 3600) })),
)
const shownIn = (b: Band) => b.from_s < props.days * DAY_s && y.value(b.station) !== undefined
const rect = (b: Band) => ({
  x: x.value(b.from_s),
  width: Math.max(1.5, x.value(Math.min(b.to_s, props.days * DAY_s)) - x.value(b.from_s)),
  y: y.value(b.station)!,
  height: y.value.bandwidth(),
})
/** The hours in which it may water, cut at midnight. */
const open = computed(() => {
  if (!props.window) return []
  const { opens, closes } = props.window
  const parts: [number, number][] =
    closes > opens
      ? [[opens, closes]]
      : [
          [0, closes],
          [opens, DAY_s],
        ]
  return Array.from({ length: props.days }, (_, d) => parts.map(([a, b]) => [d * DAY_s + a, d * DAY_s + b])).flat()
})
function pick(event: MouseEvent): void {
  const svg = (event.currentTarget as SVGElement).getBoundingClientRect()
  const at_s = Math.round(x.value.invert(event.clientX - svg.left) / 60) * 60
  emit('pick', Math.min(props.days * DAY_s - 60, Math.max(0, at_s)))
}
</script>

<template>
  <figure ref="holder">
    <svg
      :width="width"
      :height="height"
      role="img"
      :aria-label="t('schedule.weekLabel', { count: week.bands.length, days })"
      @click="pick"
    >
      <rect
        v-for="[a, b] in open"
        :key="`w${a}`"
        class="open"
        :x="x(a!)"
        :width="x(b!) - x(a!)"
        :y="TOP"
        :height="height - TOP - BOTTOM"
      />
      <g v-for="tick in ticks" :key="tick.at_s">
        <line class="grid" :x1="x(tick.at_s)" :x2="x(tick.at_s)" :y1="TOP - 4" :y2="height - BOTTOM" />
        <text class="tick" :x="x(tick.at_s) + 3" :y="TOP - 8">{{ tick.label }}</text>
      </g>
      <g v-for="(r, i) in rows" :key="r.key">
        <line class="grid" :x1="0" :x2="width" :y1="TOP + ROW * (i + 1)" :y2="TOP + ROW * (i + 1)" />
        <text class="tick figure" :x="0" :y="TOP + ROW * i + 13">{{ r.tag }}</text>
        <text v-if="left > 40" class="tick" :x="28" :y="TOP + ROW * i + 13">{{ r.name.slice(0, 18) }}</text>
      </g>
      <rect v-for="(b, i) in (was?.bands ?? []).filter(shownIn)" :key="`n${i}`" class="was" v-bind="rect(b)" />
      <line
        v-for="(w, i) in week.waits.filter(shownIn)"
        :key="`q${i}`"
        class="wait"
        :x1="x(w.from_s)"
        :x2="x(w.to_s)"
        :y1="y(w.station)! + y.bandwidth() / 2"
        :y2="y(w.station)! + y.bandwidth() / 2"
      />
      <g v-for="(b, i) in week.bands.filter(shownIn)" :key="`b${i}`" class="band" :class="`p${b.program % 4}`">
        <rect v-bind="rect(b)" rx="2" />
        <text v-if="rect(b).width > 14" :x="rect(b).x + 3" :y="rect(b).y + 12">{{ programs[b.program]?.name }}</text>
        <title>{{ programs[b.program]?.name }} {{ timeText(b.from_s % DAY_s) }} – {{ timeText(b.to_s % DAY_s) }}</title>
      </g>
      <line class="at" :x1="x(at_s)" :x2="x(at_s)" :y1="TOP - 4" :y2="height - BOTTOM" />
    </svg>
    <figcaption class="quiet">{{ t('schedule.weekHow') }}</figcaption>
  </figure>
</template>

<style scoped>
svg {
  cursor: crosshair;
}
.open {
  fill: var(--copper-soft);
  opacity: 0.55;
}
.grid {
  stroke: var(--rule);
}
.tick {
  font-size: 12px;
  fill: var(--quiet);
}
.band rect {
  fill: var(--ink);
}
.band text {
  font-size: 11px;
  font-weight: 700;
  fill: var(--sheet);
}
.band.p1 rect {
  fill: var(--copper);
}
.band.p2 rect {
  fill: var(--fits);
}
.band.p3 rect {
  fill: var(--quiet);
}
.was {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.2;
  stroke-dasharray: 3 2;
}
.wait {
  stroke: var(--doubtful);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
.at {
  stroke: var(--copper);
  stroke-width: 2;
  pointer-events: none;
}
figcaption {
  font-size: 13px;
}
@media (max-width: 759px) {
  .tick {
    font-size: 13px;
  }
  figcaption {
    font-size: 15px;
  }
}
</style>
