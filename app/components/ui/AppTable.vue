<script setup lang="ts" generic="Row extends object">
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import type { TableColumn } from '../../lib/table'

/**
 * Rows under headings; a column that names what it is sorted by can be sorted from its heading. A cell is the slot of
 * its column's key; `sums` stand below all rows.
 */
defineProps<{
  rows: readonly Row[]
  columns: readonly TableColumn<Row>[]
  rowKey: (row: Row) => string
  rowClass?: (row: Row) => string
  sums?: Readonly<Record<string, string>>
  label: string
}>()
defineSlots<Record<string, (props: { row: Row }) => unknown>>()
</script>

<template>
  <div class="table-scroll" role="region" tabindex="0" :aria-label="label">
    <DataTable
      :value="rows as Row[]"
      :data-key="rowKey as never"
      :row-class="rowClass"
      removable-sort
      :pt="{ table: { class: 'table' } }"
    >
      <Column
        v-for="c in columns"
        :key="c.key"
        :field="c.key"
        :header="c.header"
        :sortable="c.sort !== undefined"
        :sort-field="c.sort as never"
        :body-class="c.figure ? 'figure' : undefined"
        :class="c.class"
        :footer="sums?.[c.key]"
      >
        <template #body="{ data }">
          <slot :name="c.key" :row="data" />
        </template>
      </Column>
    </DataTable>
  </div>
</template>

<style>
.table-scroll {
  overflow-x: auto;
}
.table-scroll [data-pc-section='tablecontainer'] {
  overflow: visible !important;
}
.table-scroll th {
  color: var(--quiet);
  font-size: 13px;
}
.table-scroll th[data-p-sortable-column='true'] {
  cursor: pointer;
}
.table-scroll th[data-p-sortable-column='true'] [data-pc-section='columnheadercontent'] {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
.table-scroll th [data-pc-section='sorticon'] {
  width: 11px;
  height: 11px;
}
.table-scroll td {
  vertical-align: middle;
}
.table-scroll th,
.table-scroll td.figure {
  white-space: nowrap;
}
.table-scroll .pick-field {
  min-height: 34px;
  padding: 2px 8px;
  text-align: left;
}
.table-scroll tfoot td {
  font-weight: 700;
}
.table-scroll .right {
  text-align: right;
}
.table-scroll tr.picked {
  background: var(--copper-soft);
}
@media print {
  .table-scroll [data-pc-section='sorticon'] {
    display: none;
  }
}
</style>
