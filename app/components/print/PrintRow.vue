<script setup lang="ts">
import { usePrintWords } from '../../composables/usePrintWords'

/** One thing that can be printed: what it is, what it is for, and the button that makes it. */
defineProps<{ what: string; how: string; busy: boolean }>()
const emit = defineEmits<{ make: [] }>()
const { t } = usePrintWords(() => ({ length: 'm', temperature: 'C' }))
</script>

<template>
  <li class="print-row">
    <div>
      <strong>{{ what }}</strong>
      <p class="quiet small">{{ how }}</p>
    </div>
    <AppButton :disabled="busy" @click="emit('make')">
      {{ busy ? t('prints.making') : t('prints.make') }}
      <span class="sr-only">{{ what }}</span>
    </AppButton>
  </li>
</template>

<style scoped>
.print-row {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  padding: 10px 0;
  border-bottom: 1px solid var(--rule);
}
.print-row:last-child {
  border-bottom: 0;
}
.print-row .button {
  flex: none;
}
.small {
  font-size: 14px;
}
</style>
