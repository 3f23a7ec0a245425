import { pathSectionsOf, type PathStrip } from '../../core/strip'
import { getOrThrow, wiringOf, type ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'

/** The stations of a path as strips, and what each is called; `tagOf` stands beside screws of the door in one query. */
export function usePathStrips(controller: () => ControllerId) {
  const property = useProperty()
  const site = computed(() => property.site!)
  const sections = computed(() => pathSectionsOf(site.value, wiringOf(site.value), controller()))
  return {
    sections,
    strips: computed(() => sections.value.flatMap((s) => s.strips)),
    // Where a number is given twice, the output that no station is meant for goes by its decoder.
    tagOf: (s: PathStrip) => (s.station === null ? `n${s.decoder}` : `n${s.address}`),
    nameOf: (s: PathStrip) =>
      s.station === null
        ? (getOrThrow(site.value.devices, s.decoder).tag ?? s.decoder)
        : getOrThrow(site.value.stations, s.station).name,
  }
}
