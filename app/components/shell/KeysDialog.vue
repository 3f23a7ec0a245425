<script setup lang="ts">
import { useI18n } from 'vue-i18n'

const visible = defineModel<boolean>('visible', { required: true })
const { t } = useI18n()
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
    <table class="table">
      <tbody>
        <tr v-for="[key, what] in KEYS" :key="key">
          <td>
            <kbd>{{ key }}</kbd>
          </td>
          <td class="what">{{ t(`keys.${what}`) }}</td>
        </tr>
      </tbody>
    </table>
  </AppDialog>
</template>

<style scoped>
kbd {
  font-family: var(--figures);
  border: 1px solid var(--quiet);
  border-radius: 4px;
  padding: 1px 6px;
}
td.what {
  text-align: left;
  white-space: normal;
}
</style>
