<script setup lang="ts">
import { getOrThrow, stationsByNumber, type ControllerId } from '../../../core/site'
import { useNewest } from '../../composables/useNewest'
import { useShownJob } from '../../composables/useShownJob'
import { dayText } from '../../composables/useSpeaker'
import { useSweep } from '../../composables/useSweep'
import { useProperty } from '../../stores/property'

/**
 * A controller's stations, each with the state that was read last, whenever that was. In a sweep its own stations
 * move the cursor there; all others lead to their threads.
 */
const props = defineProps<{ controller: ControllerId; selected: string | null }>()
const route = useRoute()
const property = useProperty()
const job = useShownJob(() => props.controller)
const { rows } = useSweep(
  () => props.controller,
  () => job.value,
)
const newest = useNewest(() => props.controller)
const sweeping = computed(() => typeof route.params.job === 'string' && route.params.job === job.value)
const to = computed(() => (sweeping.value ? route.path : `/p/${String(route.params.id)}`))
const numbered = computed(() => stationsByNumber(property.site!, props.controller))
const here = computed(() => getOrThrow(property.site!.controllers, props.controller))
</script>

<template>
  <section>
    <p class="group">
      <span>{{ here.name }}</span>
      <span>{{ rows.length + numbered.length }}</span>
    </p>
    <ul>
      <li v-for="row in rows" :key="row.terminal">
        <NuxtLink
          class="station"
          :class="{ selected: selected === `${here.tag}:${row.tag}` }"
          :title="newest.has(row.terminal) ? dayText(newest.get(row.terminal)!.past.reading.at) : undefined"
          :to="{ path: to, query: { ...(to === route.path ? route.query : {}), station: `${here.tag}:${row.tag}` } }"
        >
          <span class="tag figure">{{ row.tag }}</span>
          <span class="name">{{ row.name }}</span>
          <StateMark :state="newest.get(row.terminal)?.state ?? 'none'" />
        </NuxtLink>
      </li>
      <li v-for="s in numbered" :key="s.address">
        <NuxtLink
          class="station"
          :class="{ selected: selected === `${here.tag}:n${s.address}` }"
          :prefetch="false"
          :to="{ path: `/p/${String(route.params.id)}`, query: { station: `${here.tag}:n${s.address}` } }"
        >
          <span class="tag figure">{{ s.address }}</span>
          <span class="name">{{ s.name }}</span>
          <StateMark state="none" />
        </NuxtLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.group {
  display: flex;
  justify-content: space-between;
  padding: 16px 16px 6px;
  font-size: 13px;
  font-weight: 700;
  color: var(--quiet);
}
.station {
  display: grid;
  grid-template-columns: 30px 1fr 20px;
  align-items: center;
  min-height: 26px;
  padding: 0 16px 0 13px;
  border-left: 3px solid transparent;
  color: inherit;
  text-decoration: none;
  font-size: 14px;
}
.station .tag {
  color: var(--quiet);
  font-size: 13px;
}
.station .name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.station:hover {
  background: var(--paper);
}
.station.selected {
  background: var(--copper-soft);
  border-color: var(--copper);
}
</style>
