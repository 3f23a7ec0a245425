<script setup lang="ts">
import type { TraceWorkHere } from '../../composables/useTrace'
import type { Wand } from '../../composables/useWand'
import { figureIn } from '../../lib/figures'

/** The wand: one that speaks, one over made-up ground, or none; and how it is held. */
const props = defineProps<{ work: TraceWorkHere; wand: Wand }>()
const { t } = props.work
const { held, isLoud, connected, simulated, trouble } = props.wand
const [tilt, height, gain] = [ref('0'), ref('0'), ref('1')]
const bad = ref('')

/** Takes a figure as it is typed; one that is none is told and the one before holds. */
function take(field: 'tilt_deg' | 'height_m' | 'gain', text: string, low: number, high: number, by: number): void {
  const value = figureIn(text, low, high)
  const label = { tilt_deg: 'trace.tilt', height_m: 'trace.height', gain: 'trace.gain' }[field]
  bad.value = value === null ? t('trace.figureBad', { field: t(label), low, high }) : ''
  if (value !== null) held[field] = value * by
}
watch(tilt, (now) => take('tilt_deg', now, -80, 80, 1))
watch(height, (now) => take('height_m', now, 0, 300, 0.01))
watch(gain, (now) => take('gain', now, 0.000001, 1000000, 1))
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('trace.wand') }}</h2>
      {{ ' ' }}
      <span class="quiet">{{ connected && simulated ? t('trace.practising') : '' }}</span>
    </summary>
    <div class="stack body">
      <p v-if="trouble" class="fault" role="alert">{{ t('trace.wandLost') }}</p>
      <p class="quiet">{{ t('trace.wandHow') }}</p>
      <div class="row">
        <AppButton v-if="connected" @click="wand.disconnect()">{{ t('trace.putDown') }}</AppButton>
        <AppButton v-else @click="wand.practise()">{{ t('trace.practise') }}</AppButton>
        <TickBox v-if="connected" v-model="isLoud">{{ t('trace.sound') }}</TickBox>
      </div>
      <PickRadio
        v-model="held.mode"
        :label="t('trace.mode')"
        :options="(['peak', 'null'] as const).map((value) => ({ value, label: t(`trace.modes.${value}`) }))"
      />
      <p class="quiet">{{ t(`trace.modeHow.${held.mode}`) }}</p>
      <div class="three">
        <div class="field">
          <label for="wand-tilt">{{ t('trace.tilt') }}</label>
          <TextField id="wand-tilt" v-model="tilt" inputmode="decimal" />
        </div>
        <div class="field">
          <label for="wand-height">{{ t('trace.height') }}</label>
          <TextField id="wand-height" v-model="height" inputmode="decimal" />
        </div>
        <div class="field">
          <label for="wand-gain">{{ t('trace.gain') }}</label>
          <TextField id="wand-gain" v-model="gain" inputmode="decimal" />
        </div>
      </div>
      <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
    </div>
  </details>
</template>

<style scoped>
.body {
  margin-top: 8px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
  align-items: end;
}
</style>
