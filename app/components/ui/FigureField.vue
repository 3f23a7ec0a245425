<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figureIn } from '../../lib/figures'
import { valueOf } from '../../lib/fields'
import TextField from './TextField.vue'

/**
 * A setting that is a figure: why it is as it is, where it may lie, and what it is where nobody has said otherwise. One
 * that differs is marked and can be set back. What is no such figure is told at the field and not kept.
 */
const props = defineProps<{
  id: string
  label: string
  why?: string
  shown: string
  low: number
  high: number
  whole?: boolean
  /** The figure as it would be shown where nobody had changed it. */
  ours?: string
  fixed?: boolean
}>()
const emit = defineEmits<{ store: [value: number] }>()
const { t } = useI18n()
const bad = ref(false)
const differs = computed(() => props.ours !== undefined && props.ours !== props.shown)
function take(text: string): void {
  const value = figureIn(text, props.low, props.high)
  bad.value = value === null || (props.whole === true && !Number.isInteger(value))
  if (!bad.value && text.trim() !== props.shown) emit('store', value!)
}
</script>

<template>
  <div class="field figure-field" :class="{ differs }">
    <label :id="`${id}-label`" :for="id">{{ label }}</label>
    <TextField
      :id="id"
      :model-value="shown"
      inputmode="decimal"
      :placeholder="t('plan.unknown')"
      :readonly="fixed"
      :aria-invalid="bad"
      :aria-describedby="why === undefined ? undefined : `${id}-how`"
      @change="take(valueOf($event))"
    />
    <p v-if="differs" class="ours">
      {{ t('app.ours', { figure: ours }) }}
      <AppButton v-if="!fixed" look="plain" :aria-describedby="`${id}-label`" @click="take(ours!)">
        {{ t('app.setBack') }}
      </AppButton>
    </p>
    <p v-if="why !== undefined" :id="`${id}-how`" class="how">{{ why }}</p>
    <p v-if="bad" class="bad" role="alert">
      {{ t('test.bad.number', { field: label, low, high: Math.round(high * 100) / 100 }) }}
    </p>
  </div>
</template>

<style>
.figure-field.differs .input {
  border-color: var(--copper);
  border-width: 2px;
}
.figure-field .ours {
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 13px;
  color: var(--copper);
  font-weight: 600;
}
.figure-field .ours .button {
  min-height: 28px;
  padding-block: 0;
  text-decoration: underline;
}
@media (max-width: 759px) {
  .figure-field .ours {
    font-size: 15px;
  }
  .figure-field .ours .button {
    min-height: 48px;
  }
}
</style>
