<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { beginTimer, timerOf } from '../../lib/device'

/** A step’s time, running down; it goes on while the page is closed. */
const props = defineProps<{ job: string; step: string; minutes: number }>()
const { t } = useI18n()
const name = computed(() => `${props.job} ${props.step}`)
const begun = ref<number | null>(null)
const now = ref(Date.now())
watch(
  name,
  (n) => {
    begun.value = timerOf(n)
  },
  { immediate: true },
)
let beat: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  beat = setInterval(() => {
    now.value = Date.now()
  }, 500)
})
onBeforeUnmount(() => clearInterval(beat))
const left_s = computed(() =>
  begun.value === null ? null : Math.max(0, Math.ceil(props.minutes * 60 - (now.value - begun.value) / 1000)),
)
const text = computed(() => {
  const s = left_s.value ?? 0
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
})
function start(): void {
  now.value = Date.now()
  begun.value = now.value
  beginTimer(name.value, begun.value)
}
</script>

<template>
  <p class="row timer">
    <AppButton v-if="left_s === null" @click="start">{{ t('run.startTimer', { minutes }) }}</AppButton>
    <strong v-else-if="left_s > 0" class="figure" role="timer">{{ t('run.remaining', { time: text }) }}</strong>
    <strong v-else class="fits" role="status">{{ t('run.timeUp') }}</strong>
  </p>
</template>

<style scoped>
.timer {
  font-size: 19px;
}
</style>
