<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** That a hunt is being weighed, with a way to stop; or that it was stopped, with a way to go on. */
defineProps<{ stopped: boolean }>()
const emit = defineEmits<{ stop: []; again: [] }>()
const { t } = useI18n()
</script>

<template>
  <div class="sheet stack" role="status">
    <div class="row between">
      <span class="quiet">{{ stopped ? t('diagnose.stopped') : t('diagnose.working') }}</span>
      <AppButton v-if="stopped" @click="emit('again')">{{ t('diagnose.weighAgain') }}</AppButton>
      <AppButton v-else @click="emit('stop')">{{ t('diagnose.stop') }}</AppButton>
    </div>
    <ProgressLine v-if="!stopped" :percent="null" :label="t('diagnose.working')" />
  </div>
</template>
