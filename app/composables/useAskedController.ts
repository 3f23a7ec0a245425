import { byTag, entries, type ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'

/** The controller that a page's address asks for, else the first; null where the property has none. */
export function useAskedController() {
  const property = useProperty()
  const route = useRoute()
  const all = computed(() => entries(property.site!.controllers).sort(([, a], [, b]) => byTag(a.tag, b.tag)))
  const controller = computed(
    (): ControllerId | null => (all.value.find(([id]) => id === route.query.controller) ?? all.value[0])?.[0] ?? null,
  )
  return { all, controller }
}
