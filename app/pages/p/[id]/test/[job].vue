<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { sectionsOf } from '../../../../../core/strip'
import { lengthText, ohmsText, temperatureText } from '../../../../../core/quantity'
import { CAUTIONS, type CautionCode } from '../../../../../core/record'
import { getOrThrow } from '../../../../../core/site'
import { sayVerdict } from '../../../../../words/reading'
import { stateOf } from '../../../../../core/expect'
import { dayText, timeText, unbroken, useSpeaker } from '../../../../composables/useSpeaker'
import { useConclusion } from '../../../../composables/useConclusion'
import { useElementWidth } from '../../../../composables/useElementWidth'
import { useEntry } from '../../../../composables/useEntry'
import { readingOhm, useSweep, type SweepRow } from '../../../../composables/useSweep'
import { useProperty } from '../../../../stores/property'

const route = useRoute()
const property = useProperty()
const { t, speaker } = useSpeaker(() => property.site!.settings.units)
const jobId = computed(() => String(route.params.job))
const known = computed(() => property.facts!.jobs[jobId.value] ?? null)
const controller = computed(() => known.value?.controller ?? null)
const { job, meter, scene, rows, log, observations, verdictOf } = useSweep(
  () => controller.value,
  () => jobId.value,
)
const conclusion = useConclusion(
  () => property.site,
  () => job.value,
  () => observations.value,
)
const entry = useEntry(
  () => jobId.value,
  () => rows.value,
  () => log.value,
  () => meter.value,
  () => job.value?.ground_C ?? 20,
)
const { text, row, next, asShort, complaint, said } = entry

const ticked = computed(
  () =>
    new Set<CautionCode>(
      Object.values(property.facts!.cautions)
        .filter((c) => c.job === jobId.value)
        .map((c) => c.code),
    ),
)
const closed = computed(
  () => Object.values(property.facts!.closings).find((c) => c.job === jobId.value)?.dialBack ?? null,
)
const ready = computed(() => CAUTIONS.every((code) => ticked.value.has(code)))
const entering = computed(() => ready.value && closed.value === null)
const input = ref<HTMLInputElement | null>(null)
const phone = ref(false)
/** On a phone the checks take the keypad's room while they are open. */
const checking = ref(false)

const toInput = () =>
  void nextTick(() => {
    if (!phone.value) input.value?.focus()
  })
/** Does something and puts the cursor back where figures are typed. */
const thenType = (act: () => void) => {
  act()
  toInput()
}
const beginShort = () => {
  asShort.value = true
  text.value = ''
}
onMounted(() => {
  const media = window.matchMedia('(max-width: 759px)')
  phone.value = media.matches
  media.addEventListener('change', (m) => {
    phone.value = m.matches
  })
  entry.resume()
  toInput()
})
watch(entering, toInput)
/** The rail, the drawing and the search move the cursor through the address. */
watch(
  () => route.query.station,
  (asked) => {
    const to = rows.value.find((r) => typeof asked === 'string' && asked.endsWith(`:${r.tag}`))
    if (to) {
      entry.move(to.terminal)
      toInput()
    }
  },
)
const select = (tag: string) => {
  entry.move(rows.value.find((r) => r.tag === tag)!.terminal)
  toInput()
}

const tick = (code: CautionCode) =>
  property.record({
    kind: 'caution',
    fact: { job: jobId.value, at: new Date().toISOString(), author: job.value!.author, code },
  })
const end = (dialBack: boolean) =>
  property.record({
    kind: 'closing',
    fact: { job: jobId.value, at: new Date().toISOString(), author: job.value!.author, dialBack },
  })

const live = computed(() =>
  row.value && text.value.trim() !== ''
    ? (verdictOf(row.value, text.value)?.judged ?? null)
    : (row.value?.judged ?? null),
)
const liveState = computed(() => (live.value ? stateOf(live.value.verdict.code) : 'none'))
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
const shown = (r: SweepRow) => {
  if (!r.logged) return ''
  const ohm = readingOhm(r.logged)
  return ohm === null ? r.logged.reading.meter.openMark : ohmsText(ohm)
}
const placeholder = computed(() => (row.value?.logged ? shown(row.value) : ''))
const recent = computed(() =>
  rows.value
    .slice(0, entry.index.value)
    .filter((r) => r.logged)
    .slice(-2)
    .reverse(),
)

