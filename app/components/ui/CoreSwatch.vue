<script setup lang="ts">
import { shadesOf } from '../../lib/colours'

/** A short piece of a core in its recorded colour, cased in ink; dashed where no colour is on record. */
const props = defineProps<{ colour: string | null; width?: number }>()
const shade = computed(() => shadesOf(props.colour))
const long = computed(() => props.width ?? 28)
</script>

<template>
  <svg class="swatch" :width="long" height="14" aria-hidden="true">
    <line class="case" x1="2" :x2="long - 2" y1="7" y2="7" />
    <line class="core" :class="{ unknown: !shade.known }" x1="3" :x2="long - 3" y1="7" y2="7" :stroke="shade.main" />
    <line v-if="shade.stripe" class="stripe" x1="3" :x2="long - 3" y1="7" y2="7" :stroke="shade.stripe" />
  </svg>
</template>

<style scoped>
.swatch {
  display: inline-block;
  vertical-align: middle;
  flex: none;
}
.case {
  stroke: var(--ink);
  stroke-width: 10;
}
.core {
  stroke-width: 7;
}
.core.unknown {
  stroke-dasharray: 4 3;
}
.stripe {
  stroke-width: 7;
  stroke-dasharray: 4 7;
}
</style>
