<script setup lang="ts">
import { entries, tagAndName } from '../../../../../core/site'
import { useFindJobs } from '../../../../composables/useFindJobs'
import { useTraceWords } from '../../../../composables/useTrace'
import { useProperty } from '../../../../stores/property'

/** Every wire that was traced here, what is lost, and the way to begin. */
const route = useRoute()
const property = useProperty()
const { t } = useTraceWords()
const { traced } = useFindJobs()
const base = computed(() => `/p/${String(route.params.id)}`)
const starting = ref(false)
const lost = computed(() =>
  entries(property.site!.places).flatMap(([, p]) => (p.found === 'lost' ? [tagAndName(p)] : [])),
)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('trace.title') }}</h1>
      <AppButton v-if="!property.viewed" look="primary" @click="starting = true">{{ t('trace.start') }}</AppButton>
    </div>
    <p class="quiet">{{ t('trace.how') }}</p>
    <p v-if="lost.length > 0" class="doubtful">{{ t('trace.lost', { boxes: lost.join(', ') }) }}</p>
    <p v-if="traced.length === 0" class="sheet">{{ t('trace.none') }}</p>
    <JobRow v-for="j in traced" :key="j.id" :job="j" :base="base" dated />
    <LazyBeginTrace v-if="starting" v-model:visible="starting" @begun="(job) => navigateTo(`${base}/trace/${job}`)" />
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
</style>
