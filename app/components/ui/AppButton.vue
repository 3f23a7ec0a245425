<script setup lang="ts">
import Button from 'primevue/button'

/** What is pressed. `bare` has no dress: its place gives it one. Attributes go to the button itself. */
defineProps<{ look?: 'primary' | 'plain' | 'bare' }>()
</script>

<template>
  <Button :class="look === 'bare' ? undefined : ['button', look]">
    <slot />
  </Button>
</template>
