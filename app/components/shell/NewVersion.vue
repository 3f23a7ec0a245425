<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { countWaiting } from '../../lib/outbox'
import { newVersion, takeNewVersion } from '../../lib/service-worker'
import { useProperty } from '../../stores/property'

/** A new version waits until nothing on this device is unsent; then it is taken with a tap. */
const { t } = useI18n()
const property = useProperty()
const waiting = ref(0)
let beat: ReturnType<typeof setInterval> | undefined
const count = () =>
  countWaiting().then(
    (n) => {
      waiting.value = n
    },
    () => undefined,
  )
watch(newVersion, (there) => {
  clearInterval(beat)
  if (there) beat = setInterval(() => void count(), 3000)
  if (there) void count()
})
onBeforeUnmount(() => clearInterval(beat))
/** To a server of another version nothing can be sent from this one: what waits is kept and read by the next. */
const free = computed(() => (waiting.value === 0 && property.pending === 0) || property.outdated)
</script>

<template>
  <p v-if="newVersion" class="row new-version" role="status">
    <span>{{ free ? t('app.newVersion') : t('app.newVersionWaits', { count: waiting }) }}</span>
    <AppButton v-if="free" @click="takeNewVersion">{{ t('app.takeIt') }}</AppButton>
  </p>
</template>

<style scoped>
.new-version {
  justify-content: space-between;
  padding: 8px 16px;
  background: var(--copper-soft);
  border-bottom: 1px solid var(--rule);
}
</style>
