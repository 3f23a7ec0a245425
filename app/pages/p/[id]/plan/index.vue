<script setup lang="ts">
import { readStationLines, readStationList, writeStationList } from '../../../../../core/formats'
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
} from '../../../../../core/plan'
import { inUnit } from '../../../../../core/quantity'
import { sayRefusal } from '../../../../../words'
import { usePlan } from '../../../../composables/usePlan'
import { useSpeaker } from '../../../../composables/useSpeaker'
import { saveText } from '../../../../lib/save'
import { useProperty } from '../../../../stores/property'

const property = useProperty()
const site = computed(() => property.site!)
const units = computed(() => site.value.settings.units)
const { t, speaker } = useSpeaker(() => units.value)
const { keep, sentences } = usePlan(() => speaker.value)
const rows = computed(() => rowsOf(site.value))
const fixed = computed(() => property.viewed !== null)

// The list as text: pasted, looked at, taken in.
const open = ref(rows.value.length === 0)
const text = ref('')
const read = computed(() =>
  text.value.trim() === ''
    ? null
    : readStationLines(
        text.value,
        site.value.settings,
        rows.value.map((r) => r.station),
      ),
)
const understood = computed(() => (read.value?.ok ? read.value.value.rows : []))
const refusedLines = computed(() => (read.value?.ok ? read.value.value.refused : []))
const complaints = computed(() =>
  read.value && !read.value.ok
    ? read.value.refusals.map((r) => sayRefusal(r, speaker.value))
    : refusedLines.value.flatMap(({ cells, refusals }) =>
        refusals.map((r) => `“${cells.join(' ').trim()}”. ${sayRefusal(r, speaker.value)}`),
      ),
)
const area = ref<HTMLTextAreaElement | null>(null)
onMounted(() => area.value?.focus())
watch(open, async (is) => {
  if (is) {
    await nextTick()
    area.value?.focus()
  }
})
async function takeIn(): Promise<void> {
  if (understood.value.length === 0 || fixed.value) return
  const [listed, left] = [understood.value, read.value?.ok ? read.value.value.left : '']
  if (!(await keep(listCommands(site.value, listed)))) return
  // What was not understood stays where it was written, to be mended.
  text.value = left
  if (left !== '') return
  open.value = false
  await nextTick()
  focusCell(0, listed.some((r) => r.box !== null) ? 'at_m' : 'box')
}
async function openFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) {
    text.value = await file.text()
    open.value = true
  }
  input.value = ''
}
const chooser = ref<HTMLInputElement | null>(null)
const save = () => saveText(`${site.value.about.name} stations.csv`, writeStationList(site.value), 'text/csv')

// The cells.
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
function write(row: ListedRow, cell: Cell): void {
  const key = keyOf(row, cell)
  const written = drafts.get(key)
  if (written === undefined) return
  queue = queue.then(async () => {
    const now = rows.value.find((r) => r.station === row.station)
    if (!now || drafts.get(key) !== written) return
    const kept = written.trim() === shown(now, cell) || (await keep(cellCommands(site.value, now, cell, written)))
    if (kept) {
      if (drafts.get(key) === written) drafts.delete(key)
      if (bad.value === key) bad.value = null
    } else bad.value = key
  })
}
const fresh = ref('')
async function add(): Promise<void> {
  if (fresh.value.trim() === '') return
  const list = readStationList(
    fresh.value,
    site.value.settings,
    rows.value.map((r) => r.station),
  )
  if (
    await keep(
      list.ok
        ? listCommands(
            site.value,
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
  if (written === undefined || cellCommands(site.value, row, cell, written).ok)
    focusCell(index + by, cell) // leaving keeps it
  else write(row, cell)
}
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const takeAway = (row: ListedRow) =>
  row.stationId !== null && keep({ ok: true, value: removalCommands(site.value, row.stationId) })
</script>

<template>
  <div class="stack">
    <div class="row title">
      <h1>{{ t('plan.title') }}</h1>
      <span class="row">
        <button v-if="!open && !fixed" type="button" class="button" @click="open = true">{{ t('plan.paste') }}</button>
        <button type="button" class="button" @click="chooser?.click()">{{ t('plan.openCsv') }}</button>
        <button v-if="rows.length > 0" type="button" class="button" @click="save">{{ t('plan.saveCsv') }}</button>
      </span>
      <input
        ref="chooser"
        type="file"
        accept=".csv,.txt,text/csv"
        class="sr-only"
        tabindex="-1"
        :aria-label="t('plan.openCsv')"
        @change="openFile"
      />
    </div>
    <section v-if="open && !fixed" class="sheet stack">
      <div class="field">
        <label for="list-text">{{ t('plan.listText') }}</label>
        <textarea
          id="list-text"
          ref="area"
          v-model="text"
          class="input area figure"
          rows="7"
          spellcheck="false"
          @keydown.ctrl.enter.prevent="takeIn"
          @keydown.meta.enter.prevent="takeIn"
          @keydown.esc="rows.length > 0 && (open = false)"
        />
        <p class="how">{{ t('plan.listHow') }}</p>
      </div>
      <ul v-if="complaints.length > 0" class="wrong" role="alert">
        <li v-for="c in complaints" :key="c">{{ c }}</li>
      </ul>
      <p class="row">
        <button type="button" class="button primary" :disabled="understood.length === 0" @click="takeIn">
          {{
            understood.length === 0
              ? t('plan.takeInNone')
              : t(refusedLines.length > 0 ? 'plan.takeInOthers' : 'plan.takeIn', understood.length)
          }}
          <kbd>Ctrl Enter</kbd>
        </button>
        <button v-if="rows.length > 0" type="button" class="button" @click="open = false">{{ t('app.cancel') }}</button>
      </p>
    </section>
    <ul v-if="sentences.length > 0" class="sheet wrong" role="alert">
      <li v-for="s in sentences" :key="s">{{ s }}</li>
    </ul>
    <section v-if="rows.length > 0" class="sheet scroll">
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
              <button
                v-if="row.stationId !== null && !fixed"
                type="button"
                class="button plain away"
                :aria-label="t('plan.takeAway', { station: row.station })"
                @click="takeAway(row)"
              >
                ×
              </button>
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
    </section>
    <p v-if="rows.length > 0" class="quiet small">{{ t('plan.keys') }}</p>
    <PlanRuns v-if="rows.length > 0" :site="site" :unit="units.length" :fixed="fixed" />
    <CoilKinds :site="site" :fixed="fixed" />
    <p class="caution">{{ t('properties.code') }} {{ t('plan.dig') }}</p>
  </div>
</template>

<style scoped>
.title {
  justify-content: space-between;
}
.area {
  min-height: 150px;
  resize: vertical;
}
.wrong {
  color: var(--fault);
  font-weight: 600;
}
.wrong.sheet {
  border-left: 5px solid var(--fault);
}
.scroll {
  overflow-x: auto;
  padding: 8px 16px;
}
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
.small {
  font-size: 13px;
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
  .small {
    font-size: 15px;
  }
}
</style>
