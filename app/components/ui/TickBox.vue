<script setup lang="ts">
import Checkbox from 'primevue/checkbox'

/** Yes or no, its words beside it: the whole line is what is tapped. */
defineProps<{ modelValue: boolean; disabled?: boolean; ariaLabel?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: boolean] }>()
</script>

<template>
  <label class="tick-box">
    <Checkbox
      binary
      :model-value="modelValue"
      :disabled="disabled"
      :aria-label="ariaLabel"
      @update:model-value="emit('update:modelValue', $event as boolean)"
    />
    <slot />
  </label>
</template>

<style>
.tick-box {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  min-height: 32px;
  cursor: pointer;
}
.tick-box:has(input:disabled) {
  cursor: default;
  color: var(--quiet);
}
.tick-box [data-pc-name='checkbox'],
.tick-box [data-pc-name='radiobutton'] {
  position: relative;
  flex: none;
  width: 20px;
  height: 20px;
}
.tick-box input {
  position: absolute;
  inset: 0;
  margin: 0;
  opacity: 0;
  cursor: inherit;
  z-index: 1;
}
.tick-box [data-pc-section='box'] {
  display: grid;
  place-items: center;
  width: 100%;
  height: 100%;
  border: 2px solid var(--quiet);
  border-radius: 4px;
  background: var(--sheet);
}
.tick-box [data-pc-name='radiobutton'] [data-pc-section='box'] {
  border-radius: 50%;
}
.tick-box [data-p-checked='true'] [data-pc-section='box'] {
  border-color: var(--copper);
  background: var(--copper);
  color: var(--on-copper);
}
.tick-box [data-p-checked='true'] [data-pc-section='icon'] {
  width: 12px;
  height: 12px;
}
.tick-box [data-pc-name='radiobutton'][data-p-checked='true'] [data-pc-section='icon'] {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: currentColor;
}
.tick-box :has(> input:focus-visible) {
  outline: 3px solid var(--copper);
  outline-offset: 2px;
  border-radius: 4px;
}
@media (max-width: 759px) {
  .tick-box {
    min-height: 48px;
  }
  .tick-box [data-pc-name='checkbox'],
  .tick-box [data-pc-name='radiobutton'] {
    width: 26px;
    height: 26px;
  }
}
</style>
