<script setup lang="ts">
import Column from 'primevue/column'
import DataTable, { type DataTableSortEvent } from 'primevue/datatable'
import { useI18n } from 'vue-i18n'
import type { Looking, Sort } from '../../../core/company'
import type { Row } from '../../composables/useOffice'
import { dayText } from '../../composables/useSpeaker'
import { asksOf } from '../../lib/asks'
import { today } from '../../lib/today'

/** Properties, however many: rows come as they are scrolled to, sorted by the heads where the list is kept. */
const props = defineProps<{ rows: readonly Row[]; looking: Looking; unsent: ReadonlyMap<string, number> }>()
const emit = defineEmits<{ sort: [by: Sort, down: boolean]; seen: [from: number, to: number] }>()
const { t } = useI18n()

/** Fewer rows than this stand on the page as they are. */
const FEW = 40
/** The height of a row, px, as the style below has it. */
const ROW_px = 72
const scroller = computed(() =>
  props.rows.length <= FEW
    ? undefined
    : {
        lazy: true,
        itemSize: ROW_px,
        numToleratedItems: 10,
        onLazyLoad: ({ first, last }: { first: number; last: number }) => emit('seen', first, last),
      },
)
/** Another look begins at the top. */
const root = useTemplateRef<HTMLElement>('root')
watch(
  () => props.looking,
  () => root.value?.querySelector('[data-pc-name="virtualscroller"]')?.scrollTo({ top: 0 }),
)
const sorted = ({ sortField, sortOrder }: DataTableSortEvent) =>
  emit('sort', (sortField as Sort | null) ?? 'name', sortOrder === -1)
const day = (of: string) => dayText(`${of.slice(0, 10)}T12:00:00`)
const asks = (row: Row) => ('gap' in row ? [] : asksOf(row, today()))

/** From row to row by the arrows. */
function move(event: KeyboardEvent): void {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  const root = event.currentTarget as HTMLElement
  const links = [...root.querySelectorAll<HTMLElement>('a.open')]
  const next = links[links.indexOf(document.activeElement as HTMLElement) + (by ?? 0)]
  if (by === undefined || !next) return
  event.preventDefault()
  next.focus()
  next.closest('tr')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <div ref="root" class="property-table" :class="{ long: scroller !== undefined }" @keydown="move">
    <DataTable
      :key="scroller === undefined ? 'few' : 'many'"
      :value="rows as Row[]"
      data-key="id"
      lazy
      removable-sort
      :sort-field="looking.sort"
      :sort-order="looking.down ? -1 : 1"
      :scrollable="scroller !== undefined"
      :scroll-height="scroller === undefined ? undefined : 'var(--list-height)'"
      :virtual-scroller-options="scroller"
      :pt="{ table: { class: 'table', 'aria-label': t('properties.table') } }"
      @sort="sorted"
    >
      <Column field="name" :header="t('properties.columns.name')" sortable>
        <template #body="{ data }">
          <span v-if="'gap' in data" class="quiet">{{ t('properties.loading') }}</span>
          <template v-else>
            <NuxtLink :to="`/p/${data.id}`" class="open" :prefetch="false">{{ data.name }}</NuxtLink>
            <span class="quiet small">
              {{ t('properties.controllers', data.controllers) }} · {{ t('properties.stations', data.stations) }}
            </span>
          </template>
        </template>
      </Column>
      <Column field="need" :header="t('properties.columns.need')" sortable>
        <template #body="{ data }">
          <span class="asks">
            <span v-for="a in asks(data)" :key="a.code" class="ask" :class="{ urgent: a.urgent }">
              {{ t(`asks.${a.code}`, { count: a.count, day: a.day === null ? '' : day(a.day) }, a.count) }}
            </span>
            <span v-if="unsent.get(data.id)" class="ask urgent">
              {{ t('properties.unsent', unsent.get(data.id)!) }}
            </span>
            <span v-if="!('gap' in data) && asks(data).length === 0 && !unsent.get(data.id)" class="quiet">
              {{ t('properties.quiet') }}
            </span>
          </span>
        </template>
      </Column>
      <Column field="visit" :header="t('properties.columns.visit')" sortable class="day">
        <template #body="{ data }">
          <template v-if="!('gap' in data)">
            {{ data.lastVisit ? day(data.lastVisit) : t('properties.never') }}
            <span v-if="data.visits > 0" class="quiet small">{{ t('properties.visits', data.visits) }}</span>
          </template>
        </template>
      </Column>
      <Column field="due" :header="t('properties.columns.due')" sortable class="day">
        <template #body="{ data }">{{ 'gap' in data || !data.visitDue ? '' : day(data.visitDue) }}</template>
      </Column>
    </DataTable>
  </div>
</template>

<style>
.property-table {
  --list-height: max(320px, calc(100vh - 320px));
}
.property-table.long [data-pc-name='virtualscroller'] {
  position: relative;
  overflow: auto;
  contain: strict;
  border: 1px solid var(--rule);
}
.property-table.long thead {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
}
.property-table th {
  color: var(--quiet);
  font-size: 13px;
  text-align: left;
  cursor: pointer;
  white-space: nowrap;
}
.property-table th [data-pc-section='sorticon'] {
  width: 11px;
  height: 11px;
}
.property-table th [data-pc-section='columnheadercontent'] {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
.property-table tbody tr {
  position: relative;
  height: 72px;
}
.property-table tbody tr:hover,
.property-table tbody tr:focus-within {
  background: var(--copper-soft);
}
.property-table td {
  vertical-align: middle;
}
.property-table .open {
  display: block;
  color: inherit;
  font-weight: 700;
  text-decoration: none;
}
.property-table .open::after {
  content: '';
  position: absolute;
  inset: 0;
}
.property-table .small {
  display: block;
  font-size: 13px;
}
.property-table .asks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  font-size: 14px;
}
.property-table .ask.urgent {
  color: var(--fault);
  font-weight: 700;
}
.property-table td.day {
  white-space: nowrap;
}
@media (max-width: 759px) {
  .property-table .day {
    display: none;
  }
}
</style>
