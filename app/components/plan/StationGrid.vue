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
import { focusCell, useCells } from '../../composables/useCells'
import { useSpeaker } from '../../composables/useSpeaker'

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
const at = (station: string) => rows.value.find((r) => r.station === station) ?? null
const cells = useCells<string, Cell>({
  shown: (station, cell) => {
    const row = at(station)
    return row && shown(row, cell)
  },
  isGood: (station, cell, text) => cellCommands(props.site, at(station)!, cell, text).ok,
  keep: (station, cell, text) => props.keep(cellCommands(props.site, at(station)!, cell, text)),
  go: (station, cell, by) => goTo(rows.value.findIndex((r) => r.station === station) + by, cell),
})
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
    goTo(rows.value.length - 1, 'box')
  }
}
const goTo = (row: number, cell: Cell) =>
  focusCell(row >= rows.value.length ? 'cell-new' : `cell-${Math.max(0, row)}-${cell}`)
const takeAway = (row: ListedRow) =>
  row.stationId !== null && props.keep({ ok: true, value: removalCommands(props.site, row.stationId) })
defineExpose({ focusCell: goTo })
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
          <GridCell
            :id="`cell-${i}-${c}`"
            :cells="cells"
            :row="row.station"
            :column="c"
            :class="{ figure: c === 'box' || c === 'at_m' || c === 'cable' }"
            :readonly="
              fixed || (c === 'zone' && row.stationId === null) || (isRelay(row) && c !== 'name' && c !== 'coil')
            "
            :inputmode="c === 'at_m' ? 'decimal' : undefined"
            :aria-label="`${t(`plan.cell.${c}`)}, ${row.station}`"
            :placeholder="c === 'coil' || (!isRelay(row) && (c === 'at_m' || c === 'box')) ? t('plan.unknown') : ''"
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
            @keydown.up.prevent="goTo(rows.length - 1, 'name')"
          />
        </td>
        <td />
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td.name .cell {
  min-width: 150px;
}
td.zone .cell {
  min-width: 120px;
}
td.coil .cell {
  min-width: 140px;
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
  .away {
    min-height: 48px;
    min-width: 48px;
  }
}
</style>
