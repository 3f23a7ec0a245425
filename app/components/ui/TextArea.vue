<script setup lang="ts">
import Textarea from 'primevue/textarea'
import { useTemplateRef } from 'vue'

/** Lines of text in our own dress; attributes go to the field itself. */
const text = defineModel<string>()
const field = useTemplateRef<{ $el: HTMLTextAreaElement }>('field')
defineExpose({ focus: () => field.value?.$el.focus() })
</script>

<template>
  <Textarea ref="field" v-model="text" class="input" spellcheck="false" />
</template>
