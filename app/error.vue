<script setup lang="ts">
import { useI18n } from 'vue-i18n'

const { t } = useI18n()
</script>

<template>
  <main id="work" tabindex="-1" class="lost stack">
    <h1>{{ t('app.notFound') }}</h1>
    <p>
      <a href="/" class="button primary">{{ t('app.toProperties') }}</a>
    </p>
  </main>
</template>

<style scoped>
.lost {
  max-width: 560px;
  margin: 15vh auto;
  padding: 24px;
}
</style>
