<script setup lang="ts">
import { jobsInOrder, testKey, WIRING_STATES, type FieldTest, type ReadingValue } from '../../../../core/record'
import { commonOf, entries, getOrThrow, pathsOf, terminalsInOrder } from '../../../../core/site'
import { sectionsOf } from '../../../../core/strip'
import { useCompanyOdds } from '../../../composables/useCompanyOdds'
import { useHunt } from '../../../composables/useHunt'
import { useHuntAnswers } from '../../../composables/useHuntAnswers'
import { useHuntedJob } from '../../../composables/useHuntedJob'
import { useHuntWords } from '../../../composables/useHuntWords'
import { useHuntZones } from '../../../composables/useHuntZones'
import { useLeaving } from '../../../composables/useLeaving'
import { useMeter } from '../../../composables/useMeter'
import { dayText } from '../../../composables/useSpeaker'
import { keepHuntOptions } from '../../../lib/device'
import { huntOptionsFor, type HuntOptions } from '../../../lib/hunt-options'
import { optionsOf } from '../../../lib/options'
import { useProperty } from '../../../stores/property'
import { sayPart } from '../../../../words/part'

const route = useRoute()
const property = useProperty()
const site = computed(() => property.site!)
const { t, speaker } = useHuntWords(() => site.value.settings.units)
/** What a hunt is begun from: nothing, or the readings of the job that is shown. */
const starting = ref(false)
const taking = ref(false)

const { jobId, known, listed, writable, ended } = useHuntedJob()
const sweeps = computed(() => jobsInOrder(property.facts!, 'sweep').slice(0, 3))
/** Where the crew stands and the season are each job's own. */
const options = ref<HuntOptions>(huntOptionsFor(jobId.value))
watch(jobId, (id) => {
  options.value = huntOptionsFor(id)
})
watch(
  options,
  (now) => {
    if (jobId.value !== null) keepHuntOptions(jobId.value, now)
  },
  { deep: true },
)
const keeping = ref(false)
const odds = useCompanyOdds()
const { job, readings, failing, findings, report, working, stopped, failed, weigh, stop } = useHunt(
  () => jobId.value,
  () => keeping.value,
  () => ({ ...(JSON.parse(JSON.stringify(options.value)) as HuntOptions), odds: odds.value }),
)
const meterAtHand = useMeter()

const controller = computed(() => job.value?.controller ?? entries(site.value.controllers)[0]?.[0] ?? null)
const hasPath = computed(() => pathsOf(site.value).some((p) => p.decoders.length > 0))
const measurable = computed(() => controller.value !== null && commonOf(site.value, controller.value) !== null)
/** After a repair the zones are asked for again. */
const mendedAt = computed(() => findings.value.at(-1)?.[1].at ?? '')
const { zones, coils, practice, nameOf, tagOf, waterTest, valvesOf } = useHuntZones(
  () => controller.value,
  () => readings.value,
  ({ test, at }) => at > mendedAt.value || (report.value?.counted.includes(testKey(test)) ?? false),
)
/**
 * Every zone waters, and that nothing is wrong is believed more than anything else: a crew that wanted its zones back
 * may leave.
 */
const allRun = computed(
  () =>
    report.value?.end === 'open' &&
    report.value.nothing > 0.5 &&
    zones.value.length > 0 &&
    zones.value.every((z) => z.dry === false),
)
const sections = computed(() => {
  if (!job.value || !controller.value) return []
  const scene = property.sceneAt(job.value.ground_C, job.value.coil_C)
  const hanging = scene.hanging(controller.value)
  return sectionsOf(
    site.value,
    scene.network.wiring,
    controller.value,
    terminalsInOrder(site.value, controller.value).filter(
      (id) => hanging.get(id)?.landed && id !== commonOf(site.value, controller.value!),
    ),
    (terminal) => hanging.get(terminal)?.coils ?? [],
  )
})

/** A reading that may have slipped, where it was taken only once: it is asked for again before anything else. */
const slipped = computed(() => {
  const suspect = report.value?.suspect
  if (!suspect || !writable.value) return null
  const key = testKey(suspect.test)
  const taken = Object.values(property.facts!.readings).filter((r) => r.job === jobId.value && testKey(r.test) === key)
  const reading = readings.value.find((r) => testKey(r.reading.test) === key)?.reading
  return reading && taken.length < 2 ? { next: suspect, reading } : null
})
/** The trouble whose own test the crew would rather make; after each reading the most telling is asked for again. */
const preferred = ref<number | null>(null)
watch(report, () => {
  preferred.value = null
})
const next = computed(() => {
  const own = preferred.value === null ? null : (report.value?.troubles[preferred.value]?.next ?? null)
  return own ?? slipped.value?.next ?? report.value?.next ?? null
})
const nextCard = useTemplateRef<{ $el: HTMLElement }>('nextCard')
function prefer(trouble: number): void {
  preferred.value = trouble
  void nextTick(() => nextCard.value?.$el.scrollIntoView({ block: 'start', behavior: 'smooth' }))
}

