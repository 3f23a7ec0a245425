<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** Leaving the cabinet as it was found: conductors back, and the schedule on again or left off, on purpose. */
defineProps<{ left: number; closed: boolean | null }>()
const emit = defineEmits<{ end: [dialBack: boolean] }>()
const { t } = useI18n()
</script>

<template>
  <section class="sheet stack">
    <template v-if="closed === null">
      <p>
        <strong>{{ left === 0 ? t('sweep.all') : t('sweep.someLeft', left) }}</strong>
      </p>
      <p class="caution">{{ t('caution.after') }}</p>
      <div class="row">
        <AppButton @click="emit('end', true)">{{ t('caution.dial') }}</AppButton>
        <AppButton @click="emit('end', false)">{{ t('caution.dialNot') }}</AppButton>
      </div>
    </template>
    <p v-else>{{ t('caution.ended', { dial: closed ? t('caution.dial') : t('caution.dialNot') }) }}.</p>
  </section>
</template>
