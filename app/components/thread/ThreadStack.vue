<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { PartReport } from '../../../core/hunt'
import { ohmsText, type Units } from '../../../core/quantity'
import type { Site } from '../../../core/site'
import type { Section, Strip } from '../../../core/strip'
import { useStackScale } from '../../composables/useStackScale'
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

const stack = ref<HTMLElement | null>(null)
const { narrow, width, x } = useStackScale(stack, () =>
  Math.max(...props.sections.flatMap((s) => s.strips.map((strip) => strip.length_m))),
)

const rowOf = computed(() => new Map(props.rows.map((r) => [r.terminal as string, r])))

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
  <div ref="stack" class="threads">
    <HatchPatterns />
    <section v-for="(section, s) in sections" :key="section.key" :aria-label="section.name">
      <StackHead
        :name="section.name"
        :boxes="section.boxes"
        :x="x"
        :width="width"
        :units="units"
        :narrow="narrow"
        :column="s === 0 ? (measured ? t('threads.measured') : t('threads.expected')) : ''"
      />
      <ol>
        <li v-for="strip in section.strips" :key="strip.terminal">
          <StackRow
            v-if="rowOf.get(strip.terminal)"
            :tag="rowOf.get(strip.terminal)!.tag"
            :name="rowOf.get(strip.terminal)!.name"
            :narrow="narrow"
            :selected="rowOf.get(strip.terminal)!.tag === selected"
            @select="emit('select', rowOf.get(strip.terminal)!.tag)"
          >
            <ThreadStrip
              :strip="strip"
              :x="x"
              :width="width"
              :height="marks(strip).length > 0 ? 46 : 30"
              :boxes="section.boxes"
              :likely="marks(strip)"
              :name="narrow ? null : rowOf.get(strip.terminal)!.name"
            />
            <template #reading>
              <span :class="measured ? rowOf.get(strip.terminal)!.state : 'quiet'">
                {{ measured ? shown(rowOf.get(strip.terminal)!) : expectedText(rowOf.get(strip.terminal)!) }}
                <span v-if="measured && !rowOf.get(strip.terminal)!.logged" class="small">
                  {{ expectedText(rowOf.get(strip.terminal)!) }}
                </span>
              </span>
            </template>
            <template #state><StateMark :state="rowOf.get(strip.terminal)!.state" /></template>
          </StackRow>
        </li>
        <li v-if="section.common">
          <StackRow tag="C" :name="t('threads.common', { colour: commonColour })" :narrow="narrow" is-home>
            <ThreadStrip
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
          </StackRow>
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
</style>
