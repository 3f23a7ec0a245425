<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figureIn } from '../../lib/figures'
import { valueOf } from '../../lib/fields'
import TextField from './TextField.vue'

/**
 * A figure that may not be known: nothing typed says so, `none` what is taken then. What is no such figure is told at
 * the field and not kept.
 */
const props = defineProps<{
  id: string
  label: string
  value: number | null
  low: number
  high: number
  whole?: boolean
  none: string
  fixed?: boolean
}>()
const emit = defineEmits<{ store: [value: number | null] }>()
const { t } = useI18n()
const bad = ref(false)
function take(text: string): void {
  const value = figureIn(text, props.low, props.high)
  bad.value = text.trim() !== '' && (value === null || (props.whole === true && !Number.isInteger(value)))
  if (!bad.value && value !== props.value) emit('store', value)
}
</script>

<template>
  <div class="field few">
    <label :for="id">{{ label }}</label>
    <TextField
      :id="id"
      class="input figure"
      :inputmode="whole ? 'numeric' : 'decimal'"
      :model-value="String(value ?? '')"
      :placeholder="none"
      :readonly="fixed"
      :aria-invalid="bad"
      @change="take(valueOf($event))"
    />
    <p v-if="bad" class="bad" role="alert">{{ t('test.bad.number', { field: label, low, high }) }}</p>
  </div>
</template>
