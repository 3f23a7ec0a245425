<script setup lang="ts">
import type { EndOf } from '../../../../../core/cores'
import { peopleOf } from '../../../../../core/record'
import { useCores } from '../../../../composables/useCores'
import { timeText } from '../../../../composables/useSpeaker'
import { usePrinting } from '../../../../composables/usePrinting'
import { usePrintWords } from '../../../../composables/usePrintWords'
import { coreFlagsDoc, type FlaggedEnd } from '../../../../print/core-flags'
import { draftOf, keepDraft } from '../../../../lib/device'

/** A cable that is told apart, one step at a time at each of its two ends, by one person or by two. */
const route = useRoute()
const jobId = computed(() => String(route.params.job))
const work = useCores(() => jobId.value)
const { property, t, session, sorting, placeName, placeTag, cableName, trials, naming, stepTitle } = work
usePrintWords(() => property.site!.settings.units)
const { paper, busy, print } = usePrinting(() => (property.site!.settings.market === 'metric' ? 'A4' : 'LETTER'))
const base = computed(() => `/p/${String(route.params.id)}`)
const fixed = computed(() => property.viewed !== null)

/** At which end this device is; kept on it. */
type Stand = EndOf | 'both'
const stand = ref<Stand>((draftOf(`${jobId.value}.at`) as Stand | null) ?? 'both')
watch(stand, (now) => keepDraft(`${jobId.value}.at`, now))
const stands = computed(() => [
  { value: 'first' as Stand, label: t('cores.atFirst', { place: placeTag('first') }) },
  { value: 'second' as Stand, label: t('cores.atSecond', { place: placeTag('second') }) },
  { value: 'both' as Stand, label: t('cores.atBoth') },
])
const isMine = (at: EndOf | undefined) => at === undefined || stand.value === 'both' || at === stand.value
const mine = computed(() => session.value?.steps.find((s) => isMine('at' in s ? s.at : undefined)) ?? null)
const theirs = computed(() => session.value?.steps.find((s) => 'at' in s && !isMine(s.at)) ?? null)
const byVoice = ref(false)
watch(theirs, () => {
  byVoice.value = false
})

const others = computed(() => property.others.filter((o) => o.doing.job === jobId.value))
const people = computed(() => {
  const visit = property.facts!.jobs[jobId.value]?.visit
  const named = visit ? peopleOf(property.facts!, visit).length : 1
  return Math.max(1, named, 1 + others.value.length)
})
const isDone = computed(() => session.value?.steps.length === 0)
const left = computed(() => session.value!.found.unnamed.first.length)
const written = ref(false)
async function writeDown(): Promise<void> {
  if (!naming.value) return
  await property.change(naming.value)
  written.value = true
}

/** Every end that is named, with what it is at the other one. */
function flagsOf(end: EndOf): FlaggedEnd {
  const other = end === 'first' ? 'second' : 'first'
  const { named } = session.value!.found
  return {
    place: placeName(end),
    flags: [...named]
      .sort((a, b) => a[end] - b[end])
      .map((m) => ({
        here: work.coreName(end, m[end]),
        there: t('cores.flagThere', { place: work.placeTag(other), core: work.coreName(other, m[other]) }),
      })),
  }
}
const printFlags = () =>
  print(
    'flags',
    () =>
      coreFlagsDoc(cableName.value, [flagsOf('first'), flagsOf('second')], {
        paper: paper.value,
        say: (key, params = {}) => t(key, params),
      }),
    `${property.site!.about.name} ${cableName.value} flags`,
  )
</script>

<template>
  <div v-if="!sorting || !session" class="sheet stack">
    <p>{{ t('cores.notThere') }}</p>
    <p>
      <NuxtLink class="button" :to="`${base}/cores`">{{ t('cores.all') }}</NuxtLink>
    </p>
  </div>
  <div v-else class="page">
    <header class="stack head">
      <h1>
        {{
          t('cores.heading', {
            cable: cableName,
            first: placeName('first'),
            second: placeName('second'),
            count: sorting.cores,
          })
        }}
      </h1>
      <PickBar v-if="!isDone" v-model="stand" :label="t('cores.at')" :options="stands" />
      <p v-for="o in others" :key="o.device" :class="o.isSilent ? 'doubtful' : 'quiet'" role="status">
        {{
          o.isSilent
            ? t('cores.silent', { name: o.name || t('people.nameless'), at: timeText(o.at) })
            : t('cores.together', { name: o.name || t('people.nameless') })
        }}
      </p>
    </header>
    <div class="stack steps">
      <template v-if="!fixed">
        <CoresStep v-if="mine" :work="work" :step="mine" :job="jobId" :people="people" />
        <section v-else-if="theirs" class="sheet stack" aria-live="polite">
          <h2>{{ t('cores.wait', { step: stepTitle(theirs) }) }}</h2>
          <p class="quiet">{{ t('cores.waitVoice') }}</p>
          <p v-if="!byVoice">
            <AppButton @click="byVoice = true">{{ t('cores.waitShow') }}</AppButton>
          </p>
        </section>
        <CoresStep
          v-if="!mine && theirs && byVoice"
          :work="work"
          :step="theirs"
          :job="jobId"
          :people="people"
          by-voice
        />
      </template>
      <section v-if="isDone" class="sheet stack">
        <p v-if="left > 0" class="doubtful">{{ t('cores.notAll', { count: left }) }}</p>
        <p class="quiet">{{ t('cores.writes') }}</p>
        <p v-if="written" class="fits" role="status">{{ t('cores.written') }}</p>
        <p v-else-if="naming === null" class="fault">{{ t('cores.noFit') }}</p>
        <p v-else-if="!fixed">
          <AppButton look="primary" @click="writeDown">{{ t('cores.write') }}</AppButton>
        </p>
        <p>
          <AppButton :disabled="busy !== null" @click="printFlags">{{ t('cores.flags') }}</AppButton>
        </p>
      </section>
      <p v-for="doubt in session.found.doubts" :key="doubt" class="sheet fault" role="alert">
        {{ t(`cores.doubt.${doubt}`) }}
      </p>
      <p v-if="trials.length > 0 && !fixed">
        <AppButton look="plain" @click="work.takeBack">{{ t('cores.takeBack') }}</AppButton>
      </p>
    </div>
    <section v-if="session.method" class="stack table">
      <h2>{{ t('cores.found') }}</h2>
      <p class="quiet">{{ t('cores.count', { named: session.found.named.length, count: sorting.cores }) }}</p>
      <CoresTable :work="work" />
    </section>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 600px) minmax(260px, 420px);
  gap: 16px 24px;
  align-items: start;
}
.head {
  grid-column: 1 / -1;
}
@media (max-width: 759px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .head :deep(.pick-bar button) {
    min-height: 48px;
  }
}
</style>
