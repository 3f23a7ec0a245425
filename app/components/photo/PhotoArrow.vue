<script setup lang="ts">
import type { PhotoMark } from '../../../core/record'
import { arrowOf } from '../../lib/photo-arrow'

/** An arrow on a picture with its word at the tail, cased so that it shows on any ground. */
const props = defineProps<{ mark: PhotoMark; width: number; height: number }>()
const ends = computed(() => arrowOf(props.mark, props.width, props.height))
</script>

<template>
  <g>
    <path :d="ends.path" fill="none" stroke="#fff" :stroke-width="ends.thick * 2.4" stroke-linecap="round" />
    <path :d="ends.path" fill="none" stroke="#98221a" :stroke-width="ends.thick" stroke-linecap="round" />
    <text
      v-if="mark.says"
      :x="ends.x1"
      :y="ends.y1 - ends.thick * 2"
      :font-size="ends.thick * 7"
      text-anchor="middle"
      fill="#98221a"
      stroke="#fff"
      :stroke-width="ends.thick"
      paint-order="stroke"
      font-weight="700"
    >
      {{ mark.says }}
    </text>
  </g>
</template>
