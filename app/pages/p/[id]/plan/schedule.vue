<script setup lang="ts">
import { v7 } from 'uuid'
import { readProgramsCsv, writeProgramsCsv } from '../../../../../core/formats'
import {
  changeCommands,
  dateOf,
  dayNumber,
  gridStations,
  programsOf,
  replacePrograms,
  stationKey,
  stationTag,
  weekdayOf,
  type Changed,
  type ProposalCode,
} from '../../../../../core/schedule'
import { getOrThrow } from '../../../../../core/site'
import { useAskedController } from '../../../../composables/useAskedController'
import { useEarlierSchedule } from '../../../../composables/useEarlierSchedule'
import { usePhotos } from '../../../../composables/usePhotos'
import { useProposals, useSchedulePage, useScheduleSeen } from '../../../../composables/useSchedule'
import { dayName } from '../../../../lib/day-name'
import { saveText } from '../../../../lib/save'
import { today } from '../../../../lib/today'
import type { ProposalSeen } from '../../../../workers/schedule'

/**
 * The programs of a controller as they stand on its door, what they run, what of it is wrong, and what could be other.
 */
const { site, t, keep, sentences, doing, fixed } = useSchedulePage()
const { all: photos } = usePhotos()
const route = useRoute()

const { controller } = useAskedController()
const record = computed(() => getOrThrow(site.value.controllers, controller.value!))
const programs = computed(() => (controller.value ? programsOf(site.value, controller.value) : []))
/** Numbers of a path have no screw that a simulated controller could bring on. */
const runsScrews = computed(() => programs.value.some((p) => p.runs.some((r) => r.station.address === null)))

type Span = 'week' | 'day'
const span = ref<Span>('week')
const days = computed(() => (span.value === 'week' ? 7 : 1))
/** Weeks begin on their Monday. */
const from = ref(dateOf(dayNumber(today()) - weekdayOf(dayNumber(today()))))
const shift = (by: number) => (from.value = dateOf(dayNumber(from.value) + by * days.value))
const month = computed(() => Number(from.value.slice(5, 7)) - 1)
const at_s = ref(0)
watch([span, from], () => (at_s.value = Math.min(at_s.value, days.value * 86_400 - 60)))
const dayOf = (second: number) => dayName(dateOf(dayNumber(from.value) + Math.floor(second / 86_400)), true)

const dates = () => ({ from: from.value, days: days.value })
const { found: seen } = useScheduleSeen(() => controller.value!, dates)
const { found: proposals } = useProposals(() => controller.value!, dates)
const looked = ref<ProposalCode | null>(null)
const proposal = computed(() => proposals.value?.find((p) => p.code === looked.value) ?? null)
const shown = computed(() => proposal.value?.seen ?? seen.value)
const { options: earlier, chosen, seen: then, isMissing } = useEarlierSchedule(() => controller.value, dates)
const rows = computed(() =>
  controller.value === null
    ? []
    : gridStations(site.value, controller.value)
        .map(({ station, name }) => ({
          key: stationKey(station),
          tag: stationTag(site.value, controller.value!, station),
          name,
        }))
        .filter((r) => [seen.value, shown.value, then.value].some((s) => s !== null && r.key in s.week.totals)),
)
const busiest = computed(() => {
  const most = shown.value?.week.busiest
  if (!most) return null
  const w = record.value.scheduling.window_s
  const hours = (s: number) => (Math.round(s / 360) / 10).toFixed(1)
  const allowed = w && hours(w.closes > w.opens ? w.closes - w.opens : w.closes - w.opens + 86_400)
  return t(allowed ? 'schedule.busiestOf' : 'schedule.busiest', {
    date: dayName(most.date, true),
    hours: hours(most.seconds),
    allowed: allowed ?? '',
  })
})
const change = (next: Changed) =>
  doing({ ok: true, value: changeCommands(site.value, controller.value!, next, () => v7()) })
function take(p: ProposalSeen): void {
  looked.value = null
  change(p.changed)
}

const grid = useTemplateRef<{ add: () => Promise<void> }>('grid')
/** Programs from a list take the place of those on record; nothing is changed where a line is wrong. */
async function openFile(file: File): Promise<void> {
  const read = readProgramsCsv(await file.text(), site.value, controller.value!)
  await keep(
    read.ok ? { ok: true, value: replacePrograms(site.value, controller.value!, read.value, () => v7()) } : read,
  )
}
const fileName = computed(() => `${site.value.about.name} ${record.value.tag}`)
const save = () =>
  saveText(
    `${fileName.value} programs.csv`,
    writeProgramsCsv(programs.value, (s) => stationTag(site.value, controller.value!, s)),
    'text/csv',
  )
const doorPhotos = computed(() =>
  photos.value.filter(({ photo: { on } }) => on.kind === 'controller' && on.controller === controller.value),
)
</script>

