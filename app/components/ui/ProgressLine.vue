<script setup lang="ts">
import ProgressBar from 'primevue/progressbar'

/** How far something is, 0 to 100; without a figure, that it is going on. */
defineProps<{ percent: number | null; label: string }>()
</script>

<template>
  <ProgressBar
    :mode="percent === null ? 'indeterminate' : 'determinate'"
    :value="percent ?? 0"
    :show-value="false"
    :aria-label="label"
    class="progress-line"
  />
</template>

<style>
.progress-line {
  height: 8px;
  overflow: hidden;
  border-radius: 4px;
  background: var(--rule);
}
.progress-line > [data-pc-section='value'] {
  height: 100%;
  background: var(--copper);
}
.progress-line:not([data-p~='determinate']) > [data-pc-section='value'] {
  width: 30%;
  animation: progress-going 1.6s infinite alternate ease-in-out;
}
@keyframes progress-going {
  to {
    transform: translateX(233%);
  }
}
</style>
