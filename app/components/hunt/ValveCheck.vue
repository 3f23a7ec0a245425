<script setup lang="ts">
import { checkOf, type CheckEnd, type CheckId } from '../../../core/symptom'
import { useHuntWords } from '../../composables/useHuntWords'

/** A short procedure at the valve, the heads or the water: one look at a time, each answer leads on. */
const props = defineProps<{ check: CheckId; zone: string }>()
const emit = defineEmits<{ found: [end: CheckEnd, says: string]; wiring: [] }>()
const { t } = useHuntWords(() => ({ length: 'm', temperature: 'C' }))
const check = computed(() => checkOf(props.check))
const at = ref(check.value.first)
const end = ref<CheckEnd | null>(null)
const look = computed(() => check.value.looks[at.value]!)
const says = computed(() => (end.value ? t(`valveCheck.end.${end.value.says}`, { zone: props.zone }) : ''))
function answer(to: string | CheckEnd): void {
  if (typeof to === 'string') at.value = to
  else end.value = to
}
function again(): void {
  at.value = check.value.first
  end.value = null
}
</script>

<template>
  <div class="stack" aria-live="polite">
    <template v-if="end === null">
      <h2>{{ t(`look.does.${at}`) }}</h2>
      <p v-if="look.caution" class="caution">{{ t(`valveCheck.care.${look.caution}`) }}</p>
      <div class="row answers">
        <AppButton v-for="(to, word) in look.answers" :key="word" class="word" @click="answer(to)">
          {{ t(`look.says.${at}_${word}`) }}
        </AppButton>
      </div>
    </template>
    <template v-else>
      <h2>{{ says }}</h2>
      <div v-if="end.end === 'found'">
        <AppButton look="primary" @click="emit('found', end, says)">{{ t('valveCheck.yes') }}</AppButton>
      </div>
    </template>
    <div class="row">
      <AppButton :look="end?.end === 'wiring' ? 'primary' : 'plain'" @click="emit('wiring')">
        {{ t('valveCheck.wiring') }}
      </AppButton>
      <AppButton v-if="end !== null || at !== check.first" look="plain" @click="again">
        {{ t('valveCheck.begin') }}
      </AppButton>
    </div>
  </div>
</template>

<style scoped>
h2 {
  font-size: 19px;
}
.word {
  flex: 1 1 160px;
  min-height: 52px;
}
</style>
