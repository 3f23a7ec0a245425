<script setup lang="ts">
import { dayText, useSpeaker } from '../../../../composables/useSpeaker'
import { useProperty } from '../../../../stores/property'

/** What hunts found and crews mended, the latest first. */
const route = useRoute()
const property = useProperty()
const { t } = useSpeaker(() => property.site!.settings.units)
const mended = computed(() => Object.entries(property.facts!.findings).sort(([, a], [, b]) => b.at.localeCompare(a.at)))
</script>

<template>
  <div class="stack page">
    <h1>{{ t('work.mended') }}</h1>
    <p v-if="mended.length === 0" class="quiet">{{ t('work.noneMended') }}</p>
    <section v-else class="sheet">
      <ol class="mended">
        <li v-for="[id, f] in mended" :key="id">
          <span>
            <strong class="says">{{ f.says }}</strong>
            <span class="quiet">
              {{ dayText(f.at) }}
              <template v-if="f.author">· {{ f.author }}</template>
            </span>
          </span>
          <NuxtLink class="button plain" :to="`/p/${route.params.id}/diagnose?job=${f.job}`">
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
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.mended li:last-child {
  border-bottom: 0;
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
