<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { sayRefusal } from '../../../words'
import { laterEn } from '../../../words/later-en'
import { repairViewEn } from '../../../words/repair-view-en'
import { useSpeaker } from '../../composables/useSpeaker'
import { fileAddress } from '../../lib/api'
import { useProperty } from '../../stores/property'

/** A property that is on record and cannot be read: why, its file, and the way out. */
defineProps<{ id: string }>()
const { t, mergeLocaleMessage } = useI18n({ useScope: 'global' })
mergeLocaleMessage('en', { ...laterEn, ...repairViewEn })
const property = useProperty()
const { speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
</script>

<template>
  <h1>{{ t('repair.title') }}</h1>
  <p>{{ t('repair.how') }}</p>
  <ul class="stack">
    <li v-for="(r, i) in property.troubles.filter((x) => x.code !== 'unreadable_record')" :key="i">
      {{ sayRefusal(r, speaker) }}
    </li>
  </ul>
  <p class="quiet">{{ t('repair.saveHow') }}</p>
  <p class="row">
    <a class="button primary" :href="fileAddress(id, { pictures: false, journal: false })" download>
      {{ t('repair.save') }}
    </a>
  </p>
  <KeepOrGo :id="id" />
</template>
