<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { timelineOf, type Happening, type HappeningKind } from '../../../../../core/timeline'
import { timelineEn } from '../../../../../words/timeline-en'
import { useSightings } from '../../../../composables/useSightings'
import { dayText, timeText } from '../../../../composables/useSpeaker'

/** Everything that happened at the property: who, and when. */
useI18n({ useScope: 'global' }).mergeLocaleMessage('en', timelineEn)
const { property, t, nameOf } = useSightings()
const route = useRoute()
const A_PAGE = 100
const KINDS: readonly HappeningKind[] = [
  ...(['visit', 'mended', 'seen', 'turned', 'quote', 'answer', 'work'] as const),
  ...(['schedule', 'temporary', 'record'] as const),
]

const steps = computed(() => property.held!.steps)
const all = computed(() => timelineOf(property.facts!, steps.value))
const [kind, who, most] = [ref<HappeningKind | ''>(''), ref(''), ref(A_PAGE)]
const people = computed(() => [...new Set(all.value.flatMap((h) => h.by))].sort((a, b) => a.localeCompare(b)))
const found = computed(() =>
  all.value.filter(
    (h) => (kind.value === '' || h.kind === kind.value) && (who.value === '' || h.by.includes(who.value)),
  ),
)
const kinds = computed(() => [
  { value: '' as const, label: t('timeline.all') },
  ...KINDS.filter((k) => all.value.some((h) => h.kind === k)).map((k) => ({ value: k, label: t(`happened.${k}`) })),
])
/** Days with what happened on them. */
const days = computed(() => {
  const groups = new Map<string, Happening[]>()
  for (const h of found.value.slice(0, most.value)) {
    const day = dayText(h.at)
    groups.set(day, [...(groups.get(day) ?? []), h])
  }
  return [...groups]
})
function text(h: Happening): string {
  switch (h.kind) {
    case 'visit':
      return t('happening.visit', {
        jobs: t('happening.jobs', h.jobs),
        readings: t('happening.readings', h.readings),
      })
    case 'mended':
      return t('happening.mended', { says: h.says, how: h.how })
    case 'seen':
      return t('happening.seen', { what: t(`sighted.${h.what}`), on: nameOf(h.on), note: h.note }).trim()
    case 'turned':
      return t('happening.turned', { what: t(`sighted.${h.what}`), on: nameOf(h.on), to: t(`sightingState.${h.to}`) })
    case 'quote':
      return t('happening.quote', h.items)
    case 'answer':
      return t(`happening.${h.to}`, { name: h.name, count: h.items }, h.items)
    case 'work':
      return h.minutes === null
        ? t('happening.work', { says: h.says })
        : t('happening.workTook', { says: h.says, minutes: h.minutes })
    default:
      return t(`happening.${h.kind}`, h.count)
  }
}
const base = computed(() => `/p/${String(route.params.id)}`)
/** Where more of it stands. */
function doorOf(h: Happening): string | null {
  switch (h.kind) {
    case 'visit':
      return '/work'
    case 'mended':
      return `/diagnose?job=${h.job}`
    case 'seen':
    case 'turned':
      return '/work/findings'
    case 'quote':
    case 'answer':
    case 'work':
      return '/work/quote'
    case 'schedule':
      return '/plan/schedule'
    default:
      return '/record'
  }
}
const oldest = computed(() => steps.value.at(-1) ?? null)
</script>

<template>
  <div class="stack page">
    <h1>{{ t('timeline.title') }}</h1>
    <p class="quiet">{{ t('timeline.how') }}</p>
    <div class="row tools">
      <PickOne id="timeline-kind" v-model="kind" :label="t('timeline.what')" :options="kinds" />
      <PickOne
        v-if="people.length > 1"
        id="timeline-who"
        v-model="who"
        :label="t('timeline.who')"
        :options="[{ value: '', label: t('timeline.anybody') }, ...people.map((p) => ({ value: p, label: p }))]"
      />
    </div>
    <p v-if="found.length === 0" class="sheet">{{ t('timeline.none') }}</p>
    <section v-for="[day, list] in days" :key="day" class="day">
      <h2>{{ day }}</h2>
      <ul>
        <li v-for="h in list" :key="h.id" :class="h.kind">
          <span class="figure quiet">{{ timeText(h.at) }}</span>
          <span>
            <NuxtLink :to="`${base}${doorOf(h)}`" :prefetch="false">{{ text(h) }}</NuxtLink>
            {{ h.by.length > 0 ? ' · ' : '' }}
            <span v-if="h.by.length > 0" class="quiet">{{ t('timeline.by', { names: h.by.join(', ') }) }}</span>
          </span>
        </li>
      </ul>
    </section>
    <p v-if="found.length > most">
      <AppButton @click="most += A_PAGE">{{ t('timeline.more') }}</AppButton>
    </p>
    <p v-if="oldest && oldest.revision > 1" class="row">
      <span class="quiet">{{ t('timeline.older', { day: dayText(oldest.at) }) }}</span>
      <AppButton @click="property.loadOlder()">{{ t('timeline.load') }}</AppButton>
    </p>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.day h2 {
  font-size: 15px;
  margin-bottom: 4px;
}
.day li {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 4px 12px;
  padding: 6px 0;
  border-top: 1px solid var(--rule);
}
.day a {
  color: inherit;
  text-decoration: none;
}
.day a:hover {
  text-decoration: underline;
}
.day .mended a,
.day .answer a {
  font-weight: 700;
}
@media (max-width: 759px) {
  .day a {
    display: block;
    min-height: 32px;
  }
}
</style>
