<script setup lang="ts" generic="T extends string">
import MultiSelect from 'primevue/multiselect'
import { computed, useId } from 'vue'
import type { Option } from '../../lib/options'

/** Any of several, ticked in a list that opens. Those of `fixed` stay as they are. */
const props = defineProps<{
  modelValue: readonly T[]
  options: readonly Option<T>[]
  label: string
  none: string
  fixed?: readonly T[]
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T[]] }>()
const name = useId()
const listed = computed(() => props.options.map((o) => ({ ...o, held: props.fixed?.includes(o.value) === true })))
/** In the order of the options, whatever the order of picking. */
const pick = (picked: readonly T[]) =>
  emit(
    'update:modelValue',
    props.options.map((o) => o.value).filter((v) => picked.includes(v) || props.fixed?.includes(v) === true),
  )
</script>

<template>
  <div class="field pick-some">
    <span :id="`${name}-label`" class="label">{{ label }}</span>
    <MultiSelect
      :model-value="[...modelValue]"
      :options="listed"
      option-value="value"
      option-label="label"
      option-disabled="held"
      :aria-labelledby="`${name}-label`"
      :show-toggle-all="false"
      :placeholder="none"
      :disabled="disabled"
      scroll-height="min(22rem, 60vh)"
      :pt="{
        root: { class: 'input pick-field pick-many' },
        overlay: { class: 'pick-list' },
        option: { class: 'pick-option' },
        pcOptionCheckbox: { root: { class: 'pick-tick' } },
      }"
      @update:model-value="pick"
    />
    <slot />
  </div>
</template>

<style>
.pick-many [data-pc-section='labelcontainer'] {
  flex: 1;
  min-width: 0;
}
.pick-many [data-pc-section='hiddeninputcontainer'] {
  position: absolute;
  opacity: 0;
  pointer-events: none;
}
.pick-tick {
  position: relative;
  flex: none;
  width: 18px;
  height: 18px;
  margin-right: 10px;
}
.pick-tick input {
  position: absolute;
  opacity: 0;
}
.pick-tick [data-pc-section='box'] {
  display: grid;
  place-items: center;
  width: 100%;
  height: 100%;
  border: 2px solid var(--quiet);
  border-radius: 4px;
}
.pick-tick[data-p-checked='true'] [data-pc-section='box'] {
  border-color: var(--copper);
  background: var(--copper);
  color: var(--on-copper);
}
.pick-tick [data-pc-section='icon'] {
  width: 11px;
  height: 11px;
}
</style>
