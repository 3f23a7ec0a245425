<script setup lang="ts">
import { useI18n } from 'vue-i18n'

const { t } = useI18n()
/** To the work itself, not to its address: that would be a page of its own in the past. */
const skip = () => document.getElementById('work')?.focus()
</script>

<template>
  <a class="skip-link" href="#work" @click.prevent="skip">{{ t('app.skip') }}</a>
  <NewVersion />
  <NuxtPage />
</template>
