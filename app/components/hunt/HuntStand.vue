<script setup lang="ts">
import type { HuntReport } from '../../../core/hunt'
import type { Reading } from '../../../core/record'
import type { ControllerId, Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { saySlipped, sayStand, sayStrained, sayTelling } from '../../../words/hunt'
import { sayCount, sayTrouble } from '../../../words/trouble'
import { useHuntWords } from '../../composables/useHuntWords'
import type { Leaving } from '../../composables/useLeaving'

/** Where a hunt stands, verdict first: each thing that is wrong in a sentence, and what speaks most for it. */
const props = defineProps<{
  report: HuntReport
  site: Site
  controller: ControllerId
  speaker: Speaker
  writable: boolean
  /** It is being weighed anew. */
  stale: boolean
  allRun: boolean
  /** A reading that may have slipped. */
  slipped: Reading | null
  /** It is only looked at: a hunt can begin with its readings. */
  canGoOn: boolean
  /** How what was found stays known, where nobody mends it now. */
  leaving: (trouble: number) => Leaving
}>()
const emit = defineEmits<{ mended: [trouble: number]; left: [trouble: number]; goOn: [] }>()
const { t } = useHuntWords(() => props.site.settings.units)
const wrong = computed(() => props.report.troubles.filter((x) => x.wrong))
/** The part that is named beyond doubt, by its trouble. */
const sure = computed(() => props.report.troubles.findIndex((x) => x.named))
</script>

<template>
  <section class="sheet stack stand" :class="{ stale }" aria-live="polite">
    <p class="verdict">
      <strong>{{ wrong.length > 1 ? sayCount(report, speaker) : sayStand(report, site, speaker) }}</strong>
    </p>
    <ol v-if="wrong.length > 1" class="wrong">
      <li v-for="(trouble, n) in wrong" :key="n">{{ sayTrouble(trouble, site, speaker) }}</li>
    </ol>
    <p v-if="allRun">{{ t('hunt.allRun') }}</p>
    <p v-if="report.telling" class="quiet">{{ sayTelling(report.telling, site, speaker) }}</p>
    <p v-if="slipped" class="fault">{{ saySlipped(slipped, site, speaker) }}</p>
    <p v-else-if="report.strained" class="fault">{{ sayStrained(report, site, controller, speaker) }}</p>
    <div v-if="writable && wrong.length === 1 && sure >= 0" class="row">
      <AppButton look="primary" @click="emit('mended', sure)">{{ t('diagnose.mended') }}</AppButton>
      <LeaveButton :leaving="leaving(sure)" @left="emit('left', sure)" />
      <span class="quiet">{{ t(`diagnose.mendedOr.${leaving(sure)}`) }}</span>
    </div>
    <div v-if="canGoOn" class="row">
      <AppButton look="primary" @click="emit('goOn')">{{ t('diagnose.goOn') }}</AppButton>
      <span class="quiet">{{ t('diagnose.goOnHow') }}</span>
    </div>
  </section>
</template>

<style scoped>
.stand {
  border-left: 5px solid var(--copper);
}
.stale {
  border-left-color: var(--rule);
}
.verdict {
  font-size: 18px;
}
.wrong {
  margin: 0;
  padding-left: 24px;
  list-style: decimal;
  display: grid;
  gap: 4px;
}
</style>