const { dryTold, told, found, mended, strike, end, takenIn, read } = useHuntAnswers(
  () => jobId.value!,
  keeping,
  { readings, failing },
  { controller: () => controller.value!, zones, waterTest, valvesOf },
  speaker,
)
/** The likeliest part of a trouble was mended. */
const mendedOf = (trouble: number) => mended(report.value?.troubles[trouble]?.parts[0])
/** Things that are wrong for certain: what can be done about each. */
const namedParts = computed(() =>
  (report.value?.troubles ?? []).flatMap((x) => (x.named && x.wrong && x.parts[0] ? [x.parts[0]] : [])),
)
const { leaving, leave } = useLeaving(report, (part) => sayPart(part, site.value, speaker.value))
const answered = (value: ReadingValue) => {
  if (next.value) void read(next.value.test, value)
}
const reading = ref(false)
async function takeFromMeter(test: FieldTest): Promise<void> {
  reading.value = true
  const value = await meterAtHand.measure(test)
  reading.value = false
  if (value) await read(test, value)
}
function begin(along: boolean): void {
  taking.value = along
  starting.value = true
}
const begun = (id: string) => navigateTo({ query: { ...route.query, job: id } })
const show = (id: string) => navigateTo({ query: { ...route.query, job: id } }, { replace: true })
const log = computed(() => [...readings.value].filter((r) => r.reading.test.kind !== 'water').reverse())
const hasReadings = computed(() => readings.value.length > 0)
const titleOf = (id: string) => {
  const { title, controller: of, at } = property.facts!.jobs[id]!
  return t('diagnose.look', { title, controller: getOrThrow(site.value.controllers, of).name, day: dayText(at) })
}
</script>

