<script setup lang="ts">
import { Delete } from '@lucide/vue'
import { useI18n } from 'vue-i18n'

/** Keys for a thumb: figures, the two words a meter shows most, and on. */
defineProps<{ nextLabel: string }>()
const emit = defineEmits<{ key: [text: string]; erase: []; open: []; short: []; next: [] }>()
const { t } = useI18n()
</script>

<template>
  <div class="pad figure" role="group">
    <button v-for="n in ['7', '8', '9']" :key="n" type="button" class="key" @click="emit('key', n)">{{ n }}</button>
    <button type="button" class="key word" @click="emit('open')">{{ t('sweep.open') }}</button>
    <button v-for="n in ['4', '5', '6']" :key="n" type="button" class="key" @click="emit('key', n)">{{ n }}</button>
    <button type="button" class="key word" @click="emit('short')">{{ t('sweep.short') }}</button>
    <button v-for="n in ['1', '2', '3']" :key="n" type="button" class="key" @click="emit('key', n)">{{ n }}</button>
    <button type="button" class="key next" @click="emit('next')">{{ nextLabel }}</button>
    <button type="button" class="key" :aria-label="t('sweep.point')" @click="emit('key', '.')">.</button>
    <button type="button" class="key" @click="emit('key', '0')">0</button>
    <button type="button" class="key" :aria-label="t('sweep.erase')" @click="emit('erase')">
      <Delete :size="26" class="erase" />
    </button>
    <span class="scale">
      <button type="button" class="key small" :aria-label="t('sweep.thousand')" @click="emit('key', 'k')">k</button>
      <button type="button" class="key small" :aria-label="t('sweep.million')" @click="emit('key', 'M')">M</button>
    </span>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  padding: 8px 12px;
  background: var(--key-bed);
  touch-action: manipulation;
}
.key {
  min-height: 52px;
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  background: var(--sheet);
  font-size: 24px;
  font-weight: 700;
  cursor: pointer;
  user-select: none;
}
.key:active {
  background: var(--copper-soft);
}
.erase {
  display: block;
  margin: auto;
}
.word {
  font: 700 17px var(--words);
}
.next {
  background: var(--copper);
  color: var(--on-copper);
  font: 700 19px var(--words);
  border-color: var(--copper);
}
.scale {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.small {
  font-size: 19px;
}
@media (max-height: 700px) {
  .key {
    min-height: 48px;
  }
}
</style>
