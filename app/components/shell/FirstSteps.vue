<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { DEMO_ID } from '../../../demo/id'
import type { Listed } from '../../lib/api'

/** What can be done first, while there are few properties; the demo, where it is, is walked through. */
const props = defineProps<{ properties: readonly Listed[] }>()
const { t } = useI18n()
const demo = computed(() => props.properties.find((p) => p.id === DEMO_ID))
const TOUR = [
  ['threads', ''],
  ['find', '/diagnose'],
  ['box', '/boxes/B4'],
  ['sizes', '/plan/sizes'],
  ['record', '/record'],
] as const
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('properties.first') }}</h2>
    <p>{{ t('properties.firstHow') }}</p>
    <template v-if="demo">
      <p>{{ t('properties.tour', { name: demo.name }) }}</p>
      <ol class="tour">
        <li v-for="[step, path] in TOUR" :key="step">
          <NuxtLink :to="`/p/${demo.id}${path}`">{{ t(`properties.tourSteps.${step}`) }}</NuxtLink>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
.tour {
  list-style: decimal;
  padding-left: 24px;
}
.tour li {
  padding: 4px 0;
}
@media (max-width: 759px) {
  .tour a {
    display: block;
    min-height: 48px;
    padding: 12px 0;
  }
}
</style>
