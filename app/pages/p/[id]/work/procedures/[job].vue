<script setup lang="ts">
import { List } from '@lucide/vue'
import {
  expectedAt,
  figureBandOf,
  isWithin,
  makingOf,
  testOf,
  toldOf,
  type RunStep,
} from '../../../../../../core/procedure'
import { baselineOf, pastOfTest } from '../../../../../../core/history'
import { ohmsWithUnit } from '../../../../../../core/quantity'
import { sayStep, sayThing, sayTitle } from '../../../../../../words/procedure'
import { useCertificate } from '../../../../../composables/useCertificate'
import { useHuntZones } from '../../../../../composables/useHuntZones'
import { usePrinting } from '../../../../../composables/usePrinting'
import { dayText } from '../../../../../composables/useSpeaker'
import { useRun } from '../../../../../composables/useRun'

/** A piece of work, one step at a time: what to do large, the answer at the thumb, the list behind it. */
const route = useRoute()
const jobId = computed(() => String(route.params.job))
const work = useRun(() => jobId.value)
const { property, t, speaker, run, against } = work
const {
  paper,
  busy,
  print: printPdf,
} = usePrinting(() => (property.site!.settings.market === 'metric' ? 'A4' : 'LETTER'))
const { printCertificate } = useCertificate(printPdf, () => paper.value)
const base = computed(() => `/p/${String(route.params.id)}`)
const { coils } = useHuntZones(
  () => property.facts!.jobs[jobId.value]?.controller ?? null,
  () => [],
  () => true,
)
const fixed = computed(() => property.viewed !== null)

/** The step that is looked at; the next one to do until another is chosen. */
const chosen = ref<string | null>(null)
const listed = ref(false)
watch(jobId, () => {
  chosen.value = null
  listed.value = false
})
const at = computed((): RunStep | null => {
  const { value: r } = run
  return r ? (r.steps.find((s) => s.key === chosen.value) ?? r.steps.find((s) => s.key === r.next) ?? null) : null
})
const place = computed(() => (at.value ? run.value!.steps.indexOf(at.value) : (run.value?.steps.length ?? 0)))
const told = computed(() => (at.value ? toldOf(property.site!, at.value.thing) : null))
const said = computed(() =>
  at.value && told.value ? sayStep(property.site!, run.value!.procedure, at.value, told.value, speaker.value) : null,
)
const title = computed(() => (run.value ? sayTitle(run.value.procedure, speaker.value) : ''))
const thing = computed(() => {
  const target = run.value?.target
  return target && target.kind !== 'property'
    ? sayThing(property.site!, { target }, toldOf(property.site!, { target }), speaker.value)
    : ''
})
const lock = computed(() =>
  at.value?.state === 'locked'
    ? (run.value!.steps.find(
        (s) =>
          s.step.hold &&
          s.state !== 'done' &&
          s.state !== 'refused' &&
          (s.item === at.value!.item || s.step.each !== at.value!.step.each || s.item === null),
      ) ?? null)
    : null,
)
const lockSays = computed(() =>
  lock.value
    ? sayStep(property.site!, run.value!.procedure, lock.value, toldOf(property.site!, lock.value.thing), speaker.value)
        .says
    : '',
)
const expected = computed(() => {
  const test = at.value && testOf(property.site!, at.value)
  if (!test) return ''
  const e = expectedAt(against.value.scene, test, work.job.value.meter)
  switch (e?.kind) {
    case 'ohms':
      return t('run.expect', {
        expected: ohmsWithUnit(e.expected_ohm),
        low: ohmsWithUnit(e.low_ohm),
        high: ohmsWithUnit(e.high_ohm),
      })
    case 'bounds':
      return t('run.expectBounds', { low: ohmsWithUnit(e.low_ohm), high: ohmsWithUnit(e.high_ohm) })
    case 'open':
      return t('run.expectOpen')
    case 'not_readable':
      return t('run.expectHidden')
    case 'insulation':
      return t('run.expectEarth')
    default:
      return ''
  }
})

