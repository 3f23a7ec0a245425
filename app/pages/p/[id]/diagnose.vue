<script setup lang="ts">
import { jobsInOrder, standingReadings, type FieldTest, type ReadingValue } from '../../../../core/record'
import {
  byTag,
  commonOf,
  entries,
  getOrThrow,
  terminalEnd,
  terminalsInOrder,
  type DeviceId,
  type End,
  type TerminalId,
  stationAt,
} from '../../../../core/site'
import { sectionsOf } from '../../../../core/strip'
import { sayPart, sayStand, sayStrained, sayTelling } from '../../../../words/hunt'
import { useJobFacts } from '../../../composables/useJobFacts'
import { useHunt } from '../../../composables/useHunt'
import { useHuntWords } from '../../../composables/useHuntWords'
import { useMeter } from '../../../composables/useMeter'
import { dayText } from '../../../composables/useSpeaker'
import { huntOptionsOf, keepHuntOptions } from '../../../lib/device'
import type { HuntOptions } from '../../../lib/hunt-options'
import { useProperty } from '../../../stores/property'

const route = useRoute()
const property = useProperty()
const site = computed(() => property.site!)
const { t, speaker } = useHuntWords(() => site.value.settings.units)
const starting = ref(false)

/** Hunts that go on; what was ended is looked at. */
const open = computed(() =>
  jobsInOrder(property.facts!, 'hunt').filter(
    (id) => !Object.values(property.facts!.closings).some((c) => c.job === id),
  ),
)
const jobId = computed(() => {
  const asked = route.query.job
  if (typeof asked === 'string' && property.facts!.jobs[asked]) return asked
  return open.value[0] ?? null
})
/** The hunts to choose from, with the one that is shown where it is another job. */
const listed = computed(() => {
  const hunts = jobsInOrder(property.facts!, 'hunt')
  return jobId.value === null || hunts.includes(jobId.value) ? hunts : [jobId.value, ...hunts]
})
const sweeps = computed(() => jobsInOrder(property.facts!, 'sweep').slice(0, 3))
const options = ref<HuntOptions>({
  from: null,
  helper: false,
  circumstances: { digging: [], flooding: [], rodents: [], lightning: false, othersWork: false },
})
watch(
  jobId,
  (id) => {
    const kept = id === null ? null : huntOptionsOf(id)
    if (kept) options.value = kept as typeof options.value
  },
  { immediate: true },
)
watch(
  options,
  (now) => {
    if (jobId.value !== null) keepHuntOptions(jobId.value, now)
  },
  { deep: true },
)
const keepingSymptoms = ref(false)
const { job, readings, findings, report, working, stopped, failed, weigh, stop } = useHunt(
  () => jobId.value,
  () => keepingSymptoms.value,
  () => JSON.parse(JSON.stringify(options.value)) as typeof options.value,
)
const meterAtHand = useMeter()

const controller = computed(() => job.value?.controller ?? entries(site.value.controllers)[0]?.[0] ?? null)
const measurable = computed(() => controller.value !== null && commonOf(site.value, controller.value) !== null)
const tagOf = (terminal: string) =>
  controller.value ? getOrThrow(getOrThrow(site.value.controllers, controller.value).terminals, terminal).tag : terminal
const stationOf = (terminal: TerminalId) =>
  controller.value === null ? undefined : stationAt(site.value, { controller: controller.value, terminal })?.[1]
const terminalTest = (terminal: TerminalId): FieldTest => ({
  kind: 'water',
  at: terminalEnd(controller.value!, terminal) as Extract<End, { kind: 'terminal' }>,
})
/** After a repair the zones are asked for again. */
const mendedAt = computed(() => findings.value.at(-1)?.[1].at ?? '')
const stations = computed(() =>
  controller.value === null
    ? []
    : terminalsInOrder(site.value, controller.value).flatMap((terminal) => {
        const station = stationOf(terminal)
        if (!station) return []
        const told = readings.value
          .filter(
            (r) =>
              r.reading.test.kind === 'water' &&
              r.reading.test.at.terminal === terminal &&
              r.reading.at > mendedAt.value,
          )
          .at(-1)?.reading.value
        return [
          {
            terminal,
            tag: tagOf(terminal),
            name: station.name,
            dry: told?.kind === 'waters' ? !station.valves.some((v) => told.valves.includes(v)) : null,
          },
        ]
      }),
)
/**
 * Every zone waters, and that nothing is wrong is believed more than anything else: a crew that wanted its zones back
 * may leave.
 */
