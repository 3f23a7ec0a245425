<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { stateOf, type Judged } from '../../../core/expect'
import { lengthText, ohmsText } from '../../../core/quantity'
import type { Meter } from '../../../core/record'
import { getOrThrow, type Site } from '../../../core/site'
import type { Strip } from '../../../core/strip'
import type { Speaker } from '../../../words'
import { sayVerdict } from '../../../words/reading'
import { useElementWidth } from '../../composables/useElementWidth'
import type { useEntry } from '../../composables/useEntry'
import { unbroken, useSpeaker } from '../../composables/useSpeaker'
import { readingOhm, type SweepRow } from '../../composables/useSweep'

/** Where a sweep's readings are typed: the field, its verdict as it is typed, and the keys beside it. */
const props = defineProps<{
  entry: ReturnType<typeof useEntry>
  rows: readonly SweepRow[]
  judged: Judged | null
  strips: readonly Strip[]
  meter: Meter
  site: Site
  phone: boolean
  speaker: Speaker
}>()
const { t } = useSpeaker(() => props.site.settings.units)
const { text, row, next, asShort, complaint, said } = props.entry
const input = ref<HTMLInputElement | null>(null)
const focus = () => input.value?.focus()
defineExpose({ focus })
/** Does something and puts the cursor back where figures are typed. */
const thenType = (act: () => void) => {
  act()
  if (!props.phone) void nextTick(focus)
}
const liveState = computed(() => (props.judged ? stateOf(props.judged.verdict.code) : 'none'))
const expectedText = computed(() => {
  const e = row.value?.expected.expectation
  if (!e) return ''
  if (e.kind === 'ohms')
    return t('sweep.expected', {
      figure: `${ohmsText(e.expected_ohm)} Ω (${ohmsText(e.low_ohm)}–${ohmsText(e.high_ohm)})`,
    })
  return e.kind === 'bounds'
    ? t('sweep.expected', { figure: `${ohmsText(e.low_ohm)}–${ohmsText(e.high_ohm)} Ω` })
    : e.kind === 'open'
      ? t('detail.open')
      : t('sweep.notReadable')
})
/** Where the coil of a thread lies, and how far out. */
const coilAt = ({ coils: [coil] }: Strip): string | null => {
  if (!coil) return null
  const { places, settings } = props.site
  return `${getOrThrow(places, coil.place).tag}, ${unbroken(lengthText(coil.at_m, settings.units))}`
}
const shown = (r: SweepRow) => {
  if (!r.logged) return ''
  const ohm = readingOhm(r.logged)
  return ohm === null ? r.logged.reading.meter.openMark : ohmsText(ohm)
}
const placeholder = computed(() => (row.value?.logged ? shown(row.value) : ''))
const recent = computed(() =>
  props.rows
    .slice(0, props.entry.index.value)
    .filter((r) => r.logged)
    .slice(-2)
    .reverse(),
)

const mini = ref<HTMLElement | null>(null)
const miniWidth = useElementWidth(mini)
const strip = computed(() => props.strips.find((s) => s.terminal === row.value?.terminal) ?? null)
const miniScale = computed(() =>
  scaleLinear()
    .domain([0, Math.max(1, ...props.strips.map((x) => x.length_m))])
    .range([2, Math.max(60, miniWidth.value - 40)]),
)
</script>