/** What the same points read when they were last taken as well. */
const lastTime = computed(() => {
  const test = at.value && testOf(property.site!, at.value)
  if (test?.kind !== 'ohms' || test.to.kind === 'earth') return ''
  const { scene, sceneAt, past } = against.value
  const kept = baselineOf(scene, sceneAt, test, work.job.value.meter, pastOfTest(past, test))
  return kept ? t('run.before', { ohm: ohmsWithUnit(kept.corrected_ohm), day: dayText(kept.at) }) : ''
})

const card = useTemplateRef<HTMLElement>('card')
async function show(key: string | null): Promise<void> {
  chosen.value = key
  listed.value = false
  await nextTick()
  card.value?.focus()
}
/** On to the next step that is to be done after this one, else to the first that is left. */
function onward(): Promise<void> {
  const { steps } = run.value!
  const after = steps.slice(place.value + 1).find((s) => s.state === 'open' || s.state === 'failed')
  return show(after?.key ?? null)
}
/** A figure that is out of its limits. */
function isOutside(step: RunStep): boolean {
  const band = figureBandOf(property.site!, step)
  return band !== null && step.given?.answer.kind === 'figure' && !isWithin(step.given.answer.value, band)
}
/**
 * A tick or a choice leads on by itself; what was read stays to be looked at, and so does a hold that is not passed.
 */
async function answered(): Promise<void> {
  const now = run.value!.steps.find((s) => s.key === at.value?.key)
  if (now && (now.state === 'failed' || now.given?.answer.kind === 'reading' || isOutside(now))) await show(now.key)
  else await onward()
}
/** A reading was taken at this very step: it stays up with its verdict until one goes on. */
watch(
  () => at.value?.key,
  (key) => {
    if (key !== undefined && chosen.value === null) chosen.value = key
  },
  { immediate: true },
)
const isAnswered = computed(() => at.value !== null && (at.value.state === 'done' || at.value.state === 'refused'))
const certifies = computed(() => {
  const { value: r } = run
  return r !== null && r.left === 0 && (r.procedure.from ?? r.procedure.id) === 'commission'
})
const finished = computed(() => run.value?.left === 0)
const print = () => window.print()
const before = computed(() => run.value?.steps[place.value - 1] ?? null)
</script>

