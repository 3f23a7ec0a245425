<script setup lang="ts">
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload'
import { useTemplateRef } from 'vue'

/** Opens a file of one's own; nothing is sent by it. The same file can be chosen again. */
defineProps<{ accept: string; label: string; disabled?: boolean }>()
const emit = defineEmits<{ chosen: [file: File] }>()
const upload = useTemplateRef<{ clear: () => void }>('upload')
function take({ files, originalEvent }: FileUploadSelectEvent): void {
  const file = (files as File[])[0]
  upload.value?.clear()
  ;(originalEvent.target as HTMLInputElement).value = ''
  if (file) emit('chosen', file)
}
</script>

<template>
  <FileUpload
    ref="upload"
    mode="basic"
    custom-upload
    :accept="accept"
    :disabled="disabled"
    :choose-label="label"
    :pt="{
      input: { hidden: true },
      pcChooseButton: { root: { class: 'button' } },
    }"
    @select="take"
  >
    <template #chooseicon><span hidden /></template>
    <template #filelabel><span hidden /></template>
  </FileUpload>
</template>
