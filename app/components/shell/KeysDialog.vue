<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { dialogsEn } from '../../../words/dialogs-en'

const visible = defineModel<boolean>('visible', { required: true })
const { t, mergeLocaleMessage } = useI18n({ useScope: 'global' })
mergeLocaleMessage('en', dialogsEn)
const KEYS = [
  ['Enter', 'enter'],
  ['o', 'o'],
  ['z', 'z'],
  ['s', 's'],
  ['↑', 'up'],
  ['↓', 'down'],
  ['Ctrl Z', 'undo'],
  ['/', 'find'],
  ['?', 'help'],
  ['Esc', 'esc'],
] as const
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('keys.title')">
    <FigureList :rows="KEYS" :row-key="([key]) => key">
      <template #words="{ row: [key] }">
        <kbd>{{ key }}</kbd>
      </template>
      <template #figure="{ row: [, what] }">
        <span class="what">{{ t(`keys.${what}`) }}</span>
      </template>
    </FigureList>
  </AppDialog>
</template>

<style scoped>
kbd {
  font-family: var(--figures);
  border: 1px solid var(--quiet);
  border-radius: 4px;
  padding: 1px 6px;
}
.what {
  font-family: var(--words);
}
</style>