const sections = computed(() => {
  if (!scene.value || !controller.value) return []
  const hanging = scene.value.hanging(controller.value)
  return sectionsOf(
    property.site!,
    scene.value.network.wiring,
    controller.value,
    rows.value.map((r) => r.terminal),
    (terminal) => hanging.get(terminal)?.coils ?? [],
  )
})
const units = computed(() => property.site!.settings.units)

const mini = ref<HTMLElement | null>(null)
const miniWidth = useElementWidth(mini)
const strip = computed(
  () => sections.value.flatMap((s) => s.strips).find((s) => s.terminal === row.value?.terminal) ?? null,
)
const miniScale = computed(() =>
  scaleLinear()
    .domain([0, Math.max(1, ...sections.value.flatMap((s) => s.strips.map((x) => x.length_m)))])
    .range([2, Math.max(60, miniWidth.value - 40)]),
)
</script>

<template>
  <div v-if="job && scene && controller" class="sweep" :class="{ entering }">
    <div class="picture stack">
      <header>
        <h1>{{ t('sweep.title', { name: getOrThrow(property.site!.controllers, controller).name }) }}</h1>
        <p class="quiet">
          {{ property.site!.about.name }} · {{ job.title }} · {{ dayText(job.at) }}, {{ timeText(job.at) }} ·
          {{ unbroken(temperatureText(job.ground_C, units)) }}{{ meter.name ? ` · ${meter.name}` : '' }}, ±{{
            Math.round(meter.accuracy_ratio * 1000) / 10
          }}
          %
        </p>
      </header>
      <ol
        class="progress"
        :aria-label="t('sweep.progress', { done: rows.length - entry.left.value, all: rows.length })"
      >
        <li
          v-for="r in rows"
          :key="r.terminal"
          :class="[r.state, { here: r.terminal === row?.terminal && entering }]"
        />
      </ol>
      <CautionTicks v-if="!ready && closed === null" :ticked="ticked" @tick="tick" />
      <ConclusionList
        v-if="conclusion && conclusion.described.length > 0"
        class="desk-only"
        :concluded="conclusion"
        :rows="rows"
        :speaker="speaker"
      />
      <ThreadStack
        :class="{ 'desk-only': closed === null }"
        :sections="sections"
        :rows="rows"
        :selected="entering ? (row?.tag ?? null) : null"
        :units="units"
        :described="conclusion?.described ?? []"
        :common-colour="property.site!.settings.commonColour"
        measured
        @select="select"
      />
      <LazyCabinetChecks
        v-if="!phone"
        :job-id="jobId"
        :job="job"
        :scene="scene"
        :meter="meter"
        :speaker="speaker"
        :open="entering"
      />
      <LazySweepFiles
        v-if="!phone"
        :job-id="jobId"
        :job="job"
        :rows="rows"
        :scene="scene"
        :speaker="speaker"
        :open="entering"
      />
    </div>
    <aside v-if="row" class="panel stack" :aria-label="t('sweep.input', { tag: row.tag })">
      <template v-if="entering">
        <div class="station">
          <span class="peg figure">{{ row.tag }}</span>
          <strong>{{ row.name }}</strong>
        </div>
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
          <p v-else-if="live">
            <StateMark :state="liveState" silent />
            {{ ' ' }}
            <strong :class="liveState">{{ t(`verdict.${live.verdict.code}`) }}</strong>
          </p>
          <p v-else-if="asShort" class="doubtful">
            <strong>{{ t('sweep.shortAsk') }}</strong>
          </p>
          <p v-else-if="said" class="quiet">{{ said }}</p>
          <p class="quiet figure small">{{ expectedText }}</p>
          <p v-if="live && liveState === 'fault'" class="phone-only">{{ sayVerdict(live.verdict, meter, speaker) }}</p>
        </div>
        <div ref="mini" class="phone-only mini">
          <ThreadStrip
            v-if="strip"
            :strip="strip"
            :x="miniScale"
            :width="miniWidth"
            :height="30"
            :boxes="[]"
            :name="
              strip.coils[0]
                ? `${getOrThrow(property.site!.places, strip.coils[0].place).tag}, ${unbroken(lengthText(strip.coils[0].at_m, units))}`
                : null
            "
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
      </template>
      <div v-if="row && (entering || closed !== null)" class="desk-only">
        <p v-if="closed !== null" class="station">
          <span class="peg figure">{{ row.tag }}</span>
          <strong>{{ row.name }}</strong>
        </p>
        <ReadingWhy :row="row" :judged="live" :scene="scene" :meter="meter" :speaker="speaker" />
      </div>
      <ConclusionList
        v-if="conclusion && conclusion.described.length > 0"
        class="phone-only"
        :concluded="conclusion"
        :rows="rows"
        :speaker="speaker"
        compact
      />
      <p v-else-if="entry.left.value === 0" class="fits">
        <StateMark state="fits" silent />
        {{ t('sweep.conclusionNone') }}
      </p>
      <LazyCabinetChecks
        v-if="phone && (entering || closed !== null)"
        :job-id="jobId"
        :job="job"
        :scene="scene"
        :meter="meter"
        :speaker="speaker"
        :open="entering"
        :folded="entering"
        @unfold="
          (now: boolean) => {
            checking = now
          }
        "
      />
      <EndSweep
        v-if="closed !== null || (ready && log.length > 0)"
        :left="entry.left.value"
        :closed="closed"
        @end="end"
      />
    </aside>
    <KeyPad
      v-if="entering && phone && !checking"
      class="keypad"
      :next-label="next ? t('sweep.next', { tag: next.tag }) : t('sweep.done')"
      @key="
        (k) => {
          text += k
        }
      "
      @erase="text = text.slice(0, -1)"
      @open="entry.keep('OL')"
      @short="beginShort"
      @next="entry.keep()"
    />
  </div>
  <div v-else class="sheet stack">
    <p>{{ t('sweep.notThere') }}</p>
    <p>
      <NuxtLink class="button" :to="`/p/${route.params.id}/test`">{{ t('test.sweeps') }}</NuxtLink>
    </p>
  </div>
