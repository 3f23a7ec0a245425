<script setup lang="ts">
import type { PartReport } from '../../../core/hunt'
import { chanceText } from '../../../core/quantity'
import type { Site } from '../../../core/site'
import type { Speaker } from '../../../words'
import { sayCause, sayPart } from '../../../words/part'
import { useHuntWords } from '../../composables/useHuntWords'

/**
 * How likely each of some parts is at fault, as bars that move when a reading lands; `sound`: that none is, and that
 * none is but a reading slipped.
 */
const props = defineProps<{
  parts: readonly PartReport[]
  sound?: { readonly nothing: number; readonly misread: number } | null
  site: Site
  speaker: Speaker
}>()
const { t } = useHuntWords(() => props.site.settings.units)
/** Causes that hold less of a part's belief than this are not told of; of more than these neither. */
const [LEAST_CAUSE, MOST_CAUSES] = [0.1, 2]
/** A slip that is less likely than this is not told of. */
const LEAST_SLIP = 0.005

/** Keys of the bars that are of no part. */
const [NONE, SLIP] = ['nothing', 'slip']

const bars = computed(() => [
  ...props.parts.map((part) => ({
    key: part.key,
    p: part.p,
    says: sayPart(part.where, props.site, props.speaker),
    causes: part.causes
      .slice(0, MOST_CAUSES)
      .filter((c) => c.p > LEAST_CAUSE && c.cause !== 'unlisted')
      .map((c) => sayCause(c.cause, props.speaker))
      .join(', '),
  })),
  ...(props.sound ? [{ key: NONE, p: props.sound.nothing, says: t('diagnose.likelyNothing'), causes: '' }] : []),
  ...(props.sound && props.sound.misread > LEAST_SLIP
    ? [{ key: SLIP, p: props.sound.misread, says: t('diagnose.likelyMisread'), causes: '' }]
    : []),
])
</script>

<template>
  <ul class="bars">
    <li v-for="bar in bars" :key="bar.key">
      <span class="says">
        {{ bar.causes ? `${bar.says},` : bar.says }}
        <span v-if="bar.causes" class="quiet">{{ bar.causes }}</span>
      </span>
      <span class="figure p">{{ chanceText(bar.p) }}</span>
      <span class="track">
        <span class="bar" :class="{ none: bar.key === NONE }" :style="{ width: `${100 * bar.p}%` }" />
      </span>
    </li>
  </ul>
</template>

<style scoped>
.bars {
  display: grid;
  gap: 8px;
  list-style: none;
  padding: 0;
  margin: 0;
}
.bars li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 12px;
}
.says::first-letter {
  text-transform: uppercase;
}
.p {
  font-weight: 700;
}
.track {
  grid-column: 1 / -1;
  height: 8px;
  background: var(--key-bed);
  border-radius: 4px;
  overflow: hidden;
}
.bar {
  display: block;
  height: 100%;
  background: var(--copper);
  transition: width 0.4s;
}
.bar.none {
  background: var(--fits);
}
@media (prefers-reduced-motion: reduce) {
  .bar {
    transition: none;
  }
}
</style>
