<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Leaving } from '../../composables/useLeaving'

/** Keeps what was found known, where nobody mends it now; says so where it is. */
defineProps<{ leaving: Leaving }>()
const emit = defineEmits<{ left: [] }>()
const { t } = useI18n()
const route = useRoute()
</script>

<template>
  <NuxtLink v-if="leaving === 'listed'" :prefetch="false" :to="`/p/${route.params.id}/work/findings`">
    {{ t('diagnose.leaving.listed') }}
  </NuxtLink>
  <AppButton v-else @click="emit('left')">{{ t(`diagnose.leaving.${leaving}`) }}</AppButton>
</template>
