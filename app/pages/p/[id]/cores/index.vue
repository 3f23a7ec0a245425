<script setup lang="ts">
import { useCoresWords } from '../../../../composables/useCores'
import { useFindJobs } from '../../../../composables/useFindJobs'
import { useWorkWords } from '../../../../composables/useWorkWords'
import { useProperty } from '../../../../stores/property'

/** Every cable whose cores were told apart here, and the way to begin with another. */
const route = useRoute()
const property = useProperty()
const { t } = useCoresWords()
useWorkWords(() => property.site!.settings.units)
const { sorted } = useFindJobs()
const base = computed(() => `/p/${String(route.params.id)}`)
const starting = ref(false)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('cores.title') }}</h1>
      <AppButton v-if="!property.viewed" look="primary" @click="starting = true">{{ t('cores.start') }}</AppButton>
    </div>
    <p class="quiet">{{ t('cores.how') }}</p>
    <p v-if="sorted.length === 0" class="sheet">{{ t('cores.none') }}</p>
    <JobRow v-for="j in sorted" :key="j.id" :job="j" :base="base" dated />
    <LazyBeginCores v-if="starting" v-model:visible="starting" @begun="(job) => navigateTo(`${base}/cores/${job}`)" />
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
