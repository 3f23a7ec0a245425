<script setup lang="ts">
import { sectionsOf } from '../../../../../core/strip'
import { temperatureText } from '../../../../../core/quantity'
import { CAUTIONS, type CautionCode } from '../../../../../core/record'
import { getOrThrow } from '../../../../../core/site'
import { dayText, timeText, unbroken, useSpeaker } from '../../../../composables/useSpeaker'
import { useConclusion } from '../../../../composables/useConclusion'
import { useJobFacts } from '../../../../composables/useJobFacts'
import { useEntry } from '../../../../composables/useEntry'
import { useSweep } from '../../../../composables/useSweep'
import { useProperty } from '../../../../stores/property'

const route = useRoute()
const property = useProperty()
const { t, speaker } = useSpeaker(() => property.site!.settings.units)
const jobId = computed(() => String(route.params.job))
const known = computed(() => property.facts!.jobs[jobId.value] ?? null)
const controller = computed(() => known.value?.controller ?? null)
const { job, meter, scene, rows, log, verdictOf } = useSweep(
  () => controller.value,
  () => jobId.value,
)
const { report, working, tells, suspects } = useConclusion(() => jobId.value)
/** A terminal's own verdict does not wait for what all readings say together. */
const allFit = computed(() => rows.value.every((r) => r.state === 'fits' || r.state === 'none'))
const entry = useEntry(
  () => jobId.value,
  () => rows.value,
  () => log.value,
  () => meter.value,
)
const { text, row, next, asShort } = entry

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
const field = useTemplateRef<{ focus: () => void }>('field')
const phone = ref(false)
/** On a phone the checks take the keypad's room while they are open. */
const checking = ref(false)

const toInput = () =>
  void nextTick(() => {
    if (!phone.value) field.value?.focus()
  })
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

const { tick, close: end } = useJobFacts(() => jobId.value)

const live = computed(() =>
  row.value && text.value.trim() !== ''
    ? (verdictOf(row.value, text.value)?.judged ?? null)
    : (row.value?.judged ?? null),
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

const strips = computed(() => sections.value.flatMap((x) => x.strips))
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
      <p v-if="working && !report && !allFit" class="quiet" aria-live="polite">{{ t('because.weighing') }}</p>
      <LazyConclusionList
        v-if="report && tells"
        class="desk-only"
        :report="report"
        :site="property.site!"
        :controller="controller"
        :speaker="speaker"
        :job="closed === null ? null : jobId"
      />
      <ThreadStack
        :class="{ 'desk-only': closed === null }"
        :sections="sections"
        :rows="rows"
        :selected="entering ? (row?.tag ?? null) : null"
        :units="units"
        :suspects="suspects"
        :site="property.site!"
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
      <SweepEntry
        v-if="entering"
        ref="field"
        :entry="entry"
        :rows="rows"
        :judged="live"
        :strips="strips"
        :meter="meter"
        :site="property.site!"
        :phone="phone"
        :speaker="speaker"
      />
      <div v-if="row && (entering || closed !== null)" class="desk-only">
        <StationPeg v-if="closed !== null" :tag="row.tag" :name="row.name" />
        <ReadingWhy :row="row" :judged="live" :scene="scene" :meter="meter" :speaker="speaker" />
      </div>
      <LazyConclusionList
        v-if="report && tells"
        class="phone-only"
        :report="report"
        :site="property.site!"
        :controller="controller"
        :speaker="speaker"
        :job="closed === null ? null : jobId"
        compact
      />
      <p v-else-if="entry.left.value === 0 && allFit" class="fits">
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
      <EndJob
        v-if="closed !== null || (ready && log.length > 0)"
        kind="sweep"
        :before="entry.left.value === 0 ? t('sweep.all') : t('sweep.someLeft', entry.left.value)"
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
  .keypad {
    position: sticky;
    bottom: 56px;
  }
}
</style>
