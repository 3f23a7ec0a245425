<script setup lang="ts">
import type { PhotoMark } from '../../../core/record'
import { pictureOf } from '../../lib/pictures'
import { useProperty } from '../../stores/property'

/** A picture by its address, with what is drawn over it; from this device where it is here. */
const props = defineProps<{
  sha256: string
  width: number
  height: number
  alt: string
  marks?: readonly PhotoMark[]
}>()
const property = useProperty()
const url = ref<string | null>(null)
const missing = ref(false)
function letGo(): void {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = null
}
watch(
  () => props.sha256,
  async (sha256) => {
    letGo()
    missing.value = false
    const blob = await pictureOf(property.held!.id, sha256).catch(() => null)
    if (sha256 !== props.sha256) return
    missing.value = blob === null
    url.value = blob && URL.createObjectURL(blob)
  },
  { immediate: true },
)
onBeforeUnmount(letGo)
</script>

<template>
  <span class="photo-image" :style="{ aspectRatio: `${width} / ${height}` }">
    <img v-if="url" :src="url" :alt="alt" draggable="false" />
    <span v-else class="waiting quiet">{{ missing ? '–' : '…' }}</span>
    <svg v-if="marks && marks.length > 0" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
      <PhotoArrow v-for="(m, i) in marks" :key="i" :mark="m" :width="width" :height="height" />
    </svg>
  </span>
</template>

<style scoped>
.photo-image {
  position: relative;
  display: block;
  width: 100%;
  background: var(--key-bed);
  border-radius: var(--corner);
  overflow: hidden;
}
.photo-image img,
.photo-image svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.waiting {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
}
</style>
