<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Looking, Sort } from '../../../core/company'
import { mapColours, mapFont, useMapColours } from '../../composables/useMapColours'
import type { Row } from '../../composables/useOffice'
import type { Listed } from '../../lib/api'
import { asksOf } from '../../lib/asks'
import { OfficeMap, type Spot } from '../../lib/office-map'
import { today } from '../../lib/today'

/** The properties of the list where they lie; those of a mark that is chosen stand below, as in the list. */
const props = defineProps<{ rows: readonly Row[]; looking: Looking; unsent: ReadonlyMap<string, number> }>()
const emit = defineEmits<{ seen: [from: number, to: number]; sort: [by: Sort, down: boolean] }>()
const { t } = useI18n()

const come = computed(() => props.rows.flatMap((r): Listed[] => ('gap' in r ? [] : [r])))
const spots = computed(() =>
  come.value.flatMap((p): Spot[] => {
    const { id, name, latitude_deg, longitude_deg } = p
    if (latitude_deg === null || longitude_deg === null) return []
    const asks = asksOf(p, today())
    const ask = asks.some((a) => a.urgent) ? 'urgent' : asks.length > 0 ? 'some' : 'none'
    return [{ id, name, latitude_deg, longitude_deg, ask }]
  }),
)
const chosen = shallowRef<readonly string[]>([])
const chosenRows = computed(() => come.value.filter((p) => chosen.value.includes(p.id)))

const frame = useTemplateRef<{ element: HTMLElement }>('frame')
let map: OfficeMap | null = null
useMapColours((colours) => map?.recolour(colours))
onMounted(() => {
  const choose = (ids: readonly string[]) => {
    chosen.value = ids
  }
  map = new OfficeMap(frame.value!.element, choose, mapColours(), mapFont())
  draw()
})
onBeforeUnmount(() => {
  map?.dispose()
  map = null
})
/** All of them are brought into sight when the last has come; until then nobody's look is turned away. */
function draw(): void {
  map?.show(spots.value)
  if (come.value.length === props.rows.length) map?.fit()
}
/** All of the list is wanted at once. */
watch(
  () => props.rows,
  (rows, before) => {
    const gap = rows.findIndex((r) => 'gap' in r)
    if (gap >= 0 && rows.length !== before?.length) emit('seen', gap, rows.length - 1)
  },
  { immediate: true },
)
watch(spots, draw)
watch(chosen, (ids) => map?.choose(ids))
</script>

<template>
  <div class="stack">
    <div class="map-height">
      <MapFrame ref="frame" :label="t('properties.map')" />
    </div>
    <p class="quiet">
      {{ t('properties.mapHow') }}
      <template v-if="come.length > spots.length">
        {{ t('properties.nowhere', come.length - spots.length) }}
      </template>
    </p>
    <PropertyTable
      v-if="chosenRows.length > 0"
      :rows="chosenRows"
      :looking="looking"
      :unsent="unsent"
      @sort="(by, down) => emit('sort', by, down)"
    />
  </div>
</template>

<style scoped>
.map-height {
  height: clamp(280px, 52vh, 620px);
}
</style>
