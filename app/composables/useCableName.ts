import { useI18n } from 'vue-i18n'
import { getOrThrow, type CableId, type Site } from '../../core/site'

/** What a cable is called: its tag, its name, or the box that a lead goes to. */
export function useCableName(site: () => Site): (id: CableId) => string {
  const { t } = useI18n()
  return (id) => {
    const cable = getOrThrow(site().cables, id)
    return (
      cable.tag ?? (cable.name || t('sizes.leadTo', { box: getOrThrow(site().places, cable.stops.at(-1)!.place).tag }))
    )
  }
}
