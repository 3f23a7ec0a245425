<script setup lang="ts">
import { lengthText, type Units } from '../../../core/quantity'
import type { Section } from '../../../core/strip'

/** Over a section of threads: its name, its boxes by distance, and what the figures at the right are. */
const props = defineProps<{
  name: string
  boxes: Section['boxes']
  x: (at_m: number) => number
  width: number
  units: Units
  narrow: boolean
  column: string
}>()
/** Box names over their dashed lines, on a second level where they would touch. */
const heads = computed(() => {
  let [last, level] = [-Infinity, 0]
  return props.boxes.map((box) => {
    const at = props.x(box.at_m)
    level = at - last < 48 ? 1 - level : 0
    last = at
    return { ...box, x: at, level }
  })
})
</script>

<template>
  <div class="head" :class="{ narrow }" aria-hidden="true">
    <span class="section-name">{{ name }}</span>
    <svg :width="width" height="44">
      <g v-for="box in heads" :key="box.place" :transform="`translate(${box.x} ${box.level ? 14 : 28})`">
        <text text-anchor="middle" class="box-tag">{{ box.tag }}</text>
        <text text-anchor="middle" y="13" class="box-at figure">{{ lengthText(box.at_m, units) }}</text>
      </g>
    </svg>
    <span class="column">{{ column }}</span>
  </div>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 144px;
  align-items: end;
  position: relative;
}
.head svg {
  overflow: visible;
}
.section-name {
  position: absolute;
  left: 0;
  top: 0;
  font-weight: 700;
  font-size: 14px;
}
.head svg {
  grid-column: 2;
}
.column {
  text-align: right;
  font-size: 12px;
  color: var(--quiet);
  padding-bottom: 4px;
  grid-column: 3;
  padding-right: 36px;
}
.box-tag {
  font-weight: 700;
  font-size: 13px;
  fill: var(--ink);
}
.box-at {
  font-size: 11px;
  fill: var(--quiet);
}
.narrow.head {
  grid-template-columns: 1fr;
}
.narrow.head svg {
  grid-column: 1;
}
.narrow .column {
  display: none;
}
.narrow .section-name {
  position: static;
}
</style>
