<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { State } from '../../../core/expect'

const props = defineProps<{ state: State; silent?: boolean }>()
const { t } = useI18n()
</script>

<template>
  <svg
    class="mark"
    :class="props.state"
    viewBox="0 0 16 16"
    width="16"
    height="16"
    :role="silent ? undefined : 'img'"
    :aria-hidden="silent"
    :aria-label="silent ? undefined : t(`state.${props.state}`)"
  >
    <circle v-if="state === 'fits'" cx="8" cy="8" r="6" fill="currentColor" />
    <g v-else-if="state === 'doubtful'">
      <circle cx="8" cy="8" r="5.2" fill="none" stroke="currentColor" stroke-width="1.8" />
      <path d="M8 2.4 A5.6 5.6 0 0 1 8 13.6 Z" fill="currentColor" />
    </g>
    <g v-else-if="state === 'fault'">
      <rect x="2" y="2" width="12" height="12" rx="1" fill="currentColor" />
      <rect x="4.5" y="6.8" width="7" height="2.4" fill="var(--sheet)" />
    </g>
    <circle v-else cx="8" cy="8" r="5.2" fill="none" stroke="currentColor" stroke-width="1.6" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: -2px;
}
.none {
  color: var(--none);
}
</style>
