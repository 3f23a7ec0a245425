<script setup lang="ts">
import { judge, judgeCabinet, stateOf, type Scene, type State } from '../../../core/expect'
import { readReadingsCsv, writeReadingsCsv, type CsvReading } from '../../../core/formats'
import { MOST_BYTES } from '../../../core/formats/limits'
import { ohmsWithUnit } from '../../../core/quantity'
import { controllerOf, isHuntTest, readingKey, standingReadings, testKey, type Job } from '../../../core/record'
import { refusal, refused, type Refusal } from '../../../core/refusal'
import { sayRefusal, type Speaker } from '../../../words'
import { sayValue } from '../../../words/hunt'
import { useJobFacts } from '../../composables/useJobFacts'
import { useHuntWords } from '../../composables/useHuntWords'
import type { SweepRow } from '../../composables/useSweep'
import { saveText } from '../../lib/save'
import { useProperty } from '../../stores/property'

/** A sweep's readings out as CSV, and in: seen with their verdicts before anything is kept. */
const props = defineProps<{
  jobId: string
  job: Job
  rows: readonly SweepRow[]
  scene: Scene
  speaker: Speaker
  open: boolean
}>()
const property = useProperty()
const { t } = useHuntWords(() => property.site!.settings.units)
const written = useJobFacts(() => props.jobId)
const refusals = shallowRef<readonly Refusal[]>([])

interface Preview {
  readonly csv: CsvReading
  readonly state: State
  readonly value: string
  readonly before: string | null
  readonly here: boolean
}
const previews = shallowRef<readonly Preview[] | null>(null)
const keepable = computed(() => previews.value?.filter((p) => p.here) ?? [])
const standing = computed(
  () => new Map(standingReadings(property.facts!, props.jobId).map((l) => [readingKey(l.reading), l])),
)
const valueText = ({ test, value }: CsvReading): string =>
  value.kind === 'ohm'
    ? ohmsWithUnit(value.ohm)
    : value.kind === 'open'
      ? props.job.meter.openMark
      : sayValue(test, value, property.site!, props.speaker)

async function chosen(file: File): Promise<void> {
  const read =
    file.size > MOST_BYTES
      ? refused(refusal('too_large'))
      : readReadingsCsv(await file.text(), property.site!, props.job.meter)
  refusals.value = read.ok ? [] : read.refusals
  previews.value = read.ok ? read.value.map(previewOf) : null
}
function previewOf(csv: CsvReading): Preview {
  const { test, value } = csv
  const baseline = props.rows.find((r) => testKey(r.expected.test) === testKey(test))?.baseline ?? null
  const state =
    test.kind === 'ohms' && (value.kind === 'ohm' || value.kind === 'open')
      ? stateOf(judge(props.scene, test, value, props.job.meter, baseline).verdict.code)
      : test.kind === 'ohms' || isHuntTest(test)
        ? 'none'
        : judgeCabinet(test, value, null).state
  const before = standing.value.get(readingKey(csv))
  return {
    csv,
    state,
    value: valueText(csv),
    here: [props.job.controller, null].includes(controllerOf(property.site!, test)),
    before: before ? valueText({ ...csv, value: before.reading.value }) : null,
  }
}
async function keepAll(): Promise<void> {
  const now = new Date().toISOString()
  const [taken, replaced] = [keepable.value, standing.value]
  previews.value = null
  for (const { csv } of taken) {
    const before = replaced.get(readingKey(csv))
    await written.read(csv.test, csv.value, { at: csv.at ?? now, ...(csv.state ? { state: csv.state } : {}) })
    if (before) await written.strike(before.id, t('sweep.again'), now)
  }
}
const save = () =>
  saveText(
    `${props.job.title || 'sweep'} ${props.job.at.slice(0, 10)}.csv`,
    writeReadingsCsv(
      property.site!,
      [...standing.value.values()].map((l) => l.reading),
    ),
    'text/csv',
  )
</script>

<template>
  <section class="sheet stack files">
    <div class="row between">
      <h2>{{ t('csv.title') }}</h2>
      <span class="row">
        <AppButton :disabled="standing.size === 0" @click="save">{{ t('csv.out') }}</AppButton>
        <FileButton v-if="open" accept=".csv,text/csv,text/plain" :label="t('csv.open')" @chosen="chosen" />
      </span>
    </div>
    <p v-if="open" class="quiet">{{ t('csv.how') }}</p>
    <div v-if="refusals.length > 0" role="alert">
      <p class="fault">
        <strong>{{ t('csv.broken') }}</strong>
      </p>
      <ul class="list">
        <li v-for="(r, i) in refusals" :key="i">{{ sayRefusal(r, speaker) }}</li>
      </ul>
    </div>
    <template v-if="previews">
      <p>
        <strong>{{ t('csv.preview', previews.length) }}</strong>
      </p>
      <FigureList :rows="previews" :row-key="(p) => p.csv.line">
        <template #words="{ row: p }">
          <span class="figure">{{ p.csv.label }}</span>
          <span v-if="p.csv.test.kind !== 'ohms'" class="quiet">{{ ' ' }}{{ p.csv.test.kind }}</span>
          {{ ' ' }}
          <span v-if="!p.here" class="doubtful">{{ t('csv.otherController') }}</span>
          <span v-else-if="p.before" class="quiet">{{ t('csv.replaces', { before: p.before }) }}</span>
        </template>
        <template #figure="{ row: p }">
          {{ p.value }}
          <StateMark :state="p.here ? p.state : 'none'" />
        </template>
      </FigureList>
      <div class="row">
        <AppButton look="primary" :disabled="keepable.length === 0" @click="keepAll">
          {{ t('csv.keep', keepable.length) }}
        </AppButton>
        <AppButton look="plain" @click="previews = null">{{ t('app.cancel') }}</AppButton>
      </div>
    </template>
  </section>
</template>

<style scoped>
.between {
  justify-content: space-between;
}
.files h2 {
  font-size: 16px;
}
.list {
  list-style: disc;
  padding-left: 20px;
}
</style>
