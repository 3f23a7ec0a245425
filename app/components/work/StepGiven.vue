<script setup lang="ts">
import { judgeCabinet, stateOf } from '../../../core/expect'
import { ohmsWithUnit } from '../../../core/quantity'
import { isHuntTest, optionOf, standingReadings } from '../../../core/record'
import { figureBandOf, isWithin, type RunStep } from '../../../core/procedure'
import { sayOption } from '../../../words/procedure'
import { sayVerdict } from '../../../words/reading'
import { temperatureShown } from '../../lib/figures'
import { dayText, timeText } from '../../composables/useSpeaker'
import { usePhotos } from '../../composables/usePhotos'
import type { useRun } from '../../composables/useRun'

/** What a step was answered with, by whom and when, and what a reading says. */
const props = defineProps<{ step: RunStep; work: ReturnType<typeof useRun> }>()
const { t, speaker, property } = props.work
const units = computed(() => property.site!.settings.units)
const reading = computed(() => {
  const answer = props.step.given?.answer
  return answer?.kind === 'reading' ? (property.facts!.readings[answer.reading] ?? null) : null
})
/** A figure in the unit that its step asks for. */
function figureText(value: number): string {
  const { does } = props.step.step
  if (does.kind !== 'figure' || does.quantity === 'count') return String(value)
  if (does.quantity === 'C') return `${temperatureShown(value, units.value)} °${units.value.temperature}`
  return does.quantity === 'ohm' ? ohmsWithUnit(value) : `${value} ${does.quantity}`
}
const what = computed((): string => {
  const { given, step } = props.step
  if (!given) return t('run.ticked')
  const { answer } = given
  switch (answer.kind) {
    case 'done':
      return t('run.done')
    case 'chosen': {
      const option = step.does.kind === 'choice' ? step.does.options.find((o) => o.id === answer.option) : undefined
      return option ? sayOption(option, speaker.value) : answer.option
    }
    case 'figure': {
      if (step.does.kind !== 'figure') return String(answer.value)
      return figureText(answer.value)
    }
    case 'text':
      return answer.text
    case 'day':
      return dayText(`${answer.day}T12:00:00`)
    case 'photo':
      return t('run.photo')
    case 'refused':
      return t('run.refused', { reason: answer.reason })
    case 'reading': {
      const value = reading.value?.value
      if (value?.kind === 'ohm') return ohmsWithUnit(value.ohm)
      if (value?.kind === 'volt') return `${value.volt} V`
      if (value?.kind === 'open') return reading.value!.meter.openMark
      return value && reading.value ? t(`check.answer.${optionOf(reading.value.test.kind, value).says}`) : ''
    }
    default:
      return ''
  }
})
const { all } = usePhotos()
const photos = computed(() => {
  const answer = props.step.given?.answer
  return answer?.kind === 'photo' ? all.value.filter((p) => p.id === answer.photo) : []
})
const who = computed(() => {
  const { given } = props.step
  return given ? { who: given.author || t('run.somebody'), at: `${dayText(given.at)}, ${timeText(given.at)}` } : null
})
/** A figure that is out of its band is what was found; it is said so. */
const outside = computed(() => {
  const answer = props.step.given?.answer
  const band = figureBandOf(property.site!, props.step)
  if (answer?.kind !== 'figure' || band === null || isWithin(answer.value, band)) return ''
  const shown = (n: number) => (Number.isFinite(n) ? figureText(n) : '…')
  return t('run.outside', { low: shown(band.low), high: shown(band.high) })
})
const verdict = computed(() => {
  const { value: r } = reading
  if (!r) return null
  const judged = props.work.judged(r)
  if (judged) return { state: stateOf(judged.verdict.code), says: sayVerdict(judged.verdict, r.meter, speaker.value) }
  if (isHuntTest(r.test) || r.test.kind === 'ohms') return null
  const supply = standingReadings(property.facts!, r.job).find((l) => l.reading.test.kind === 'supply')?.reading.value
  const supply_V = supply?.kind === 'volt' ? supply.volt : null
  const { code, state } = judgeCabinet(r.test, r.value, supply_V)
  return { state, says: t(`cabinet.${code}`, supply_V === null ? {} : { supply_V }) }
})
</script>

<template>
  <div class="given stack" role="status">
    <p class="what">
      {{ who ? t('run.givenBy', { what, ...who }) : what }}
    </p>
    <p v-if="verdict" class="row verdict" :class="verdict.state">
      <StateMark :state="verdict.state" />
      {{ verdict.says }}
    </p>
    <PhotoStrip v-if="photos.length > 0" :photos="photos" />
    <p v-if="outside" class="doubtful row">
      <StateMark state="doubtful" />
      {{ outside }}
    </p>
    <p v-if="step.state === 'failed'" class="fault">{{ t('run.failed') }}</p>
  </div>
</template>

<style scoped>
.given {
  gap: 6px;
}
.what {
  font-weight: 600;
}
.verdict {
  font-size: 17px;
  flex-wrap: nowrap;
}
</style>
