<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import type { HuntReport } from '../../../core/hunt'
import type { Part } from '../../../core/record'
import { getOrThrow, stopIndex, type Site } from '../../../core/site'
import type { Section, Strip } from '../../../core/strip'
import { useElementWidth } from '../../composables/useElementWidth'
import { useHuntWords } from '../../composables/useHuntWords'

/** The threads that a fault may lie on, hatched by how likely it is there. */
const props = defineProps<{
  sections: readonly Section[]
  report: HuntReport
  site: Site
  nameOf: (terminal: string) => string
  tagOf: (terminal: string) => string
}>()
const { t } = useHuntWords(() => props.site.settings.units)
const box = ref<HTMLElement | null>(null)
const full = useElementWidth(box)
const width = computed(() => Math.max(160, full.value - 48))
const [LEAST, MOST_STRIPS] = [0.02, 8]

interface Mark {
  readonly from_m: number
  readonly to_m: number
  readonly p: number
  readonly coil?: boolean
}
/** Where the likely parts lie on a strip, in metres along it. */
function marksOn(strip: Strip): Mark[] {
  const along = (p: number, where: Extract<Part, { kind: 'run' | 'touch' }>, cores: readonly string[]): Mark[] => {
    const cable = getOrThrow(props.site.cables, where.cable)
    const [from, to] = [stopIndex(cable, where.from), stopIndex(cable, where.to)]
    const runs = strip.runs.filter(
      ({ link }) => link.cable === where.cable && cores.includes(link.core) && link.from >= from && link.to <= to,
    )
    return runs.length === 0
      ? []
      : [{ from_m: Math.min(...runs.map((r) => r.from_m)), to_m: Math.max(...runs.map((r) => r.to_m)), p }]
  }
  return props.report.parts
    .filter((p) => p.p >= LEAST)
    .flatMap(({ where, p }): Mark[] => {
      switch (where.kind) {
        case 'run':
          return along(p, where, [where.core])
        case 'touch':
          return along(p, where, [where.core, where.other])
        case 'coil':
        case 'valve':
          return strip.coils
            .filter((c) => c.device === where.device)
            .map(({ at_m }) => ({ from_m: at_m, to_m: at_m, p, coil: true }))
        case 'joint':
          return strip.joints
            .filter((j) => j.splice === where.splice)
            .map(({ at_m }) => ({ from_m: at_m, to_m: at_m, p }))
        case 'pair':
          return strip.terminal === where.one || strip.terminal === where.two ? [{ from_m: 0, to_m: 0, p }] : []
        case 'terminal':
          return strip.terminal === where.terminal ? [{ from_m: 0, to_m: 0, p }] : []
        default:
          return []
      }
    })
}
const shown = computed(() =>
  props.sections
    .flatMap((section) => [
      ...section.strips.map((strip) => ({
        key: `${section.key} ${strip.terminal}`,
        strip,
        isCommon: false,
        boxes: section.boxes,
        marks: marksOn(strip),
      })),
      ...(section.common
        ? [
            {
              key: `${section.key} common`,
              strip: section.common,
              isCommon: true,
              boxes: section.boxes,
              marks: marksOn(section.common),
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
  <section ref="box" class="sheet" :aria-label="t('diagnose.strips')">
    <h2>{{ t('diagnose.strips') }}</h2>
    <svg width="0" height="0" aria-hidden="true" class="defs">
      <defs>
        <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" class="hatch-ground" />
          <rect width="3" height="6" class="hatch-line" />
        </pattern>
      </defs>
    </svg>
    <p v-if="shown.length === 0" class="quiet">{{ t('diagnose.noLikely') }}</p>
    <ol class="list">
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
  </section>
</template>

<style scoped>
h2 {
  font-size: 17px;
  margin-bottom: 4px;
}
.defs {
  position: absolute;
}
.hatch-ground {
  fill: var(--hatch-ground);
}
.hatch-line {
  fill: var(--hatch);
}
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