<template>
  <div v-if="!run" class="stack sheet">
    <p>{{ property.facts!.jobs[jobId]?.follows ? t('run.gone') : t('run.unknown') }}</p>
    <p>
      <NuxtLink class="button" :to="`${base}/work`">{{ t('run.toVisit') }}</NuxtLink>
    </p>
  </div>
  <div v-else class="run" :class="{ listed }">
    <header class="head">
      <h1>{{ title }}</h1>
      <p v-if="thing" class="quiet">{{ thing }}</p>
      <p v-if="run.procedure.licensed" class="quiet">{{ t('procedures.licensed') }}</p>
    </header>
    <nav class="list" :aria-label="t('run.list')">
      <StepList :run="run" :work="work" :at="at?.key ?? null" @go="show" />
    </nav>
    <article ref="card" class="card" tabindex="-1" :aria-label="said?.says ?? t('run.finished')">
      <template v-if="at && said">
        <div class="what stack">
          <p class="quiet count">
            {{ t('run.step', { n: place + 1, all: run.steps.length }) }}
            <span v-if="at.step.hold" class="hold" :title="t('run.holdHow')">{{ t('run.hold') }}</span>
          </p>
          <h2>{{ said.says }}</h2>
          <p v-if="said.why" class="quiet why">{{ said.why }}</p>
          <p v-if="expected" class="expected">{{ expected }}</p>
          <p v-if="lastTime" class="quiet why">{{ lastTime }}</p>
          <StepTimer v-if="at.step.minutes && !isAnswered" :job="jobId" :step="at.key" :minutes="at.step.minutes" />
          <StepGiven v-if="at.given || isAnswered" :step="at" :work="work" />
        </div>
        <div class="foot stack">
          <WorkButton
            v-if="at.step.leads && !isAnswered && !fixed"
            :target="at.thing.target"
            :procedure="makingOf(property.site!, at.thing.target)"
          />
          <p v-if="at.state === 'locked'" class="doubtful">{{ t('run.locked', { step: lockSays }) }}</p>
          <StepControls
            v-else-if="!isAnswered && !fixed"
            :key="at.key"
            :step="at"
            :work="work"
            :zones="coils"
            :then="answered"
          />
        </div>
      </template>
      <div v-else class="what stack">
        <h2 class="fits">{{ t('run.finished') }}</h2>
      </div>
      <div class="row moves">
        <AppButton v-if="before" @click="show(before.key)">{{ t('run.back') }}</AppButton>
        <AppButton class="phone-only" :aria-expanded="listed" @click="listed = !listed">
          <List :size="20" />
          {{ listed ? t('run.hideList') : t('run.listShort') }}
        </AppButton>
        <AppButton class="desk-only" @click="print">{{ t('run.print') }}</AppButton>
        <AppButton v-if="isAnswered && !fixed" @click="work.takeBack(at!)">{{ t('run.takeBack') }}</AppButton>
        <AppButton v-if="at?.state === 'locked' && lock" look="primary" @click="show(lock.key)">
          {{ t('run.toHold') }}
        </AppButton>
        <AppButton v-else-if="at && !finished" :look="isAnswered ? 'primary' : undefined" @click="onward">
          {{ t('run.next') }}
        </AppButton>
        <AppButton v-if="certifies" :disabled="busy !== null" @click="printCertificate(jobId)">
          {{ t(busy === null ? 'prints.make' : 'prints.making') }}
        </AppButton>
        <NuxtLink v-if="finished" class="button primary" :to="`${base}/work`">{{ t('run.toVisit') }}</NuxtLink>
      </div>
    </article>
  </div>
</template>

<style scoped>
.run {
  display: grid;
  grid-template: auto 1fr / minmax(260px, 380px) minmax(0, 640px);
  grid-template-areas: 'head head' 'list card';
  gap: 16px 24px;
}
.head {
  grid-area: head;
}
.list {
  grid-area: list;
  max-height: calc(100vh - 190px);
  overflow: auto;
  border-top: 1px solid var(--rule);
}
.card {
  grid-area: card;
  display: grid;
  align-content: start;
  gap: 16px;
  outline: none;
}
.what {
  gap: 8px;
}
.what h2 {
  font-size: 24px;
  line-height: 1.25;
}
.why,
.expected {
  font-size: 17px;
}
.expected {
  font-weight: 600;
}
.hold {
  display: inline-block;
  margin-left: 8px;
  padding: 0 8px;
  border: 2px solid var(--fault);
  border-radius: 4px;
  color: var(--fault);
  font-weight: 700;
}
.moves {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
.moves {
  flex-wrap: nowrap;
}
.moves .button {
  flex: 1 1 auto;
  padding-inline: 10px;
}
@media print {
  .run {
    display: block;
  }
  .card {
    display: none;
  }
  .list {
    max-height: none;
  }
}
@media (max-width: 759px) {
  .run {
    grid-template: auto 1fr / 1fr;
    grid-template-areas: 'head' 'card';
    min-height: calc(100dvh - 52px - 56px - 36px);
    gap: 8px;
  }
  .head h1 {
    font-size: 17px;
  }
  .head p {
    font-size: 15px;
  }
  .list {
    display: none;
  }
  .run.listed {
    grid-template-areas: 'head' 'list' 'card';
    grid-template-rows: auto 1fr auto;
  }
  .run.listed .list {
    display: block;
    max-height: none;
  }
  .run.listed .what,
  .run.listed .foot {
    display: none;
  }
  .card {
    grid-template-rows: 1fr auto auto;
    align-content: stretch;
    gap: 12px;
  }
  .run.listed .card {
    grid-template-rows: auto;
    position: sticky;
    bottom: 56px;
    background: var(--paper);
  }
  .what {
    align-content: start;
  }
}
</style>
