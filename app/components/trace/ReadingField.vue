<script setup lang="ts">
import type { TraceWorkHere } from '../../composables/useTrace'
import type { Wand } from '../../composables/useWand'
import { figureIn } from '../../lib/figures'

/** One reading at a place: by hand, or taken from the wand at the thumb. */
const props = defineProps<{ work: TraceWorkHere; wand: Wand; where: string; along: number; across: number }>()
const emit = defineEmits<{ read: [reading: number] }>()
const { t } = props.work
const [text, bad, busy] = [ref(''), ref(''), ref(false)]

function keep(): void {
  const reading = figureIn(text.value, 0, 1e9)
  bad.value = reading === null ? t('trace.readingBad') : ''
  if (reading === null) return
  text.value = ''
  emit('read', reading)
}
async function take(): Promise<void> {
  if (busy.value) return
  busy.value = true
  const reading = await props.wand.read(props.along, props.across)
  busy.value = false
  if (reading !== null) emit('read', reading)
}
</script>

<template>
  <form class="stack" novalidate @submit.prevent="keep">
    <AppButton v-if="wand.connected.value" look="primary" class="large" :disabled="busy" @click="take">
      {{ t('trace.readAt', { where }) }}
    </AppButton>
    <div class="row bottom">
      <div class="field grow">
        <label for="wand-reading">{{ t('trace.reading') }} · {{ where }}</label>
        <TextField id="wand-reading" v-model="text" inputmode="decimal" autocomplete="off" :aria-invalid="bad !== ''" />
      </div>
      <AppButton type="submit" :look="wand.connected.value ? undefined : 'primary'">{{ t('trace.keep') }}</AppButton>
    </div>
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
  </form>
</template>

<style scoped>
.bottom {
  align-items: end;
  flex-wrap: nowrap;
}
.grow {
  flex: 1 1 0;
  min-width: 0;
}
.large {
  min-height: 56px;
  font-size: 18px;
}
@media (max-width: 759px) {
  .bottom :deep(.button),
  .bottom :deep(.input) {
    min-height: 52px;
  }
}
</style>
