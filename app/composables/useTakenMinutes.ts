import { COMPANY_RECORDS } from '../../core/company'
import type { TakenMinutes } from '../../core/quote'
import { fetchCompanyRecord, fetchTakenMinutes, putCompanyRecord } from '../lib/api'

/** How long the company’s own repairs really took, and whether quotes heed it: they do unless somebody says no. */
export function useTakenMinutes() {
  const taken = shallowRef<readonly TakenMinutes[]>([])
  const isTuned = ref(true)
  let revision: number | null = null
  async function load(): Promise<void> {
    const [minutes, tuning] = await Promise.all([
      fetchTakenMinutes(),
      fetchCompanyRecord('tuning', COMPANY_RECORDS.tuning),
    ])
    if (minutes.kind === 'ok') taken.value = minutes.value.taken
    if (tuning.kind !== 'ok') return
    revision = tuning.value.revision
    isTuned.value = tuning.value.record?.minutes ?? true
  }
  onMounted(load)
  /** For the whole company; what could not be kept stands as it was. */
  async function tune(minutes: boolean): Promise<void> {
    if (revision !== null) await putCompanyRecord('tuning', revision, { minutes })
    await load()
  }
  return { taken, isTuned, tune }
}
