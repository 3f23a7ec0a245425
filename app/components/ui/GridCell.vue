<script setup lang="ts" generic="R extends string, C extends string">
import type { Cells } from '../../composables/useCells'
import { valueOf } from '../../lib/fields'

/** A cell of a grid that is typed into; other attributes go to its field. */
defineProps<{ cells: Cells<R, C>; row: R; column: C }>()
</script>

<template>
  <input
    class="cell"
    :value="cells.text(row, column)"
    :data-was="cells.was(row, column)"
    :aria-invalid="cells.isBad(row, column)"
    autocomplete="off"
    @input="cells.type(row, column, valueOf($event))"
    @blur="cells.write(row, column)"
    @keydown="cells.onKey($event, row, column)"
    @focus="($event.target as HTMLInputElement).select()"
  />
</template>

<style>
.cells td,
.cells th {
  padding: 0 2px;
  vertical-align: middle;
}
.cells thead th {
  padding: 6px 8px;
  font-size: 13px;
  color: var(--quiet);
  font-weight: 600;
}
.cells th[scope='row'] {
  padding: 0 8px;
  min-width: 44px;
}
.cell {
  width: 100%;
  min-width: 72px;
  min-height: 34px;
  padding: 2px 6px;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
}
.cell:hover {
  border-color: var(--rule);
}
.cell:focus {
  background: var(--copper-soft);
  border-color: var(--copper);
  outline-offset: 0;
}
.cell::placeholder {
  color: var(--quiet);
  opacity: 1;
  font-style: italic;
  font-size: 13px;
}
.cell[aria-invalid='true'] {
  border-color: var(--fault);
  border-width: 2px;
}
@media (max-width: 759px) {
  .cell {
    min-height: 48px;
  }
}
</style>
