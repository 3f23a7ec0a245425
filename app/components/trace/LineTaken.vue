<script setup lang="ts">
import { mostChanged } from '../../../core/expect'
import {
  readGeoJson,
  readGpx,
  readTraceCsv,
  writeTraceCsv,
  writeTraceGeoJson,
  writeTraceGpx,
  type TraceDrawn,
} from '../../../core/formats'
import { toLocal } from '../../../core/map'
import type { Outcome } from '../../../core/refusal'
import { applyBatch } from '../../../core/site'
import { acrossAt, beside, tracedCommands } from '../../../core/trace'
import { sayRefusal } from '../../../words'
import type { TraceWorkHere } from '../../composables/useTrace'
import { saveText } from '../../lib/save'
import { today } from '../../lib/today'

/** The line that was found: what taking it into the record changes is told first; and the walk as files, out and in. */
const props = defineProps<{ work: TraceWorkHere }>()
const { t, speaker, property, traces, trace, finds, flags, probes, metres, write, name } = props.work

const taking = computed(() => {
  const cable = traces.value?.cable
  return cable && trace.value ? tracedCommands(property.site!, cable, trace.value, today()) : null
})
const legs = computed(() => {
  const { value: made } = taking
  if (!made?.ok) return []
  return made.value.legs.map((leg) => {
    const stops = trace.value!.way!.stops
    const i = stops.findIndex((s) => s.stop === leg.stop)
    return t('trace.takes', {
      from: name(stops[i]!.place),
      to: name(stops[i + 1]!.place),
      length: metres(leg.length_m, 1),
    })
  })
})
/** What the change does to what meters should read. */
const change = computed(() => {
  const { value: made } = taking
  const applied = made?.ok ? applyBatch(property.site!, made.value.commands) : null
  const most = applied?.ok ? mostChanged(property.site!, applied.value.site) : null
  return most && Math.abs(most.by_ohm) >= 0.1
    ? t('trace.takesOhms', {
        most: `${most.by_ohm > 0 ? '+' : '−'}${Math.abs(most.by_ohm).toFixed(1)} Ω`,
        terminal: most.terminal,
      })
    : t('trace.takesNothing')
})
const taken = ref(false)
async function take(): Promise<void> {
  if (!taking.value?.ok) return
  await property.change(taking.value.value.commands)
  taken.value = true
}

const wrong = ref<string[]>([])
const told = ref('')
const file = computed(() => `${property.site!.about.name} ${t('trace.title')}`)
const drawn = (): TraceDrawn => ({
  name: file.value,
  line: trace.value!.line.map((p) => p.at),
  spots: [
    ...flags.value.map((f, i) => ({ at: f.marked.at, kind: 'flag', name: `F${i + 1}`, note: f.marked.note })),
    ...(trace.value!.way
      ? finds.value.map((f, i) => ({
          at: beside(trace.value!.way!.points, f.along_m.mid, acrossAt(trace.value!.sections, f.along_m.mid)),
          kind: f.kind,
          name: String(i + 1),
          note: t(`trace.find.${f.kind}`),
        }))
      : []),
    ...probes.value.map((p, i) => ({
      at: p.marked.at,
      kind: p.marked.hit ? 'lid' : 'soil',
      name: `P${i + 1}`,
      note: '',
    })),
  ],
})
function save(written: Outcome<string>, ending: string, type: string): void {
  wrong.value = written.ok ? [] : written.refusals.map((r) => sayRefusal(r, speaker.value))
  if (written.ok) saveText(`${file.value}.${ending}`, written.value, type)
}
const readings = () => [
  ...trace.value!.sections.flatMap((s) => s.readings.map((r) => ({ ...r, section: s.name }))),
  ...trace.value!.along.map((r) => ({ ...r, section: '' })),
]
const saveCsv = () => save({ ok: true, value: writeTraceCsv(readings()) }, 'csv', 'text/csv')
/** Spots of a file of flags, and the corners of its lines, in their order. */
async function bringSpots(chosen: File): Promise<void> {
  const text = await chosen.text()
  const read = text.trimStart().startsWith('<') ? readGpx(text) : readGeoJson(text)
  const { origin } = property.site!.about
  told.value = ''
  wrong.value = !read.ok
    ? read.refusals.map((r) => sayRefusal(r, speaker.value))
    : origin === null
      ? [t('trace.noOrigin')]
      : []
  if (!read.ok || origin === null) return
  const { points, lines } = read.value.value
  const spots = [
    ...points.map((p) => ({ at: p.at, note: p.name })),
    ...lines.flatMap((l) => l.at.map((at) => ({ at, note: '' }))),
  ]
  for (const { at, note } of spots)
    await write({ kind: 'way', at: toLocal(origin, at), by: 'phone', within_m: 5, note: note.slice(0, 120) })
  told.value = t('trace.spotsTook', { count: spots.length })
}
async function bring(chosen: File): Promise<void> {
  const read = readTraceCsv(await chosen.text())
  wrong.value = read.ok ? [] : read.refusals.map((r) => sayRefusal(r, speaker.value))
  told.value = ''
  if (!read.ok) return
  for (const { section, ...reading } of read.value) {
    const called = section.replace(/[\s:,]/g, '-').slice(0, 12)
    await write({ kind: 'wand', section: called === '' ? null : called, ...reading })
  }
  told.value = t('trace.csvTook', { count: read.value.length })
}
</script>

<template>
  <div class="stack">
    <section class="stack">
      <h2>{{ t('trace.take') }}</h2>
      <template v-if="taking?.ok">
        <p class="quiet">{{ t('trace.takeHow') }}</p>
        <ul>
          <li v-for="leg in legs" :key="leg">{{ leg }}</li>
        </ul>
        <p v-if="taken" class="fits" role="status">{{ t('trace.taken') }}</p>
        <template v-else>
          <p>{{ change }}</p>
          <p v-if="!property.viewed">
            <AppButton look="primary" @click="take">{{ t('trace.take') }}</AppButton>
          </p>
        </template>
      </template>
      <p v-else-if="taking" class="quiet">{{ sayRefusal(taking.refusals[0]!, speaker) }}</p>
    </section>
    <section class="stack">
      <h2>{{ t('trace.files') }}</h2>
      <div class="row">
        <AppButton @click="saveCsv">{{ t('trace.csv') }}</AppButton>
        <AppButton @click="save(writeTraceGeoJson(property.site!, drawn()), 'geojson', 'application/geo+json')">
          {{ t('trace.geojson') }}
        </AppButton>
        <AppButton @click="save(writeTraceGpx(property.site!, drawn()), 'gpx', 'application/gpx+xml')">
          {{ t('trace.gpx') }}
        </AppButton>
        <FileButton accept=".csv,text/csv" :label="t('trace.csvIn')" @chosen="bring" />
        <FileButton accept=".gpx,.geojson,.json" :label="t('trace.spots')" @chosen="bringSpots" />
      </div>
      <p v-if="told" class="fits" role="status">{{ told }}</p>
      <p v-for="sentence in wrong" :key="sentence" class="fault" role="alert">{{ sentence }}</p>
    </section>
    <HalfMissing :work="work" />
  </div>
</template>
