<script setup lang="ts">
import type { HuntReport } from '../../../core/hunt'
import { chanceText } from '../../../core/quantity'
import { getOrThrow, type Site, type ControllerId } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayCare, sayHow, sayMinutes, sayOutcome, sayPlace, sayTest } from '../../../words/hunt'
import { useHuntWords } from '../../composables/useHuntWords'

/**
 * The next test as a card: what, where, how to clip, the caution, what each answer would mean; the answer goes in at
 * its foot.
 */
const props = defineProps<{
  next: NonNullable<HuntReport['next']>
  site: Site
  controller: ControllerId
  speaker: Speaker
}>()
const { t } = useHuntWords(() => props.site.settings.units)
const atCabinet = computed(() => props.next.place === getOrThrow(props.site.controllers, props.controller).place)
</script>

<template>
  <section class="sheet next stack" :aria-label="t('diagnose.next')">
    <div>
      <p class="quiet">
        {{ t('diagnose.next') }} · {{ sayPlace(next.place, site, controller, speaker) }} ·
        {{ sayMinutes(next.minutes, speaker) }} ·
        {{ next.bits > 0 ? t('diagnose.bits', { bits: next.bits.toFixed(2) }) : t('diagnose.onceMore') }}
      </p>
      <h2>{{ sayTest(next.test, site, speaker) }}</h2>
      <p>{{ sayHow(next.test, site, speaker) }}</p>
    </div>
    <p class="caution">{{ sayCare(next, atCabinet, speaker) }}</p>
    <slot />
    <details v-if="next.outcomes.length > 0">
      <summary>{{ t('diagnose.means') }}</summary>
      <ul class="means">
        <li v-for="(o, i) in next.outcomes" :key="i">
          <span class="figure">{{ chanceText(o.p) }}</span>
          {{ sayOutcome(next.test, o, site, speaker) }}
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.next {
  border-color: var(--copper);
  scroll-margin-top: 64px;
}
h2 {
  font-size: 21px;
  margin: 2px 0 4px;
}
summary {
  cursor: pointer;
  min-height: 32px;
  color: var(--copper);
  font-weight: 600;
}
.means {
  margin: 4px 0 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
  font-size: 15px;
}
@media (max-width: 759px) {
  summary {
    min-height: 44px;
    display: flex;
    align-items: center;
  }
}
</style>
