<script setup lang="ts">
import { usePhotos } from '../../../../composables/usePhotos'
import { usePhotoWords } from '../../../../composables/usePhotoWords'
import { useProperty } from '../../../../stores/property'

/** Every photo of the property, the latest first. */
const { t } = usePhotoWords()
const property = useProperty()
const { all, placeTag } = usePhotos()
const find = ref('')
/** So many at once; more as one goes on. */
const A_PAGE = 40
const most = ref(A_PAGE)
const found = computed(() => {
  const words = find.value.toLowerCase().split(/\s+/).filter(Boolean)
  return all.value.filter((p) => {
    const text = `${p.says} ${placeTag(p) ?? ''} ${p.marks.map((m) => m.says).join(' ')}`.toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
</script>

<template>
  <div class="stack page">
    <div class="row title">
      <h1>{{ t('photos.title') }}</h1>
      <PhotoTaker v-if="!property.viewed" :of="{ on: { kind: 'property' } }" />
    </div>
    <p class="quiet">{{ t('photos.how') }}</p>
    <TextField
      v-if="all.length > 8"
      v-model="find"
      :aria-label="t('photos.find')"
      :placeholder="t('photos.find')"
      autocomplete="off"
    />
    <p v-if="all.length === 0" class="sheet">{{ t('photos.none') }}</p>
    <PhotoStrip :photos="found.slice(0, most)" />
    <p v-if="found.length > most">
      <AppButton @click="most += A_PAGE">{{ t('photos.more') }}</AppButton>
    </p>
  </div>
</template>

<style scoped>
.page {
  max-width: 880px;
}
.title {
  justify-content: space-between;
}
</style>
