<script setup lang="ts">
import { inUnit, toMetres } from '../../../core/quantity'
import { useTraceWords } from '../../composables/useTrace'
import { keepPace, pace_m } from '../../lib/device'
import { figureIn } from '../../lib/figures'
import { useProperty } from '../../stores/property'

/**
 * So many of one’s own steps in a direction, or so many gaps between heads of a known spacing. The step is measured by
 * walking a length that is known; it is kept on this device.
 */
const props = defineProps<{ label: string; directed?: boolean }>()
const emit = defineEmits<{ walked: [distance_m: number, bearing_deg: number | null] }>()
const { t } = useTraceWords()
const property = useProperty()
const unit = computed(() => property.site!.settings.units.length)
const id = useId()
const round = (figure: number) => String(Math.round(figure * 100) / 100)
const pace = ref(pace_m() === null ? '' : round(inUnit(pace_m()!, unit.value)))
const counting = ref<'steps' | 'heads'>('steps')
const spacing = ref('')
const [steps, bearing, bad] = [ref(''), ref(''), ref('')]
const [known, walkedIn] = [ref(''), ref('')]

type Field = readonly [label: string, figure: number | null, low: number, high: number]
/** Whether every figure is there; says which one is not. */
function good(...fields: Field[]): boolean {
  const wrong = fields.find(([, figure]) => figure === null)
  bad.value = wrong ? t('trace.figureBad', { field: wrong[0], low: wrong[2], high: wrong[3] }) : ''
  return !wrong
}

function add(): void {
  const count = figureIn(steps.value, 1, 5000)
  const isHeads = counting.value === 'heads'
  const [low, high] = isHeads ? [0.5, 100] : [0.2, 8]
  const step = figureIn(isHeads ? spacing.value : pace.value, low, high)
  const isEmpty = bearing.value.trim() === ''
  const turned = figureIn(bearing.value, 0, 360)
  const fields: Field[] = [
    [t(`trace.counted.${counting.value}`), count, 1, 5000],
    [t(isHeads ? 'trace.headSpacing' : 'trace.pace', { unit: unit.value }), step, low, high],
  ]
  if (props.directed || !isEmpty) fields.push([t('trace.bearing'), turned, 0, 360])
  if (!good(...fields)) return
  if (!isHeads) keepPace(toMetres(step!, unit.value))
  emit('walked', count! * toMetres(step!, unit.value), isEmpty ? null : turned)
  steps.value = ''
}

function measure(): void {
  const length = figureIn(known.value, 5, 3000)
  const count = figureIn(walkedIn.value, 5, 5000)
  if (!good([t('trace.stepLength', { unit: unit.value }), length, 5, 3000], [t('trace.pacesCount'), count, 5, 5000]))
    return
  pace.value = round(length! / count!)
  keepPace(toMetres(length! / count!, unit.value))
  known.value = ''
  walkedIn.value = ''
}
</script>

<template>
  <div class="stack">
    <form class="stack" novalidate @submit.prevent="add">
      <PickRadio
        v-model="counting"
        :label="t('trace.counting')"
        :options="(['steps', 'heads'] as const).map((value) => ({ value, label: t(`trace.countIn.${value}`) }))"
      />
      <div class="two">
        <div class="field">
          <label :for="`${id}-count`">{{ t(`trace.counted.${counting}`) }}</label>
          <TextField :id="`${id}-count`" v-model="steps" inputmode="numeric" />
        </div>
        <div v-if="counting === 'heads'" class="field">
          <label :for="`${id}-spacing`">{{ t('trace.headSpacing', { unit }) }}</label>
          <TextField :id="`${id}-spacing`" v-model="spacing" inputmode="decimal" />
        </div>
        <div v-else class="field">
          <label :for="`${id}-pace`">{{ t('trace.pace', { unit }) }}</label>
          <TextField :id="`${id}-pace`" v-model="pace" inputmode="decimal" />
        </div>
      </div>
      <div class="field">
        <label :for="`${id}-bearing`">{{ t(directed ? 'trace.bearing' : 'trace.bearingMaybe') }}</label>
        <TextField :id="`${id}-bearing`" v-model="bearing" inputmode="decimal" />
      </div>
      <AppButton type="submit">{{ label }}</AppButton>
    </form>
    <details v-if="counting === 'steps'" class="folds">
      <summary>{{ t('trace.stepMeasure') }}</summary>
      <form class="stack" novalidate @submit.prevent="measure">
        <p class="quiet">{{ t('trace.stepHow') }}</p>
        <div class="two">
          <div class="field">
            <label :for="`${id}-known`">{{ t('trace.stepLength', { unit }) }}</label>
            <TextField :id="`${id}-known`" v-model="known" inputmode="decimal" />
          </div>
          <div class="field">
            <label :for="`${id}-in`">{{ t('trace.pacesCount') }}</label>
            <TextField :id="`${id}-in`" v-model="walkedIn" inputmode="numeric" />
          </div>
        </div>
        <AppButton type="submit">{{ t('trace.stepKeep') }}</AppButton>
      </form>
    </details>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
