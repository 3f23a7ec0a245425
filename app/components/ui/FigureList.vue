<script setup lang="ts" generic="Row">
/** Words and their figures, a line each; the last lines can be what they come to. */
defineProps<{
  rows: readonly Row[]
  rowKey: (row: Row, index: number) => string | number
  sum?: (row: Row) => boolean
}>()
defineSlots<{ words: (props: { row: Row }) => unknown; figure: (props: { row: Row }) => unknown }>()
</script>

<template>
  <dl class="figure-list">
    <div v-for="(row, i) in rows" :key="rowKey(row, i)" :class="{ sum: sum?.(row) }">
      <dt><slot name="words" :row="row" /></dt>
      <dd class="figure"><slot name="figure" :row="row" /></dd>
    </div>
  </dl>
</template>

<style>
.figure-list {
  font-size: 14px;
}
.figure-list > div {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.figure-list dd {
  text-align: right;
  white-space: nowrap;
}
.figure-list .sum {
  font-weight: 700;
}
@media (max-width: 759px) {
  .figure-list {
    font-size: 15px;
  }
}
</style>
