<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { CAUTIONS, type CautionCode } from '../../../core/record'

/** The safety lines of a sweep, ticked in order; each tick goes on record. */
const props = defineProps<{ ticked: ReadonlySet<CautionCode> }>()
const emit = defineEmits<{ tick: [code: CautionCode] }>()
const { t } = useI18n()
/** Ticked here and on its way into the record: a second press is no second tick. */
const sent = reactive(new Set<CautionCode>())
const done = (code: CautionCode) => props.ticked.has(code) || sent.has(code)
const next = computed(() => CAUTIONS.find((code) => !done(code)) ?? null)
function tick(code: CautionCode): void {
  sent.add(code)
  emit('tick', code)
}
</script>

<template>
  <section class="cautions stack" :aria-label="t('caution.title')">
    <h2>{{ t('caution.title') }}</h2>
    <div v-for="code in CAUTIONS" :key="code" class="caution line" :class="{ done: done(code) }">
      <span>{{ t(`caution.${code}`) }}</span>
      <span v-if="done(code)" class="fits">
        <StateMark state="fits" silent />
        {{ t('caution.tick') }}
      </span>
      <AppButton
        v-else
        :class="{ primary: code === next }"
        :disabled="code !== next"
        :autofocus="code === next"
        @click="tick(code)"
      >
        {{ t('caution.tick') }}
      </AppButton>
    </div>
  </section>
</template>

<style scoped>
.cautions {
  gap: 8px;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  font-size: 15px;
}
.line.done {
  border-left-color: var(--fits);
}
.line > :last-child {
  flex: none;
}
</style>
