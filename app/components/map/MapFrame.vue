<script setup lang="ts">
/** Where a map is drawn: its frame, its buttons and its scale. */
defineProps<{ label: string }>()
const element = useTemplateRef<HTMLElement>('element')
defineExpose({ element })
</script>

<template>
  <div ref="element" class="board" tabindex="0" role="application" :aria-label="label" />
</template>

<style scoped>
.board {
  position: relative;
  width: 100%;
  height: 100%;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  overflow: hidden;
}
.board :deep(.ol-zoom) {
  top: 8px;
  left: 8px;
  background: none;
}
.board :deep(.ol-zoom button) {
  width: 40px;
  height: 40px;
  font-size: 20px;
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--rule);
}
.board :deep(.ol-scale-line) {
  background: var(--sheet);
  bottom: 8px;
  left: 8px;
}
.board :deep(.ol-scale-line-inner) {
  color: var(--ink);
  border-color: var(--ink);
  font: 13px var(--figures);
}
@media (max-width: 759px) {
  .board :deep(.ol-zoom button) {
    width: 48px;
    height: 48px;
  }
}
</style>
