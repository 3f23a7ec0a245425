<script setup lang="ts">
import { sectionsOf } from '../../../../core/strip'
import { temperatureText } from '../../../../core/quantity'
import { jobsThatRead } from '../../../../core/record'
import { entries, getOrThrow, stationsByNumber, tagAndName, type ControllerId } from '../../../../core/site'
import { useConclusion } from '../../../composables/useConclusion'
import { NO_JOB, useShownJob } from '../../../composables/useShownJob'
import { dayText, unbroken, useSpeaker } from '../../../composables/useSpeaker'
import { useSweep } from '../../../composables/useSweep'
import { useProperty } from '../../../stores/property'

const route = useRoute()
const property = useProperty()
const site = computed(() => property.site!)
const { t, speaker } = useSpeaker(() => site.value.settings.units)
const selected = computed(() => (typeof route.query.station === 'string' ? route.query.station : null))
const controllers = computed(() => entries(site.value.controllers))
/** The controller of the station asked for, the one asked for, that of the job asked for, or the first. */
const controller = computed((): ControllerId | null => {
  const tagAsked = selected.value?.split(':')[0] ?? route.query.controller
  const jobAsked = typeof route.query.job === 'string' ? property.facts!.jobs[route.query.job]?.controller : undefined
  return controllers.value.find(([, c]) => c.tag === tagAsked)?.[0] ?? jobAsked ?? controllers.value[0]?.[0] ?? null
})
const jobId = useShownJob(() => controller.value)
const { job, meter, scene, rows } = useSweep(
  () => controller.value,
  () => jobId.value,
)
const { report, working, tells, suspects } = useConclusion(() => jobId.value)
const sections = computed(() => {
  if (!scene.value || !controller.value) return []
  const hanging = scene.value.hanging(controller.value)
  return sectionsOf(
    site.value,
    scene.value.network.wiring,
    controller.value,
    rows.value.map((r) => r.terminal),
    (terminal) => hanging.get(terminal)?.coils ?? [],
  )
})
const isOnPath = computed(() => controller.value !== null && stationsByNumber(site.value, controller.value).length > 0)
/** A station of the path that is chosen, by its number. */
const onPath = computed(() => {
  const asked = selected.value?.slice(tag.value.length + 1) ?? ''
  return isOnPath.value && !chosen.value && asked.startsWith('n') ? asked : null
})
const tag = computed(() => (controller.value ? getOrThrow(site.value.controllers, controller.value).tag : ''))
const chosen = computed(() => rows.value.find((r) => `${tag.value}:${r.tag}` === selected.value) ?? null)
const jobs = computed(() =>
  jobsThatRead(property.facts!).filter((id) => property.facts!.jobs[id]!.controller === controller.value),
)
const show = (id: string) => navigateTo({ query: { ...route.query, job: id } }, { replace: true })
const select = (row: string) => navigateTo({ query: { ...route.query, station: `${tag.value}:${row}` } })
const close = () => navigateTo({ query: { ...route.query, station: undefined } })
const at_C = computed(() => unbroken(temperatureText(scene.value?.climate.ground_C ?? 20, site.value.settings.units)))
</script>

