<script setup lang="ts">
import type { TroubleReport } from '../../../core/hunt'
import { chanceText } from '../../../core/quantity'
import type { ControllerId, Site } from '../../../core/site'
import type { Section } from '../../../core/strip'
import type { Speaker } from '../../../words'
import { sayMinutes, sayPlace, sayTest } from '../../../words/hunt'
import { useHuntWords } from '../../composables/useHuntWords'
import type { Leaving } from '../../composables/useLeaving'

/** One thing that is wrong: the parts that may be it, where they lie, and what is to be done about it. */
const props = defineProps<{
  trouble: TroubleReport
  /** Its number, where there are several. */
  number: number | null
  site: Site
  controller: ControllerId
  sections: readonly Section[]
  speaker: Speaker
  writable: boolean
  mendable: boolean
  /** How it stays known, where nobody mends it now. */
  leaving: Leaving
  /** Its test is the one that is asked for now. */
  asked: boolean
  nameOf: (terminal: string) => string
  tagOf: (terminal: string) => string
}>()
const emit = defineEmits<{ measure: []; mended: []; left: [] }>()
const { t } = useHuntWords(() => props.site.settings.units)
const MOST_PARTS = 5
</script>

<template>
  <div class="trouble stack">
    <h3>
      <span v-if="number !== null" class="figure number">{{ number }}</span>
      <span>
        {{ trouble.parts.length > 1 ? t('diagnose.oneOf', { p: chanceText(trouble.p) }) : '' }}
        <span v-if="trouble.zones > 0" class="quiet">
          {{ t('diagnose.zones', { count: trouble.zones }, trouble.zones) }}
        </span>
      </span>
    </h3>
    <PartBars :parts="trouble.parts.slice(0, MOST_PARTS)" :site="site" :speaker="speaker" />
    <HuntStrips :sections="sections" :parts="trouble.parts" :site="site" :name-of="nameOf" :tag-of="tagOf" />
    <div v-if="trouble.named" class="row foot">
      <strong>{{ t('diagnose.sure') }}</strong>
      <template v-if="mendable">
        <AppButton @click="emit('mended')">{{ t('diagnose.mended') }}</AppButton>
        <LeaveButton :leaving="leaving" @left="emit('left')" />
      </template>
    </div>
    <div v-else-if="trouble.next" class="row foot">
      <span>
        <strong>{{ sayTest(trouble.next.test, site, speaker) }}</strong>
        {{ ' ' }}
        <span class="quiet">
          {{ sayPlace(trouble.next.place, site, controller, speaker) }} ·
          {{ sayMinutes(trouble.next.minutes, speaker) }}
        </span>
      </span>
      <span v-if="asked" class="quiet">{{ t('diagnose.askedNow') }}</span>
      <AppButton v-else-if="writable" @click="emit('measure')">{{ t('diagnose.askThis') }}</AppButton>
    </div>
    <div v-else class="row foot">
      <span>{{ t('diagnose.noTest') }}</span>
      <AppButton v-if="writable" @click="emit('mended')">{{ t('diagnose.mendedFirst') }}</AppButton>
    </div>
  </div>
</template>

<style scoped>
.trouble {
  gap: 8px;
}
h3 {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-size: 15px;
}
h3 .quiet {
  font-weight: 400;
}
.number {
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  padding: 0 7px;
  flex: none;
}
.foot {
  justify-content: space-between;
  flex-wrap: nowrap;
  font-size: 15px;
}
.foot .button {
  flex: none;
}
</style>
