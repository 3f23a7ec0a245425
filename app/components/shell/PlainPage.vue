<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** A page that belongs to no property: its head, and one column. */
defineProps<{ wide?: boolean }>()
const { t } = useI18n()
</script>

<template>
  <div class="plain-page" :class="{ wide }">
    <header>
      <NuxtLink to="/" class="brand">
        <AppMark />
        <strong>{{ t('app.name') }}</strong>
      </NuxtLink>
    </header>
    <main id="work" tabindex="-1" class="stack">
      <slot />
    </main>
  </div>
</template>

<style scoped>
.plain-page {
  max-width: 880px;
  margin: 0 auto;
  padding: 0 16px 48px;
}
.plain-page.wide {
  max-width: 1180px;
}
header {
  height: 52px;
  margin-bottom: 24px;
}
.brand {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  height: 100%;
  color: inherit;
  text-decoration: none;
}
</style>
