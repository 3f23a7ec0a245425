<script setup lang="ts">
import { targetKey, targetOfPart } from '../../../../../core/record'
import { usePhotos } from '../../../../composables/usePhotos'
import { dayText, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

/** What hunts found and crews mended, the latest first. */
const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const { all } = usePhotos()
/** Photos of what was mended: of that thing, taken in that hunt. */
const mended = computed(() =>
  Object.entries(property.facts!.findings)
    .sort(([, a], [, b]) => b.at.localeCompare(a.at))
    .map(([id, finding]) => {
      const on = finding.where && targetOfPart(finding.where)
      const photos = all.value.filter(
        ({ photo }) => photo.job === finding.job && on !== null && targetKey(photo.on) === targetKey(on),
      )
      return { id, finding, of: on && { on, job: finding.job }, photos }
    }),
)
</script>

<template>
  <div class="stack page">
    <h1>{{ t('work.mended') }}</h1>
    <p v-if="mended.length === 0" class="quiet">{{ t('work.noneMended') }}</p>
    <section v-else class="sheet">
      <ol class="mended">
        <li v-for="m in mended" :key="m.id">
          <span>
            <strong class="says">{{ m.finding.says }}</strong>
            <span class="quiet">
              {{ dayText(m.finding.at) }}
              <template v-if="m.finding.author">· {{ m.finding.author }}</template>
            </span>
            <PhotoStrip v-if="m.photos.length > 0" :photos="m.photos" />
          </span>
          <PhotoTaker v-if="m.of && !property.viewed" :of="m.of" />
          <NuxtLink class="button plain" :to="`/p/${route.params.id}/diagnose?job=${m.finding.job}`">
            {{ t('work.huntOf') }}
          </NuxtLink>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.mended {
  list-style: none;
  padding: 0;
  margin: 0;
}
.mended li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  flex-wrap: wrap;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.mended li:last-child {
  border-bottom: 0;
}
.mended li > :first-child {
  flex: 1 1 320px;
}
.mended .button {
  flex: none;
}
.says {
  display: block;
}
.says::first-letter {
  text-transform: uppercase;
}
</style>