</template>

<style scoped>
.sweep {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 20px;
  margin: -16px -20px -32px 0;
}
.picture {
  padding: 16px 0 32px;
}
.panel {
  background: var(--sheet);
  border-left: 1px solid var(--rule);
  padding: 20px 16px;
  position: sticky;
  top: 52px;
  height: calc(100vh - 52px);
  overflow: auto;
}
.progress {
  display: flex;
  gap: 4px;
}
.progress li {
  flex: 1;
  height: 8px;
  border-radius: 2px;
  background: var(--rule);
}
.progress .fits {
  background: var(--fits);
}
.progress .doubtful {
  background: var(--doubtful);
}
.progress .fault {
  background: var(--fault);
}
.progress .here {
  outline: 2px solid var(--copper);
  outline-offset: 1px;
}
.station {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 17px;
  margin-bottom: 8px;
}
.peg {
  min-width: 40px;
  text-align: center;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  font-weight: 700;
  padding: 2px 6px;
}
.entry {
  display: flex;
  align-items: baseline;
  gap: 8px;
}
@supports not (field-sizing: content) {
  .typed {
    width: 100%;
  }
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
.phone-only {
  display: none;
}
@media (max-width: 1080px) {
  .sweep {
    grid-template-columns: minmax(0, 1fr) 264px;
  }
}
@media (max-width: 759px) {
  .sweep {
    display: flex;
    flex-direction: column;
    gap: 0;
    margin: 0;
    min-height: calc(100dvh - 108px);
  }
  .desk-only {
    display: none !important;
  }
  .phone-only {
    display: revert;
  }
  .row.phone-only {
    display: flex;
  }
  .picture {
    padding: 12px 16px 8px;
    gap: 8px;
  }
  .picture h1 {
    font-size: 19px;
  }
  .picture header p {
    font-size: 14px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .panel {
    position: static;
    height: auto;
    border: 0;
    background: none;
    padding: 8px 16px 16px;
    flex: 1;
    gap: 8px;
  }
  .entering .panel {
    display: grid;
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
  .keypad {
    position: sticky;
    bottom: 56px;
  }
}
</style>
