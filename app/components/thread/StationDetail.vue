<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Scene } from '../../../core/expect'
import { ohmsText } from '../../../core/quantity'
import type { Meter } from '../../../core/record'
import { type ControllerId, stationAt } from '../../../core/site'
import type { Speaker } from '../../../words'
import { readingOhm, type SweepRow } from '../../composables/useSweep'
import { useProperty } from '../../stores/property'

/** One thread in full: its figures, what makes them up, every reading ever taken of it, and its name to change. */
const props = defineProps<{ row: SweepRow; controller: ControllerId; scene: Scene; meter: Meter; speaker: Speaker }>()
const { t } = useI18n()
const property = useProperty()

const station = computed(() =>
  stationAt(property.site!, { controller: props.controller, terminal: props.row.terminal }),
)
const name = ref('')
watch(
  () => station.value?.[1].name,
  (now) => {
    name.value = now ?? ''
  },
  { immediate: true },
)
async function rename(): Promise<void> {
  const text = name.value.trim()
  if (!station.value || text === station.value[1].name || text === '') return
  await property.change([{ do: 'set', in: 'stations', id: station.value[0], field: 'name', value: text }])
}

const role = computed(() =>
  property.site!.controllers[props.controller]!.terminals[props.row.terminal]!.role === 'master'
    ? 'threads.master'
    : 'threads.station',
)
const measured = computed(() => {
  if (!props.row.logged) return null
  const ohm = readingOhm(props.row.logged)
  return ohm === null ? props.row.logged.reading.meter.openMark : ohmsText(ohm)
})
const expectedText = computed(() => {
  const e = props.row.expected.expectation
  return e.kind === 'ohms' ? ohmsText(e.expected_ohm) : null
})
</script>

<template>
  <div class="detail stack">
    <header>
      <p class="quiet">{{ t(role, { tag: row.tag }) }} · {{ row.name }}</p>
      <p v-if="measured" class="huge figure" :class="row.state">
        {{ measured }}
        <span v-if="row.logged?.reading.value.kind === 'ohm'" class="unit">Ω</span>
      </p>
      <p v-if="expectedText" :class="measured ? 'quiet' : 'huge figure'">
        <template v-if="measured">{{ t('detail.expected', { figure: `${expectedText} Ω` }) }}</template>
        <template v-else>
          {{ expectedText }}
          <span class="unit">Ω</span>
        </template>
      </p>
      <p v-if="expectedText && !measured" class="quiet">{{ t('threads.expected') }}</p>
    </header>
    <ReadingWhy :row="row" :judged="row.judged" :scene="scene" :meter="meter" :speaker="speaker" />
    <form v-if="station && !property.viewed" class="field" @submit.prevent="rename">
      <label for="station-name">{{ t('detail.name') }}</label>
      <div class="rename">
        <TextField id="station-name" v-model="name" maxlength="80" autocomplete="off" />
        <AppButton type="submit" :disabled="name.trim() === station[1].name || name.trim() === ''">
          {{ t('detail.save') }}
        </AppButton>
      </div>
    </form>
    <ThreadYears :test="row.expected.test" :scene="scene" :meter="meter" :expectation="row.expected.expectation" />
  </div>
</template>

<style scoped>
.huge {
  font-size: 44px;
  font-weight: 700;
  line-height: 1.1;
}
.unit {
  font-size: 20px;
  font-weight: 400;
}
.rename {
  display: flex;
  gap: 8px;
}
</style>
