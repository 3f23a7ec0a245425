<script setup lang="ts">
import type { HuntReport } from '../../../core/hunt'
import type { ControllerId, Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayMinutes, sayPlace, sayStand, sayStrained, sayTest } from '../../../words/hunt'
import { sayTrouble } from '../../../words/trouble'
import { useHuntWords } from '../../composables/useHuntWords'

/** What the readings together say, as Diagnose says it: each thing that is wrong, its parts, and its next test. */
const props = defineProps<{
  report: HuntReport
  site: Site
  controller: ControllerId
  speaker: Speaker
  compact?: boolean
  /** Several fold to their verdicts, so that what they speak of stays in view. */
  fold?: boolean
  /** The job whose readings can be gone on from. */
  job?: string | null
}>()
const route = useRoute()
const { t } = useHuntWords(() => props.site.settings.units)
const MOST_PARTS = 4
const wrong = computed(() => props.report.troubles.filter((x) => x.wrong))
</script>

<template>
  <div class="conclusions" aria-live="polite">
    <p v-if="report.strained" class="sheet several">
      <StateMark state="fault" silent />
      {{ sayStrained(report, site, controller, speaker) }}
    </p>
    <p v-if="wrong.length === 0" class="sheet several">{{ sayStand(report, site, speaker) }}</p>
    <details
      v-for="(trouble, i) in wrong"
      :key="i"
      class="sheet conclusion"
      :class="{ compact }"
      :open="!fold || wrong.length === 1"
    >
      <summary>
        <StateMark class="big" state="fault" silent />
        <h2>{{ sayTrouble(trouble, site, speaker) }}</h2>
      </summary>
      <div class="why">
        <PartBars :parts="trouble.parts.slice(0, MOST_PARTS)" :site="site" :speaker="speaker" />
        <p v-if="trouble.next" class="next">
          {{
            t('because.next', {
              test: sayTest(trouble.next.test, site, speaker),
              place: sayPlace(trouble.next.place, site, controller, speaker),
              time: sayMinutes(trouble.next.minutes, speaker),
            })
          }}
        </p>
        <p v-else class="next">{{ trouble.named ? t('diagnose.sure') : t('diagnose.noTest') }}</p>
      </div>
    </details>
    <NuxtLink v-if="job" class="button diagnose" no-prefetch :to="`/p/${route.params.id}/diagnose?job=${job}`">
      {{ t('because.diagnose') }}
    </NuxtLink>
  </div>
</template>

<style scoped>
.conclusions {
  display: grid;
  gap: 8px;
  container-type: inline-size;
}
.several,
.diagnose {
  grid-column: 1 / -1;
}
.diagnose {
  justify-self: start;
}
.conclusion summary {
  display: grid;
  grid-template-columns: 28px 1fr auto;
  gap: 4px 12px;
  align-items: start;
  cursor: pointer;
}
.conclusion summary::after {
  content: '▸';
  color: var(--copper);
}
.conclusion[open] summary::after {
  content: '▾';
}
.why {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 4px 12px;
  padding-left: 40px;
}
.conclusion {
  border-left: 5px solid var(--fault);
  padding: 8px 16px;
}
.conclusion h2 {
  font-size: 16px;
}
.conclusion.compact {
  padding: 8px 12px;
}
.conclusion.compact h2 {
  font-size: 15px;
}
.several {
  padding: 8px 16px;
}
.big {
  width: 22px;
  height: 22px;
  margin-top: 2px;
}
.conclusion p {
  font-size: 14px;
}
.next {
  color: var(--copper);
  font-weight: 600;
}
@container (max-width: 560px) {
  .why {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 759px) {
  .conclusion p {
    font-size: 16px;
  }
}
</style>
