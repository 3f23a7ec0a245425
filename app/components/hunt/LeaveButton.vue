<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Leaving } from '../../composables/useLeaving'

/** Keeps what was found known, where nobody mends it now; says so where it is. */
defineProps<{ leaving: Leaving }>()
const emit = defineEmits<{ left: [] }>()
const { t } = useI18n()
</script>

<template>
  <span v-if="leaving === 'listed'" role="status">{{ t('diagnose.leaving.listed') }}</span>
  <AppButton v-else @click="emit('left')">{{ t(`diagnose.leaving.${leaving}`) }}</AppButton>
</template>
