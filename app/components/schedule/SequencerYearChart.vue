<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { dateOf, dayNumber, type CalendarDate, type SequencerYear } from '../../../core/schedule'
import type { Sequenced } from '../../../core/sequencer'
import { deviceName } from '../../../core/site'
import { useElementWidth } from '../../composables/useElementWidth'
import { useSchedulePage } from '../../composables/useSchedule'

/** A year at one sequencer: a row for each valve with a bar for each day, and what came between above them. */
const props = defineProps<{ sequenced: Sequenced; year: SequencerYear; from: CalendarDate }>()
const { site, t } = useSchedulePage()
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
const DAYS = 365
const [TOP, ROW, SHORT, TALL] = [34, 34, 8, 26]
/** A day’s water that is off by less than this is its own. */
const SAME_s = 60
const left = computed(() => (width.value > 620 ? 110 : 44))
const x = computed(() =>
  scaleLinear()
    .domain([0, DAYS])
    .range([left.value, Math.max(left.value + 60, width.value - 2)]),
)
const dayOf = (date: CalendarDate) => dayNumber(date) - dayNumber(props.from)
const months = computed(() =>
  Array.from({ length: DAYS }, (_, i) => ({ day: i, date: dateOf(dayNumber(props.from) + i) }))
    .filter(({ date }) => date.endsWith('-01'))
    .map(({ day, date }) => ({ day, label: date.slice(5, 7) })),
)
const called = computed(() => deviceName(site.value, props.sequenced.device))
const rows = computed(() =>
  props.sequenced.outputs.flatMap((coils, output) =>
    coils.length === 0
      ? []
      : [
          {
            output,
            valve: coils.map((c) => deviceName(site.value, c)).join(' + '),
            bars: props.year.days.flatMap((d) => {
              const [meant, had] = [d.meant_s[output]!, d.had_s[output]!]
              if (meant === 0 && had === 0) return []
              const isOwn = Math.abs(had - meant) <= SAME_s
              return [{ day: dayOf(d.date), kind: isOwn ? 'own' : had < meant ? 'lack' : 'more' }]
            }),
          },
        ],
  ),
)
const wrong = computed(() => props.year.days.filter((d) => d.isWrong))
const minutes = (seconds: number) => Math.round(seconds / 60)
const readable = (at: string) => at.replace('T', ' ').slice(0, 16)
</script>

<template>
  <figure ref="holder" class="stack">
    <figcaption>
      <StateMark :state="wrong.length > 0 ? 'doubtful' : 'fits'" silent />
      {{ ' ' }}
      <strong>
        {{
          wrong.length > 0
            ? t('schedule.yearWrong', {
                sequencer: called,
                wrong: wrong.length,
                days: year.days.length,
                date: wrong[0]!.date,
              })
            : t('schedule.yearFine', { sequencer: called, days: year.days.length })
        }}
      </strong>
    </figcaption>
    <svg
      :width="width"
      :height="TOP + ROW * rows.length"
      role="img"
      :aria-label="
        t('schedule.yearLabel', {
          sequencer: called,
          valves: rows.map((r) => r.valve).join(', '),
          wrong: wrong.length,
          days: year.days.length,
        })
      "
    >
      <g v-for="m in months" :key="m.day">
        <line class="grid" :x1="x(m.day)" :x2="x(m.day)" :y1="14" :y2="TOP + ROW * rows.length" />
        <text class="tick figure" :x="x(m.day) + 2" :y="12">{{ m.label }}</text>
      </g>
      <g v-for="(u, i) in year.upsets" :key="i" class="upset" :class="{ shifts: u.shifts }">
        <circle v-if="u.kind === 'outage'" :cx="x(dayOf(u.at.slice(0, 10)) + 0.5)" :cy="TOP - 9" r="4" />
        <rect v-else :x="x(dayOf(u.at.slice(0, 10)) + 0.5) - 3.5" :y="TOP - 12.5" width="7" height="7" />
        <title>
          {{
            t(u.shifts ? 'schedule.upsetShifts' : 'schedule.upsetStays', {
              at: readable(u.at),
              what: t(`schedule.upset.${u.kind}`),
            })
          }}
        </title>
      </g>
      <g v-for="(r, i) in rows" :key="r.output">
        <text class="tick" :x="0" :y="TOP + ROW * (i + 1) - 8">{{ r.valve.slice(0, left > 60 ? 16 : 5) }}</text>
        <line class="grid" :x1="0" :x2="width" :y1="TOP + ROW * (i + 1) - 2" :y2="TOP + ROW * (i + 1) - 2" />
        <rect
          v-for="b in r.bars"
          :key="b.day"
          :class="b.kind"
          :x="x(b.day)"
          :width="Math.max(1, x(b.day + 1) - x(b.day) - 0.5)"
          :y="TOP + ROW * (i + 1) - 2 - (b.kind === 'own' ? SHORT : TALL)"
          :height="b.kind === 'own' ? SHORT : TALL"
        />
      </g>
    </svg>
    <p class="row quiet">
      <span v-for="r in rows" :key="r.output">
        {{
          t('schedule.yearShare', {
            valve: r.valve,
            had: minutes(year.had_s[r.output]!),
            meant: minutes(year.meant_s[r.output]!),
          })
        }}
      </span>
    </p>
    <ul v-if="year.upsets.some((u) => u.shifts)" class="small">
      <li v-for="(u, i) in year.upsets.filter((one) => one.shifts)" :key="i">
        {{ t('schedule.upsetShifts', { at: readable(u.at), what: t(`schedule.upset.${u.kind}`) }) }}
      </li>
    </ul>
  </figure>
</template>

<style scoped>
.stack {
  gap: 8px;
}
.grid {
  stroke: var(--rule);
}
.tick {
  font-size: 12px;
  fill: var(--quiet);
}
.own {
  fill: var(--fits);
}
.lack {
  fill: var(--fault);
}
.more {
  fill: var(--doubtful);
}
.upset {
  fill: none;
  stroke: var(--quiet);
  stroke-width: 1.5;
}
.upset.shifts {
  fill: var(--ink);
  stroke: var(--ink);
}
.small {
  font-size: 14px;
}
@media (max-width: 759px) {
  .tick {
    font-size: 13px;
  }
  .small {
    font-size: 15px;
  }
}
</style>
