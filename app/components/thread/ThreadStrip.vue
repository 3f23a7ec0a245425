<script setup lang="ts">
import { chanceText } from '../../../core/quantity'
import type { Strip } from '../../../core/strip'
import { shadesOf } from '../../lib/colours'

/** A thread as one line to scale. `x` turns metres into pixels; `likely` is where a fault may be, in metres. */
const props = defineProps<{
  strip: Strip
  x: (at_m: number) => number
  width: number
  height: number
  boxes: readonly { at_m: number }[]
  dimFrom_m?: number | null
  likely?: readonly { from_m: number; to_m: number; p: number; coil?: boolean }[]
  name?: string | null
  isCommon?: boolean
  /** Decoders that the way comes past, at so many metres. */
  beads?: readonly { readonly at_m: number; readonly own: boolean }[]
}>()
const middle = computed(() => props.height / 2)
const end = computed(() => props.x(props.strip.length_m))
const runs = computed(() =>
  props.strip.runs.map((run) => ({ ...run, ...shadesOf(run.colour), x1: props.x(run.from_m), x2: props.x(run.to_m) })),
)
/** Likely places with their share; figures that would touch go below by turns. */
const hatches = computed(() => {
  let [last, below] = [-Infinity, true]
  return [...(props.likely ?? [])]
    .map((l) => {
      const [x1, x2] = l.coil
        ? [props.x(l.to_m) + 2, props.x(l.to_m) + 24]
        : [props.x(l.from_m) - 5, props.x(l.to_m) + 5]
      return { ...l, x1, x2, label: (x1 + x2) / 2 }
    })
    .sort((a, b) => a.label - b.label)
    .map((l) => {
      below = l.label - last < 40 ? !below : false
      last = l.label
      return { ...l, below }
    })
})
const COIL = 'm0 0 q 1.5 -9 4 -1 t 4 0 t 4 0 t 4 1'
const NAME_ROOM = 7.4
const nameAfter = computed(() => end.value + 30 + (props.name?.length ?? 0) * NAME_ROOM < props.width)
</script>

<template>
  <svg class="strip" :width="width" :height="height" aria-hidden="true">
    <line v-for="box in boxes" :key="box.at_m" class="grid" :x1="x(box.at_m)" :x2="x(box.at_m)" y1="0" :y2="height" />
    <g v-for="(run, i) in runs" :key="i">
      <line class="case" :x1="run.x1" :x2="run.x2" :y1="middle" :y2="middle" />
      <line
        class="core"
        :class="{ unknown: !run.known }"
        :x1="run.x1 + 1"
        :x2="run.x2 - 1"
        :y1="middle"
        :y2="middle"
        :stroke="run.main"
      />
      <line
        v-if="run.stripe"
        class="stripe"
        :x1="run.x1 + 1"
        :x2="run.x2 - 1"
        :y1="middle"
        :y2="middle"
        :stroke="run.stripe"
      />
    </g>
    <rect
      v-if="dimFrom_m != null && x(dimFrom_m) < end"
      class="beyond"
      :x="x(dimFrom_m)"
      :y="middle - 5"
      :width="end - x(dimFrom_m)"
      height="10"
    />
    <g v-for="(l, i) in hatches" :key="`l${i}`">
      <rect
        class="hatched"
        :x="l.x1"
        :y="middle - 8"
        :width="l.x2 - l.x1"
        height="16"
        :style="{ opacity: 0.15 + 0.85 * l.p }"
      />
      <text
        v-if="l.p >= 0.05"
        class="hatch-label"
        :x="Math.min(l.label, width - 18)"
        :y="middle + (l.below ? 22 : -11)"
        text-anchor="middle"
      >
        {{ chanceText(l.p) }}
      </text>
    </g>
    <template v-for="mark in strip.marks" :key="mark.place">
      <circle v-if="mark.kind === 'knot'" class="knot" :cx="x(mark.at_m)" :cy="middle" r="4" />
      <line v-else class="notch" :x1="x(mark.at_m)" :x2="x(mark.at_m)" :y1="middle - 6" :y2="middle + 6" />
    </template>
    <rect
      v-for="bead in beads ?? []"
      :key="bead.at_m"
      class="bead"
      :class="{ own: bead.own }"
      :x="x(bead.at_m) - 5"
      :y="middle - 7"
      width="10"
      height="14"
      rx="3"
    />
    <path
      v-for="coil in strip.coils"
      :key="coil.device"
      class="coil"
      :d="COIL"
      :transform="`translate(${x(coil.at_m) + 4} ${middle + 2})`"
    />
    <text
      v-if="name"
      class="name"
      :x="nameAfter ? end + (isCommon ? 10 : 28) : end - 8"
      :y="nameAfter ? middle + 5 : middle - 8"
      :text-anchor="nameAfter ? 'start' : 'end'"
    >
      {{ name }}
    </text>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  overflow: visible;
}
.grid {
  stroke: var(--rule);
  stroke-dasharray: 3 3;
}
.case {
  stroke: var(--ink);
  stroke-width: 7;
  stroke-linecap: round;
}
.core {
  stroke-width: 4;
}
.core.unknown {
  stroke-dasharray: 6 4;
}
.stripe {
  stroke-width: 4;
  stroke-dasharray: 5 9;
}
.beyond {
  fill: var(--paper);
  opacity: 0.62;
}
.notch {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.knot {
  fill: var(--ink);
}
.bead {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.bead.own {
  fill: var(--copper);
}
.coil {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linejoin: round;
}
.hatched {
  fill: url('#hatch');
  stroke: var(--fault);
  stroke-width: 1;
}
.hatched.weak {
  fill: url('#hatch-weak');
  stroke: var(--doubtful);
}
.hatch-label {
  fill: var(--fault);
  font-weight: 700;
  font-size: 13px;
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.name {
  fill: var(--quiet);
  font-size: 14px;
  paint-order: stroke;
  stroke: var(--row, var(--paper));
  stroke-width: 4px;
}
</style>
