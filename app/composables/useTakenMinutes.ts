import type { TakenMinutes } from '../../core/quote'
import { fetchTakenMinutes } from '../lib/api'
import { useTuning } from './useTuning'

/** How long the company’s own repairs really took, and whether quotes heed it: they do unless somebody says no. */
export function useTakenMinutes() {
  const taken = shallowRef<readonly TakenMinutes[]>([])
  const { tuning, tune } = useTuning()
  onMounted(async () => {
    const minutes = await fetchTakenMinutes()
    if (minutes.kind === 'ok') taken.value = minutes.value.taken
  })
  return { taken, isTuned: computed(() => tuning.value.minutes), tune: (minutes: boolean) => tune({ minutes }) }
}
