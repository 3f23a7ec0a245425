<script setup lang="ts">
import { writeCalendar } from '../../../core/formats'
import { programRuns, programsOf, running, stationTag, type CalendarDate } from '../../../core/schedule'
import { getOrThrow, type ControllerId } from '../../../core/site'
import { visitsInOrder } from '../../../core/record'
import { useDoorSheet } from '../../composables/useDoorSheet'
import { useSchedulePage } from '../../composables/useSchedule'
import { saveText } from '../../lib/save'

/** A schedule as it leaves: runs and visits as a calendar, and the sheet for the door. */
const props = defineProps<{ controller: ControllerId; file: string; from: CalendarDate }>()
const { site, property, t } = useSchedulePage()
const { busy, failed, printSheet } = useDoorSheet()
/** As far ahead as somebody plans; a calendar that is longer is read by no phone with pleasure. */
const AHEAD_days = 28
/** A visit has no end on record; this long it shows. */
const VISIT_s = 3600

function calendar(): void {
  const programs = programsOf(site.value, props.controller)
  const run = running(site.value, props.controller, programs, { from: props.from, days: AHEAD_days })
  if (!run.ok) return
  const { tag, name } = getOrThrow(site.value.controllers, props.controller)
  const runs = programRuns(run.value).map((r) => ({
    id: `${property.held!.id}-${props.controller}-${programs[r.program]!.id}-${r.from_s}`,
    from_s: r.from_s,
    to_s: r.to_s,
    summary: `${tag} ${name}: ${t('schedule.run', { program: programs[r.program]!.name, count: r.stations.length })}`,
    description: r.stations.map((s) => stationTag(site.value, props.controller, s)).join(', '),
  }))
  const visits = visitsInOrder(property.facts!).map((id) => {
    const { at, author, people } = property.facts!.visits[id]!
    const from_s = Math.floor(Date.parse(at) / 1000)
    const summary = t('schedule.visit', { property: site.value.about.name, author })
    return { id, from_s, to_s: from_s + VISIT_s, summary, description: people.join(', ') }
  })
  saveText(
    `${props.file}.ics`,
    writeCalendar(`${site.value.about.name} ${tag}`, [...runs, ...visits], new Date()),
    'text/calendar',
  )
}
</script>

<template>
  <AppButton @click="calendar">{{ t('schedule.calendar') }}</AppButton>
  <AppButton :disabled="busy !== null" @click="printSheet(controller, file)">{{ t('schedule.sheet') }}</AppButton>
  <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
</template>
