<script setup lang="ts">
import { shipped } from '../../../../../core/procedure'
import { jobsByVisit, peopleOf, visitsInOrder, type Procedure } from '../../../../../core/record'
import { useFindJobs } from '../../../../composables/useFindJobs'
import { useJobLines } from '../../../../composables/useJobLines'
import { useRuns } from '../../../../composables/useRuns'
import { dayText, timeText } from '../../../../composables/useSpeaker'
import { useVisitToday } from '../../../../composables/useVisitToday'
import { useWorkWords } from '../../../../composables/useWorkWords'
import { useProperty } from '../../../../stores/property'

/** This visit: who is here, what is under way, what is temporary; then what was left open, and every stay before. */
const route = useRoute()
const property = useProperty()
const { t } = useWorkWords(() => property.site!.settings.units)
const base = computed(() => `/p/${String(route.params.id)}`)
const lines = useJobLines()
const runs = useRuns()
const { sorted, traced } = useFindJobs()
const found = computed(() => new Map([...sorted.value, ...traced.value].map((j) => [j.id, j])))
const underWay = useVisitToday()
const jobsOf = computed(() => jobsByVisit(property.facts!))

/** The last moment that anything was written down in a visit’s jobs. */
const lastOf = computed(() => {
  const { jobs, steps, readings, closings, findings, coreTrials, marks, visits } = property.facts!
  const last = new Map<string, string>(Object.entries(visits).map(([id, v]) => [id, v.at]))
  const note = (job: string, at: string) => {
    const visit = jobs[job]?.visit
    if (visit !== undefined && at > (last.get(visit) ?? '')) last.set(visit, at)
  }
  for (const [id, j] of Object.entries(jobs)) note(id, j.at)
  for (const f of [steps, readings, closings, findings, coreTrials, marks].flatMap((c) => Object.values(c)))
    note(f.job, f.at)
  return last
})
/** The day that was agreed on when a visit was left. */
function nextOf(jobs: readonly string[]): string | null {
  for (const id of jobs) {
    const given = runs.value.get(id)?.steps.find((s) => s.key === 'next')?.given?.answer
    if (given?.kind === 'day' && property.facts!.jobs[id]!.follows?.id === 'leave') return given.day
  }
  return null
}
const visits = computed(() =>
  visitsInOrder(property.facts!).map((id) => {
    const jobs = jobsOf.value.get(id) ?? []
    const { at } = property.facts!.visits[id]!
    return {
      id,
      at,
      until: lastOf.value.get(id) ?? at,
      people: peopleOf(property.facts!, id).join(', '),
      lines: jobs.flatMap((job) => lines.value.get(job) ?? []),
      runs: jobs.flatMap((job) => runs.value.get(job) ?? []),
      found: jobs.flatMap((job) => found.value.get(job) ?? []),
      next: nextOf(jobs),
    }
  }),
)
const now = computed(() => visits.value.find((v) => v.id === underWay.value?.id) ?? null)
const earlier = computed(() => visits.value.filter((v) => v.id !== underWay.value?.id))
const open = computed(() => earlier.value.flatMap((v) => v.runs).filter((r) => r.left > 0))
const did = (id: 'arrive' | 'leave') => now.value?.runs.find((r) => r.procedure.id === id) ?? null

const begins = shallowRef<Procedure | null>(null)
const beginning = ref(false)
/** Arrive and Leave go on where they were begun today. */
function go(id: 'arrive' | 'leave'): unknown {
  const begun = did(id)
  if (begun) return navigateTo(`${base.value}/work/procedures/${begun.job}`)
  begins.value = shipped(id)
  beginning.value = true
  return undefined
}
</script>

<template>
  <div class="stack page">
    <div class="row head">
      <h1>{{ now ? t('visit.today') : t('visit.none') }}</h1>
      <p v-if="now" class="quiet">
        {{ t('visit.since', { at: timeText(now.at) }) }}
        <template v-if="now.people">· {{ t('visit.who', { people: now.people }) }}</template>
      </p>
    </div>
    <p v-if="!now" class="quiet">{{ t('visit.noneHow') }}</p>
    <section v-if="now" class="stack list">
      <RunLink v-for="r in now.runs" :key="r.job" :run="r" :base="base" />
      <JobLink v-for="line in now.lines" :key="line.id" :line="line" :base="base" />
      <JobRow v-for="j in now.found" :key="j.id" :job="j" :base="base" />
      <p v-if="now.runs.length + now.lines.length + now.found.length === 0" class="quiet">{{ t('visit.nothing') }}</p>
    </section>
    <div v-if="!property.viewed" class="row acts">
      <AppButton v-if="!did('arrive')" :look="now ? undefined : 'primary'" @click="go('arrive')">
        {{ t('visit.arrive') }}
      </AppButton>
      <NuxtLink class="button" :to="`${base}/work/procedures`">{{ t('visit.procedures') }}</NuxtLink>
      <NuxtLink class="button" :to="`${base}/test`">{{ t('visit.sweep') }}</NuxtLink>
      <NuxtLink class="button" :to="`${base}/diagnose`">{{ t('visit.hunt') }}</NuxtLink>
      <AppButton v-if="now && !did('leave')" @click="go('leave')">{{ t('visit.leave') }}</AppButton>
    </div>
    <KitList v-if="now && now.runs.length > 0" :visit="now.id" :runs="now.runs" />
    <TemporaryList />
    <section v-if="open.length > 0" class="stack list">
      <h2>{{ t('visit.open') }}</h2>
      <p class="quiet">{{ t('visit.openHow') }}</p>
      <RunLink v-for="r in open" :key="r.job" :run="r" :base="base" dated />
    </section>
    <h2 v-if="earlier.length > 0">{{ t('visit.earlier') }}</h2>
    <section v-for="v in earlier" :key="v.id" class="stack list">
      <h3>
        {{ dayText(v.at) }}
        <span class="quiet">
          {{ t('visit.hours', { from: timeText(v.at), to: timeText(v.until) }) }}
          <template v-if="v.people">· {{ v.people }}</template>
        </span>
      </h3>
      <p v-if="v.next" class="quiet">{{ t('visit.next', { day: dayText(`${v.next}T12:00:00`) }) }}</p>
      <RunLink v-for="r in v.runs" :key="r.job" :run="r" :base="base" />
      <JobLink v-for="line in v.lines" :key="line.id" :line="line" :base="base" />
      <JobRow v-for="j in v.found" :key="j.id" :job="j" :base="base" />
    </section>
    <BeginWork
      v-if="beginning && begins"
      v-model:visible="beginning"
      :procedure="begins"
      @begun="(job) => navigateTo(`${base}/work/procedures/${job}`)"
    />
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.head {
  align-items: baseline;
}
.list {
  gap: 8px;
}
h3 .quiet {
  font-weight: 400;
}
@media (max-width: 759px) {
  .acts .button {
    flex: 1 1 140px;
  }
}
</style>
