<script setup lang="ts">
import type { Concluded } from '../../workers/conclude'
import { say, type Speaker } from '../../../words'
import { useI18n } from 'vue-i18n'
import { tagsText, type Described } from '../../../core/expect'
import type { SweepRow } from '../../composables/useSweep'

/** What the readings together say: verdict first, reason next, then what to do; where there are several, a line each. */
const props = defineProps<{
  concluded: Concluded
  rows: readonly SweepRow[]
  speaker: Speaker
  compact?: boolean
  /** Several fold to their verdicts, so that what they speak of stays in view. */
  fold?: boolean
  /** The sweep whose readings can be weighed: all that may be wrong, and what to measure next. */
  job?: string | null
}>()
const route = useRoute()
const { t } = useI18n()

const open = computed(() => props.rows.filter((r) => r.judged?.verdict.code === 'open').map((r) => r.tag))
const fitting = computed(() => props.rows.filter((r) => r.state === 'fits').map((r) => r.tag))
function because(d: Described): string {
  if (d.conclusion.kind !== 'open' || d.terminals.length < 2) return ''
  const here = props.rows.filter((r) => d.terminals.includes(r.terminal))
  if (here.every((r) => r.judged?.verdict.code !== 'open'))
    return t('because.second_way', { tags: tagsText(here.map((r) => r.tag)) })
  return fitting.value.length === 0
    ? t('because.open_all')
    : t('because.open', { open: tagsText(open.value), rest: tagsText(fitting.value) }, open.value.length)
}
</script>

<template>
  <div class="conclusions" aria-live="polite">
    <p v-if="concluded.severalOrWrong" class="sheet several">
      <StateMark state="fault" silent />
      {{ t('because.several') }}
    </p>
    <details
      v-for="(d, i) in concluded.described"
      :key="i"
      class="sheet conclusion"
      :class="{ compact, weak: d.conclusion.doubtful }"
      :open="!fold || concluded.described.length === 1"
    >
      <summary>
        <StateMark class="big" :state="d.conclusion.doubtful ? 'doubtful' : 'fault'" silent />
        <h2>{{ say({ ...d.says, code: `conclusion.${d.says.code}` }, speaker) }}</h2>
      </summary>
      <div class="why">
        <div>
          <p v-if="d.conclusion.doubtful" class="quiet">{{ t('because.doubtful') }}</p>
          <p v-for="(other, k) in d.or" :key="k" class="quiet">
            {{ t('because.or') }} {{ say({ ...other, code: `conclusion.${other.code}` }, speaker) }}
          </p>
          <p v-if="because(d)" class="quiet">{{ because(d) }}</p>
        </div>
        <p class="next">{{ say({ ...d.next, code: `next.${d.next.code}` }, speaker) }}</p>
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
.conclusion.weak {
  border-left-color: var(--doubtful);
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
/* Where there is nothing to explain, what to do next begins the line. */
.why > div:empty {
  display: none;
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
