<script setup lang="ts">
import type { FindJob } from '../../composables/useFindJobs'
import { dayText } from '../../composables/useSpeaker'

/** A job of Find in a list, leading to where it goes on. */
defineProps<{ job: FindJob; base: string; dated?: boolean }>()
</script>

<template>
  <NuxtLink class="sheet row job" :to="base + job.to">
    <span>
      <strong>{{ job.heading }}</strong>
      <span v-if="dated" class="quiet">{{ ` · ${dayText(job.at)}` }}</span>
    </span>
    <span class="row">
      {{ job.says }}
      <span class="go">{{ job.go }}</span>
    </span>
  </NuxtLink>
</template>

<style scoped>
.job {
  justify-content: space-between;
  color: inherit;
  text-decoration: none;
}
.go {
  color: var(--copper);
  font-weight: 600;
}
</style>
