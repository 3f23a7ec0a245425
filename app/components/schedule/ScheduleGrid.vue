<script setup lang="ts">
import { v7 } from 'uuid'
import {
  addProgram,
  daysTyped,
  gridStations,
  headCommands,
  minutesCommands,
  minutesText,
  pasteMinutes,
  pastedCells,
  perCentIn,
  PROGRAM_CELLS,
  programsOf,
  seasonalText,
  startsText,
  stationKey,
  stationTag,
  type ProgramCell,
  type RecordedProgram,
  type StationOn,
  type Week,
} from '../../../core/schedule'
import type { Command, ControllerId, ProgramId } from '../../../core/site'
import type { Outcome } from '../../../core/refusal'
import { focusCell, useCells } from '../../composables/useCells'
import { useSchedulePage } from '../../composables/useSchedule'
import { today } from '../../lib/today'

/** Programs as they stand on the door: above, what holds for the whole of one; below, minutes by station. */
const props = defineProps<{
  controller: ControllerId
  /** The month shown, January being 0. */
  month: number
  totals: Week['totals']
  days: number
  fixed: boolean
  keep: (outcome: Outcome<Command[]>) => Promise<boolean>
}>()
const { site, t } = useSchedulePage()
const programs = computed(() => programsOf(site.value, props.controller))
const stations = computed(() => gridStations(site.value, props.controller))
const tag = (station: StationOn) => stationTag(site.value, props.controller, station)
const program = (id: string) => programs.value.find((p) => p.id === id) ?? null
const station = (row: string) => stations.value.find((s) => stationKey(s.station) === row)?.station ?? null
const isHead = (row: string): row is ProgramCell => (PROGRAM_CELLS as readonly string[]).includes(row)
const rows = computed(() => [...PROGRAM_CELLS, ...stations.value.map((s) => stationKey(s.station))])

const headText = (p: RecordedProgram, cell: ProgramCell): string =>
  ({
    name: p.name,
    starts: startsText(p.starts_s),
    days: daysTyped(p.days),
    seasonal_pct: seasonalText(p.seasonal_pct),
  })[cell]
function commandsFor(row: string, id: string, text: string): Outcome<Command[]> {
  if (isHead(row)) return headCommands(id as ProgramId, row, text, today())
  return minutesCommands(site.value, id as ProgramId, station(row)!, text)
}
const idOf = (row: number, id: string) => `program-${row}-${id}`
const cells = useCells<string, string>({
  shown: (row, id) => {
    const p = program(id)
    if (!p) return null
    if (isHead(row)) return headText(p, row)
    const of = station(row)
    return of && minutesText(p, of)
  },
  isGood: (row, id, text) => commandsFor(row, id, text).ok,
  keep: (row, id, text) => props.keep(commandsFor(row, id, text)),
  go: (row, id, by) => focusCell(idOf(rows.value.indexOf(row) + by, id)),
})

/** What a station’s minutes come to in the month shown, where a per cent makes them others. */
function comesTo(p: RecordedProgram, of: StationOn): string {
  const percent = perCentIn(p.seasonal_pct, props.month)
  const minutes = p.runs.filter((r) => stationKey(r.station) === stationKey(of)).map((r) => r.minutes)
  return percent === 100 || minutes.length === 0
    ? ''
    : String(Math.round(minutes.reduce((sum, m) => sum + m, 0) * percent) / 100)
}
const total = (of: StationOn) => Math.round((props.totals[stationKey(of)]?.seconds ?? 0) / 6) / 10

async function add(like?: RecordedProgram): Promise<void> {
  const id = v7()
  if (!(await props.keep({ ok: true, value: addProgram(site.value, props.controller, id, like) }))) return
  await nextTick()
  focusCell(idOf(1, id))
}
const takeAway = (id: ProgramId) => props.keep({ ok: true, value: [{ do: 'remove', in: 'programs', id }] })
/** A table from elsewhere goes into the cells below and right of the one that it is pasted into. */
function onPaste(event: ClipboardEvent, of: StationOn, id: ProgramId): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (props.fixed || !/[\t\n]/.test(text.trim())) return
  event.preventDefault()
  void props.keep(pasteMinutes(site.value, props.controller, { station: of, program: id }, pastedCells(text)))
}
defineExpose({ add })
</script>