const allRun = computed(
  () =>
    report.value?.end === 'open' &&
    report.value.nothing > 0.5 &&
    stations.value.length > 0 &&
    stations.value.every((s) => s.dry === false),
)
/** Every coil of the controller by the zone's name, for what waters and for tests in boxes. */
const zones = computed((): { device: DeviceId; name: string }[] => [
  ...Object.values(site.value.stations)
    .filter((s) => s.controller === controller.value)
    .sort((a, b) => byTag(tagOf(a.terminal), tagOf(b.terminal)))
    .flatMap((s) => s.valves.map((device) => ({ device, name: s.name }))),
  ...Object.values(site.value.pointsOfConnection)
    .filter((p) => p.terminal?.controller === controller.value)
    .flatMap((p) =>
      p.masterValve
        ? [{ device: p.masterValve, name: getOrThrow(site.value.devices, p.masterValve).name || p.name }]
        : [],
    ),
])
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
/** Faults that a simulated property can hide, by names of this one. */
const practice = computed(() =>
  zones.value.slice(0, 40).flatMap(({ device }) => {
    const tag = getOrThrow(site.value.devices, device).tag ?? device
    return [
      `coil-open ${tag}`,
      `joint-open ${tag}.a`,
      `joint-series ${tag}.b 40`,
      `coil-part ${tag} 0.4`,
      `stuck-shut ${tag}`,
    ]
  }),
)

const written = useJobFacts(() => jobId.value!)
async function told(dry: readonly TerminalId[], rest: boolean): Promise<void> {
  keepingSymptoms.value = true
  try {
    for (const s of stations.value) {
      const isDry = dry.includes(s.terminal)
      if ((isDry || rest) && s.dry !== isDry)
        await written.read(terminalTest(s.terminal), {
          kind: 'waters',
          valves: isDry ? [] : stationOf(s.terminal)!.valves.slice(),
        })
    }
  } finally {
    keepingSymptoms.value = false
  }
}
const strike = (id: string) => written.strike(id, t('diagnose.struck'))
async function mended(): Promise<void> {
  const named = report.value?.named ?? report.value?.parts[0]
  if (!named) return
  const { where, p: belief } = named
  await written.find({ where, says: sayPart(where, site.value, speaker.value), belief, how: '' })
}
const answered = (value: ReadingValue) => {
  if (report.value?.next) void written.read(report.value.next.test, value)
}
const nameOf = (terminal: string) => stationOf(terminal as TerminalId)?.name ?? ''
const reading = ref(false)
async function takeFromMeter(test: FieldTest): Promise<void> {
  reading.value = true
  const value = await meterAtHand.measure(test)
  reading.value = false
  if (value) await written.read(test, value)
}
const begun = (id: string) => navigateTo({ query: { ...route.query, job: id } })
const show = (id: string) => navigateTo({ query: { ...route.query, job: id } }, { replace: true })
const log = computed(() => [...readings.value].filter((r) => r.reading.test.kind !== 'water').reverse())
/** A job that has closed or was taken elsewhere is looked at; it takes no more readings. */
const writable = computed(() => jobId.value !== null && open.value.includes(jobId.value) && property.viewed === null)
const hasReadings = computed(() => jobId.value !== null && standingReadings(property.facts!, jobId.value).length > 0)
</script>

