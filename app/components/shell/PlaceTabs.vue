<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { PlaceOfWork } from '../../lib/places'

/** The pages of a place, beside each other. */
const props = defineProps<{ place: PlaceOfWork; base: string; current: string }>()
const { t } = useI18n()
const tabs = computed(() =>
  props.place.tabs.map(({ path, label }) => ({ to: props.base + path, label, here: path === props.current })),
)
</script>

<template>
  <nav class="tabs no-print" :aria-label="t(`places.${place.key}`)">
    <NuxtLink
      v-for="tab in tabs"
      :key="tab.to"
      :to="tab.to"
      :class="{ here: tab.here }"
      :aria-current="tab.here ? 'page' : undefined"
    >
      {{ t(tab.label) }}
    </NuxtLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--rule);
  margin: -8px 0 16px;
}
.tabs a {
  display: flex;
  align-items: center;
  min-height: 40px;
  padding: 0 12px;
  color: var(--quiet);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
}
.tabs a.here {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--copper);
}
@media (max-width: 759px) {
  .tabs {
    overflow-x: auto;
  }
  .tabs a {
    flex: 1;
    justify-content: center;
    min-height: 48px;
    padding: 0 6px;
  }
}
</style>
