<script setup lang="ts">
import type { Refusal } from '../../../core/refusal'
import { sayRefusal } from '../../../words'
import { useSpeaker } from '../../composables/useSpeaker'
import { deleteProperty, fileAddress, putArchived, type Reply } from '../../lib/api'

/** Off the list, and from there gone for ever: two steps, its file offered between them. */
const props = defineProps<{ id: string; isArchived?: boolean }>()
const { t, speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
const archived = ref(props.isArchived ?? false)
const understood = ref(false)
const busy = ref(false)
const troubles = shallowRef<readonly Refusal[]>([])

async function done(reply: Promise<Reply<unknown>>): Promise<boolean> {
  busy.value = true
  const answer = await reply
  busy.value = false
  troubles.value =
    answer.kind === 'ok'
      ? []
      : answer.kind === 'refused'
        ? answer.refusals
        : [{ code: 'not_reached', path: [], params: {} }]
  return answer.kind === 'ok'
}
async function archive(now: boolean): Promise<void> {
  if (await done(putArchived(props.id, now))) archived.value = now
}
async function remove(): Promise<void> {
  if (await done(deleteProperty(props.id))) await navigateTo('/')
}
</script>

<template>
  <section class="sheet stack">
    <h2>{{ t('keepOrGo.title') }}</h2>
    <p v-for="(r, i) in troubles" :key="i" class="fault" role="alert">{{ sayRefusal(r, speaker) }}</p>
    <template v-if="!archived">
      <p class="quiet">{{ t('keepOrGo.how') }}</p>
      <p>
        <AppButton :disabled="busy" @click="archive(true)">
          {{ t('keepOrGo.archive') }}
        </AppButton>
      </p>
    </template>
    <template v-else>
      <p>
        <strong>{{ t('keepOrGo.isArchived') }}</strong>
      </p>
      <p class="row">
        <AppButton :disabled="busy" @click="archive(false)">
          {{ t('keepOrGo.restore') }}
        </AppButton>
        <NuxtLink to="/" class="button">{{ t('app.toProperties') }}</NuxtLink>
      </p>
      <p>{{ t('keepOrGo.fileFirst') }}</p>
      <p>
        <a class="button" :href="fileAddress(id, { pictures: true, journal: true })" download>
          {{ t('keepOrGo.file') }}
        </a>
      </p>
      <TickBox v-model="understood">{{ t('keepOrGo.understood') }}</TickBox>
      <p>
        <AppButton class="danger" :disabled="!understood || busy" @click="remove">
          {{ t('keepOrGo.delete') }}
        </AppButton>
      </p>
    </template>
  </section>
</template>

<style scoped>
.danger {
  color: var(--fault);
  border-color: var(--fault);
}
</style>
