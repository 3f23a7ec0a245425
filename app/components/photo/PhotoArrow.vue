<script setup lang="ts">
import type { PhotoMark } from '../../../core/record'

/** An arrow on a picture with its word at the tail, cased so that it shows on any ground. */
const props = defineProps<{ mark: PhotoMark; width: number; height: number }>()
const ends = computed(() => {
  const { mark, width, height } = props
  const [x1, y1, x2, y2] = [mark.from.x * width, mark.from.y * height, mark.to.x * width, mark.to.y * height]
  const thick = Math.max(width, height) / 160
  const turn = Math.atan2(y2 - y1, x2 - x1)
  const head = [turn + 2.6, turn - 2.6].map((a) => `${x2 + Math.cos(a) * thick * 5} ${y2 + Math.sin(a) * thick * 5}`)
  return { x1, y1, x2, y2, thick, path: `M${x1} ${y1} L${x2} ${y2} M${head[0]} L${x2} ${y2} L${head[1]}` }
})
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
