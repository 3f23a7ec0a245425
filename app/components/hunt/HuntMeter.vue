<script setup lang="ts">
import { useHuntWords } from '../../composables/useHuntWords'
import { simulatedAddress } from '../../composables/useInstrument'
import type { useMeter } from '../../composables/useMeter'

/** The meter at hand: one on the network, or a simulated one on a property like this with a hidden fault. */
const props = defineProps<{
  meter: ReturnType<typeof useMeter>
  property: string
  /** As the hunt was told it; a simulated property lies in ground as warm. */
  ground_C: number
  faults: readonly string[]
}>()
const { t } = useHuntWords(() => ({ length: 'm', temperature: 'C' }))
const address = ref('ws://127.0.0.1:5025/')
const fault = ref('')
const { connected, name, trouble } = props.meter
function practise(): void {
  const seed = Math.floor(Math.random() * 4294967295)
  const chosen = fault.value || props.faults[seed % props.faults.length]
  const query = new URLSearchParams({
    property: props.property,
    seed: String(seed),
    ground_C: String(props.ground_C),
    ...(chosen ? { fault: chosen } : {}),
  })
  void props.meter.connect(simulatedAddress(query))
}
</script>

<template>
  <details class="sheet folds">
    <summary>
      <h2>{{ t('diagnose.meter') }}</h2>
      {{ ' ' }}
      <span class="quiet">{{ connected ? t('diagnose.connected', { name }) : '' }}</span>
    </summary>
    <div class="stack">
      <p v-if="trouble" class="fault" role="alert">{{ t(`diagnose.trouble.${trouble}`) }}</p>
      <AppButton v-if="connected" @click="meter.disconnect()">
        {{ t('diagnose.disconnect') }}
      </AppButton>
      <template v-else>
        <form class="row" @submit.prevent="meter.connect(address)">
          <div class="field grow">
            <label for="meter-address">{{ t('diagnose.address') }}</label>
            <TextField id="meter-address" v-model="address" inputmode="url" autocomplete="off" />
          </div>
          <AppButton type="submit">{{ t('diagnose.connect') }}</AppButton>
        </form>
        <form class="row" @submit.prevent="practise">
          <PickOne
            id="meter-fault"
            v-model="fault"
            class="grow"
            :label="`${t('diagnose.simulated')}: ${t('diagnose.hidden')}`"
            :options="[{ value: '', label: t('diagnose.chance') }, ...faults.map((f) => ({ value: f, label: f }))]"
          />
          <AppButton type="submit">{{ t('diagnose.connect') }}</AppButton>
        </form>
        <p class="quiet">{{ t('diagnose.simulatedHow') }}</p>
      </template>
    </div>
  </details>
</template>

<style scoped>
.row {
  align-items: end;
}
.grow {
  flex: 1 1 180px;
}
.stack {
  margin-top: 8px;
}
</style>
