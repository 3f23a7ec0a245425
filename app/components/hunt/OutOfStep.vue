<script setup lang="ts">
import type { ControllerId } from '../../../core/site'
import { useHuntWords } from '../../composables/useHuntWords'
import type { HuntZone } from '../../composables/useHuntZones'

/** Zones behind a sequencer that is perhaps only out of step lead there first. */
const props = defineProps<{ zones: readonly HuntZone[]; controller: ControllerId }>()
const { t } = useHuntWords(() => ({ length: 'm', temperature: 'C' }))
const route = useRoute()
const behind = computed(() => props.zones.find((z) => z.sequencer !== null) ?? null)
const to = computed(() => ({
  path: `/p/${String(route.params.id)}/controller`,
  query: { controller: props.controller },
  hash: '#sequencers',
}))
</script>

<template>
  <p v-if="behind" class="row">
    <StateMark state="doubtful" silent />
    {{ t('symptom.outOfStep', { zone: behind.name, sequencer: behind.sequencer! }) }}
    <NuxtLink class="button" :prefetch="false" :to="to">{{ t('symptom.toSequencer') }}</NuxtLink>
  </p>
</template>