<template>
  <table class="table cells programs">
    <caption class="sr-only">{{ t('schedule.title') }}</caption>
    <thead>
      <tr v-for="(cell, i) in PROGRAM_CELLS" :key="cell" :class="cell">
        <th scope="row" colspan="2">
          {{ t(`schedule.cell.${cell}`) }}
          <span v-if="cell !== 'name'" class="hint">{{ t(`schedule.how.${cell}`) }}</span>
        </th>
        <td v-for="p in programs" :key="p.id">
          <span class="head">
            <GridCell
              :id="idOf(i, p.id)"
              class="figure"
              :cells="cells"
              :row="cell"
              :column="p.id"
              :readonly="fixed"
              :title="headText(p, cell)"
              :aria-label="t('schedule.cellOf', { cell: t(`schedule.cell.${cell}`), program: p.name })"
            />
            <template v-if="cell === 'name' && !fixed">
              <AppButton
                look="plain"
                class="deed"
                :aria-label="t('schedule.like', { program: p.name })"
                @click="add(p)"
              >
                {{ t('schedule.copy') }}
              </AppButton>
              <AppButton
                look="plain"
                class="deed"
                :aria-label="t('schedule.away', { program: p.name })"
                @click="takeAway(p.id)"
              >
                ×
              </AppButton>
            </template>
          </span>
        </td>
        <td v-if="cell === 'name'" class="total" :rowspan="PROGRAM_CELLS.length">
          {{ t('schedule.inAll', { days }) }}, min
        </td>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(s, i) in stations" :key="stationKey(s.station)">
        <th scope="row" class="figure">{{ tag(s.station) }}</th>
        <td class="name">{{ s.name || t('schedule.noName') }}</td>
        <td v-for="p in programs" :key="p.id">
          <span class="head">
            <GridCell
              :id="idOf(PROGRAM_CELLS.length + i, p.id)"
              class="figure"
              inputmode="text"
              :cells="cells"
              :row="stationKey(s.station)"
              :column="p.id"
              :readonly="fixed"
              :aria-label="t('schedule.minutesOf', { station: tag(s.station), program: p.name })"
              @paste="onPaste($event, s.station, p.id)"
            />
            <span
              v-if="comesTo(p, s.station)"
              class="comes figure"
              :title="
                t('schedule.runsAt', {
                  minutes: comesTo(p, s.station),
                  percent: perCentIn(p.seasonal_pct, month),
                })
              "
            >
              → {{ comesTo(p, s.station) }}
            </span>
          </span>
        </td>
        <td class="total figure">{{ total(s.station) || '–' }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.programs {
  width: auto;
  min-width: 60%;
}
.programs thead th {
  font-size: 14px;
  color: var(--ink);
}
.programs .hint {
  display: block;
  font-weight: 400;
  font-size: 12px;
  color: var(--quiet);
}
.programs .name {
  padding-right: 16px;
  white-space: nowrap;
}
.programs td {
  min-width: 120px;
}
.head {
  display: flex;
  align-items: center;
}
.name .head .cell {
  font-weight: 700;
  font-size: 16px;
}
.deed {
  min-width: 34px;
  min-height: 32px;
  padding: 0;
}
.comes {
  color: var(--quiet);
  font-size: 13px;
  padding-right: 8px;
  white-space: nowrap;
}
td.total {
  color: var(--quiet);
  font-size: 13px;
  text-align: right;
  vertical-align: bottom;
  padding-bottom: 6px;
}
@media (max-width: 759px) {
  .deed {
    min-width: 48px;
    min-height: 48px;
  }
}
</style>
