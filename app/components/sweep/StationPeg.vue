<script setup lang="ts">
/** The station whose reading is looked at: its terminal as on the strip, and its name. */
defineProps<{ tag: string; name: string }>()
</script>

<template>
  <p class="station">
    <span class="peg figure">{{ tag }}</span>
    <strong>{{ name }}</strong>
  </p>
</template>

<style scoped>
.station {
  display: flex;
  align-items: center;
  gap: 12px;
  font-size: 17px;
  margin-bottom: 8px;
}
.peg {
  min-width: 40px;
  text-align: center;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
  font-weight: 700;
  padding: 2px 6px;
}
</style>
