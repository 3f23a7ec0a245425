import type { MapColours } from '../lib/map-view'

const read = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()

/** The page’s colours as a map takes them. */
export const mapColours = (): MapColours => ({
  ink: read('ink'),
  paper: read('paper'),
  sheet: read('sheet'),
  quiet: read('quiet'),
  copper: read('copper'),
  pine: read('fits'),
  ochre: read('doubtful'),
  brick: read('fault'),
})
export const mapFont = (): string => read('words')

/** Tells a map its colours anew when the page goes from light to dark. */
export function useMapColours(recolour: (colours: MapColours) => void): void {
  let watching: MutationObserver | null = null
  onMounted(() => {
    watching = new MutationObserver(() => recolour(mapColours()))
    watching.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
  })
  onBeforeUnmount(() => watching?.disconnect())
}
