<script setup lang="ts">
import type SignaturePad from 'signature_pad'
import { useI18n } from 'vue-i18n'
import type { Signature } from '../../../core/record'
import { SIGN_HEIGHT, SIGN_WIDTH } from '../../lib/signature'

/** A signature drawn on the glass; null while nothing is drawn. */
const strokes = defineModel<Signature | null>({ required: true })
defineProps<{ label: string }>()
const { t } = useI18n()
const glass = useTemplateRef<HTMLCanvasElement>('glass')
let pad: SignaturePad | null = null

function read(): void {
  const canvas = glass.value!
  const [across, down] = [SIGN_WIDTH / canvas.clientWidth, SIGN_HEIGHT / canvas.clientHeight]
  const drawn = pad!
    .toData()
    .map(({ points }) => points.flatMap(({ x, y }) => [Math.round(x * across), Math.round(y * down)]))
  strokes.value = drawn.length === 0 ? null : drawn
}
onMounted(async () => {
  const { default: Pad } = await import('signature_pad')
  const canvas = glass.value
  if (!canvas) return
  const dots = Math.max(1, window.devicePixelRatio)
  canvas.width = canvas.clientWidth * dots
  canvas.height = canvas.clientHeight * dots
  canvas.getContext('2d')!.scale(dots, dots)
  pad = new Pad(canvas, { penColor: '#1c1a17' })
  pad.addEventListener('endStroke', read)
})
onBeforeUnmount(() => pad?.off())
function clear(): void {
  pad?.clear()
  strokes.value = null
}
</script>

<template>
  <div class="field">
    <span class="label">{{ label }}</span>
    <canvas ref="glass" class="glass" role="img" :aria-label="label" />
    <AppButton look="plain" :disabled="strokes === null" @click="clear">{{ t('sent.signAgain') }}</AppButton>
  </div>
</template>

<style scoped>
.glass {
  width: 100%;
  max-width: 500px;
  aspect-ratio: 5 / 2;
  border: 1px solid var(--quiet);
  border-radius: var(--corner);
  background: #fff;
  touch-action: none;
}
</style>
