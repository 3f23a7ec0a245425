<script setup lang="ts" generic="T extends string">
import RadioButton from 'primevue/radiobutton'
import { useId } from 'vue'
import type { Option } from '../../lib/options'

/** One of a few that are all in view. */
defineProps<{ modelValue: T; label: string; options: readonly Option<T>[] }>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const name = useId()
</script>

<template>
  <fieldset class="field">
    <legend class="label">{{ label }}</legend>
    <div class="row">
      <label v-for="o in options" :key="o.value" class="tick-box">
        <RadioButton
          :name="name"
          :value="o.value"
          :model-value="modelValue"
          @update:model-value="emit('update:modelValue', $event)"
        />
        {{ o.label }}
      </label>
    </div>
  </fieldset>
</template>
