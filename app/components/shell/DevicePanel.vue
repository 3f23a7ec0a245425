<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { KeptProperty } from '../../lib/device-db'
import { forgetProperty, keptProperties, pinProperty } from '../../lib/kept-properties'
import { BUDGETS, pictureBudget, setPictureBudget } from '../../lib/picture-budget'
import { trimPictures } from '../../lib/pictures'
import { SMALL_STATIONS } from '../../lib/keep-small'
import { keptByWorker } from '../../lib/service-worker'
import { dayText } from '../../composables/useSpeaker'
import { optionsOf } from '../../lib/options'

/**
 * What this device keeps for when there is no signal, how much room that takes, and whether the browser may drop it.
 */
const { t } = useI18n()
const works = ref<boolean | null>(null)
const persisted = ref<boolean | null>(null)
const room = shallowRef<{ used: number; all: number } | null>(null)
const kept = shallowRef<readonly KeptProperty[]>([])
const pictures = ref(0)
const budget = ref(pictureBudget())

async function look(): Promise<void> {
  kept.value = await keptProperties().catch(() => [])
  pictures.value = await trimPictures(budget.value).catch(() => 0)
  persisted.value = (await navigator.storage?.persisted?.().catch(() => null)) ?? null
  const estimate = await navigator.storage?.estimate?.().catch(() => null)
  room.value = estimate?.quota ? { used: estimate.usage ?? 0, all: estimate.quota } : null
}
onMounted(async () => {
  void keptByWorker().then((is) => {
    works.value = is
  })
  await look()
})
const ask = async () => {
  persisted.value = await navigator.storage.persist()
}
async function pin(id: string, on: boolean): Promise<void> {
  await pinProperty(id, on)
  await look()
}
async function forget(id: string): Promise<void> {
  await forgetProperty(id)
  await look()
}
async function choose(bytes: number): Promise<void> {
  budget.value = bytes
  setPictureBudget(bytes)
  await look()
}
const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`
</script>

<template>
  <section class="stack device">
    <p>{{ works === false ? t('device.worksNot') : works === null ? t('device.soon') : t('device.works') }}</p>
    <p v-if="persisted === true" class="fits">{{ t('device.persisted') }}</p>
    <p v-else-if="persisted === false" class="row">
      <span class="doubtful">{{ t('device.mayDrop') }}</span>
      <AppButton @click="ask">{{ t('device.ask') }}</AppButton>
    </p>
    <p v-if="room" class="quiet">{{ t('device.room', { used: size(room.used), all: size(room.all) }) }}</p>
    <h3>{{ t('device.properties') }}</h3>
    <p class="quiet">{{ t('device.propertiesHow', { count: SMALL_STATIONS }) }}</p>
    <ul class="kept">
      <li v-for="k in kept" :key="k.id" class="row">
        <span>
          <strong>{{ k.name }}</strong>
          <span class="quiet">
            {{ ` · ${size(k.bytes)} · ${t('device.seen', { day: dayText(k.seen) })}` }}
          </span>
        </span>
        <span class="row">
          <TickBox :model-value="k.pinned" @update:model-value="pin(k.id, $event)">{{ t('device.pin') }}</TickBox>
          <AppButton look="plain" @click="forget(k.id)">
            {{ t('device.forget') }}
            <span class="sr-only">{{ k.name }}</span>
          </AppButton>
        </span>
      </li>
    </ul>
    <PickOne
      :model-value="budget"
      :label="t('device.budget')"
      :options="optionsOf(BUDGETS, size)"
      @update:model-value="choose"
    >
      <p class="how">{{ t('device.pictures', { used: size(pictures), all: size(budget) }) }}</p>
    </PickOne>
  </section>
</template>

<style scoped>
.device {
  gap: 10px;
}
.kept li {
  justify-content: space-between;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
</style>
