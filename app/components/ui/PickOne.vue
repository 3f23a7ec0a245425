<script setup lang="ts" generic="T extends string | number | null">
import Select from 'primevue/select'
import { computed, useId, useTemplateRef } from 'vue'
import type { Option } from '../../lib/options'

/**
 * One of several. With a `label` it stands in a field of its own; without, it is named by `aria-label`. What is said
 * of the choice goes below it. Typing, arrows,
 * Home, End and Enter pick; on a phone the options come up as a sheet.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  options: readonly Option<T>[]
  modelValue: T
  label?: string
  ariaLabel?: string
  id?: string
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()

const own = useId()
const name = computed(() => props.id ?? own)
// An empty value is a choice like others here; to the list below it would be none, so places are picked.
const listed = computed(() => props.options.map((o, place) => ({ place, label: o.label })))
const place = computed(() => {
  const found = props.options.findIndex((o) => o.value === props.modelValue)
  return found < 0 ? null : found
})
const pick = (picked: number | null) => picked !== null && emit('update:modelValue', props.options[picked]!.value)

const root = useTemplateRef<HTMLElement>('root')
const focus = () => root.value?.querySelector<HTMLElement>('[role="combobox"]')?.focus()
</script>

<template>
  <div ref="root" v-bind="$attrs" :class="label === undefined ? 'pick-one' : 'field pick-one'">
    <span v-if="label !== undefined" :id="`${name}-label`" class="label" @click="focus">{{ label }}</span>
    <Select
      :model-value="place"
      :options="listed"
      option-value="place"
      option-label="label"
      :label-id="name"
      :aria-label="ariaLabel"
      :aria-labelledby="label === undefined ? undefined : `${name}-label ${name}`"
      :disabled="disabled"
      scroll-height="min(22rem, 60vh)"
      :pt="{ root: { class: 'input pick-field' }, overlay: { class: 'pick-list' }, option: { class: 'pick-option' } }"
      @update:model-value="pick"
    >
      <template #header>
        <p class="pick-title">{{ label ?? ariaLabel }}</p>
      </template>
    </Select>
    <slot />
  </div>
</template>

<style>
.pick-one {
  min-width: 0;
  max-width: 100%;
}
.pick-field {
  display: flex;
  align-items: center;
  gap: 8px;
  cursor: pointer;
}
.pick-field [role='combobox'] {
  flex: 1;
  min-width: 0;
  min-height: 1.4em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  outline: none;
}
.pick-field:focus-within {
  outline: 3px solid var(--copper);
  outline-offset: 2px;
}
.pick-field [data-pc-section='dropdown'] {
  display: inline-flex;
  color: var(--quiet);
}
.pick-field[data-p-disabled='true'],
.pick-field:has([aria-disabled='true']) {
  opacity: 0.7;
  cursor: default;
}
.pick-list {
  background: var(--sheet);
  border: 1px solid var(--quiet);
  border-radius: var(--corner);
  padding: 4px;
  max-width: 96vw;
  box-shadow: 0 4px 16px rgb(0 0 0 / 0.18);
}
.pick-list [data-pc-section='listcontainer'] {
  overflow: auto;
}
.pick-title {
  display: none;
}
.pick-option {
  display: flex;
  align-items: center;
  min-height: 36px;
  padding: 4px 12px;
  border-radius: 4px;
  cursor: pointer;
}
.pick-option[data-p-focused='true'] {
  background: var(--hover);
}
.pick-option[data-p-selected='true'] {
  background: var(--copper-soft);
  font-weight: 700;
}
/* A sheet at the thumb, its rows as high as a wet finger needs. */
@media (max-width: 759px) {
  .pick-list {
    position: fixed !important;
    inset: auto 0 0 0 !important;
    max-width: none;
    padding: 8px 8px calc(8px + env(safe-area-inset-bottom));
    border-radius: 12px 12px 0 0;
    box-shadow: 0 0 0 100vmax var(--veil);
  }
  .pick-title {
    display: block;
    padding: 8px 12px;
    color: var(--quiet);
    font-weight: 600;
    font-size: 15px;
  }
  .pick-option {
    min-height: 48px;
    font-size: 17px;
  }
}
</style>
