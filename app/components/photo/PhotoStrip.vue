<script setup lang="ts">
import type { Shown } from '../../../core/record'
import { dayText } from '../../composables/useSpeaker'
import { usePhotoWords } from '../../composables/usePhotoWords'
import { usePhotos } from '../../composables/usePhotos'

/** Photos side by side; one that is tapped comes up large. */
defineProps<{ photos: readonly Shown[] }>()
const { t } = usePhotoWords()
const { placeTag } = usePhotos()
const open = ref<string | null>(null)
const said = (p: Shown) =>
  [p.says || t('photos.photo'), placeTag(p), dayText(p.photo.at)].filter((x) => x !== null).join(' · ')
</script>

<template>
  <ul class="strip">
    <li v-for="p in photos" :key="p.id">
      <AppButton look="bare" class="thumb" :aria-label="said(p)" @click="open = p.id">
        <PhotoImage
          :sha256="p.photo.thumb"
          :width="p.photo.width_px"
          :height="p.photo.height_px"
          :marks="p.marks"
          alt=""
        />
        <span class="said">{{ said(p) }}</span>
      </AppButton>
    </li>
    <PhotoView
      v-if="open && photos.some((p) => p.id === open)"
      :shown="photos.find((p) => p.id === open)!"
      @close="open = null"
    />
  </ul>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: 12px;
}
.thumb {
  width: 100%;
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.said {
  display: block;
  font-size: 13px;
  color: var(--quiet);
  overflow-wrap: anywhere;
}
</style>
