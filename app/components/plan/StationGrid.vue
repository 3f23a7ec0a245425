<script setup lang="ts">
import { readStationList } from '../../../core/formats'
import {
  CELLS,
  cellCommands,
  listCommands,
  RELAY,
  removalCommands,
  rowsOf,
  stationRow,
  type Cell,
  type ListedRow,
} from '../../../core/plan'
import { inUnit } from '../../../core/quantity'
import type { Outcome } from '../../../core/refusal'
import type { Command, Site } from '../../../core/site'
import { useSpeaker } from '../../composables/useSpeaker'
import { valueOf } from '../../lib/fields'

/** The list of stations as cells, gone through by Enter and the arrows; each is kept as it is left. */
const props = defineProps<{
  site: Site
  fixed: boolean
  keep: (outcome: Outcome<Command[]>) => Promise<boolean>
}>()
const units = computed(() => props.site.settings.units)
const { t } = useSpeaker(() => units.value)
const rows = computed(() => rowsOf(props.site))

const shown = (row: ListedRow, cell: Cell): string => {
  if (cell === 'at_m')
    return row.at_m === null ? '' : String(Math.round(inUnit(row.at_m, units.value.length) * 10) / 10)
  return row[cell] ?? ''
}
/** The relay sits in the cabinet: it has no box and no run. */
const isRelay = (row: ListedRow) => row.station.endsWith(RELAY)
const bad = ref<string | null>(null)
const keyOf = (row: ListedRow, cell: Cell) => `${row.station} ${cell}`
/** What is typed in a cell until the property says it: drawn again meanwhile, a cell keeps its own words. */
const drafts = reactive(new Map<string, string>())
/**
 * Cells are kept one after the other, each made from the property as the one before has left it; typing does not
 * wait.
 */
let queue: Promise<void> = Promise.resolve()
let waiting = 0
function write(row: ListedRow, cell: Cell): void {
  const key = keyOf(row, cell)
  const written = drafts.get(key)
  if (written === undefined) return
  waiting++
  const keepIt = async () => {
    const now = rows.value.find((r) => r.station === row.station)
    if (!now || drafts.get(key) !== written) return
    const kept = written.trim() === shown(now, cell) || (await props.keep(cellCommands(props.site, now, cell, written)))
    if (kept) {
      if (drafts.get(key) === written) drafts.delete(key)
      if (bad.value === key) bad.value = null
    } else bad.value = key
  }
  queue = queue.then(keepIt).finally(() => {
    waiting--
  })
}
const fresh = ref('')
async function add(): Promise<void> {
  if (fresh.value.trim() === '') return
  const list = readStationList(
    fresh.value,
    props.site.settings,
    rows.value.map((r) => r.station),
  )
  if (
    await props.keep(
      list.ok
        ? listCommands(
            props.site,
            list.value.map((r) => stationRow.parse(r)),
          )
        : list,
    )
  ) {
    fresh.value = ''
    await nextTick()
    focusCell(rows.value.length - 1, 'box')
  }
}
function focusCell(row: number, cell: Cell): void {
  const to = document.getElementById(
    row >= rows.value.length ? 'cell-new' : `cell-${Math.max(0, row)}-${cell}`,
  ) as HTMLInputElement | null
  to?.focus()
  to?.select()
}
/** Enter and the arrows go up and down a column; what was typed is kept on leaving a cell. */
function onKey(event: KeyboardEvent, index: number, cell: Cell): void {
  const row = rows.value[index]!
  if (event.key === 'Escape') {
    drafts.delete(keyOf(row, cell))
    if (bad.value === keyOf(row, cell)) bad.value = null
    return
  }
  const by =
    event.key === 'Enter' ? (event.shiftKey ? -1 : 1) : event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  if (by === 0) return
  event.preventDefault()
  const written = drafts.get(keyOf(row, cell))
  // While earlier cells are still being kept nobody can say yet whether this one is refused: a quick hand goes on, and
  // what is refused is marked where it stands.
  if (waiting > 0 || written === undefined || cellCommands(props.site, row, cell, written).ok)
    focusCell(index + by, cell) // leaving keeps it
  else write(row, cell)
}
const takeAway = (row: ListedRow) =>
  row.stationId !== null && props.keep({ ok: true, value: removalCommands(props.site, row.stationId) })
defineExpose({ focusCell })
</script>

<template>
  <table class="table cells">
    <caption class="sr-only">{{ t('plan.title') }}</caption>
    <thead>
      <tr>
        <th scope="col">{{ t('plan.station') }}</th>
        <th v-for="c in CELLS" :key="c" scope="col">
          {{ t(`plan.cell.${c}`) }}{{ c === 'at_m' ? `, ${units.length}` : '' }}
        </th>
        <td />
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, i) in rows" :key="row.station">
        <th scope="row" class="figure">{{ row.station }}</th>
        <td v-for="c in CELLS" :key="c" :class="c">
          <input
            :id="`cell-${i}-${c}`"
            class="cell"
            :class="{ figure: c === 'box' || c === 'at_m' || c === 'cable' }"
            :value="drafts.get(keyOf(row, c)) ?? shown(row, c)"
            :data-was="shown(row, c)"
            :readonly="
              fixed || (c === 'zone' && row.stationId === null) || (isRelay(row) && c !== 'name' && c !== 'coil')
            "
            :inputmode="c === 'at_m' ? 'decimal' : undefined"
            :aria-label="`${t(`plan.cell.${c}`)}, ${row.station}`"
            :aria-invalid="bad === keyOf(row, c)"
            autocomplete="off"
            :placeholder="c === 'coil' || (!isRelay(row) && (c === 'at_m' || c === 'box')) ? t('plan.unknown') : ''"
            @input="drafts.set(keyOf(row, c), valueOf($event))"
            @blur="write(row, c)"
            @keydown="onKey($event, i, c)"
            @focus="($event.target as HTMLInputElement).select()"
          />
        </td>
        <td>
          <AppButton
            v-if="row.stationId !== null && !fixed"
            look="plain"
            class="away"
            :aria-label="t('plan.takeAway', { station: row.station })"
            @click="takeAway(row)"
          >
            ×
          </AppButton>
        </td>
      </tr>
      <tr v-if="!fixed">
        <th scope="row" class="figure quiet">+</th>
        <td :colspan="CELLS.length">
          <input
            id="cell-new"
            v-model="fresh"
            class="cell"
            :aria-label="t('plan.add')"
            :placeholder="t('plan.addHow')"
            autocomplete="off"
            @keydown.enter.prevent="add"
            @keydown.up.prevent="focusCell(rows.length - 1, 'name')"
          />
        </td>
        <td />
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
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
td.name .cell {
  min-width: 150px;
}
td.zone .cell {
  min-width: 120px;
}
td.coil .cell {
  min-width: 140px;
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
.away {
  min-width: 34px;
  min-height: 32px;
  padding-block: 0;
  font-size: 18px;
  line-height: 1;
}
kbd {
  font: 12px var(--figures);
  border: 1px solid currentcolor;
  border-radius: 4px;
  padding: 0 5px;
  opacity: 0.85;
}
@media (max-width: 759px) {
  .cell {
    min-height: 48px;
  }
  .away {
    min-height: 48px;
    min-width: 48px;
  }
}
</style>
