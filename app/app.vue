<script setup lang="ts">
import { useI18n } from 'vue-i18n'

const { t } = useI18n()
</script>

<template>
  <a class="skip-link" href="#work">{{ t('app.skip') }}</a>
  <NewVersion />
  <NuxtPage />
</template>
