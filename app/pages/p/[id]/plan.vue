<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** Planning: the list of what there is, the sizes of its wire, the material to buy. */
const route = useRoute()
const { t } = useI18n()
const here = computed(() => `/p/${String(route.params.id)}/plan`)
const parts = computed(() => [
  { to: here.value, label: t('plan.list') },
  { to: `${here.value}/map`, label: t('plan.map') },
  { to: `${here.value}/wiring`, label: t('plan.wiring') },
  { to: `${here.value}/sizes`, label: t('plan.sizes') },
  { to: `${here.value}/material`, label: t('plan.material') },
])
</script>

<template>
  <div class="stack">
    <nav class="parts no-print" :aria-label="t('places.plan')">
      <NuxtLink
        v-for="p in parts"
        :key="p.to"
        :to="p.to"
        :class="{ here: route.path === p.to }"
        :aria-current="route.path === p.to ? 'page' : undefined"
      >
        {{ p.label }}
      </NuxtLink>
    </nav>
    <NuxtPage />
  </div>
</template>

<style scoped>
.parts {
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--rule);
  margin: -8px 0 0;
}
.parts a {
  display: flex;
  align-items: center;
  min-height: 40px;
  padding: 0 12px;
  color: var(--quiet);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
}
.parts a.here {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--copper);
}
@media (max-width: 759px) {
  .parts {
    overflow-x: auto;
  }
  .parts a {
    flex: 1;
    justify-content: center;
    min-height: 48px;
    padding: 0 6px;
  }
}
</style>
