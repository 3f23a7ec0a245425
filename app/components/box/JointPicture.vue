<script setup lang="ts">
import type { BoxJoint, Seen } from '../../../core/splice'
import { useElementWidth } from '../../composables/useElementWidth'
import { shadesOf } from '../../lib/colours'

/**
 * Who is joined to whom: conductors from the cabinet on the left, onward and to the devices on the right, connectors
 * between.
 */
const props = defineProps<{ joint: BoxJoint; label: (seen: Seen) => string; says: string }>()
const frame = ref<HTMLElement | null>(null)
const width = useElementWidth(frame)
const [ROW, GAP, BODY] = [36, 18, 56]
const middle = computed(() => Math.round(width.value / 2))

interface Drawn {
  seen: Seen
  y: number
  left: boolean
  shade: ReturnType<typeof shadesOf>
  text: string
}
const blocks = computed(() => {
  let top = 4
  return props.joint.holds.map(({ splice, record, misfit }) => {
    const mine = props.joint.ends.filter((s) => record.ends.some((e) => JSON.stringify(e) === JSON.stringify(s.end)))
    const [left, right] = [
      mine.filter((s) => s.way === 'arrives' || s.way === 'terminal'),
      mine.filter((s) => s.way !== 'arrives' && s.way !== 'terminal'),
    ]
    const rows = Math.max(left.length, right.length, 1)
    const y = top
    const height = rows * ROW
    top += height + GAP
    const drawn = (list: Seen[], isLeft: boolean): Drawn[] =>
      list.map((seen, i) => ({
        seen,
        y: y + (i + 0.5) * (height / list.length),
        left: isLeft,
        shade: shadesOf(seen.colour),
        text: props.label(seen),
      }))
    const jumpers = record.ends.flatMap((e) =>
      e.kind === 'core' && !mine.some((s) => JSON.stringify(s.end) === JSON.stringify(e)) ? [e.cable as string] : [],
    )
    return {
      splice,
      y,
      height,
      kind: record.connector,
      bad: misfit !== null,
      conductors: [...drawn(left, true), ...drawn(right, false)],
      jumpers,
    }
  })
})
const links = computed(() => {
  const found: { from: number; to: number }[] = []
  blocks.value.forEach((b, i) =>
    b.jumpers.forEach((j) => {
      const to = blocks.value.findIndex((o, k) => k > i && o.jumpers.includes(j))
      if (to > i) found.push({ from: i, to })
    }),
  )
  return found
})
const height = computed(() => {
  const last = blocks.value.at(-1)
  return last ? last.y + last.height + 4 : 0
})
function body(block: (typeof blocks.value)[number]): string {
  const [l, r, t, b] = [middle.value - BODY / 2, middle.value + BODY / 2, block.y + 4, block.y + block.height - 4]
  if (block.kind === 'nut_and_gel_tube' || block.kind === 'gel_nut' || block.kind === 'dry_nut')
    return `M${l + 10} ${t} H${r - 10} L${r} ${b} H${l} Z`
  return `M${l} ${t + 4} q0 -4 4 -4 H${r - 4} q4 0 4 4 V${b - 4} q0 4 -4 4 H${l + 4} q-4 0 -4 -4 Z`
}
function jumper({ from, to }: { from: number; to: number }): string {
  const [a, b] = [blocks.value[from]!, blocks.value[to]!]
  if (to === from + 1) return `M${middle.value} ${a.y + a.height - 8} V${b.y + 8}`
  const [at, out] = [middle.value + 10, middle.value + BODY / 2 + 14]
  return `M${at} ${a.y + a.height - 10} C${out} ${a.y + a.height} ${out} ${b.y} ${at} ${b.y + 10}`
}
</script>

<template>
  <div ref="frame" class="frame">
    <svg v-if="width > 0" :width="width" :height="height" role="img" :aria-label="says">
      <g v-for="block in blocks" :key="block.splice">
        <template v-for="(c, i) in block.conductors" :key="i">
          <line class="case" :x1="c.left ? 0 : middle" :x2="c.left ? middle : width" :y1="c.y" :y2="c.y" />
          <line
            class="core"
            :class="{ unknown: !c.shade.known }"
            :x1="c.left ? 1 : middle"
            :x2="c.left ? middle : width - 1"
            :y1="c.y"
            :y2="c.y"
            :stroke="c.shade.main"
          />
          <line
            v-if="c.shade.stripe"
            class="stripe"
            :x1="c.left ? 1 : middle"
            :x2="c.left ? middle : width - 1"
            :y1="c.y"
            :y2="c.y"
            :stroke="c.shade.stripe"
          />
          <circle v-if="c.seen.way === 'device'" class="coil" :cx="width - 6" :cy="c.y" r="5" />
          <text class="label" :x="c.left ? 2 : width - 2" :y="c.y - 9" :text-anchor="c.left ? 'start' : 'end'">
            {{ c.text }}
          </text>
        </template>
      </g>
      <path v-for="(l, i) in links" :key="i" class="case" :d="jumper(l)" fill="none" />
      <path v-for="(l, i) in links" :key="`j${i}`" class="jumper" :d="jumper(l)" fill="none" />
      <g v-for="block in blocks" :key="`b${block.splice}`">
        <path class="body" :class="{ open: block.kind === 'unknown', bad: block.bad }" :d="body(block)" />
        <g v-if="block.kind === 'gel_crimp_3'">
          <circle v-for="n in 3" :key="n" class="port" :cx="middle" :cy="block.y + (block.height * n) / 4" r="3" />
        </g>
        <text
          v-else-if="block.kind === 'unknown'"
          class="sign"
          :x="middle"
          :y="block.y + block.height / 2 + 6"
          text-anchor="middle"
        >
          ?
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  width: 100%;
  min-height: 40px;
}
svg {
  display: block;
}
.case {
  stroke: var(--ink);
  stroke-width: 8;
}
.core {
  stroke-width: 5;
}
.core.unknown {
  stroke-dasharray: 7 5;
}
.stripe {
  stroke-width: 5;
  stroke-dasharray: 6 10;
}
.jumper {
  stroke: #b9b4a8;
  stroke-width: 5;
}
.coil {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.body {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
.body.open {
  stroke-dasharray: 4 4;
}
.body.bad {
  stroke: var(--fault);
  stroke-width: 3;
}
.port {
  fill: var(--ink);
}
.sign {
  font-weight: 700;
  font-size: 18px;
  fill: var(--ink);
}
.label {
  font-size: 14px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 3px;
}
@media (max-width: 759px) {
  .label {
    font-size: 15px;
  }
}
</style>