<template>
  <div v-if="controller && scene" class="threads-page" :class="{ chosen: chosen || onPath }">
    <div class="picture stack">
      <header class="head">
        <div>
          <h1>{{ t('threads.title', { name: getOrThrow(site.controllers, controller).name }) }}</h1>
          <p class="quiet">
            {{ site.about.name }} ·
            {{ t(rows.length === 0 ? 'threads.subPath' : job ? 'threads.subJob' : 'threads.sub', { at_C }) }}
          </p>
        </div>
        <div class="row chooser">
          <PickOne
            v-if="rows.length > 0"
            id="shown-job"
            :aria-label="t('threads.showing')"
            :model-value="jobId ?? NO_JOB"
            :options="[
              { value: NO_JOB, label: t('threads.noReadings') },
              ...jobs.map((id) => ({
                value: id,
                label: `${property.facts!.jobs[id]!.title}, ${dayText(property.facts!.jobs[id]!.at)}`,
              })),
            ]"
            @update:model-value="show($event)"
          />
          <PickOne
            v-if="controllers.length > 1"
            :aria-label="t('test.controller')"
            :model-value="tag"
            :options="controllers.map(([id, c]) => ({ value: c.tag, label: tagAndName(c) }))"
            @update:model-value="navigateTo({ query: { controller: $event } })"
          />
          <NuxtLink v-if="rows.length > 0" class="button" :to="`/p/${route.params.id}/test`">
            {{ t('threads.start') }}
          </NuxtLink>
        </div>
      </header>
      <p v-if="working && !report" class="quiet" aria-live="polite">{{ t('because.weighing') }}</p>
      <LazyConclusionList
        v-if="report && tells"
        :report="report"
        :site="site"
        :controller="controller"
        :speaker="speaker"
        :job="jobId"
        fold
      />
      <LazyPathThreads v-if="isOnPath" :controller="controller" :chosen="onPath" @select="select" />
      <p v-if="rows.length === 0 && !isOnPath" class="sheet">{{ t('threads.noTerminals') }}</p>
      <ThreadStack
        v-else-if="rows.length > 0"
        :sections="sections"
        :rows="rows"
        :selected="chosen?.tag ?? null"
        :units="site.settings.units"
        :suspects="suspects"
        :site="site"
        :common-colour="site.settings.commonColour"
        :measured="job !== null"
        @select="select"
      />
    </div>
    <aside class="panel" :aria-label="t('detail.why')">
      <template v-if="chosen">
        <AppButton look="plain" class="back" @click="close">‹ {{ t('app.back') }}</AppButton>
        <LazyStationDetail
          :key="`${chosen.terminal}`"
          :row="chosen"
          :controller="controller"
          :scene="scene"
          :meter="meter"
          :speaker="speaker"
        />
      </template>
      <template v-else-if="onPath">
        <AppButton look="plain" class="back" @click="close">‹ {{ t('app.back') }}</AppButton>
        <LazyPathThreadPanel :key="onPath" :controller="controller" :chosen="onPath" />
      </template>
      <p v-else class="quiet">{{ t('threads.choose') }}</p>
    </aside>
  </div>
  <p v-else class="sheet row">
    {{ t('threads.noController') }}
    <NuxtLink class="button primary" :to="`/p/${route.params.id}/plan`">{{ t('plan.begin') }}</NuxtLink>
  </p>
</template>

<style scoped>
.threads-page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 20px;
  margin: -16px -20px -32px 0;
}
.picture {
  padding: 16px 0 32px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: flex-start;
  flex-wrap: wrap;
}
.head > :first-child {
  flex: 1 1 300px;
}
.chooser {
  gap: 8px;
  flex-wrap: nowrap;
}
.chooser .pick-one {
  max-width: 240px;
}
.chooser .button {
  flex: none;
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
.back {
  display: none;
  margin-left: -8px;
}
@media (max-width: 1080px) {
  .threads-page {
    grid-template-columns: minmax(0, 1fr) 264px;
  }
}
@media (max-width: 759px) {
  .threads-page {
    grid-template-columns: 1fr;
    margin: 0;
  }
  .picture {
    padding: 0;
  }
  .head > :first-child {
    flex-basis: 100%;
  }
  .chooser {
    width: 100%;
    flex-wrap: wrap;
  }
  .chooser .pick-one {
    flex: 1 0 auto;
    max-width: none;
  }
  .panel {
    display: none;
  }
  .chosen .picture {
    display: none;
  }
  .chosen .panel {
    display: block;
    position: static;
    height: auto;
    border: 0;
    padding: 4px 0;
    background: none;
  }
  .back {
    display: inline-flex;
  }
}
</style>
