<script setup lang="ts">
import { shipped, toldOf, type Run } from '../../../../../core/procedure'
import { inUnit, lengthText, toMetres } from '../../../../../core/quantity'
import { stationTag, USUAL_WET_CHECK, type WetStation, type WetStop } from '../../../../../core/schedule'
import { getOrThrow } from '../../../../../core/site'
import { sayOption, sayThing } from '../../../../../words/procedure'
import { useAskedController } from '../../../../composables/useAskedController'
import { useRuns } from '../../../../composables/useRuns'
import { useSchedulePage, useWetWalk } from '../../../../composables/useSchedule'
import { dayText, unbroken } from '../../../../composables/useSpeaker'
import { useWorkWords } from '../../../../composables/useWorkWords'
import type { TableColumn } from '../../../../lib/table'

/** A wet check before it is begun: its walk, how long each station runs, and what was seen on those before. */
const { site, property, t, fixed } = useSchedulePage()
const units = computed(() => site.value.settings.units)
const { speaker } = useWorkWords(() => units.value)
const route = useRoute()
const runs = useRuns()

const { controller } = useAskedController()
const rules = ref({ ...USUAL_WET_CHECK })
const { found: walk } = useWetWalk(
  () => controller.value,
  () => rules.value,
)
const said = (s: WetStation) =>
  t('schedule.wet.minutes', {
    station: stationTag(site.value, controller.value!, getOrThrow(site.value.stations, s.station)),
    minutes: s.minutes,
  })
const pace = (m: number) => String(Math.round(inUnit(m, units.value.length)))
const percent = computed(() =>
  walk.value && walk.value.walk_m > 0 ? Math.ceil((1 - walk.value.bound_m / walk.value.walk_m) * 1000 - 1e-6) / 10 : 0,
)
const columns = computed<TableColumn<WetStop>[]>(() => [
  { key: 'box', header: t('schedule.wet.box'), figure: true },
  { key: 'from', header: `${t('schedule.wet.from')}, ${units.value.length}`, figure: true },
  { key: 'stations', header: t('schedule.wet.stations') },
])
const WELL = 'waters_well'
/** What was seen, zone by zone, where it was not all well. */
const seenOn = (run: Run) =>
  run.steps.flatMap(({ step, thing, given }) => {
    if (step.id !== 'zone' || given?.answer.kind !== 'chosen' || given.answer.option === WELL) return []
    const { option } = given.answer
    const chosen = step.does.kind === 'choice' && step.does.options.find((o) => o.id === option)
    const told = toldOf(site.value, thing)
    return [
      `${sayThing(site.value, thing, told, speaker.value)}: ${chosen ? sayOption(chosen, speaker.value) : option}`,
    ]
  })
const before = computed(() =>
  [...runs.value.values()]
    .filter(
      (run) =>
        run.procedure.id === 'wet_check' &&
        run.target.kind === 'controller' &&
        run.target.controller === controller.value,
    )
    .map((run) => ({ run, seen: seenOn(run), at: property.facts!.jobs[run.job]!.at })),
)
</script>

<template>
  <div class="stack page">
    <ControllerTitle :title="t('places.wet')" />
    <p v-if="controller === null" class="sheet">{{ t('schedule.none') }}</p>
    <template v-else>
      <p class="quiet">{{ t('schedule.wet.how') }}</p>
      <section v-if="walk" class="sheet stack">
        <p>
          <strong>
            {{ t('schedule.wet.whole', { length: lengthText(walk.walk_m, units), minutes: walk.minutes }) }}
          </strong>
          {{ ' ' }}
          <span class="quiet">
            {{
              percent <= 0
                ? t('schedule.wet.proven')
                : t('schedule.wet.near', { bound: lengthText(walk.bound_m, units), percent })
            }}
          </span>
        </p>
        <AppTable
          v-if="walk.stops.length > 0"
          :rows="walk.stops"
          :columns="columns"
          :row-key="(s) => s.place"
          :label="t('places.wet')"
        >
          <template #box="{ row: s }">{{ getOrThrow(site.places, s.place).tag }}</template>
          <template #from="{ row: s }">{{ Math.round(inUnit(s.walk_m, units.length)) }}</template>
          <template #stations="{ row: s }">
            <span class="runs figure">{{ s.stations.map(said).map(unbroken).join(' · ') }}</span>
          </template>
        </AppTable>
        <p v-if="walk.unplaced.length > 0" class="quiet">
          {{ t('schedule.wet.unplaced', { stations: walk.unplaced.map(said).join(', ') }) }}
        </p>
        <div v-if="!fixed" class="row">
          <WorkButton
            :key="controller"
            :target="{ kind: 'controller', controller }"
            :procedure="shipped('wet_check')"
          />
        </div>
      </section>
      <section class="sheet fields">
        <FigureField
          id="wet-look"
          :label="t('schedule.wet.look')"
          :why="t('schedule.wet.lookWhy')"
          :shown="String(rules.look_min)"
          :ours="String(USUAL_WET_CHECK.look_min)"
          :low="0.5"
          :high="30"
          @store="rules.look_min = $event"
        />
        <FigureField
          id="wet-walk"
          :label="t('schedule.wet.walk', { unit: units.length })"
          :why="t('schedule.wet.walkWhy', { pace: pace(USUAL_WET_CHECK.walk_mPerMin) })"
          :shown="pace(rules.walk_mPerMin)"
          :ours="pace(USUAL_WET_CHECK.walk_mPerMin)"
          :low="inUnit(10, units.length)"
          :high="inUnit(200, units.length)"
          @store="rules.walk_mPerMin = toMetres($event, units.length)"
        />
      </section>
      <section class="sheet stack">
        <h2>{{ t('schedule.wet.seen') }}</h2>
        <p v-if="before.length === 0" class="quiet">{{ t('schedule.wet.seenNone') }}</p>
        <div v-for="b in before" :key="b.run.job">
          <NuxtLink :to="`/p/${String(route.params.id)}/work/procedures/${b.run.job}`" :prefetch="false">
            {{ dayText(b.at) }}
          </NuxtLink>
          <p v-if="b.seen.length === 0" class="quiet">{{ t('schedule.wet.fine') }}</p>
          <ul v-else>
            <li v-for="s in b.seen" :key="s">{{ s }}</li>
          </ul>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.runs {
  white-space: normal;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 16px;
}
</style>
