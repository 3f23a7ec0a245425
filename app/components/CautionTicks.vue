<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { CAUTIONS, type CautionCode } from '../../core/record'

/** The safety lines of a sweep, ticked in order; each tick goes on record. */
const props = defineProps<{ ticked: ReadonlySet<CautionCode> }>()
const emit = defineEmits<{ tick: [code: CautionCode] }>()
const { t } = useI18n()
const next = computed(() => CAUTIONS.find((code) => !props.ticked.has(code)) ?? null)
</script>

<template>
  <section class="cautions stack" :aria-label="t('caution.title')">
    <h2>{{ t('caution.title') }}</h2>
    <div v-for="code in CAUTIONS" :key="code" class="caution line" :class="{ done: ticked.has(code) }">
      <span>{{ t(`caution.${code}`) }}</span>
      <span v-if="ticked.has(code)" class="fits"><StateMark state="fits" silent /> {{ t('caution.tick') }}</span>
      <button v-else type="button" class="button" :class="{ primary: code === next }" :disabled="code !== next" :autofocus="code === next" @click="emit('tick', code)">{{ t('caution.tick') }}</button>
    </div>
  </section>
</template>

<style scoped>
.cautions { gap: 8px; }
.line { display: flex; align-items: center; justify-content: space-between; gap: 12px; font-size: 15px; }
.line.done { border-left-color: var(--fits); }
.line > :last-child { flex: none; }
</style>