<template>
  <div class="stack">
    <ControllerTitle :title="t('schedule.title')" />
    <p v-if="!controller" class="sheet row">
      {{ t('schedule.none') }}
      <NuxtLink class="button primary" :to="`/p/${String(route.params.id)}/plan`">{{ t('plan.begin') }}</NuxtLink>
    </p>
    <template v-else>
      <p class="row">
        <AppButton v-if="!fixed" look="primary" @click="grid?.add()">{{ t('schedule.add') }}</AppButton>
        <FileButton v-if="!fixed" accept=".csv,.txt,text/csv" :label="t('schedule.openCsv')" @chosen="openFile" />
        <AppButton v-if="programs.length > 0" @click="save">{{ t('schedule.saveCsv') }}</AppButton>
        <ScheduleOut v-if="programs.length > 0" :controller="controller" :file="fileName" :from="from" />
      </p>
      <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
        <li v-for="s in sentences" :key="s">{{ s }}</li>
      </ul>
      <p v-if="programs.length === 0" class="sheet">{{ t('schedule.empty') }}</p>
      <ScheduleFindings v-if="seen && programs.length > 0" :found="seen.found" :fixed="fixed" @mend="change" />
      <section class="sheet door" :class="{ hidden: programs.length === 0 }">
        <ScheduleGrid
          ref="grid"
          :key="controller"
          :controller="controller"
          :month="month"
          :totals="seen?.week.totals ?? {}"
          :days="days"
          :fixed="fixed"
          :keep="keep"
        />
        <PhotoStrip v-if="doorPhotos.length > 0" class="photos" :photos="doorPhotos" />
      </section>
      <p v-if="programs.length > 0" class="quiet small">{{ t('schedule.keys') }}</p>
      <section v-if="seen && shown && programs.length > 0" class="sheet stack">
        <div class="row title">
          <h2>{{ t('schedule.week') }}</h2>
          <span class="row">
            <PickBar
              v-model="span"
              :label="t('schedule.span')"
              :options="(['week', 'day'] as const).map((value) => ({ value, label: t(`schedule.spans.${value}`) }))"
            />
            <AppButton :aria-label="t('schedule.earlier')" @click="shift(-1)">‹</AppButton>
            <TextField v-model="from" class="input date" type="date" :aria-label="t('schedule.from')" />
            <AppButton :aria-label="t('schedule.later')" @click="shift(1)">›</AppButton>
          </span>
        </div>
        <p v-if="busiest">{{ busiest }}</p>
        <PickOne
          v-if="earlier.length > 0 && !proposal"
          id="schedule-beside"
          v-model="chosen"
          class="beside"
          :label="t('schedule.beside')"
          :options="[
            { value: 0, label: t('schedule.besideNothing') },
            ...earlier.map((e) => ({ value: e.value, label: t('schedule.besideBefore', { at: e.at }) })),
          ]"
        />
        <p v-if="isMissing" class="bad" role="alert">{{ t('schedule.besideMissing') }}</p>
        <ScheduleBands
          :week="shown.week"
          :was="proposal ? seen.week : (then?.week ?? null)"
          :from="from"
          :days="days"
          :programs="proposal?.changed.programs ?? programs"
          :rows="rows"
          :window="record.scheduling.window_s"
          :at_s="at_s"
          @pick="at_s = $event"
        />
        <ScheduleMoment v-model="at_s" :controller="controller" :week="shown.week" :days="days" :day-of="dayOf" />
      </section>
      <p v-else-if="programs.length > 0" class="quiet">{{ t('schedule.working') }}</p>
      <ScheduleProposals
        v-if="proposals && programs.length > 0"
        v-model="looked"
        :proposals="proposals"
        :fixed="fixed"
        @take="take"
      />
      <SequencerYears v-if="programs.length > 0" :controller="controller" :from="from" />
      <ControllerTry v-if="runsScrews" :controller="controller" :from="from" />
      <ScheduleRules :key="`rules ${controller}`" :controller="controller" :fixed="fixed" @keep="doing" />
      <details class="sheet folds">
        <summary>
          <h2>{{ t('schedule.photo') }}</h2>
        </summary>
        <div class="stack">
          <p class="quiet">
            {{ doorPhotos.length > 0 ? t('schedule.photoBeside') : t('schedule.photoNone') }}
          </p>
          <PhotoTaker v-if="!fixed" :of="{ on: { kind: 'controller', controller } }" />
        </div>
      </details>
    </template>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
  border-left: 5px solid var(--fault);
}
/* What is copied stands beside what it is copied from. */
.door {
  display: flex;
  gap: 16px;
  align-items: flex-start;
  overflow-x: auto;
  padding: 8px 16px;
}
.photos {
  flex: 0 1 320px;
  min-width: 160px;
  grid-template-columns: minmax(0, 1fr);
}
.hidden {
  display: none;
}
.beside {
  max-width: 320px;
}
.input.date {
  width: 170px;
}
.small {
  font-size: 13px;
}
@media (max-width: 759px) {
  .small {
    font-size: 15px;
  }
}
</style>
