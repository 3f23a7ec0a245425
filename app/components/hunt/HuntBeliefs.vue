<script setup lang="ts">
import type { HuntReport } from '../../../core/hunt'
import { testKey } from '../../../core/record'
import type { ControllerId, Site } from '../../../core/site'
import type { Section } from '../../../core/strip'
import type { Speaker } from '../../../words'
import { useHuntWords } from '../../composables/useHuntWords'
import type { Leaving } from '../../composables/useLeaving'

/**
 * What is wrong, a card for each thing: parts of one shut each other out, those of two do not. What is less likely
 * stands beside them, and that nothing is wrong.
 */
const props = defineProps<{
  report: HuntReport
  site: Site
  controller: ControllerId
  sections: readonly Section[]
  speaker: Speaker
  writable: boolean
  /** The test that is asked for now, by its key. */
  asked: string | null
  nameOf: (terminal: string) => string
  tagOf: (terminal: string) => string
  leaving: (trouble: number) => Leaving
}>()
const emit = defineEmits<{ measure: [trouble: number]; mended: [trouble: number]; left: [trouble: number] }>()
const { t } = useHuntWords(() => props.site.settings.units)
const [MOST_TROUBLES, MOST_BESIDES] = [8, 4]
/** What is less likely is told of beside the troubles, or not at all. */
const [LEAST_TROUBLE, LEAST_PART] = [0.05, 0.005]

const troubles = computed(() => props.report.troubles.filter((x) => x.p >= LEAST_TROUBLE).slice(0, MOST_TROUBLES))
const besides = computed(() => {
  const told = new Set(troubles.value.flatMap((x) => x.parts.map((p) => p.key)))
  return props.report.parts.filter((p) => p.p >= LEAST_PART && !told.has(p.key)).slice(0, MOST_BESIDES)
})
/** A single thing that is wrong is mended where it is said. */
const several = computed(() => props.report.troubles.filter((x) => x.wrong).length > 1)
const soundFirst = computed(() => props.report.nothing + props.report.misread > (props.report.troubles[0]?.p ?? 0))
</script>

<template>
  <section class="sheet" :aria-label="t('diagnose.why')">
    <h2>{{ t('diagnose.why') }}</h2>
    <div v-if="soundFirst" class="thing">
      <PartBars :parts="[]" :sound="report" :site="site" :speaker="speaker" />
    </div>
    <TroubleCard
      v-for="(trouble, n) in troubles"
      :key="n"
      class="thing"
      :trouble="trouble"
      :number="troubles.length > 1 ? n + 1 : null"
      :site="site"
      :controller="controller"
      :sections="sections"
      :speaker="speaker"
      :writable="writable"
      :mendable="writable && several"
      :leaving="leaving(n)"
      :asked="trouble.next !== null && testKey(trouble.next.test) === asked"
      :name-of="nameOf"
      :tag-of="tagOf"
      @measure="emit('measure', n)"
      @mended="emit('mended', n)"
      @left="emit('left', n)"
    />
    <div v-if="besides.length > 0" class="thing">
      <h3 v-if="troubles.length > 0">{{ t('diagnose.alsoShown') }}</h3>
      <PartBars :parts="besides" :site="site" :speaker="speaker" />
    </div>
    <div v-if="!soundFirst" class="thing">
      <PartBars :parts="[]" :sound="report" :site="site" :speaker="speaker" />
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 17px;
  margin-bottom: 8px;
}
h3 {
  font-size: 14px;
  margin-bottom: 6px;
}
.thing ~ .thing {
  margin-top: 12px;
  padding-top: 12px;
  border-top: 1px solid var(--rule);
}
</style>