<template>
  <div v-if="row" class="stack part">
    <StationPeg :tag="row.tag" :name="row.name" />
    <div class="entry">
      <label for="reading" class="sr-only">{{ t('sweep.input', { tag: row.tag }) }}</label>
      <input
        id="reading"
        ref="input"
        v-model="text"
        data-sweep
        class="typed figure"
        :class="liveState"
        :inputmode="phone ? 'none' : 'text'"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        :placeholder="placeholder"
        aria-describedby="reading-says"
        :aria-invalid="complaint !== ''"
        @keydown="entry.onKey"
      />
      <span class="unit">Ω</span>
    </div>
    <div id="reading-says" class="says" aria-live="polite">
      <p v-if="complaint" class="fault">
        <strong>{{ complaint }}</strong>
      </p>
      <p v-else-if="judged">
        <StateMark :state="liveState" silent />
        {{ ' ' }}
        <strong :class="liveState">{{ t(`verdict.${judged.verdict.code}`) }}</strong>
      </p>
      <p v-else-if="asShort" class="doubtful">
        <strong>{{ t('sweep.shortAsk') }}</strong>
      </p>
      <p v-else-if="said" class="quiet">{{ said }}</p>
      <p class="quiet figure small">{{ expectedText }}</p>
      <p v-if="judged && liveState === 'fault'" class="phone-only">{{ sayVerdict(judged.verdict, meter, speaker) }}</p>
    </div>
    <div ref="mini" class="phone-only mini">
      <ThreadStrip
        v-if="strip"
        :strip="strip"
        :x="miniScale"
        :width="miniWidth"
        :height="30"
        :boxes="[]"
        :name="coilAt(strip)"
      />
    </div>
    <div class="row keys desk-only">
      <AppButton look="primary" @click="thenType(() => entry.keep())">
        {{ next ? t('sweep.next', { tag: next.tag }) : t('sweep.saveThis') }}
      </AppButton>
      <AppButton @click="thenType(() => entry.keep('OL'))">
        {{ t('sweep.open') }}
        <kbd>o</kbd>
      </AppButton>
      <AppButton @click="thenType(() => (asShort = true))">
        {{ t('sweep.short') }}
        <kbd>z</kbd>
      </AppButton>
      <AppButton @click="thenType(() => entry.step(1))">
        {{ t('sweep.skip') }}
        <kbd>s</kbd>
      </AppButton>
      <AppButton @click="thenType(() => entry.undo())">
        {{ t('sweep.undoLast') }}
      </AppButton>
    </div>
    <div class="row keys phone-only">
      <AppButton @click="entry.step(-1)">{{ t('sweep.previous') }}</AppButton>
      <AppButton @click="entry.step(1)">{{ t('sweep.skip') }}</AppButton>
      <AppButton @click="entry.undo()">{{ t('sweep.undoLast') }}</AppButton>
    </div>
    <ul class="phone-only recent">
      <li v-for="r in recent" :key="r.terminal">
        <span class="figure quiet">{{ r.tag }}</span>
        <span>{{ r.name }}</span>
        <span class="figure" :class="r.state">{{ shown(r) }}</span>
        <StateMark :state="r.state" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.entry {
  display: flex;
  align-items: baseline;
  gap: 8px;
}
.typed {
  field-sizing: content;
  min-width: 3ch;
  max-width: calc(100% - 36px);
  border: 0;
  border-bottom: 3px solid var(--ink);
  background: none;
  font-size: 44px;
  font-weight: 700;
  padding: 0 4px;
  border-radius: 0;
}
.typed:focus {
  outline: none;
  border-color: var(--copper);
  box-shadow: 0 3px 0 var(--copper);
}
.typed::placeholder {
  color: var(--quiet);
  opacity: 0.5;
}
.unit {
  font-size: 22px;
}
.says {
  min-height: 48px;
}
.small {
  font-size: 14px;
}
.keys {
  gap: 8px;
}
kbd {
  font: 12px var(--figures);
  border: 1px solid var(--rule);
  border-radius: 3px;
  padding: 0 4px;
}
@supports not (field-sizing: content) {
  .typed {
    width: 100%;
  }
}
@media (max-width: 759px) {
  .part {
    gap: 8px;
  }
  .typed {
    font-size: 60px;
    line-height: 1;
    border-bottom-width: 0;
    box-shadow: none !important;
    padding: 0;
    min-height: 62px;
  }
  .entry {
    border-bottom: 2px solid var(--rule);
  }
  .keys .button {
    flex: 1;
    padding-inline: 4px;
  }
  .recent li {
    display: grid;
    grid-template-columns: 36px 1fr auto 24px;
    gap: 8px;
    align-items: center;
    min-height: 36px;
    border-bottom: 1px solid var(--rule);
  }
}
</style>
