<script setup lang="ts">
import Slider from 'primevue/slider'

/** A figure between two ends, slid or stepped by the arrow keys; `shown` is how it reads. */
defineProps<{
  id: string
  label: string
  shown?: string
  modelValue: number
  min: number
  max: number
  step?: number
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number]; settled: [value: number] }>()
let last: number | null = null
function move(value: number): void {
  last = value
  emit('update:modelValue', value)
}
/** The hand has let go: what it left is what is meant. */
function settle(): void {
  if (last !== null) emit('settled', last)
  last = null
}
</script>

<template>
  <div class="field">
    <span :id="`${id}-label`" class="label">
      {{ label }}
      <strong v-if="shown !== undefined" class="figure">{{ shown }}</strong>
    </span>
    <Slider
      :id="id"
      :model-value="modelValue"
      :min="min"
      :max="max"
      :step="step"
      :disabled="disabled"
      :aria-labelledby="`${id}-label`"
      :pt="{ root: { class: 'slide' }, range: { class: 'slide-range' }, handle: { class: 'slide-handle' } }"
      @update:model-value="move($event as number)"
      @slideend="settle"
      @keyup="settle"
    />
  </div>
</template>

<style>
.slide {
  position: relative;
  height: 6px;
  margin: 13px 10px;
  border-radius: 3px;
  background: var(--rule);
  cursor: pointer;
  touch-action: pan-y;
}
.slide-range {
  position: absolute;
  height: 100%;
  border-radius: 3px;
  background: var(--copper);
}
.slide-handle {
  position: absolute;
  top: 50%;
  width: 20px;
  height: 20px;
  margin: -10px 0 0 -10px;
  border: 2px solid var(--sheet);
  border-radius: 50%;
  background: var(--copper);
  cursor: grab;
}
.slide[data-p-disabled='true'],
.slide:has([aria-disabled='true']) {
  opacity: 0.5;
}
@media (max-width: 759px) {
  .slide {
    margin: 21px 14px;
  }
  .slide-handle {
    width: 32px;
    height: 32px;
    margin: -16px 0 0 -16px;
  }
}
</style>
