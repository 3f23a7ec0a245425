<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useProperty } from '../../stores/property'

const { t } = useI18n()
const property = useProperty()
</script>

<template>
  <p class="status" role="status" :class="{ unsent: property.pending > 0 || property.rejected.length > 0 }">
    <template v-if="property.pending === 0 && property.rejected.length > 0">
      {{ t('app.refused', property.rejected.length) }}
    </template>
    <template v-else-if="property.pending === 0">
      <span aria-hidden="true">●</span>
      {{ t('app.saved') }}
    </template>
    <template v-else-if="property.unkept">{{ t('app.unkept', { count: property.pending }) }}</template>
    <template v-else-if="property.keeping > 0">{{ t('app.keeping', { count: property.pending }) }}</template>
    <template v-else-if="property.outdated">{{ t('app.outdated', { count: property.pending }) }}</template>
    <template v-else-if="property.line === 'up'">{{ t('app.sending', { count: property.pending }) }}</template>
    <template v-else-if="property.line === 'failing'">{{ t('app.failing', { count: property.pending }) }}</template>
    <template v-else>{{ t('app.kept', { count: property.pending }) }}</template>
  </p>
</template>

<style scoped>
.status {
  color: var(--fits);
  font-size: 14px;
  text-align: right;
}
.status.unsent {
  color: var(--doubtful);
  font-weight: 600;
}
</style>