<template>
  <div class="diagnose">
    <header class="head row">
      <div>
        <h1>{{ t('diagnose.title') }}</h1>
        <p class="quiet">
          {{ t('diagnose.care') }}
          <NuxtLink v-if="hasPath" :prefetch="false" :to="`/p/${route.params.id}/path?show=find`">
            {{ t('diagnose.path') }}
          </NuxtLink>
          <template v-if="odds !== null">{{ t('diagnose.ownOdds') }}</template>
        </p>
      </div>
      <div class="row chooser">
        <PickOne
          v-if="jobId"
          id="hunt-job"
          :aria-label="t('diagnose.hunts')"
          :model-value="jobId"
          :options="listed.map((id) => ({ value: id, label: titleOf(id) }))"
          @update:model-value="show($event)"
        />
        <AppButton v-if="property.viewed === null && controller" :class="{ primary: !jobId }" @click="begin(false)">
          {{ jobId ? t('diagnose.another') : t('diagnose.start') }}
        </AppButton>
      </div>
    </header>
    <p v-if="!known" class="sheet quiet" aria-live="polite">{{ t('diagnose.looking') }}</p>
    <section v-else-if="!job" class="sheet">
      <h2>{{ t('diagnose.none') }}</h2>
      <p>{{ t('diagnose.noneHow') }}</p>
      <template v-if="sweeps.length > 0">
        <p>{{ t('diagnose.lookHow') }}</p>
        <ul class="sweeps">
          <li v-for="id in sweeps" :key="id">
            <NuxtLink :to="{ query: { ...route.query, job: id } }">
              {{ titleOf(id) }}
            </NuxtLink>
          </li>
        </ul>
      </template>
    </section>
    <p v-else-if="!measurable" class="sheet">{{ t('diagnose.noCommon') }}</p>
    <div v-else class="columns">
      <HatchPatterns />
      <div class="stack main">
        <HuntSymptoms
          v-if="writable"
          :key="`${jobId} ${mendedAt}`"
          :zones="zones"
          :controller="controller!"
          :again="mendedAt !== ''"
          @dry="dryTold"
          @told="told"
          @found="found"
        />
        <p v-if="failed" class="sheet fault" role="alert">{{ t('diagnose.failed', { why: failed }) }}</p>
        <HuntStand
          v-if="report && hasReadings"
          :report="report"
          :site="site"
          :controller="controller!"
          :speaker="speaker"
          :writable="writable"
          :stale="working"
          :all-run="allRun"
          :slipped="slipped?.reading ?? null"
          :can-go-on="!writable && property.viewed === null"
          :leaving="leaving"
          @mended="mendedOf"
          @left="leave"
          @go-on="begin(true)"
        />
        <RepairOptions
          v-for="part in hasReadings ? namedParts : []"
          :key="part.key"
          :controller="controller!"
          :where="part.where"
          :part="sayPart(part.where, site, speaker)"
          :writable="writable"
          @mended="(how) => mended(part, how)"
        />
        <HuntWeighing
          v-if="hasReadings && !report && (working || keeping || stopped)"
          :stopped="stopped && !working"
          @stop="stop"
          @again="weigh"
        />
        <HuntNext
          v-if="next && hasReadings"
          ref="nextCard"
          :next="next"
          :site="site"
          :controller="controller!"
          :speaker="speaker"
        >
          <template v-if="writable">
            <template v-if="failing.size > 0">
              <p>
                <strong>
                  {{ t('diagnose.inState', { states: [...failing].map((f) => t(`symptom.states.${f}`)).join(', ') }) }}
                </strong>
              </p>
              <PickRadio
                v-model="takenIn"
                :label="t('diagnose.takenIn')"
                :options="optionsOf(WIRING_STATES, (f) => t(`symptom.states.${f}`))"
              />
            </template>
            <AppButton
              v-if="meterAtHand.gives(next.test)"
              look="primary"
              :disabled="reading || working"
              @click="takeFromMeter(next.test)"
            >
              {{ t(meterAtHand.gives(next.test) === 'figure' ? 'diagnose.take' : 'diagnose.takeSimulated') }}
            </AppButton>
            <HuntAnswer
              :test="next.test"
              :site="site"
              :meter="job.meter"
              :speaker="speaker"
              :zones="coils"
              @value="answered"
            />
            <AppButton v-if="preferred !== null" look="plain" @click="preferred = null">
              {{ t('diagnose.backToBest') }}
            </AppButton>
          </template>
        </HuntNext>
        <HuntRound
          v-if="report && report.round.nearest.length > 0"
          :report="report"
          :site="site"
          :speaker="speaker"
          :writable="writable"
          @measure="prefer"
        />
        <div v-if="writable" class="stack rest">
          <HuntOther
            :site="site"
            :controller="controller!"
            :meter="job.meter"
            :speaker="speaker"
            :zones="coils"
            @value="read"
          />
          <HuntMeter
            :meter="meterAtHand"
            :property="String(route.params.id)"
            :ground_C="job.ground_C"
            :faults="practice"
          />
          <HuntSeason v-model="options" :site="site" />
        </div>
        <EndJob
          v-if="job.kind === 'hunt' && hasReadings && (writable || ended)"
          class="ending"
          kind="hunt"
          :before="t('diagnose.end')"
          :closed="ended?.dialBack ?? null"
          @end="end"
        >
          <p class="quiet">{{ t('diagnose.endHow') }}</p>
        </EndJob>
      </div>
      <div class="stack side">
        <HuntBeliefs
          v-if="report && hasReadings"
          class="likely"
          :report="report"
          :site="site"
          :controller="controller!"
          :sections="sections"
          :speaker="speaker"
          :writable="writable"
          :asked="next && testKey(next.test)"
          :name-of="nameOf"
          :tag-of="tagOf"
          :leaving="leaving"
          @measure="prefer"
          @mended="mendedOf"
          @left="leave"
        />
        <HuntLog
          v-if="log.length > 0 || findings.length > 0"
          class="log"
          :readings="log"
          :findings="findings"
          :site="site"
          :speaker="speaker"
          :writable="writable"
          @strike="(id) => strike(id, t('diagnose.struck'))"
        />
      </div>
    </div>
    <LazyBeginJob
      v-if="starting"
      v-model:visible="starting"
      kind="hunt"
      :takes="taking ? jobId : null"
      :heading="t('diagnose.start')"
      :name-label="t('diagnose.titleField')"
      :named="t('diagnose.defaultTitle')"
      @begun="begun"
    />
  </div>
</template>

<style scoped>
.diagnose {
  display: grid;
  gap: 16px;
  grid-template-columns: minmax(0, 1fr);
}
.head {
  justify-content: space-between;
  align-items: flex-start;
}
.chooser {
  flex: 0 1 auto;
}
.chooser :deep(.input) {
  width: auto;
  max-width: 320px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  gap: 16px;
  align-items: start;
}
h2 {
  font-size: 17px;
}
/* One column: what is likely comes before what else could be done, the readings last. */
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .columns > .stack {
    display: contents;
  }
  .likely {
    order: 1;
  }
  .rest {
    order: 2;
  }
  .ending {
    order: 3;
  }
  .log {
    order: 4;
  }
}
@media (max-width: 759px) {
  .chooser {
    width: 100%;
  }
  .chooser .pick-one {
    flex: 1 1 0;
  }
  .chooser :deep(.input) {
    width: 100%;
    max-width: none;
  }
  .chooser .button {
    flex: none;
  }
}
</style>
