<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { PropertyMap, type MapColours, type MapEvents, type MapMode, type MapThing } from '../../lib/map-view'
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
const target = ref<HTMLElement | null>(null)
let map: PropertyMap | null = null
const read = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()
const colours = (): MapColours => ({
  ink: read('ink'),
  paper: read('paper'),
  sheet: read('sheet'),
  quiet: read('quiet'),
  copper: read('copper'),
  pine: read('fits'),
  ochre: read('doubtful'),
  brick: read('fault'),
})
let watching: MutationObserver | null = null
onMounted(() => {
  map = new PropertyMap(
    target.value!,
    {
      chose: (thing) => emit('chose', thing),
      clicked: (at) => emit('clicked', at),
      moved: (place, to) => emit('moved', place, to),
      bent: (cable, stop, bends) => emit('bent', cable, stop, bends),
      drew: (line) => emit('drew', line),
    },
    colours(),
    read('words'),
  )
  map.show(props.site, props.site.settings.units.length)
  map.setPicture(props.picture, props.underlay)
  map.setMode(props.mode)
  map.fit()
  if (props.over) {
    map.showOverlay(props.over)
    map.fitOverlay()
  }
  watching = new MutationObserver(() => map?.recolour(colours()))
  watching.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
})
onBeforeUnmount(() => {
  watching?.disconnect()
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
  <div ref="target" class="board" tabindex="0" role="application" :aria-label="t('map.area')" />
</template>

<style scoped>
.board {
  position: relative;
  width: 100%;
  height: 100%;
  background: var(--paper);
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  overflow: hidden;
}
.board :deep(.ol-zoom) {
  top: 8px;
  left: 8px;
  background: none;
}
.board :deep(.ol-zoom button) {
  width: 40px;
  height: 40px;
  font-size: 20px;
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--rule);
}
.board :deep(.ol-scale-line) {
  background: var(--sheet);
  bottom: 8px;
  left: 8px;
}
.board :deep(.ol-scale-line-inner) {
  color: var(--ink);
  border-color: var(--ink);
  font: 13px var(--figures);
}
@media (max-width: 759px) {
  .board :deep(.ol-zoom button) {
    width: 48px;
    height: 48px;
  }
}
</style>
