<script setup lang="ts" generic="T extends string">
import SelectButton from 'primevue/selectbutton'
import type { Option } from '../../lib/options'

/** One of a few ways of looking at what stands below, side by side. */
defineProps<{ modelValue: T; options: readonly Option<T>[]; label: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
</script>

<template>
  <SelectButton
    class="pick-bar"
    :model-value="modelValue"
    :options="options as Option<T>[]"
    option-value="value"
    option-label="label"
    :allow-empty="false"
    :aria-label="label"
    @update:model-value="emit('update:modelValue', $event)"
  />
</template>

<style>
.pick-bar {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px;
}
.pick-bar button {
  min-height: 36px;
  padding: 4px 14px;
  border: 1px solid var(--quiet);
  border-radius: var(--corner);
  background: var(--sheet);
  cursor: pointer;
}
.pick-bar button[aria-pressed='true'] {
  background: var(--copper);
  border-color: var(--copper);
  color: var(--on-copper);
  font-weight: 700;
}
.pick-bar button:disabled {
  opacity: 0.55;
  cursor: default;
}
@media (max-width: 759px) {
  .pick-bar button {
    min-height: 48px;
  }
}
</style>
