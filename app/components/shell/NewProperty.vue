<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { v7 } from 'uuid'
import { writeProperty } from '../../../core/formats'
import { noFacts } from '../../../core/record'
import { emptySite } from '../../../core/site'
import type { Refusal } from '../../../core/refusal'
import { sayRefusal } from '../../../words'
import { useSpeaker } from '../../composables/useSpeaker'
import { postProperty } from '../../lib/api'
import { optionsOf } from '../../lib/options'

/** A property from nothing: a name and the market's sizes; the list of stations follows on its plan. */
const visible = defineModel<boolean>('visible', { required: true })
const { t } = useI18n()
const { speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
const [name, market] = [ref(''), ref<'metric' | 'awg'>(/^en-US|^es-US/.test(navigator.language) ? 'awg' : 'metric')]
const busy = ref(false)
const refused = shallowRef<readonly Refusal[]>([])

async function begin(): Promise<void> {
  if (name.value.trim() === '' || busy.value) return
  busy.value = true
  const site = emptySite(name.value.trim())
  const settings = {
    ...site.settings,
    market: market.value,
    mains_Hz: market.value === 'awg' ? (60 as const) : (50 as const),
    units:
      market.value === 'awg'
        ? { length: 'ft' as const, temperature: 'F' as const }
        : { length: 'm' as const, temperature: 'C' as const },
  }
  const reply = await postProperty(
    writeProperty({ id: v7(), revision: 0, site: { ...site, settings }, facts: noFacts() }),
  )
  busy.value = false
  if (reply.kind === 'ok') await navigateTo(`/p/${reply.value.id}/plan`)
  else refused.value = reply.kind === 'refused' ? reply.refusals : [{ code: 'not_reached', path: [], params: {} }]
}
</script>

<template>
  <AppDialog v-model:visible="visible" :title="t('properties.new')">
    <form class="stack" @submit.prevent="begin">
      <div class="field">
        <label for="new-name">{{ t('properties.name') }}</label>
        <TextField id="new-name" v-model="name" maxlength="120" autofocus />
      </div>
      <PickRadio
        v-model="market"
        :label="t('properties.market')"
        :options="optionsOf(['metric', 'awg'], (m) => t(`properties.${m}`))"
      />
      <p v-for="(r, i) in refused" :key="i" class="fault" role="alert">{{ sayRefusal(r, speaker) }}</p>
      <div class="row end">
        <AppButton @click="visible = false">{{ t('app.cancel') }}</AppButton>
        <AppButton look="primary" type="submit" :disabled="name.trim() === '' || busy">
          {{ t('properties.begin') }}
        </AppButton>
      </div>
    </form>
  </AppDialog>
</template>
