<script setup lang="ts">
import { useJobLines } from '../../../../composables/useJobLines'
import { useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const starting = ref(false)
const base = computed(() => `/p/${String(route.params.id)}`)
const lines = useJobLines()
const sweeps = computed(() => [...lines.value.values()].filter((line) => line.kind === 'sweep'))
const begun = (job: string) => navigateTo(`${base.value}/test/${job}`)
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('test.sweeps') }}</h1>
      <span class="row">
        <NuxtLink v-if="sweeps.length > 1" class="button" :to="`${base}/test/compare`">
          {{ t('compare.choose') }}
        </NuxtLink>
        <AppButton
          v-if="!property.viewed && Object.keys(property.site!.controllers).length > 0"
          look="primary"
          @click="starting = true"
        >
          {{ t('test.start') }}
        </AppButton>
      </span>
    </div>
    <p class="quiet">{{ t('test.noneHow') }}</p>
    <p v-if="sweeps.length === 0" class="sheet">{{ t('test.none') }}</p>
    <div class="stack list">
      <JobLink v-for="line in sweeps" :key="line.id" :line="line" :base="base" dated />
    </div>
    <LazyBeginJob
      v-if="starting"
      v-model:visible="starting"
      kind="sweep"
      :heading="t('test.start')"
      :name-label="t('test.titleField')"
      :named="t('test.defaultTitle')"
      @begun="begun"
    />
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
.list {
  gap: 8px;
}
</style>