<template>
  <div class="diagnose">
    <header class="head row">
      <div>
        <h1>{{ t('diagnose.title') }}</h1>
        <p class="quiet">{{ t('diagnose.care') }}</p>
      </div>
      <div class="row chooser">
        <PickOne
          v-if="jobId"
          id="hunt-job"
          :aria-label="t('diagnose.hunts')"
          :model-value="jobId"
          :options="
            listed.map((id) => ({
              value: id,
              label: `${property.facts!.jobs[id]!.title}, ${getOrThrow(site.controllers, property.facts!.jobs[id]!.controller).name}, ${dayText(property.facts!.jobs[id]!.at)}`,
            }))
          "
          @update:model-value="show($event)"
        />
        <AppButton v-if="property.viewed === null && controller" :class="{ primary: !jobId }" @click="starting = true">
          {{ jobId ? t('diagnose.another') : t('diagnose.start') }}
        </AppButton>
      </div>
    </header>
    <section v-if="!job" class="sheet">
      <h2>{{ t('diagnose.none') }}</h2>
      <p>{{ t('diagnose.noneHow') }}</p>
      <template v-if="sweeps.length > 0">
        <p>{{ t('diagnose.lookHow') }}</p>
        <ul class="sweeps">
          <li v-for="id in sweeps" :key="id">
            <NuxtLink :to="{ query: { ...route.query, job: id } }">
              {{
                t('diagnose.look', {
                  title: property.facts!.jobs[id]!.title,
                  controller: getOrThrow(site.controllers, property.facts!.jobs[id]!.controller).name,
                  day: dayText(property.facts!.jobs[id]!.at),
                })
              }}
            </NuxtLink>
          </li>
        </ul>
      </template>
    </section>
    <p v-else-if="!measurable" class="sheet">{{ t('diagnose.noCommon') }}</p>
    <div v-else class="columns">
      <div class="stack main">
        <HuntSymptoms
          v-if="writable"
          :key="`${jobId} ${mendedAt}`"
          :stations="stations"
          :again="mendedAt !== ''"
          @told="told"
        />
        <p v-if="failed" class="sheet fault" role="alert">{{ t('diagnose.failed', { why: failed }) }}</p>
        <section v-if="report && hasReadings" class="sheet stand" :class="{ stale: working }" aria-live="polite">
          <p class="verdict">
            <strong>{{ sayStand(report, site, speaker) }}</strong>
          </p>
          <p v-if="allRun">{{ t('hunt.allRun') }}</p>
          <p v-if="report.telling" class="quiet">{{ sayTelling(report.telling, site, speaker) }}</p>
          <p v-if="report.strained" class="fault">{{ sayStrained(report, site, controller!, speaker) }}</p>
          <div v-if="writable && report.named" class="row">
            <AppButton look="primary" @click="mended">{{ t('diagnose.mended') }}</AppButton>
            <span class="quiet">{{ t('diagnose.mendedHow') }}</span>
          </div>
        </section>
        <HuntWeighing
          v-if="!report && (working || keepingSymptoms || stopped)"
          :stopped="stopped && !working"
          @stop="stop"
          @again="weigh"
        />
        <HuntNext
          v-if="report?.next && hasReadings"
          :next="report.next"
          :site="site"
          :controller="controller!"
          :speaker="speaker"
        >
          <template v-if="writable">
            <AppButton
              v-if="meterAtHand.gives(report.next.test)"
              look="primary"
              :disabled="reading || working"
              @click="takeFromMeter(report.next.test)"
            >
              {{ t(meterAtHand.gives(report.next.test) === 'figure' ? 'diagnose.take' : 'diagnose.takeSimulated') }}
            </AppButton>
            <HuntAnswer
              :test="report.next.test"
              :site="site"
              :meter="job.meter"
              :speaker="speaker"
              :zones="zones"
              @value="answered"
            />
          </template>
        </HuntNext>
        <template v-if="writable">
          <HuntOther
            :site="site"
            :controller="controller!"
            :meter="job.meter"
            :speaker="speaker"
            :zones="zones"
            @value="written.read"
          />
          <HuntMeter :meter="meterAtHand" :property="String(route.params.id)" :faults="practice" />
          <HuntSeason v-model="options" :site="site" />
        </template>
      </div>
      <div class="stack side">
        <template v-if="report && hasReadings">
          <HuntBeliefs :report="report" :site="site" :speaker="speaker" />
          <HuntStrips :sections="sections" :report="report" :site="site" :name-of="nameOf" :tag-of="tagOf" />
        </template>
        <HuntLog
          v-if="log.length > 0 || findings.length > 0"
          :readings="log"
          :findings="findings"
          :site="site"
          :speaker="speaker"
          :writable="writable"
          @strike="strike"
        />
      </div>
    </div>
    <LazyBeginJob
      v-if="starting"
      v-model:visible="starting"
      kind="hunt"
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
.stand {
  border-left: 5px solid var(--copper);
}
.verdict {
  font-size: 18px;
}
.stale {
  border-left-color: var(--rule);
}
h2 {
  font-size: 17px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
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
