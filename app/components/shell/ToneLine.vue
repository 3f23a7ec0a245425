<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { toneOn } from '../../../core/trace'
import { timeText } from '../../composables/useSpeaker'
import { useVisitToday } from '../../composables/useVisitToday'
import { useProperty } from '../../stores/property'

/** A transmitter is on somewhere at this visit: said on every phone, on every page, until it was seen off. */
const { t } = useI18n()
const property = useProperty()
const underWay = useVisitToday()
const tone = computed(() => (underWay.value && property.facts ? toneOn(property.facts, underWay.value.id) : null))
</script>

<template>
  <p v-if="tone" class="sheet tone" role="status">
    {{ t('people.toneOn', { at: timeText(tone.since), who: tone.author || t('people.nameless') }) }}
  </p>
</template>

<style scoped>
.tone {
  border-left: 5px solid var(--doubtful);
  margin-bottom: 12px;
  padding: 10px 16px;
  font-weight: 600;
}
</style>
