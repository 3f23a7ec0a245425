<script setup lang="ts">
import { inUnit, toMetres } from '../../../core/quantity'
import { byTag, coresOnPaths, getOrThrow } from '../../../core/site'
import { acrossAt, expectedAlong, foundBeside, type Beside } from '../../../core/trace'
import type { TraceWorkHere } from '../../composables/useTrace'
import type { Wand } from '../../composables/useWand'
import { figureIn } from '../../lib/figures'
import { useProperty } from '../../stores/property'

/** A walk along the line: a reading a step, and what was met, as it comes. */
const props = defineProps<{ work: TraceWorkHere; wand: Wand }>()
const property = useProperty()
const { t, trace, units, metres, write, takeBack, finds, weighing } = props.work
const unit = computed(() => units.value.length)
const along = computed(() => trace.value?.along ?? [])
const step = ref(String(unit.value === 'ft' ? 1 : 0.25))
const step_m = computed(() => toMetres(figureIn(step.value, 0.05, 20) ?? 0.25, unit.value))
const from = ref('0')
const next_m = computed(() => {
  const last = along.value.at(-1)
  const at_m = last ? last.along_m + step_m.value : toMetres(figureIn(from.value, -1000, 60_000) ?? 0, unit.value)
  return Math.round(at_m * 1000) / 1000
})
/** One follows the line, as it lies beside the drawn way where it was crossed. */
const across_m = computed(() => acrossAt(trace.value?.sections ?? [], next_m.value))
const keep = (reading: number) =>
  write({ kind: 'wand', section: null, along_m: next_m.value, across_m: 0, ...props.wand.held, reading })

const WALK_m = 5
const walking = ref(false)
async function walkOn(): Promise<void> {
  if (walking.value) return
  walking.value = true
  const to_m = next_m.value + WALK_m
  while (next_m.value < to_m && walking.value) {
    const reading = await props.wand.read(next_m.value, across_m.value)
    if (reading === null) break
    await keep(reading)
  }
  walking.value = false
}
onBeforeUnmount(() => {
  walking.value = false
})
const says = (f: (typeof finds.value)[number]) =>
  t('trace.findAt', {
    what: t(`trace.find.${f.kind}`),
    mid: metres(f.along_m.mid, 1),
    low: metres(f.along_m.low, 1),
    high: metres(f.along_m.high, 1),
    percent: Math.round(f.p * 100),
  })
const isOnPath = computed(() => {
  const cable = props.work.traces.value?.cable
  return !!cable && [...coresOnPaths(property.site!)].some((core) => core.startsWith(`${cable}/`))
})
const rows = computed(() =>
  foundBeside(
    expectedAlong(property.site!, props.work.traces.value?.cable ?? null, trace.value?.way ?? null),
    finds.value,
  ),
)
const saysExpected = ({ expected: e }: Beside) => {
  if (!e) return t('trace.expectedNone')
  const place = getOrThrow(property.site!.places, e.place).tag
  const tags = e.decoders.map((d) => getOrThrow(property.site!.devices, d).tag ?? d).sort(byTag)
  return t(`trace.expected.${e.kind}`, { place, tags: tags.join(', '), at: metres(e.along_m, 0) })
}
</script>

<template>
  <div class="stack">
    <p v-if="isOnPath" class="caution">{{ t('trace.pathHookUp') }}</p>
    <p class="quiet">{{ t('trace.alongHow') }}</p>
    <div class="two">
      <div class="field">
        <label for="along-from">{{ t('trace.nextAt', { unit }) }}</label>
        <TextField v-if="along.length === 0" id="along-from" v-model="from" inputmode="decimal" />
        <TextField
          v-else
          id="along-from"
          :model-value="String(Math.round(inUnit(next_m, unit) * 100) / 100)"
          readonly
        />
      </div>
      <div class="field">
        <label for="along-step">{{ t('trace.spacing', { unit }) }}</label>
        <TextField id="along-step" v-model="step" inputmode="decimal" />
      </div>
    </div>
    <ReadingField
      :work="work"
      :wand="wand"
      :where="t('trace.at', { distance: metres(next_m) })"
      :along="next_m"
      :across="across_m"
      @read="keep"
    />
    <div class="row">
      <AppButton v-if="wand.connected.value" :disabled="walking" @click="walkOn">
        {{ t('trace.walk', { distance: metres(WALK_m, 0) }) }}
      </AppButton>
      <AppButton v-if="along.length > 0" look="plain" @click="takeBack(['wand'])">{{ t('trace.takeBack') }}</AppButton>
    </div>
    <TraceChart v-if="along.length > 1" :work="work" />
    <section class="stack" aria-live="polite">
      <h2>{{ t('trace.finds') }}</h2>
      <p v-if="weighing" class="quiet">{{ t('trace.weighing') }}</p>
      <p v-else-if="finds.length === 0" class="quiet">{{ t('trace.noFinds') }}</p>
      <dl v-if="rows.length > 0" class="beside">
        <template v-for="(row, i) in rows" :key="i">
          <dt :class="{ quiet: row.expected === null }">{{ saysExpected(row) }}</dt>
          <dd :class="{ quiet: row.find === null }">
            {{ row.find === null ? t('trace.notMet') : `${row.find + 1}: ${says(finds[row.find]!)}` }}
          </dd>
        </template>
      </dl>
    </section>
  </div>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 6px 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: end;
}
</style>
