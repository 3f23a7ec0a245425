<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** Leaving the cabinet as it was found: conductors back, and the schedule on again or left off, on purpose. */
defineProps<{
  /** What is said of the work before it is ended. */
  before: string
  /** Whether the schedule runs again; null while the work goes on. */
  closed: boolean | null
  /** The words for what was ended. */
  kind: 'sweep' | 'hunt'
}>()
const emit = defineEmits<{ end: [dialBack: boolean] }>()
const { t } = useI18n()
</script>

<template>
  <section class="sheet stack">
    <template v-if="closed === null">
      <p>
        <strong>{{ before }}</strong>
      </p>
      <slot />
      <p class="caution">{{ t('caution.after') }}</p>
      <div class="row">
        <AppButton @click="emit('end', true)">{{ t('caution.dial') }}</AppButton>
        <AppButton @click="emit('end', false)">{{ t('caution.dialNot') }}</AppButton>
      </div>
    </template>
    <p v-else>{{ t(`caution.ended.${kind}`, { dial: closed ? t('caution.dial') : t('caution.dialNot') }) }}.</p>
  </section>
</template>
