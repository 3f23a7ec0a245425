<script setup lang="ts">
import { Users } from '@lucide/vue'
import Popover from 'primevue/popover'
import { useI18n } from 'vue-i18n'
import { lookUp, type PlaceId } from '../../../core/site'
import { timeText } from '../../composables/useSpeaker'
import { useProperty } from '../../stores/property'

/** Who else is at the property, what they have open, and since when nothing was heard of them. */
const { t } = useI18n()
const property = useProperty()
const list = useTemplateRef<{ toggle: (event: Event) => void }>('list')
const isSilent = computed(() => property.others.some((o) => o.isSilent))
const boxOf = (box: string | null): string => (box && lookUp(property.site!.places, box as PlaceId)?.tag) || ''
const says = computed(() => t('people.here', property.others.length))
</script>

<template>
  <AppButton look="plain" class="people" :class="{ silent: isSilent }" :aria-label="says" @click="list?.toggle($event)">
    <Users :size="20" aria-hidden="true" />
    {{ property.others.length }}
  </AppButton>
  <Popover ref="list" :pt="{ root: { class: 'people-list sheet' } }">
    <h2>{{ t('people.title') }}</h2>
    <ul>
      <li v-for="o in property.others" :key="o.device">
        <strong>{{ o.name || t('people.nameless') }}</strong>
        <span v-if="o.isSilent" class="doubtful">{{ t('people.silent', { at: timeText(o.at) }) }}</span>
        <span v-else class="quiet">{{ [t(o.doing.tab), boxOf(o.doing.box)].filter(Boolean).join(', ') }}</span>
      </li>
    </ul>
    <p v-if="isSilent" class="quiet">{{ t('people.silentHow') }}</p>
  </Popover>
</template>

<style scoped>
.people {
  color: var(--fits);
  min-width: 48px;
}
.people.silent {
  color: var(--doubtful);
}
</style>

<style>
.people-list {
  max-width: min(320px, 92vw);
  margin-top: 8px;
  z-index: 20;
}
.people-list li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  justify-content: space-between;
  padding: 8px 0;
}
</style>
