<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { useI18n } from 'vue-i18n'
import { inUnit, type LengthUnit } from '../../../core/quantity'
import type { ThreadMargin } from '../../../core/sizing'
import { useElementWidth } from '../../composables/useElementWidth'

/** Volts left against distance: a stair for every thread at its worst, and the least that the chosen one may have. */
const props = defineProps<{
  threads: readonly ThreadMargin[]
  chosen: ThreadMargin | null
  unit: LengthUnit
  nameOf: (t: ThreadMargin) => string
}>()
const emit = defineEmits<{ choose: [thread: ThreadMargin] }>()
const { t } = useI18n()
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
/** As high as the panel beside it at a desk; on a phone, so that the table below is in sight. */
const height = computed(() => (width.value > 480 ? 392 : 300))
const [LEFT, RIGHT, TOP, BOTTOM] = [44, 16, 14, 34]

const x = computed(() =>
  scaleLinear()
    .domain([0, Math.max(10, ...props.threads.flatMap((p) => p.profile.map((q) => inUnit(q.at_m, props.unit))))])
    .nice()
    .range([LEFT, Math.max(LEFT + 60, width.value - RIGHT)]),
)
const y = computed(() => {
  const all = props.threads.flatMap((p) => [p.terminal_V, p.volt_V, p.needed_V])
  return scaleLinear()
    .domain([Math.min(...all) - 0.4, Math.max(...all) + 0.2])
    .nice(5)
    .range([height.value - BOTTOM, TOP])
})
const stair = computed(() =>
  line<{ at_m: number; volt_V: number }>(
    (p) => x.value(inUnit(p.at_m, props.unit)),
    (p) => y.value(p.volt_V),
  ),
)
const drawn = computed(() =>
  [...props.threads]
    .sort((a, b) => Number(a === props.chosen) - Number(b === props.chosen) || b.margin_V - a.margin_V)
    .map((thread) => ({
      thread,
      path: stair.value(thread.profile) ?? '',
      end: { x: x.value(inUnit(thread.profile.at(-1)!.at_m, props.unit)), y: y.value(thread.volt_V) },
      kind: thread === props.chosen ? 'chosen' : thread.margin_V < 0 ? 'short' : 'plain',
    })),
)
</script>

<template>
  <figure ref="holder">
    <svg :width="width" :height="height" role="img" :aria-label="t('sizes.profileLabel', { count: threads.length })">
      <g v-for="tick in y.ticks(5)" :key="`y${tick}`">
        <line class="grid" :x1="LEFT" :x2="width - RIGHT" :y1="y(tick)" :y2="y(tick)" />
        <text class="tick figure" :x="LEFT - 6" :y="y(tick) + 4" text-anchor="end">{{ tick }}</text>
      </g>
      <text
        v-for="tick in x.ticks(Math.max(3, Math.floor(width / 110)))"
        :key="`x${tick}`"
        class="tick figure"
        :x="x(tick)"
        :y="height - BOTTOM + 18"
        text-anchor="middle"
      >
        {{ tick }}
      </text>
      <text class="tick" :x="width - RIGHT" :y="height - 4" text-anchor="end">{{ t('sizes.out', { unit }) }}</text>
      <text class="tick" :x="LEFT + 4" :y="TOP + 2">V</text>
      <template v-if="chosen">
        <line class="least" :x1="LEFT" :x2="width - RIGHT" :y1="y(chosen.needed_V)" :y2="y(chosen.needed_V)" />
        <text class="least-word" :x="LEFT + 6" :y="y(chosen.needed_V) - 5">
          {{ t('sizes.least', { volt: chosen.needed_V.toFixed(1) }) }}
        </text>
      </template>
      <g
        v-for="d in drawn"
        :key="`${d.thread.device} ${d.thread.part}`"
        class="stair"
        :class="d.kind"
        @click="emit('choose', d.thread)"
      >
        <path class="hit" :d="d.path" />
        <path class="drawn" :d="d.path" />
        <rect v-if="d.kind === 'short'" :x="d.end.x - 4" :y="d.end.y - 4" width="8" height="8" />
        <circle v-else :cx="d.end.x" :cy="d.end.y" r="4" />
        <title>{{ nameOf(d.thread) }}, {{ d.thread.volt_V.toFixed(2) }} V</title>
      </g>
      <text
        v-if="chosen"
        class="name"
        :x="Math.min(width - RIGHT, x(inUnit(chosen.profile.at(-1)!.at_m, unit)) + 8)"
        :y="y(chosen.volt_V) + 16"
        text-anchor="end"
      >
        {{ nameOf(chosen) }}
      </text>
    </svg>
    <figcaption class="quiet">{{ t('sizes.profileHow') }}</figcaption>
  </figure>
</template>

<style scoped>
.grid {
  stroke: var(--rule);
}
.tick {
  font-size: 12px;
  fill: var(--quiet);
}
.least {
  stroke: var(--fault);
  stroke-width: 1.5;
  stroke-dasharray: 6 4;
}
.least-word {
  font-size: 12px;
  fill: var(--fault);
}
.stair {
  cursor: pointer;
}
.stair .hit {
  fill: none;
  stroke: transparent;
  stroke-width: 10;
}
.stair .drawn {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1;
  opacity: 0.65;
}
.stair circle,
.stair rect {
  fill: var(--quiet);
}
.stair.short .drawn {
  stroke: var(--fault);
  opacity: 1;
}
.stair.short rect {
  fill: var(--fault);
}
.stair.chosen .drawn {
  stroke: var(--copper);
  stroke-width: 3;
  opacity: 1;
}
.stair.chosen circle,
.stair.chosen rect {
  fill: var(--copper);
}
.name {
  font-size: 13px;
  font-weight: 700;
  fill: var(--copper);
}
figcaption {
  font-size: 13px;
}
@media (max-width: 759px) {
  .tick,
  .least-word {
    font-size: 13px;
  }
  figcaption {
    font-size: 15px;
  }
}
</style>
