<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { useI18n } from 'vue-i18n'
import type { PartReport } from '../../../core/hunt'
import { lengthText, ohmsText, type Units } from '../../../core/quantity'
import type { Site } from '../../../core/site'
import type { Section, Strip } from '../../../core/strip'
import { useElementWidth } from '../../composables/useElementWidth'
import { readingOhm, type SweepRow } from '../../composables/useSweep'
import { marksOn, type Mark } from '../../lib/strip-marks'

/** A controller's threads on top of each other to one scale, with their readings, and where the faults may be. */
const props = defineProps<{
  sections: readonly Section[]
  rows: readonly SweepRow[]
  selected: string | null
  units: Units
  suspects: readonly PartReport[]
  site: Site
  commonColour: string
  measured: boolean
}>()
const emit = defineEmits<{ select: [tag: string] }>()
const { t } = useI18n()

const ROOM_FOR_NAME = 150
const stack = ref<HTMLElement | null>(null)
const full = useElementWidth(stack)
const narrow = computed(() => full.value < 560)
const width = computed(() => Math.max(120, full.value - (narrow.value ? 24 : 44 + 108 + 36)))
const farthest_m = computed(() =>
  Math.max(1, ...props.sections.flatMap((s) => s.strips.map((strip) => strip.length_m))),
)
const x = computed(() =>
  scaleLinear()
    .domain([0, farthest_m.value])
    .range([2, width.value - (narrow.value ? 30 : Math.min(ROOM_FOR_NAME, width.value / 4))]),
)

const rowOf = computed(() => new Map(props.rows.map((r) => [r.terminal as string, r])))

/** Box names over their dashed lines, on a second level where they would touch. */
function heads(section: Section) {
  let [last, level] = [-Infinity, 0]
  return section.boxes.map((box) => {
    const at = x.value(box.at_m)
    level = at - last < 48 ? 1 - level : 0
    last = at
    return { ...box, x: at, level }
  })
}

const marks = (strip: Strip): Mark[] => marksOn(props.site, strip, props.suspects)
/** How far the common is whole, metres along it, where it is likely cut. */
function wholeTo_m(common: Strip): number | null {
  const cut = props.suspects.filter((x) => x.causes[0]?.cause === 'open')
  const [likeliest] = marksOn(props.site, common, cut).sort((a, b) => b.p - a.p)
  return likeliest?.to_m ?? null
}

const shown = (row: SweepRow) => {
  if (!row.logged) return ''
  const ohm = readingOhm(row.logged)
  return ohm === null ? row.logged.reading.meter.openMark : ohmsText(ohm)
}
const expectedText = (row: SweepRow) => {
  const e = row.expected.expectation
  return e.kind === 'ohms'
    ? ohmsText(e.expected_ohm)
    : e.kind === 'bounds'
      ? `${ohmsText(e.low_ohm)}–${ohmsText(e.high_ohm)}`
      : '–'
}
</script>

<template>
  <div ref="stack" class="threads" :class="{ narrow }">
    <HatchPatterns />
    <section v-for="(section, s) in sections" :key="section.key" :aria-label="section.name">
      <div class="head" aria-hidden="true">
        <span class="section-name">{{ section.name }}</span>
        <svg :width="width" height="44">
          <g v-for="box in heads(section)" :key="box.place" :transform="`translate(${box.x} ${box.level ? 14 : 28})`">
            <text text-anchor="middle" class="box-tag">{{ box.tag }}</text>
            <text text-anchor="middle" y="13" class="box-at figure">{{ lengthText(box.at_m, units) }}</text>
          </g>
        </svg>
        <span class="column">{{ s === 0 ? (measured ? t('threads.measured') : t('threads.expected')) : '' }}</span>
      </div>
      <ol>
        <li v-for="strip in section.strips" :key="strip.terminal">
          <button
            type="button"
            class="row"
            :class="{ selected: rowOf.get(strip.terminal)?.tag === selected }"
            :aria-pressed="rowOf.get(strip.terminal)?.tag === selected"
            @click="emit('select', rowOf.get(strip.terminal)!.tag)"
          >
            <template v-if="rowOf.get(strip.terminal)">
              <span class="peg figure">{{ rowOf.get(strip.terminal)!.tag }}</span>
              <span class="label">{{ rowOf.get(strip.terminal)!.name }}</span>
              <ThreadStrip
                class="line"
                :strip="strip"
                :x="x"
                :width="width"
                :height="marks(strip).length > 0 ? 46 : 30"
                :boxes="section.boxes"
                :likely="marks(strip)"
                :name="narrow ? null : rowOf.get(strip.terminal)!.name"
              />
              <span class="reading figure" :class="measured ? rowOf.get(strip.terminal)!.state : 'quiet'">
                {{ measured ? shown(rowOf.get(strip.terminal)!) : expectedText(rowOf.get(strip.terminal)!) }}
                <span v-if="measured && !rowOf.get(strip.terminal)!.logged" class="small">
                  {{ expectedText(rowOf.get(strip.terminal)!) }}
                </span>
              </span>
              <StateMark class="state" :state="rowOf.get(strip.terminal)!.state" />
            </template>
          </button>
        </li>
        <li v-if="section.common" class="row common">
          <span class="peg home figure">C</span>
          <span class="label">{{ t('threads.common', { colour: commonColour }) }}</span>
          <ThreadStrip
            class="line"
            :strip="section.common"
            :x="x"
            :width="width"
            :height="marks(section.common).length > 0 ? 56 : 34"
            :boxes="section.boxes"
            :likely="marks(section.common)"
            :dim-from_m="wholeTo_m(section.common)"
            :name="narrow ? null : t('threads.common', { colour: commonColour })"
            is-common
          />
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.threads {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
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
.row {
  --row: var(--paper);
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 108px 36px;
  align-items: center;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
  border-radius: var(--corner);
  min-height: 30px;
}
button.row:hover {
  --row: var(--hover);
  background: var(--row);
}
.row.selected {
  --row: var(--copper-soft);
  background: var(--row);
}
.row.common {
  cursor: default;
}
.peg {
  justify-self: start;
  min-width: 34px;
  text-align: center;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  font-weight: 700;
  font-size: 14px;
  padding: 2px 4px;
}
.peg.home {
  background: var(--ink);
  color: var(--paper);
}
.label {
  display: none;
}
.reading {
  text-align: right;
  font-size: 18px;
  font-weight: 700;
  padding-right: 4px;
}
.reading.quiet {
  font-weight: 400;
  font-size: 16px;
}
.reading .small {
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.state {
  justify-self: center;
}
.narrow .head {
  grid-template-columns: 1fr;
}
.narrow .head svg {
  grid-column: 1;
}
.narrow .column {
  display: none;
}
.narrow .section-name {
  position: static;
}
.narrow .row {
  grid-template-columns: 44px minmax(0, 1fr) auto 24px;
  column-gap: 4px;
  grid-template-areas: 'peg label reading state' 'line line line line';
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
  border-radius: 0;
  min-height: 64px;
}
.narrow .peg {
  grid-area: peg;
}
.narrow .label {
  display: block;
  grid-area: label;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.narrow .line {
  grid-area: line;
}
.narrow .reading {
  grid-area: reading;
}
.narrow .state {
  grid-area: state;
  justify-self: end;
}
</style>
