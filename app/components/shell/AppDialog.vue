<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { useI18n } from 'vue-i18n'

/** A question over the page; Escape and the cross close it, focus stays inside and goes back. */
const visible = defineModel<boolean>('visible', { required: true })
defineProps<{ title: string }>()
const { t } = useI18n()
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    :header="title"
    :draggable="false"
    dismissable-mask
    :close-button-props="{ 'aria-label': t('app.close') }"
    :pt="{ mask: { class: 'veil' } }"
  >
    <slot />
  </Dialog>
</template>
