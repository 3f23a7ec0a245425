<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import type { PartReport } from '../../../core/hunt'
import type { Site } from '../../../core/site'
import type { Section } from '../../../core/strip'
import { useElementWidth } from '../../composables/useElementWidth'
import { useHuntWords } from '../../composables/useHuntWords'
import { marksOn, type Mark } from '../../lib/strip-marks'

/** The threads that some parts lie on, hatched by how likely the fault is there. */
const props = defineProps<{
  sections: readonly Section[]
  parts: readonly PartReport[]
  site: Site
  nameOf: (terminal: string) => string
  tagOf: (terminal: string) => string
}>()
const { t } = useHuntWords(() => props.site.settings.units)
const box = ref<HTMLElement | null>(null)
const full = useElementWidth(box)
const width = computed(() => Math.max(160, full.value - 48))
const MOST_STRIPS = 4

const shown = computed(() =>
  props.sections
    .flatMap((section) => [
      ...section.strips.map((strip) => ({
        key: `${section.key} ${strip.terminal}`,
        strip,
        isCommon: false,
        boxes: section.boxes,
        marks: marksOn(props.site, strip, props.parts),
      })),
      ...(section.common
        ? [
            {
              key: `${section.key} common`,
              strip: section.common,
              isCommon: true,
              boxes: section.boxes,
              marks: marksOn(props.site, section.common, props.parts),
            },
          ]
        : []),
    ])
    .filter((s) => s.marks.length > 0)
    .sort((a, b) => sum(b.marks) - sum(a.marks))
    .slice(0, MOST_STRIPS),
)
const sum = (marks: readonly Mark[]) => marks.reduce((s, m) => s + m.p, 0)
const farthest_m = computed(() => Math.max(1, ...shown.value.map((s) => s.strip.length_m)))
const x = computed(() =>
  scaleLinear()
    .domain([0, farthest_m.value])
    .range([6, width.value - 40]),
)
</script>

<template>
  <div ref="box">
    <ol v-if="shown.length > 0" class="list" :aria-label="t('diagnose.strips')">
      <li v-for="s in shown" :key="s.key">
        <span class="figure peg" :class="{ home: s.isCommon }">{{ tagOf(s.strip.terminal) }}</span>
        <span class="name">{{ s.isCommon ? t('part.common') : nameOf(s.strip.terminal) }}</span>
        <ThreadStrip
          class="line"
          :strip="s.strip"
          :x="x"
          :width="width"
          :height="56"
          :boxes="s.boxes"
          :is-common="s.isCommon"
          :likely="s.marks"
        />
      </li>
    </ol>
  </div>
</template>

<style scoped>
.list {
  list-style: none;
  padding: 0;
  margin: 0;
}
.list li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  align-items: center;
  gap: 0 8px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.peg {
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  text-align: center;
  font-weight: 700;
  font-size: 14px;
  padding: 2px 0;
}
.peg.home {
  background: var(--ink);
  color: var(--paper);
}
.name {
  color: var(--quiet);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line {
  grid-column: 2;
}
</style>
