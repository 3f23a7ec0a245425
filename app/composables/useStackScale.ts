import { scaleLinear } from 'd3-scale'
import { useElementWidth } from './useElementWidth'

/** Right of a line, for its name. */
const ROOM_FOR_NAME = 150

/** Lines on top of each other to one scale: metres into pixels, as wide as the stack leaves beside pegs and figures. */
export function useStackScale(stack: Ref<HTMLElement | null>, farthest_m: () => number) {
  const full = useElementWidth(stack)
  const narrow = computed(() => full.value < 560)
  const width = computed(() => Math.max(120, full.value - (narrow.value ? 24 : 44 + 108 + 36)))
  const x = computed(() =>
    scaleLinear()
      .domain([0, Math.max(1, farthest_m())])
      .range([2, width.value - (narrow.value ? 30 : Math.min(ROOM_FOR_NAME, width.value / 4))]),
  )
  return { narrow, width, x }
}
