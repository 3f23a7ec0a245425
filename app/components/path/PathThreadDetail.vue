<script setup lang="ts">
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import type { AlongPath } from '../../../core/path'
import { inUnit, ohmsText } from '../../../core/quantity'
import { getOrThrow, pathOf, type ControllerId, type DeviceId } from '../../../core/site'
import type { PathStrip } from '../../../core/strip'
import { useElementWidth } from '../../composables/useElementWidth'
import { usePathPage } from '../../composables/usePath'

/**
 * What can be read of a station behind a decoder, where C–n cannot: volts along the way,
 * amperes, lamp, coil at the box.
 */
const props = defineProps<{ controller: ControllerId; along: AlongPath; strip: PathStrip; name: string }>()
const { site, t } = usePathPage()
const route = useRoute()
const unit = computed(() => site.value.settings.units.length)
const holder = ref<HTMLElement | null>(null)
const width = useElementWidth(holder)
const [HEIGHT, LEFT, RIGHT, TOP, BOTTOM, LABEL] = [180, 40, 12, 12, 26, 26]
const x = computed(() =>
  scaleLinear()
    .domain([0, Math.max(1, inUnit(props.along.running.at(-1)?.at_m ?? 1, unit.value))])
    .range([LEFT, Math.max(LEFT + 60, width.value - RIGHT)]),
)
const y = computed(() => {
  const all = [...props.along.running, ...props.along.waiting].map((p) => p.volt_V)
  return scaleLinear()
    .domain([Math.min(props.along.minimum_V, ...all) - 0.5, Math.max(...all) + 0.5])
    .nice(4)
    .range([HEIGHT - BOTTOM, TOP])
})
const drawn = computed(() =>
  line<{ at_m: number; volt_V: number }>(
    (p) => x.value(inUnit(p.at_m, unit.value)),
    (p) => y.value(p.volt_V),
  ),
)
/** Boxes whose names have room beside the one before. */
const labelled = computed(() =>
  props.along.running.reduce<(typeof props.along.running)[number][]>((kept, p) => {
    const last = kept.at(-1)
    const at = (q: { at_m: number }) => x.value(inUnit(q.at_m, unit.value))
    return last && at(p) - at(last) < LABEL ? kept : [...kept, p]
  }, []),
)
const isDead = computed(() => pathOf(site.value, props.controller)?.system?.idle === 'dead')
const tagOf = (id: DeviceId) => getOrThrow(site.value.devices, id).tag ?? id
const box = computed(() => getOrThrow(site.value.devices, props.strip.decoder).place)
const boxTag = computed(() => getOrThrow(site.value.places, box.value).tag)
const number = computed(() => props.strip.address ?? '–')
const end_V = (points: AlongPath['running']) => points.at(-1)?.volt_V ?? 0
const lines = computed(() => [
  {
    words: t(isDead.value ? 'twoWire.threads.dead' : 'twoWire.threads.waiting', { box: boxTag.value }),
    figure: `${isDead.value ? '0' : end_V(props.along.waiting).toFixed(1)} V`,
  },
  {
    words: t('twoWire.threads.running', { box: boxTag.value, number: number.value }),
    figure: `${end_V(props.along.running).toFixed(1)} V`,
  },
  {
    words: t('twoWire.threads.adds', { number: number.value }),
    figure: `${(props.along.running_A - (isDead.value ? 0 : props.along.waiting_A)).toFixed(2)} A`,
  },
  { words: t('twoWire.threads.lamp', { decoder: tagOf(props.strip.decoder) }), figure: String(number.value) },
  ...props.along.coils.map((c) => ({
    words: t('twoWire.threads.coil', { coil: tagOf(c.coil), box: boxTag.value }),
    figure: `${ohmsText(c.ohm)} Ω`,
  })),
])
const find = computed(() => ({
  path: `/p/${String(route.params.id)}/path`,
  query: { controller: props.controller, show: 'find' },
}))
</script>

<template>
  <section class="stack" :aria-label="name">
    <h2>{{ number }} {{ name }}</h2>
    <p class="quiet">{{ t('twoWire.threads.notReadable') }}</p>
    <FigureList :rows="lines" :row-key="(l) => l.words">
      <template #words="{ row: l }">{{ l.words }}</template>
      <template #figure="{ row: l }">{{ l.figure }}</template>
    </FigureList>
    <figure ref="holder">
      <svg
        :width="width"
        :height="HEIGHT"
        role="img"
        :aria-label="t('twoWire.threads.chart', { name, volt: end_V(along.running).toFixed(1) })"
      >
        <g v-for="tick in y.ticks(4)" :key="`y${tick}`">
          <line class="grid" :x1="LEFT" :x2="width - RIGHT" :y1="y(tick)" :y2="y(tick)" />
          <text class="tick figure" :x="LEFT - 6" :y="y(tick) + 4" text-anchor="end">{{ tick }}</text>
        </g>
        <text
          v-for="p in labelled"
          :key="p.place"
          class="tick"
          :x="x(inUnit(p.at_m, unit))"
          :y="HEIGHT - 8"
          text-anchor="middle"
        >
          {{ getOrThrow(site.places, p.place).tag }}
        </text>
        <line class="least" :x1="LEFT" :x2="width - RIGHT" :y1="y(along.minimum_V)" :y2="y(along.minimum_V)" />
        <path class="waits" :d="drawn([...along.waiting]) ?? ''" />
        <path class="runs" :d="drawn([...along.running]) ?? ''" />
        <circle
          v-for="p in along.running"
          :key="`c${p.place}`"
          class="point"
          :cx="x(inUnit(p.at_m, unit))"
          :cy="y(p.volt_V)"
          r="3.5"
        />
      </svg>
      <figcaption class="quiet">{{ t('twoWire.threads.chartHow', { volt: along.minimum_V }) }}</figcaption>
    </figure>
    <p class="row">
      <NuxtLink class="button" :prefetch="false" :to="find">{{ t('twoWire.threads.toFind') }}</NuxtLink>
      <NuxtLink class="button" :prefetch="false" :to="`/p/${String(route.params.id)}/boxes/${box}`">
        {{ t('twoWire.threads.toBox', { box: boxTag }) }}
      </NuxtLink>
    </p>
  </section>
</template>

<style scoped>
.grid {
  stroke: var(--rule);
}
.tick {
  font-size: 12px;
  fill: var(--quiet);
}
.least {
  stroke: var(--fault);
  stroke-dasharray: 6 4;
}
.runs,
.waits {
  fill: none;
  stroke: var(--copper);
  stroke-width: 2.5;
}
.waits {
  stroke: var(--quiet);
  stroke-width: 1.5;
  stroke-dasharray: 3 4;
}
.point {
  fill: var(--copper);
}
</style>
