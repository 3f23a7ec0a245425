<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { mapColours, mapFont, useMapColours } from '../../composables/useMapColours'
import { PropertyMap, type MapEvents, type MapMode, type MapThing } from '../../lib/map-view'
import type { MapOverlay } from '../../lib/map-overlay'
import type { Point, Site, Underlay } from '../../../core/site'

/** The map itself; what is done on it is told to the page, which keeps it. */
const props = defineProps<{
  site: Site
  mode: MapMode
  chosen: MapThing | null
  picture: ImageBitmap | null
  underlay: Underlay | null
  /** What is laid over it; then the map opens on that. */
  over?: MapOverlay | null
}>()
const emit = defineEmits<{
  chose: Parameters<MapEvents['chose']>
  clicked: Parameters<MapEvents['clicked']>
  moved: Parameters<MapEvents['moved']>
  bent: Parameters<MapEvents['bent']>
  drew: Parameters<MapEvents['drew']>
}>()
const { t } = useI18n()
const frame = useTemplateRef<{ element: HTMLElement }>('frame')
let map: PropertyMap | null = null
useMapColours((colours) => map?.recolour(colours))
onMounted(() => {
  map = new PropertyMap(
    frame.value!.element,
    {
      chose: (thing) => emit('chose', thing),
      clicked: (at) => emit('clicked', at),
      moved: (place, to) => emit('moved', place, to),
      bent: (cable, stop, bends) => emit('bent', cable, stop, bends),
      drew: (line) => emit('drew', line),
    },
    mapColours(),
    mapFont(),
  )
  map.show(props.site, props.site.settings.units.length)
  map.setPicture(props.picture, props.underlay)
  map.setMode(props.mode)
  map.fit()
  if (props.over) {
    map.showOverlay(props.over)
    map.fitOverlay()
  }
})
onBeforeUnmount(() => {
  map?.dispose()
  map = null
})
watch(
  () => props.site,
  (site) => map?.show(site, site.settings.units.length),
)
watch(
  () => props.over,
  (over) => map?.showOverlay(over ?? null),
)
watch(
  () => props.mode,
  (mode) => map?.setMode(mode),
)
watch(
  () => props.chosen,
  (chosen) => {
    map?.choose(chosen)
    if (props.mode === 'bend') map?.setMode('bend')
  },
  { deep: true },
)
watch(
  () => [props.picture, props.underlay] as const,
  ([picture, underlay]) => map?.setPicture(picture, underlay),
)
defineExpose({
  fit: () => map?.fit(),
  fitOverlay: () => map?.fitOverlay(),
  finish: () => map?.finish(),
  centre: (at: Point) => map?.centre(at),
  pictureSpot: (at: Point) => map?.pictureSpot(at) ?? null,
})
</script>

<template>
  <MapFrame ref="frame" :label="t('map.area')" />
</template>
