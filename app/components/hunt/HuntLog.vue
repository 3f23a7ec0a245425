<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Finding } from '../../../core/record'
import type { Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayTest, sayValue } from '../../../words/hunt'
import type { HuntReading } from '../../composables/useHunt'
import { dayText, timeText } from '../../composables/useSpeaker'

/** What was read and mended in a hunt, the newest first; its own readings can be struck out. */
const props = defineProps<{
  readings: readonly HuntReading[]
  findings: readonly (readonly [string, Finding])[]
  site: Site
  speaker: Speaker
  writable: boolean
}>()
const emit = defineEmits<{ strike: [reading: string] }>()
const { t } = useI18n()
/** A long list shows its newest. */
const MOST = 8
const all = ref(false)
/** When a reading was taken, and in which state, where that was looked to. */
function whenOf({ reading: { at, state }, taken }: HuntReading): string {
  const when = taken ? dayText(at) : timeText(at)
  return state ? `${when}, ${t(`symptom.states.${state}`)}` : when
}
const shown = computed(() => (all.value ? props.readings : props.readings.slice(0, MOST)))
</script>

<template>
  <section class="sheet">
    <h2>{{ t('diagnose.done') }}</h2>
    <ul class="lines">
      <li v-for="[id, f] in findings" :key="id" class="row">
        <span>
          <strong>{{ t('diagnose.mendedText', { part: f.says }) }}</strong>
          {{ ' ' }}
          <span class="quiet">{{ timeText(f.at) }}</span>
        </span>
      </li>
      <li v-for="r in shown" :key="r.id" class="row">
        <span>
          {{ sayTest(r.reading.test, site, speaker) }}
          <span class="quiet">{{ whenOf(r) }}</span>
        </span>
        <span class="row value">
          <strong class="figure">{{ sayValue(r.reading.test, r.reading.value, site, speaker) }}</strong>
          <AppButton
            v-if="writable && !r.taken"
            look="plain"
            class="small"
            :aria-label="t('diagnose.strike', { what: sayTest(r.reading.test, site, speaker) })"
            @click="emit('strike', r.id)"
          >
            ×
          </AppButton>
        </span>
      </li>
    </ul>
    <AppButton v-if="!all && readings.length > MOST" look="plain" @click="all = true">
      {{ t('diagnose.allReadings', { count: readings.length }) }}
    </AppButton>
  </section>
</template>

<style scoped>
.lines {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
}
.lines li {
  justify-content: space-between;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
  flex-wrap: nowrap;
}
.value {
  flex: none;
  gap: 4px;
  flex-wrap: nowrap;
}
.small {
  min-height: 32px;
  padding: 0 8px;
}
@media (max-width: 759px) {
  .small {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
