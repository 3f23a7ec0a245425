<script setup lang="ts">
import { usePathPage } from '../../composables/usePath'
import type { PathMeter } from '../../composables/usePathMeter'

/** The meter at hand: one on the network, or a simulated one on a path like this with a hidden fault. */
const props = defineProps<{ meter: PathMeter }>()
const { t } = usePathPage()
const address = ref('ws://127.0.0.1:5025/')
const { connected, name, trouble } = props.meter
</script>

<template>
  <details class="folds">
    <summary>
      <h2>{{ t('pathFind.meter') }}</h2>
      {{ ' ' }}
      <span class="quiet">{{ connected ? t('pathFind.connected', { name }) : '' }}</span>
    </summary>
    <div class="stack">
      <p v-if="trouble" class="fault" role="alert">{{ t(`pathFind.trouble.${trouble}`) }}</p>
      <div v-if="connected" class="row">
        <AppButton @click="meter.disconnect()">{{ t('pathFind.disconnect') }}</AppButton>
      </div>
      <template v-else>
        <form class="row" @submit.prevent="meter.connect(address)">
          <div class="field grow">
            <label for="path-meter">{{ t('pathFind.address') }}</label>
            <TextField id="path-meter" v-model="address" inputmode="url" autocomplete="off" />
          </div>
          <AppButton type="submit">{{ t('pathFind.connect') }}</AppButton>
        </form>
        <p class="quiet">{{ t('pathFind.practiseHow') }}</p>
        <div class="row">
          <AppButton @click="meter.practise()">{{ t('pathFind.practise') }}</AppButton>
        </div>
      </template>
    </div>
  </details>
</template>
