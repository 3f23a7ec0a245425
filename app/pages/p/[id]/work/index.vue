<script setup lang="ts">
import { jobsByVisit, peopleOf, visitsInOrder } from '../../../../../core/record'
import { useJobLines } from '../../../../composables/useJobLines'
import { dayText, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

/** Every stay at the property: who was there, and the jobs that were done. */
const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const base = computed(() => `/p/${String(route.params.id)}`)
const lines = useJobLines()
const jobsOf = computed(() => jobsByVisit(property.facts!))
const visits = computed(() =>
  visitsInOrder(property.facts!).map((id) => ({
    id,
    at: property.facts!.visits[id]!.at,
    people: peopleOf(property.facts!, id).join(', '),
    jobs: (jobsOf.value.get(id) ?? []).map((job) => lines.value.get(job)!),
  })),
)
</script>

<template>
  <div class="stack page">
    <h1>{{ t('work.visits') }}</h1>
    <p class="quiet">{{ t('work.visitsHow') }}</p>
    <p v-if="visits.length === 0" class="row">
      <NuxtLink class="button primary" :to="`${base}/test`">{{ t('test.start') }}</NuxtLink>
      <NuxtLink class="button" :to="`${base}/diagnose`">{{ t('work.hunt') }}</NuxtLink>
    </p>
    <section v-for="v in visits" :key="v.id" class="stack list">
      <h2>
        {{ dayText(v.at) }}
        <span v-if="v.people" class="quiet">{{ v.people }}</span>
      </h2>
      <JobLink v-for="line in v.jobs" :key="line.id" :line="line" :base="base" />
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.list {
  gap: 8px;
}
h2 {
  font-size: 17px;
}
h2 .quiet {
  font-size: 15px;
  font-weight: 400;
}
</style>
