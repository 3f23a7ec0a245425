<script setup lang="ts">
import InputText from 'primevue/inputtext'

/** A line of text in our own dress; attributes go to the field itself. */
const text = defineModel<string>()
</script>

<template>
  <InputText v-model="text" class="input" />
</template>
