<script setup lang="ts">
import type { Message } from '../../../core/record'
import { sayRefusal } from '../../../words'
import { dayText, timeText, useSpeaker } from '../../composables/useSpeaker'
import { saveText } from '../../lib/save'
import { useProperty } from '../../stores/property'

/** What the record did not take: it stays on this device until somebody has let go of it. */
const property = useProperty()
const { t, speaker } = useSpeaker(() => property.site?.settings.units ?? { length: 'm', temperature: 'C' })

const valueOf = ({ body }: Message): string => {
  if (body.kind !== 'reading') return ''
  const { value } = body.fact
  return value.kind === 'ohm' ? `${value.ohm} Ω` : value.kind === 'volt' ? `${value.volt} V` : value.kind
}
const what = (message: Message) =>
  t(`app.what.${message.body.kind}`, {
    author: message.author || '?',
    at: `${dayText(message.at)}, ${timeText(message.at)}`,
    value: valueOf(message),
  })
const save = (message: Message) =>
  saveText(`not-taken-${message.id}.json`, JSON.stringify(message, null, 2), 'application/json')
</script>

<template>
  <section v-for="r in property.rejected" :key="r.message.id" class="sheet refused stack" role="alert">
    <h2>{{ t('app.refusedTitle') }}</h2>
    <p>{{ what(r.message) }}</p>
    <p v-for="(refusal, i) in r.refusals" :key="i">{{ sayRefusal(refusal, speaker) }}</p>
    <p class="quiet">{{ t('app.refusedHow') }}</p>
    <p class="row">
      <AppButton look="primary" @click="property.sendAgain(r.message.id)">
        {{ t('app.sendAgain') }}
      </AppButton>
      <AppButton @click="save(r.message)">{{ t('app.saveIt') }}</AppButton>
      <AppButton @click="property.dismiss(r.message.id)">{{ t('app.letGo') }}</AppButton>
    </p>
  </section>
</template>

<style scoped>
.refused {
  border-left: 5px solid var(--fault);
  margin-bottom: 16px;
}
</style>
