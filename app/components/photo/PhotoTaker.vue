<script setup lang="ts">
import { usePhotos, type PhotoOf } from '../../composables/usePhotos'
import { usePhotoWords } from '../../composables/usePhotoWords'

/** Takes a photo or picks one; it is kept on this device first. */
const props = defineProps<{ of: PhotoOf; disabled?: boolean }>()
const emit = defineEmits<{ taken: [id: string] }>()
const { t } = usePhotoWords()
const { take } = usePhotos()
const [busy, bad] = [ref(false), ref('')]
async function chosen(file: File): Promise<void> {
  busy.value = true
  bad.value = ''
  const taken = await take(file, props.of).catch(() => 'not_kept' as const)
  busy.value = false
  if (typeof taken === 'string') bad.value = t(`photos.${taken}`, { name: file.name })
  else emit('taken', taken.id)
}
</script>

<template>
  <div class="photo-taker">
    <FileButton
      accept="image/*"
      :label="t(busy ? 'photos.taking' : 'photos.take')"
      :disabled="busy || disabled"
      @chosen="chosen"
    />
    <p v-if="bad" class="fault" role="alert">{{ bad }}</p>
  </div>
</template>
