<script setup lang="ts">
/** The ends of the cores at one side, to be tapped; those that are taken stand pressed. */
defineProps<{ ends: readonly number[]; taken: readonly number[]; name: (end: number) => string; label: string }>()
const emit = defineEmits<{ tap: [end: number] }>()
</script>

<template>
  <div class="ends" role="group" :aria-label="label">
    <AppButton
      v-for="end in ends"
      :key="end"
      class="end"
      :class="{ taken: taken.includes(end) }"
      :aria-pressed="taken.includes(end)"
      @click="emit('tap', end)"
    >
      {{ name(end) }}
    </AppButton>
  </div>
</template>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(72px, 1fr));
  gap: 8px;
}
.end {
  min-height: 52px;
  padding: 4px 8px;
  font-size: 18px;
  font-variant-numeric: tabular-nums;
}
.end.taken {
  background: var(--copper-soft);
  border-color: var(--copper);
  font-weight: 700;
}
</style>
